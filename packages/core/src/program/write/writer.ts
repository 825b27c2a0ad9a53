import { Finding, finding } from '../../quantity/finding';
import { formatNumber, LengthUnit, MM_PER_INCH } from '../../quantity/units';
import { Controller, CycleKind } from '../../shop/controller';
import { Coolant } from '../../machine/machine';
import { Tool, diameterOffsetOf, isBeam, lengthOffsetOf } from '../../shop/tool';
import { programmedPath } from '../read/compensation';
import { expandCycle, isTapping } from '../../operation/cycle';
import { DrillCycle } from '../../operation/operation';
import { ARC_CW, Compensation, LINE, Path, RAPID, sweepOf } from '../../path/path';

/** One operation ready to be written; coordinates already relative to the work zero. */
export interface Step {
  operationId: string;
  name: string;
  tool: Tool;
  rpm: number;
  coolant: Coolant;
  path: Path;
  cycle?: DrillCycle;
  /** Seconds a beam stands where it pierces. */
  pierce?: number;
}

export interface WriteOptions {
  name: string;
  number: number;
  unit: LengthUnit;
  workOffset: string;
  lineNumbers: boolean;
}

/** From a line of the program on, an operation. */
export interface Section {
  line: number;
  operationId: string;
}

export interface Program {
  fileName: string;
  text: string;
  /** Tool numbers it uses, in order. */
  tools: number[];
  /** From this line (counted from 1) the program belongs to this operation. */
  sections: Section[];
}

export interface Written {
  programs: Program[];
  findings: Finding[];
}

/** An arc shorter than this is written as a straight, so that rounding cannot turn it into a full circle, mm. */
const SHORTEST_ARC = 0.01;

const CANNED_ONLY: Partial<Record<CycleKind, string>> = {
  tap: 'turn a tap in step with the spindle',
  'tap-left': 'turn a left-hand tap in step with the spindle',
  bore: 'stop the spindle at the bottom of a hole',
};

/** Word of the control for a cycle; pecks that get shorter no control knows. */
const wordFor = (controller: Controller, { kind, lessen }: DrillCycle) =>
  lessen > 0 ? undefined : controller.cycles[kind];

const spindleWord = (step: Step) => (step.cycle?.kind === 'tap-left' ? 'M4' : 'M3');

