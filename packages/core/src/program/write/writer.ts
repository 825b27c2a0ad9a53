import type { Pause } from '../../document/operation';
import { formatNumber } from '../../quantity/units';
import { Finding, finding, hasStop } from '../../quantity/finding';
import { Controller } from '../../shop/controller';
import { Coolant } from '../../machine/machine';
import { Tool, diameterOffsetOf, lengthOffsetOf } from '../../shop/tool';
import type { Path } from '../../path/path';
import { Blocks, numberText, plainText } from './blocks';
import { capabilityFindings } from './capability';
import { passagesOf } from './copies';
import { writeCycle } from './cycles';
import { split } from './split';
import { HandStep, Program, Step, isHand, handRemark, WriteOptions, Written, spindleWord, shortName } from './step';

/** Subprograms of one program: so many at most, numbered from there on, each program of a hundred with numbers of its own. */
const MOST_SUBPROGRAMS = 30;
const ROOM = 40;
const FIRST_SUBPROGRAM = 5000;
const OWN_NUMBERS = 100;

/** Where a step begins. */
const entryOf = ({ cycle, path }: Step) =>
  cycle
    ? { x: cycle.holes[0].x, y: cycle.holes[0].y, z: cycle.clearance }
    : { x: path.x[0], y: path.y[0], z: path.z[0] };

/** The frame of a program: its head, tools one after the other, its end. */
class Writer {
  private readonly out: Blocks;
  private readonly sections: Program['sections'] = [];
  /** What is written once and called, behind the program. */
  private readonly subprograms: { operationId: string; lines: string[] }[] = [];
  private lastNumber = 0;
  /** Paths that are written more than once: in every station. */
  private again = new Set<Path>();
  /** Subprograms that hold all of a path. */
  private readonly wholes = new Map<Path, number>();
  /** The work offset in force; none before the first tool. */
  private workOffset?: string;

  constructor(controller: Controller, options: WriteOptions) {
    this.out = new Blocks(controller, options);
  }

  /** Unit and modes, as they are from here on whatever was before. */
  private modes(): void {
    const { controller, options } = this.out;
    this.out.block(controller.units[options.unit]);
    for (const line of controller.safeStart) this.out.block(line);
  }

  /** @param isNew whether it is not in the spindle yet */
  private startTool(step: Step, isNew: boolean): void {
    const { controller } = this.out;
    const { tool } = step;
    this.out.diameterOffset = diameterOffsetOf(tool);
    this.out.comment(`T${tool.number} ${tool.name}, D${formatNumber(tool.diameter, 3)}`);
    if (controller.beam) return this.startBeam(step);
    const call = controller.toolChange === 'automatic' ? `T${tool.number} M6` : `T${tool.number}`;
    if (isNew) this.out.block(call);
    this.out.block(`S${step.rpm} ${spindleWord(step)}`);
    if (controller.spindleDwell > 0) this.out.block(`G4 P${numberText(controller.spindleDwell, 1)}`);
    this.approach(step);
  }

  /** From the top of the machine to where a step begins, in its work offset. */
  private approach(step: Step): void {
    const { controller } = this.out;
    const { tool } = step;
    this.workOffset = this.offsetOf(step);
    this.out.forget();
    const entry = entryOf(step);
    if (controller.lengthOffsets) {
      this.out.block(`${this.workOffset} G0 X${this.out.length(entry.x)} Y${this.out.length(entry.y)}`);
      this.out.block(`G43 H${lengthOffsetOf(tool)} Z${this.out.length(entry.z)}`);
    } else {
      this.out.block(`${this.workOffset} G0 Z${this.out.length(entry.z)}`);
      this.out.block(`X${this.out.length(entry.x)} Y${this.out.length(entry.y)}`);
    }
    this.out.standsAfterRapid(entry.x, entry.y, entry.z);
  }

  private offsetOf({ workOffset }: Step): string {
    return workOffset ?? this.out.options.workOffset;
  }

