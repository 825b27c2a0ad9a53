import { Finding, stop } from '../quantity/finding';
import { formatNumber, LengthUnit, MM_PER_INCH } from '../quantity/units';
import { Controller, CycleKind } from '../shop/controller';
import { Coolant } from '../shop/machine';
import { Tool, lengthOffsetOf } from '../shop/tool';
import { expandCycle } from '../toolpath/cycle';
import { DrillCycle } from '../toolpath/operation';
import { ARC_CW, LINE, Path, RAPID, sweepOf } from '../toolpath/path';

/** One operation ready to be written; coordinates already relative to the work zero. */
export interface Step {
  operationId: string;
  name: string;
  tool: Tool;
  rpm: number;
  coolant: Coolant;
  path: Path;
  cycle?: DrillCycle;
}

export interface WriteOptions {
  name: string;
  number: number;
  unit: LengthUnit;
  workOffset: string;
  lineNumbers: boolean;
}

export interface Program {
  fileName: string;
  text: string;
  /** Tool numbers it uses, in order. */
  tools: number[];
  /** From this line (counted from 1) the program belongs to this operation. */
  sections: { line: number; operationId: string }[];
}

export interface Written {
  programs: Program[];
  findings: Finding[];
}

/** An arc shorter than this is written as a straight, so that rounding cannot turn it into a full circle, mm. */
const SHORTEST_ARC = 0.01;

/** What the control lacks for this job, at the value that causes it. */
export function capabilityFindings(controller: Controller, steps: Step[], options: WriteOptions): Finding[] {
  const findings: Finding[] = [];
  if (!controller.workOffsets.includes(options.workOffset)) {
    findings.push(
      stop(
        'no-work-offset',
        `${controller.name} has no work offset ${options.workOffset}`,
        `Choose one of ${controller.workOffsets.join(', ')}`,
        { field: 'workOffset' },
      ),
    );
  }
  for (const step of steps) {
    if (step.coolant !== 'off' && !controller.coolant[step.coolant]) {
      const known = Object.keys(controller.coolant).join(', ') || 'none';
      findings.push(
        stop(
          'no-coolant',
          `“${step.name}” asks for ${step.coolant}, which ${controller.name} cannot switch`,
          `Choose off or one of: ${known}`,
          { operation: step.operationId, field: 'coolant' },
        ),
      );
    }
  }
  return findings;
}

class Writer {
  private readonly lines: string[] = [];
  private readonly sections: Program['sections'] = [];
  private n = 0;
  private last: Record<string, string> = {};
  private at = { x: NaN, y: NaN, z: NaN };

  constructor(
    private readonly controller: Controller,
    private readonly options: WriteOptions,
  ) {}

  private get decimals() {
    return this.options.unit === 'mm' ? this.controller.decimals.mm : this.controller.decimals.inch;
  }

  private scaled(mm: number): number {
    return Number((this.options.unit === 'mm' ? mm : mm / MM_PER_INCH).toFixed(this.decimals));
  }

  /** A number as a control reads it: always with a decimal point, never "-0". */
  private static text(value: number, digits: number): string {
    const fixed = value.toFixed(digits);
    const trimmed = fixed.includes('.') ? fixed.replace(/0+$/, '') : `${fixed}.`;
    return /^-0?\.?0*$/.test(trimmed) ? '0.' : trimmed;
  }

  private length(mm: number): string {
    return Writer.text(this.scaled(mm), this.decimals);
  }

  private feedText(mmPerMin: number): string {
    return Writer.text(this.options.unit === 'mm' ? mmPerMin : mmPerMin / MM_PER_INCH, this.controller.decimals.feed);
  }

  block(text: string): void {
    if (!this.options.lineNumbers || text.startsWith('%') || text.startsWith('O')) this.lines.push(text);
    else this.lines.push(`N${(this.n += this.controller.lineNumbers.step)} ${text}`);
  }

  comment(text: string): void {
    const { open, close, upperCase } = this.controller.comment;
    const plain = text
      .normalize('NFKD')
      .replace(/[“”„]/g, '"')
      .replace(/[’‘]/g, "'")
      .replace(/[–—]/g, '-')
      .replace(/°/g, ' DEG')
      .replace(/[^\x20-\x7e]/g, '')
      .replace(/[()%;]/g, '');
    this.lines.push(`${open}${upperCase ? plain.toUpperCase() : plain}${close}`);
  }