/** What the control lacks for this job, at the value that causes it. */
export function capabilityFindings(controller: Controller, steps: Step[], options: WriteOptions): Finding[] {
  const findings: Finding[] = [];
  if (!controller.workOffsets.includes(options.workOffset)) {
    findings.push(
      finding(
        'no-work-offset',
        { controller: controller.name, workOffset: options.workOffset, known: controller.workOffsets.join(', ') },
        { field: 'workOffset' },
      ),
    );
  }
  for (const step of steps) {
    const needed = step.cycle && !wordFor(controller, step.cycle) && CANNED_ONLY[step.cycle.kind];
    if (needed)
      findings.push(
        finding('no-cycle', { step: step.name, needed, controller: controller.name }, { operation: step.operationId }),
      );
    if (isBeam(step.tool) !== !!controller.beam)
      findings.push(
        finding(
          'other-machine',
          { controller: controller.name, isBeam: controller.beam !== undefined, step: step.name },
          { operation: step.operationId, field: 'controllerId' },
        ),
      );
    if (step.path.compensation.length > 0 && !controller.compensation)
      findings.push(
        finding(
          'no-compensation',
          { step: step.name, controller: controller.name },
          { operation: step.operationId, field: 'params.compensation' },
        ),
      );
    if (step.coolant !== 'off' && !controller.coolant[step.coolant]) {
      const known = Object.keys(controller.coolant).join(', ') || 'none';
      findings.push(
        finding(
          'no-coolant',
          { step: step.name, coolant: step.coolant, controller: controller.name, known },
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
  /** Register of the diameter of the tool in the spindle. */
  private diameterOffset = 0;

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

  private compensationWord(to: Compensation): string {
    return to === 'off' ? 'G40' : `${to === 'left' ? 'G41' : 'G42'} D${this.diameterOffset}`;
  }

  private move(code: string, x: number, y: number, z: number, tail: string[], switching = ''): void {
    const words = [
      this.word('X', this.length(x)),
      this.word('Y', this.length(y)),
      Number.isNaN(z) ? '' : this.word('Z', this.length(z)),
    ];
    if (words.every((w) => !w) && tail.every((w) => !w.startsWith('I'))) return;
    const g = this.last.G === code ? '' : code;
    this.last.G = code;
    this.join([g, switching, ...words, ...tail]);
    this.at = { x, y, z };
  }

  private arc(kind: number, x: number, y: number, z: number, cx: number, cy: number, feed: string): void {
    if (Math.hypot(x - cx, y - cy) < SHORTEST_ARC / 2) return;
    const sweep = sweepOf(kind, this.at.x, this.at.y, x, y, cx, cy);
    const radius = Math.hypot(x - cx, y - cy);
    if (Math.abs(sweep) * radius < SHORTEST_ARC) return this.move('G1', x, y, z, [feed]);
    const digits = this.decimals;
    const i = Writer.text(this.scaled(cx) - this.scaled(this.at.x), digits);
    const j = Writer.text(this.scaled(cy) - this.scaled(this.at.y), digits);
    this.move(kind === ARC_CW ? 'G2' : 'G3', x, y, z, [`I${i}`, `J${j}`, feed]);
  }

  /** @param reached called with the height after every straight at feed */
  path(whole: Path, reached?: (z: number) => void): void {
    const path = programmedPath(whole);
    for (let i = 0; i < path.count; i++) {
      this.step(path, i, path.z[i]);
      if (path.kind[i] === LINE) reached?.(path.z[i]);
    }
  }

  /** One move of a path, ending at height `z`; NaN for machines without one. */
  private step(path: Path, i: number, z: number): void {
    const [x, y] = [path.x[i], path.y[i]];
    if (path.kind[i] === RAPID) return this.move('G0', x, y, z, []);
    const feed = this.word('F', this.feedText(path.feed[i]));
    const switched = path.compensation.find((c) => c.move === i);
    if (path.kind[i] === LINE) this.move('G1', x, y, z, [feed], switched && this.compensationWord(switched.to));
    else this.arc(path.kind[i], x, y, z, path.cx[i], path.cy[i], feed);
    if (feed && !this.lines[this.lines.length - 1].includes(feed)) this.last.F = '';
  }

  /** A path of a beam: on and piercing where it goes down, off where it comes up, X and Y between. */
  private beam({ path, rpm, pierce = 0 }: Step): void {
    const { on, off } = this.controller.beam!;
    for (let i = 0; i < path.count; i++) {
      const up = i > 0 ? path.z[i] - path.z[i - 1] : 0;
      if (up < 0) {
        this.block(`S${rpm} ${on}`);
        if (pierce > 0) this.block(`G4 P${Writer.text(pierce, 2)}`);
      } else if (up > 0) this.block(off);
      else this.step(path, i, NaN);
    }
  }

  /** A canned cycle, called anew after each stop; without one, its moves. */
  cycle(cycle: DrillCycle, step: Step): void {
    const code = wordFor(this.controller, cycle);
    const runs = cycle.stops === 'before each' ? cycle.holes.map((h) => [h]) : [cycle.holes];
    runs.forEach((holes, i) => {
      if (cycle.stops !== 'none') this.programStop(step, holes[0], i);
      const run = { ...cycle, holes };
      if (code) this.canned(run, code);
      else this.writtenOut(run);
    });
  }

  private canned(cycle: DrillCycle, code: string): void {
    const [first] = cycle.holes;
    this.move('G0', first.x, first.y, cycle.clearance, []);
    const pecking = cycle.kind === 'peck' || cycle.kind === 'chip-break';
    const tail = [
      pecking ? `Q${this.length(cycle.peck)}` : '',
      cycle.dwell > 0 ? `P${Math.round(cycle.dwell * 1000)}` : '',
    ];
    const back = (hop: number) => (hop < cycle.clearance - 1e-6 ? 'G99' : 'G98');
    cycle.holes.forEach((hole, i) => {
      const z = this.length(hole.z);
      const xy = [`X${this.length(hole.x)}`, `Y${this.length(hole.y)}`];
      if (i === 0)
        this.join([
          `${back(hole.hop)} ${code}`,
          ...xy,
          `Z${z}`,
          `R${this.length(cycle.start)}`,
          ...tail,
          `F${this.feedText(cycle.feed)}`,
        ]);
      else {
        const before = cycle.holes[i - 1];
        const changed = back(hole.hop) === back(before.hop) ? '' : back(hole.hop);
        this.join([changed, ...xy, z === this.length(before.z) ? '' : `Z${z}`]);
      }
    });
    this.block('G80');
    const last = cycle.holes[cycle.holes.length - 1];
    this.forget();
    this.stands(last.x, last.y, last.hop);
  }

  private writtenOut(cycle: DrillCycle): void {
    const bottoms = new Set(cycle.holes.map((h) => h.z));
    this.path(expandCycle(cycle), (z) => {
      if (cycle.dwell > 0 && bottoms.has(z)) this.block(`G4 P${Writer.text(cycle.dwell, 1)}`);
    });
  }

  /** The spindle and coolant stop and the program waits, above the hole, for someone's hand. */
  private programStop(step: Step, hole: { x: number; y: number }, index: number): void {
    const { clearance, kind } = step.cycle!;
    if (index > 0) this.move('G0', hole.x, hole.y, clearance, []);
    this.block('M9');
    this.block('M5');
    this.comment(isTapping(kind) ? 'Blow the hole out and lubricate' : 'Clear the chips');
    this.block('M0');
    this.block(`S${step.rpm} ${spindleWord(step)}`);
    if (this.controller.spindleDwell > 0) this.block(`G4 P${Writer.text(this.controller.spindleDwell, 1)}`);
    if (step.coolant !== 'off') this.block(this.controller.coolant[step.coolant]!);
    this.forget();
  }

  /** Takes a place as known, so that its words are not written again. */
  private stands(x: number, y: number, z: number): void {
    this.at = { x, y, z };
    Object.assign(this.last, { X: this.length(x), Y: this.length(y), Z: this.length(z) });
  }

  /** After anything that changes modal state, write every word again. */
  private forget(): void {
    this.last = {};
  }

  private startTool(step: Step): void {
    const { controller, options } = this;
    const { tool } = step;
    this.diameterOffset = diameterOffsetOf(tool);
    this.comment(`T${tool.number} ${tool.name}, D${formatNumber(tool.diameter, 3)}`);
    if (controller.beam) return this.startBeam(step);
    if (controller.toolChange === 'automatic') this.block(`T${tool.number} M6`);
    else this.block(`T${tool.number}`);
    this.block(`S${step.rpm} ${spindleWord(step)}`);
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
    this.last = { G: 'G0' };
    this.stands(entry.x, entry.y, entry.z);
  }

  /** What the register of compensation must hold at the machine. */
  private registerComment({ tool, path }: Step): void {
    const [first] = path.compensation;
    if (!first) return;
    const held =
      first.radius > 0 ? `${this.length(first.radius)} = radius of the cutter` : 'wear only, 0 for a new cutter';
    this.comment(`D${diameterOffsetOf(tool)} holds ${held}`);
  }

  private startBeam({ path }: Step): void {
    this.forget();
    this.block(`${this.options.workOffset} G0 X${this.length(path.x[0])} Y${this.length(path.y[0])}`);
    this.last = { G: 'G0' };
    this.stands(path.x[0], path.y[0], path.z[0]);
  }

  private stopTool(): void {
    if (!this.controller.beam) this.block('M9');
    this.block(this.controller.beam?.off ?? 'M5');
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
      this.registerComment(step);
      if (step.tool.number !== tool) {
        if (tool !== undefined) this.stopTool();
        coolant = 'off';
        this.startTool(step);
        tool = step.tool.number;
      } else if (step.rpm !== rpm && !controller.beam) this.block(`S${step.rpm} ${spindleWord(step)}`);
      rpm = step.rpm;
      if (step.coolant !== coolant) {
        if (coolant !== 'off') this.block('M9');
        if (step.coolant !== 'off') this.block(controller.coolant[step.coolant]!);
        coolant = step.coolant;
      }
      if (controller.beam) this.beam(step);
      else if (step.cycle) this.cycle(step.cycle, step);
      else this.path(step.path);
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