  /** Over to another station: up as far as the control is told first, for what stands between them was measured by nobody. */
  private changeStation(step: Step): void {
    this.out.rise(this.out.options.free);
    for (const line of this.out.controller.retreat) this.out.block(line);
    this.approach(step);
  }

  /** What the register of compensation must hold at the machine. */
  private registerComment({ tool, path }: Step): void {
    const [first] = path.compensation;
    if (!first) return;
    const held =
      first.radius > 0 ? `${this.out.length(first.radius)} = radius of the cutter` : 'wear only, 0 for a new cutter';
    this.out.comment(`D${diameterOffsetOf(tool)} holds ${held}`);
  }

  private startBeam(step: Step): void {
    const { path } = step;
    this.workOffset = this.offsetOf(step);
    this.out.forget();
    this.out.block(`${this.workOffset} G0 X${this.out.length(path.x[0])} Y${this.out.length(path.y[0])}`);
    this.out.standsAfterRapid(path.x[0], path.y[0], path.z[0]);
  }

  private stopTool(): void {
    if (!this.out.controller.beam) this.out.block('M9');
    this.out.block(this.out.controller.beam?.off ?? 'M5');
    for (const line of this.out.controller.retreat) this.out.block(line);
    this.out.forget();
  }

  /** What a step cuts: called where the same is cut in every station. */
  private body(step: Step): void {
    const { path } = step;
    if (!this.again.has(path) || !this.calls(step)) return this.cut(this.out, step);
    if (!this.wholes.has(path)) this.wholes.set(path, this.whole(step));
    this.out.block(`M98 P${this.wholes.get(path)}`);
    this.out.forget();
    const end = path.count - 1;
    this.out.stands(path.x[end], path.y[end], path.z[end]);
  }

  /** Whether subprograms are wanted, known, and can hold a step. */
  private calls({ path }: Step): boolean {
    const { controller, options } = this.out;
    return !!options.subprograms && !!controller.subprograms && path.compensation.length === 0;
  }

  private cut(out: Blocks, step: Step): void {
    if (step.cycle) writeCycle(out, step.cycle, step);
    else if (out === this.out) this.milled(step);
    else out.path(step.path);
  }

  /** All of a step as a subprogram, in the coordinates of whoever calls it; its number. */
  private whole(step: Step): number {
    const { controller, options } = this.out;
    const own = this.nextNumber();
    const out = new Blocks(controller, { ...options, lineNumbers: false });
    const { x, y, z } = entryOf(step);
    out.lines.push(`O${String(own).padStart(4, '0')}`);
    out.stands(x, y, z);
    out.forget();
    this.cut(out, step);
    this.subprograms.push({ operationId: step.operationId, lines: [...out.lines, 'M99'] });
    return own;
  }

  /** A path; what comes again elsewhere in it is called. */
  private milled(step: Step): void {
    const { operationId, path } = step;
    if (!this.calls(step)) return this.out.path(path);
    const numbers = new Map<number, number>();
    passagesOf(path).forEach(({ head, end, like }) => {
      if (like !== undefined && !numbers.has(like) && this.subprograms.length < MOST_SUBPROGRAMS) {
        const own = this.nextNumber();
        numbers.set(like, own);
        this.subprograms.push({ operationId, lines: this.subprogram(own, path, head, end) });
      }
      const number = like === undefined ? undefined : numbers.get(like);
      this.out.step(path, head, path.z[head]);
      if (number === undefined) for (let i = head + 1; i < end; i++) this.out.step(path, i, path.z[i]);
      else {
        this.out.block(`M98 P${number}`);
        this.out.forget();
        this.out.stands(path.x[end - 1], path.y[end - 1], path.z[end - 1]);
      }
    });
  }