  private word(letter: string, text: string): string {
    if (this.last[letter] === text) return '';
    this.last[letter] = text;
    return letter + text;
  }

  private join(words: string[]): void {
    const text = words.filter(Boolean).join(' ');
    if (text) this.block(text);
  }

  private move(code: string, x: number, y: number, z: number, tail: string[]): void {
    const words = [this.word('X', this.length(x)), this.word('Y', this.length(y)), this.word('Z', this.length(z))];
    if (words.every((w) => !w) && tail.every((w) => !w.startsWith('I'))) return;
    const g = this.last.G === code ? '' : code;
    this.last.G = code;
    this.join([g, ...words, ...tail]);
    this.at = { x, y, z };
  }

  private arc(kind: number, x: number, y: number, z: number, cx: number, cy: number, feed: string): void {
    const sweep = sweepOf(kind, this.at.x, this.at.y, x, y, cx, cy);
    const radius = Math.hypot(x - cx, y - cy);
    if (Math.abs(sweep) * radius < SHORTEST_ARC) return this.move('G1', x, y, z, [feed]);
    const digits = this.decimals;
    const i = Writer.text(this.scaled(cx) - this.scaled(this.at.x), digits);
    const j = Writer.text(this.scaled(cy) - this.scaled(this.at.y), digits);
    this.move(kind === ARC_CW ? 'G2' : 'G3', x, y, z, [`I${i}`, `J${j}`, feed]);
  }

  path(path: Path): void {
    for (let i = 0; i < path.count; i++) {
      const [x, y, z] = [path.x[i], path.y[i], path.z[i]];
      if (path.kind[i] === RAPID) {
        this.move('G0', x, y, z, []);
        continue;
      }
      const feed = this.word('F', this.feedText(path.feed[i]));
      if (path.kind[i] === LINE) this.move('G1', x, y, z, [feed]);
      else this.arc(path.kind[i], x, y, z, path.cx[i], path.cy[i], feed);
      if (feed && !this.lines[this.lines.length - 1].includes(feed)) this.last.F = '';
    }
  }

  cycle(cycle: DrillCycle, code: string): void {
    const [first] = cycle.holes;
    this.move('G0', first.x, first.y, cycle.clearance, []);
    const tail: Record<CycleKind, string[]> = {
      drill: [],
      spot: cycle.dwell > 0 ? [`P${Math.round(cycle.dwell * 1000)}`] : [],
      peck: [`Q${this.length(cycle.peck)}`],
      'chip-break': [`Q${this.length(cycle.peck)}`],
    };
    cycle.holes.forEach((hole, i) => {
      const z = this.length(hole.z);
      const xy = [`X${this.length(hole.x)}`, `Y${this.length(hole.y)}`];
      if (i === 0)
        this.join([
          `G98 ${code}`,
          ...xy,
          `Z${z}`,
          `R${this.length(cycle.start)}`,
          ...tail[cycle.kind],
          `F${this.feedText(cycle.feed)}`,
        ]);
      else this.join([...xy, z === this.length(cycle.holes[i - 1].z) ? '' : `Z${z}`]);
    });
    this.block('G80');
    const last = cycle.holes[cycle.holes.length - 1];
    this.forget();
    this.at = { x: last.x, y: last.y, z: cycle.clearance };
    this.last.X = this.length(last.x);
    this.last.Y = this.length(last.y);
    this.last.Z = this.length(cycle.clearance);
  }

  /** After anything that changes modal state, write every word again. */
  private forget(): void {
    this.last = {};
  }

  private startTool(step: Step): void {
    const { controller, options } = this;
    const { tool } = step;
    this.comment(`T${tool.number} ${tool.name}, D${formatNumber(tool.diameter, 3)}`);
    if (controller.toolChange === 'automatic') this.block(`T${tool.number} M6`);
    else this.block(`T${tool.number}`);
    this.block(`S${step.rpm} M3`);
    if (controller.spindleDwell > 0) this.block(`G4 P${Writer.text(controller.spindleDwell, 1)}`);
    this.forget();
    const entry = step.cycle
      ? { x: step.cycle.holes[0].x, y: step.cycle.holes[0].y, z: step.cycle.clearance }
      : { x: step.path.x[0], y: step.path.y[0], z: step.path.z[0] };
    if (controller.lengthOffsets) {
      this.block(`${options.workOffset} G0 X${this.length(entry.x)} Y${this.length(entry.y)}`);
      this.block(`G43 H${lengthOffsetOf(tool)} Z${this.length(entry.z)}`);
    } else {
      this.block(`${options.workOffset} G0 Z${this.length(entry.z)}`);
      this.block(`X${this.length(entry.x)} Y${this.length(entry.y)}`);
    }
    this.at = entry;
    this.last = { G: 'G0', X: this.length(entry.x), Y: this.length(entry.y), Z: this.length(entry.z) };
  }

  private stopTool(): void {
    this.block('M9');
    this.block('M5');
    for (const line of this.controller.retreat) this.block(line);
    this.forget();
  }

  private fill(line: string): string {
    const { upperCase } = this.controller.comment;
    const plain = this.options.name
      .normalize('NFKD')
      .replace(/[^\x20-\x7e]/g, '')
      .replace(/[()%;]/g, '');
    return line
      .replace('{number}', String(this.options.number).padStart(4, '0'))
      .replace('{name}', upperCase ? plain.toUpperCase() : plain);
  }

  program(steps: Step[]): string {
    const { controller, options } = this;
    for (const line of controller.frame.open) this.lines.push(this.fill(line));
    this.block(options.unit === 'mm' ? controller.units.mm : controller.units.inch);
    for (const line of controller.safeStart) this.block(line);
    let tool: number | undefined;
    let coolant: Coolant = 'off';
    let rpm = 0;
    for (const step of steps) {
      this.sections.push({ line: this.lines.length + 1, operationId: step.operationId });
      this.comment(step.name);
      if (step.tool.number !== tool) {
        if (tool !== undefined) this.stopTool();
        coolant = 'off';
        this.startTool(step);
        tool = step.tool.number;
      } else if (step.rpm !== rpm) this.block(`S${step.rpm} M3`);
      rpm = step.rpm;
      if (step.coolant !== coolant) {
        if (coolant !== 'off') this.block('M9');
        if (step.coolant !== 'off') this.block(controller.coolant[step.coolant]!);
        coolant = step.coolant;
      }
      const code = step.cycle && controller.cycles[step.cycle.kind];
      if (step.cycle && code) this.cycle(step.cycle, code);
      else this.path(step.cycle ? expandCycle(step.cycle) : step.path);
    }
    this.stopTool();
    for (const line of controller.frame.close) this.lines.push(line);
    return this.lines.join('\n') + '\n';
  }

  finish(fileName: string, steps: Step[]): Program {
    const text = this.program(steps);
    return { fileName, text, tools: [...new Set(steps.map((s) => s.tool.number))], sections: this.sections };
  }
}

const safeName = (name: string) =>
  name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase() || 'program';

/** Consecutive steps with one tool, for controls that change tools by changing programs. */
function byTool(steps: Step[]): Step[][] {
  const runs: Step[][] = [];
  for (const step of steps) {
    const run = runs[runs.length - 1];
    if (run && run[0].tool.number === step.tool.number) run.push(step);
    else runs.push([step]);
  }
  return runs;
}

/**
 * Writes the steps in a controller's dialect: one program, or one a tool where it has no tool changer.
 * Nothing is written while the control lacks something the steps ask for; the findings then say what and where.
 */
export function writePrograms(controller: Controller, steps: Step[], options: WriteOptions): Written {
  const useful = steps.filter((s) => s.path.count > 0);
  const findings = capabilityFindings(controller, useful, options);
  if (findings.length > 0 || useful.length === 0) return { programs: [], findings };
  const base = safeName(options.name);
  const write = (part: Step[], suffix: string) =>
    new Writer(controller, options).finish(`${base}${suffix}.${controller.fileExtension}`, part);
  if (controller.toolChange === 'automatic') return { programs: [write(useful, '')], findings };
  return { programs: byTool(useful).map((run, i) => write(run, `-${i + 1}-t${run[0].tool.number}`)), findings };
}