  /** The number of one more subprogram: that of no program of the job, which may stand in the control beside it. */
  private nextNumber(): number {
    const { number, taken = [] } = this.out.options;
    do this.lastNumber = Math.max(this.lastNumber + 1, FIRST_SUBPROGRAM + (number % OWN_NUMBERS) * ROOM);
    while (this.lastNumber === number || taken.includes(this.lastNumber));
    return this.lastNumber;
  }

  /** The lines of a subprogram: the moves behind `head`, as ways from there. */
  private subprogram(number: number, path: Path, head: number, end: number): string[] {
    const { controller, options } = this.out;
    const out = new Blocks(controller, { ...options, lineNumbers: false });
    out.lines.push(`O${String(number).padStart(4, '0')}`, 'G91');
    out.stands(path.x[head], path.y[head], path.z[head]);
    out.incremental = true;
    for (let i = head + 1; i < end; i++) out.step(path, i, path.z[i]);
    return [...out.lines, 'G90', 'M99'];
  }

  /** Whoever stands at the machine is told what to do, and goes on. */
  private pause({ stop, note }: Pause): void {
    if (note) this.out.comment(note);
    if (stop === 'planned' || stop === 'optional') this.out.block(stop === 'planned' ? 'M0' : 'M1');
  }

  /** A path of a beam: on and piercing where it goes down, off where it comes up, X and Y between. */
  private beam({ path, rpm, pierce = 0 }: Step): void {
    const { on, off } = this.out.controller.beam!;
    for (let i = 0; i < path.count; i++) {
      const up = i > 0 ? path.z[i] - path.z[i - 1] : 0;
      if (up < 0) {
        this.out.block(`S${rpm} ${on}`);
        if (pierce > 0) this.out.block(`G4 P${numberText(pierce, 2)}`);
      } else if (up > 0) this.out.block(off);
      else this.out.step(path, i, NaN);
    }
  }

  private fill(line: string): string {
    const { controller, options } = this.out;
    const plain = plainText(options.name);
    return line
      .replace('{number}', String(options.number).padStart(4, '0'))
      .replace('{name}', controller.comment.upperCase ? plain.toUpperCase() : plain);
  }

  /** The program waits until it is done. */
  private byHand({ name, hand: { note } }: HandStep): void {
    this.out.comment(handRemark(name));
    if (note) this.out.comment(note);
    this.out.block('M0');
  }

  program(steps: (Step | HandStep)[]): string {
    const { controller, options } = this.out;
    for (const line of controller.frame.open) this.out.lines.push(this.fill(line));
    if (options.mark) this.out.comment(options.mark);
    for (const name of options.without ?? []) this.out.comment(`Without: ${name}`);
    const paths = steps.flatMap((s) => (isHand(s) ? [] : [s.path]));
    this.again = new Set(paths.filter((p, i) => paths.indexOf(p) < i));
    this.modes();
    let tool: number | undefined;
    let coolant: Coolant = 'off';
    let rpm = 0;
    let runs = false;
    for (const step of steps) {
      this.sections.push({ line: this.out.lines.length + 1, operationId: step.operationId });
      if (isHand(step)) {
        if (runs) this.stopTool();
        this.byHand(step);
        runs = false;
        continue;
      }
      this.out.comment(step.name);
      this.registerComment(step);
      const isNew = step.tool.number !== tool || step.before?.stop === 'tool change';
      const isRemark = step.before?.stop === 'remark';
      if (isRemark) this.pause(step.before!);
      const isElsewhere = runs && this.offsetOf(step) !== this.workOffset;
      if (isNew || (step.before && !isRemark) || !runs || (controller.beam && isElsewhere)) {
        if (runs) this.stopTool();
        if (step.before && !isRemark) this.pause(step.before);
        if (tool !== undefined && options.restarts) this.modes();
        coolant = 'off';
        this.startTool(step, isNew);
        tool = step.tool.number;
        runs = true;
      } else if (!controller.beam) {
        if (step.rpm !== rpm) this.out.block(`S${step.rpm} ${spindleWord(step)}`);
        const { x, y, z } = entryOf(step);
        if (isElsewhere) this.changeStation(step);
        else this.out.over(x, y, z, options.free);
      }
      rpm = step.rpm;
      if (step.coolant !== coolant) {
        if (coolant !== 'off') this.out.block('M9');
        if (step.coolant !== 'off') this.out.block(controller.coolant[step.coolant]!);
        coolant = step.coolant;
      }
      if (controller.beam) this.beam(step);
      else this.body(step);
    }
    if (runs) this.stopTool();
    const { close } = controller.frame;
    const tape = close[close.length - 1] === '%' ? close.length - 1 : close.length;
    this.out.lines.push(...close.slice(0, tape));
    for (const { operationId, lines } of this.subprograms) {
      this.sections.push({ line: this.out.lines.length + 1, operationId });
      this.out.lines.push(...lines);
    }
    this.out.lines.push(...close.slice(tape));
    return this.out.lines.join('\n') + '\n';
  }

  finish(fileName: string, steps: (Step | HandStep)[]): Program {
    const text = this.program(steps);
    return {
      fileName,
      text,
      tools: [...new Set(steps.flatMap((s) => (isHand(s) ? [] : [s.tool.number])))],
      sections: this.sections,
    };
  }
}

/** Consecutive steps with one tool, for controls that change tools by changing programs. */
function byTool(steps: (Step | HandStep)[]): (Step | HandStep)[][] {
  const runs: (Step | HandStep)[][] = [];
  for (const step of steps) {
    const run = runs[runs.length - 1];
    const own = run && toolOf(run);
    if (run && (isHand(step) || !own || (own.number === step.tool.number && step.before?.stop !== 'tool change')))
      run.push(step);
    else runs.push([step]);
  }
  return runs;
}

const toolOf = (steps: (Step | HandStep)[]): Tool | undefined => steps.flatMap((s) => (isHand(s) ? [] : [s.tool]))[0];

/**
 * Writes the steps in a controller's dialect: one program, or one a tool where it has no tool changer.
 * Nothing is written while the control lacks something the steps ask for; the findings then say what and where.
 */
export function writePrograms(controller: Controller, steps: (Step | HandStep)[], options: WriteOptions): Written {
  const useful = steps.filter((s) => isHand(s) || s.path.count > 0);
  const cutting = useful.flatMap((s) => (isHand(s) ? [] : [s]));
  const findings = capabilityFindings(controller, cutting, options);
  if (hasStop(findings) || cutting.length === 0) return { programs: [], findings };
  const write = (part: (Step | HandStep)[], suffix: string, number: number) =>
    new Writer(controller, { ...options, number }).finish(
      `${shortName(options.file, controller.longestFileName ?? 0, suffix)}.${controller.fileExtension}`,
      part,
    );
  const isOne = controller.toolChange === 'automatic';
  const most = (controller.mostKilobytes ?? 0) * 1000;
  const runs = (isOne ? [useful] : byTool(useful)).flatMap((run) =>
    most > 0 ? split(run, most, (part) => write(part, '', 0).text.length) : [run],
  );
  const suffix = (run: (Step | HandStep)[], i: number) => {
    if (!isOne) return `-${i + 1}-t${toolOf(run)?.number ?? 0}`;
    return runs.length > 1 ? `-${i + 1}` : '';
  };
  const programs = runs.map((run, i) => write(run, suffix(run, i), options.number + i));
  return { programs, findings: [...findings, ...sizeFindings(programs, most, controller)] };
}

/** Programs that are larger than a control holds, and cannot be split. */
const sizeFindings = (programs: Program[], most: number, { name }: Controller): Finding[] =>
  programs
    .filter(({ text }) => most > 0 && text.length > most)
    .map(({ fileName, text, sections }) =>
      finding(
        'program-too-large',
        { file: fileName, kilobytes: text.length / 1000, most: most / 1000, controller: name },
        { operation: sections[0]?.operationId, field: 'controllerId' },
      ),
    );
