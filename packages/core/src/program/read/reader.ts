import { Budget, withinBudget } from '../../quantity/budget';
import { Controller } from '../../shop/controller';
import { Code, DataOf, Finding, finding } from '../../quantity/finding';
import { LengthUnit, MM_PER_INCH } from '../../quantity/units';
import { sweepOf } from '../../path/path';
import { ArcEnds, centreOf, chords } from './arcs';
import { bentWay } from './bent';
import { blockFault, idleWord } from './block-check';
import { CYCLE_CODES, FEED_MODES, HARMLESS, NOT_FOLLOWED, SETS_PLACES } from './codes';
import { compensated } from './compensation';
import { FixedCycle } from './fixed-cycle';
import { Feed, oddWait } from './feed';
import { Axes } from './frame';
import { Flow, FlowFault, Lines } from './lines';
import { MOVE, Motion, MotionList, Motions } from '../../path/motions';
import { Places } from './places';
import { Word, wordsOf } from './words';
import { maths } from '../../quantity/maths';

export interface ReadOptions {
  /** Height of machine zero (where G53 Z0, G28 and G30 go) in work coordinates, mm. */
  homeZ: number;
  unit: LengthUnit;
  /** What the diameter registers hold, by tool number: a radius, mm, or 0 for wear alone. */
  registers?: Map<number, { register: number; radius: number }>;
  /** Of a two-axis machine: the tool its beam is, and the heights it stands for when on and off. */
  beam?: { tool: number; low: number; high: number };
  /** Numbers of the tools that cut turning to the left, where the tools are known. */
  leftHanded?: Set<number>;
  /** Whether each axis runs at full speed until it is there, so that rapids are bent. */
  bentRapids?: boolean;
  /** The control it is read for, where that is known: its words, and whether it knows length offsets. */
  control?: Controller;
  /** Zeros of work offsets ("G55", "G54.1 P2") from the work's own zero, where a program uses several. */
  offsets?: Map<string, Axes>;
  /** Asked now and then whether to leave it at what has been read. */
  stopped?: () => boolean;
}

export interface ReadProgram {
  motions: Motions;
  findings: Finding[];
  /** Remarks with their line. */
  comments: { line: number; text: string }[];
  tools: number[];
  /** Words that switch coolant, each with the motion it comes before; empty where it is switched off. */
  coolants: { motion: number; word: string }[];
  /** Lines that hold words, in the order they run: those of a subprogram as often as it is called. */
  ran: number[];
  lines: number;
}

const MAX_FINDINGS = 200;
/** Steps of reading, one for a line and one for a motion: a million lines take two million. */
const MOST_STEPS = 6_000_000;
/** Words that one block can hold. */
const MOST_WORDS = 100;
/** Words that every control knows as coolant. */
const WETS = new Set(['M7', 'M8']);
/** Words that stop the spindle. */
const STOPS = new Set([2, 5, 30]);
/** Holes that one block may ask for by L or K. */
const MOST_HOLES = 9999;
/** Places are written at least so finely, in the program's unit. */
const COARSEST = 0.01;

/** The last decimal of the places in a block. */
const finestStep = (words: Word[]) =>
  Math.min(...words.filter((w) => 'XYIJ'.includes(w.letter)).map((w) => maths.pow(10, -decimalsOf(w.value))));

function decimalsOf(value: number): number {
  for (let n = 0; n < MOST_DECIMALS; n++)
    if (Math.abs(value * maths.pow(10, n) - Math.round(value * maths.pow(10, n))) < 1e-7) return n;
  return MOST_DECIMALS;
}
const MOST_DECIMALS = 6;

class Reader {
  readonly motions = new MotionList();
  readonly findings: Finding[] = [];
  readonly comments: ReadProgram['comments'] = [];
  readonly tools: number[] = [];
  readonly coolants: ReadProgram['coolants'] = [];
  readonly ran: number[] = [];
  private line = 0;
  private readonly at: Places;
  private readonly feed = new Feed();
  private plane = 17;
  private mode = 0;
  private rpm = 0;
  private turnsLeft = false;
  private spindleOn = false;
  private tool = 0;
  private pending = 0;
  /** Whether tools change at M6; where it never comes, T itself is a change by hand. */
  private changesByWord = false;
  /** Whether the length of the tool in the spindle is taken into account. */
  private hasLength = false;
  private usesLengths = false;
  /** First cuts of tools whose length was not. */
  private readonly withoutLength = new Map<number, number>();
  private cycle: FixedCycle | undefined;
  private returnToInitial = true;
  /** Moves since compensation was switched on: they can be followed only when it is known what comes after them. */
  private compensation:
    { hand: 1 | -1; radius: number; from: { x: number; y: number }; moves: Motion[]; grain: number } | undefined;
  private compensationEnds = false;
  private readonly told = new Set<string>();
  private readonly budget = new Budget(MOST_STEPS);

  constructor(private readonly options: ReadOptions) {
    const scale = options.unit === 'mm' ? 1 : MM_PER_INCH;
    this.at = new Places(options.beam?.high ?? options.homeZ, scale, options.offsets);
    if (options.beam) this.tool = this.pending = options.beam.tool;
  }

  private report<C extends Code>(code: C, data: DataOf<C>, once: string = code): void {
    this.tell(finding(code, data), once);
  }

  private tell(fault: Finding, once: string): void {
    if (this.told.has(once) || this.findings.length >= MAX_FINDINGS) return;
    this.told.add(once);
    this.findings.push({ ...fault, place: { line: this.line } });
  }

  /** A program that ends with compensation on has been cut as far as it goes. */
  finish(): void {
    if (this.compensation?.moves.length) this.followCompensation();
    if (!this.usesLengths && !this.options.control?.lengthOffsets) return;
    const isOnlyTool = this.tools.length <= 1;
    for (const [tool, line] of this.withoutLength) {
      this.line = line;
      if (this.usesLengths || !isOnlyTool) this.report('no-length-offset', { tool }, `length:${tool}`);
      else this.report('length-left-out', { tool }, `length:${tool}`);
    }
  }

  /** The text is over, and nothing said that the program is. */
  withoutEnd(): void {
    if (this.motions.count > 0) this.report('no-end', {});
  }

  /** The end of a subprogram, or the head of another program, in a program that nobody called. */
  runsInto(line: number): void {
    this.line = line;
    this.report('runs-into', {}, `into:${line}`);
  }

  /** What a program that runs on and on is told. */
  tooLong(): void {
    this.report('program-too-long', { millions: MOST_STEPS / 1e6 });
  }

  read(raw: string, line: number): Flow {
    this.line = line;
    this.budget.spend();
    const { words, comments, skipped, fault } = wordsOf(raw);
    for (const text of comments) this.comments.push({ line, text });
    if (skipped) this.report('block-skip', {});
    if (fault !== undefined) this.report('not-understood', { what: fault }, `word:${line}`);
    if (words.length === 0) return 'on';
    this.ran.push(line);
    if (words.length > MOST_WORDS) {
      this.report('block-too-long', { count: words.length }, `long:${line}`);
      return 'on';
    }
    this.refuse(blockFault(words, !!this.cycle));
    return this.block(words);
  }

  private refuse(fault: Finding | undefined, once = `block:${this.line}`): void {
    if (fault) this.tell(fault, once);
  }

  /** A subprogram that cannot be followed. */
  cannotFollow(why: FlowFault, call: number): void {
    this.report(`subprogram-${why}`, { call }, `sub:${why}:${call}`);
  }

  private block(words: Word[]): Flow {
    const value = (letter: string) => words.find((w) => w.letter === letter)?.value;
    const g = words.filter((w) => w.letter === 'G').map((w) => w.value);
    const m = words.filter((w) => w.letter === 'M').map((w) => w.value);
    if (value('O') !== undefined && words.every((w) => 'ON'.includes(w.letter))) return 'program';
    this.settings(g, words);
    const s = value('S');
    if (s !== undefined) this.rpm = s;
    this.feed.nextBlock();
    const f = value('F');
    if (f !== undefined) this.refuse(this.feed.set(f, this.at.scale, this.rpm), `feed:${this.line}`);
    if (f !== undefined && this.spindleOn && !this.options.beam) this.checkFeed();
    const t = value('T');
    if (t !== undefined) this.pending = t;
    this.machine(m);
    this.move(g, words);
    // It stops once the block has been run.
    if (m.some((code) => STOPS.has(code))) this.spindle(false);
    return this.flow(m, words);
  }

  private move(g: number[], words: Word[]): void {
    if (g.includes(4)) return this.dwell(words);
    if (g.includes(28) || g.includes(30)) return this.home(words);
    if (g.includes(53)) return this.machineMove(words);
    if (words.some((w) => 'XYZIJKR'.includes(w.letter)) && !g.some((c) => SETS_PLACES.has(c))) this.motion(words);
  }

  /** What comes after a block: the end, a subprogram, or the way back from one. */
  private flow(m: number[], words: Word[]): Flow {
    if (m.includes(2) || m.includes(30)) return 'end';
    if (m.includes(99)) {
      if (!words.some((w) => w.letter === 'P')) return 'return';
      this.unknown('M99 P', words);
      return 'end';
    }
    if (!m.includes(98)) return 'on';
    const p = words.find((w) => w.letter === 'P')?.value ?? 0;
    // More than four digits: the first ones say how often.
    const often = p > 9999 ? Math.floor(p / 10_000) : 1;
    return { call: p > 9999 ? p % 10_000 : p, times: words.find((w) => w.letter === 'L')?.value ?? often };
  }

  private settings(codes: number[], words: Word[]): void {
    for (const code of codes) {
      if (code >= 0 && code <= 3 && Number.isInteger(code)) [this.mode, this.cycle] = [code, undefined];
      else if (code === 20 || code === 70) this.at.scale = MM_PER_INCH;
      else if (code === 21 || code === 71) this.at.scale = 1;
      else if (code === 17 || code === 18 || code === 19) this.plane = code;
      else if (code === 90) this.at.absolute = true;
      else if (code === 91) this.at.absolute = false;
      else if (FEED_MODES[code]) this.feed.switchTo(FEED_MODES[code]);
      else if (code === 80) this.cycle = undefined;
      else if (code === 98) this.returnToInitial = true;
      else if (code === 99) this.returnToInitial = false;
      else if (code >= 54 && code < 60) this.workOffset(code, words);
      else if (this.at.change(code, words, this.plane)) continue;
      else if (CYCLE_CODES[code]) this.cycle = new FixedCycle(CYCLE_CODES[code], this.at.z);
      else if (code === 40) this.compensationEnds = !!this.compensation;
      else if ((code === 41 || code === 42) && this.compensates(code, words)) continue;
      else if (code === 43) this.lengthOffset(words);
      else if (code === 49) this.hasLength = false;
      else if (code !== 28 && code !== 30) this.unknown(`G${code}`, words);
    }
  }

  private workOffset(code: number, words: Word[]): void {
    const fault = this.at.takeOffset(code, words);
    this.refuse(fault, `offset:${fault?.message}`);
  }

  private lengthOffset(words: Word[]): void {
    const h = words.find((w) => w.letter === 'H')?.value;
    this.hasLength = this.usesLengths = true;
    if (h !== undefined && h !== this.tool && this.tool > 0)
      this.report('other-length', { tool: this.tool, h }, `length:${this.line}`);
  }

  /** Switches compensation on where it is known what the register holds; wear alone follows the path as written. */
  private compensates(code: number, words: Word[]): boolean {
    const register = words.find((w) => w.letter === 'D')?.value;
    const known = this.options.registers?.get(this.tool);
    if (!known || known.register !== register) return false;
    if (known.radius > 0)
      this.compensation = {
        hand: code === 41 ? 1 : -1,
        radius: known.radius,
        from: this.at.toWork(this.at.here),
        moves: [],
        grain: this.at.scale * COARSEST,
      };
    this.compensationEnds = false;
    return true;
  }

  /** Works out the way the cutter takes once compensation is switched off again. */
  private followCompensation(): void {
    const { moves, from, radius, hand, grain } = this.compensation!;
    this.compensation = undefined;
    this.compensationEnds = false;
    const followed = compensated(moves, from, radius, hand, grain);
    for (const motion of followed.moves) this.motions.push(motion);
    if (!followed.fault) return;
    const { line } = followed.fault;
    this.findings.push(finding('compensation-does-not-fit', { radius }, { line }));
  }

  /** Whether a word switches a coolant on. */
  private wets(name: string): boolean {
    return WETS.has(name) || Object.values(this.options.control?.coolant ?? {}).includes(name);
  }

  private harmless(name: string): boolean {
    return HARMLESS.has(name) || this.wets(name);
  }

  private unknown(name: string, words: Word[]): void {
    if (NOT_FOLLOWED[name]) this.report('not-followed', { what: NOT_FOLLOWED[name], code: name }, name);
    else if (name === 'G10') this.report('offset-set', {}, name);
    else if (!this.harmless(name) && words.length) this.report('not-understood', { what: name }, name);
  }

  /** A beam that is switched on stands for a tool that goes down, and up again when it goes out. */
  private spindle(on: boolean): void {
    const { beam } = this.options;
    if (beam && on && !this.spindleOn)
      this.push(MOVE.line, this.at.x, this.at.y, (this.at.z = this.at.heightOf(beam.low)));
    this.spindleOn = on;
    if (beam && !on && this.at.z < this.at.heightOf(beam.high)) this.rapidTo(this.at.x, this.at.y, beam.high);
  }

  private machine(codes: number[]): void {
    if (codes.includes(6)) {
      // A change stops the spindle, whatever else the block says.
      this.spindle(false);
      this.changesByWord = true;
      this.changeTool();
    }
    for (const code of codes) {
      if (code === 3 || code === 4) {
        this.turnsLeft = code === 4;
        this.spindle(true);
      }
      if (code === 9) this.coolants.push({ motion: this.motions.count, word: '' });
      if (this.wets(`M${code}`)) this.coolants.push({ motion: this.motions.count, word: `M${code}` });
      if (!this.harmless(`M${code}`)) this.unknown(`M${code}`, [{ letter: 'M', value: code, hasPoint: false }]);
    }
  }

  private changeTool(): void {
    if (this.pending === 0) this.report('no-tool-number', {}, `m6:${this.line}`);
    this.tool = this.pending;
    this.hasLength = false;
    if (!this.tools.includes(this.tool)) this.tools.push(this.tool);
    this.push(MOVE.toolChange, this.at.x, this.at.y, this.at.z);
  }

  /** A motion to a place as it is written. */
  private push(type: number, x: number, y: number, z: number, cx = 0, cy = 0, seconds = 0): void {
    this.budget.spend();
    const work = this.at.toWork({ x, y, z });
    const centre = type === MOVE.arcCw || type === MOVE.arcCcw ? this.at.toWork({ x: cx, y: cy, z }) : { x: 0, y: 0 };
    const motion = {
      type,
      line: this.line,
      x: work.x,
      y: work.y,
      z: work.z,
      cx: centre.x,
      cy: centre.y,
      feed: type === MOVE.rapid ? 0 : this.feed.value,
      rpm: this.spindleOn ? this.rpm : 0,
      tool: this.tool,
      seconds,
    };
    if (!this.compensation) return this.motions.push(motion);
    this.compensation.moves.push(motion);
    if (this.compensationEnds) this.followCompensation();
  }

  private dwell(words: Word[]): void {
    const word = words.find((w) => w.letter === 'P' || w.letter === 'X');
    const seconds = !word ? 0 : word.letter === 'P' && !word.hasPoint ? word.value / 1000 : word.value;
    this.refuse(oddWait(seconds), `wait:${this.line}`);
    this.push(MOVE.dwell, this.at.x, this.at.y, this.at.z, 0, 0, seconds);
  }

  /** Home by way of the place that is written, in the axes that are named, else in all. */
  private home(words: Word[]): void {
    const names = (letter: string) => words.some((w) => w.letter === letter);
    const [all, z] = [!['X', 'Y', 'Z'].some(names), names('Z')];
    if (!all) {
      const by = { ...this.at.inPlane(words), z: this.at.axis(words, 'Z', this.at.z) };
      if (!Object.is(by.x, this.at.x) || !Object.is(by.y, this.at.y) || by.z !== this.at.z)
        this.rapid(by.x, by.y, by.z);
      this.at.here = by;
    }
    if (all || z) this.rapidTo(this.at.x, this.at.y, this.options.homeZ);
    else this.leaves('Home in X and Y');
  }

  private machineMove(words: Word[]): void {
    const z = words.find((w) => w.letter === 'Z');
    if (z) this.rapidTo(this.at.x, this.at.y, this.options.homeZ + z.value * this.at.scale);
    else if (words.some((w) => 'XY'.includes(w.letter))) this.leaves('To a place of the machine in X and Y');
  }

  /** Where X and Y of the machine lie is not known here: below home something may be in the way. */
  private leaves(what: string): void {
    const { homeZ, beam } = this.options;
    const { z } = this.at.toWork(this.at.here);
    if (beam || z > homeZ - 1e-6) return;
    this.report('way-unknown', { what, z }, `way:${this.line}`);
  }

  /** A rapid to a place as it is written, by the way the machine takes. */
  private rapid(x: number, y: number, z: number): void {
    const to = { x, y, z };
    if (!this.options.bentRapids || this.compensation) return this.push(MOVE.rapid, x, y, z);
    for (const place of bentWay(this.at.toWork(this.at.here), this.at.toWork(to))) {
      const by = this.at.fromWork(place);
      this.push(MOVE.rapid, by.x, by.y, by.z);
    }
  }

  /** @param z in the work */
  private rapidTo(x: number, y: number, z: number): void {
    this.at.z = this.at.heightOf(z);
    this.push(MOVE.rapid, x, y, this.at.z);
  }

  private motion(words: Word[]): void {
    if (!this.changesByWord && this.pending !== this.tool) this.changeTool();
    const { x, y } = this.at.inPlane(words);
    if (this.cycle) return this.drill(words, x, y);
    this.refuse(idleWord(words, this.mode > 1));
    if (this.compensation)
      this.compensation.grain = Math.min(this.compensation.grain, this.at.scale * finestStep(words));
    const z = this.at.axis(words, 'Z', this.at.z);
    if (this.mode > 0) this.checkCut();
    if (this.mode <= 1) this.straight(x, y, z);
    else this.arc(words, x, y, z);
    this.at.here = { x, y, z };
  }

  /** The feed of a cut of this length where it is told by the time it takes. */
  private timed(length: number): void {
    const fault = this.mode > 0 ? this.feed.over(length) : undefined;
    if (fault) this.tell(fault, `inverse:${this.line}`);
  }

  private straight(x: number, y: number, z: number): void {
    if (Number.isNaN(this.at.x) && !Number.isNaN(x)) this.at.x = x;
    if (Number.isNaN(this.at.y) && !Number.isNaN(y)) this.at.y = y;
    this.timed(maths.hypot(x - this.at.x, y - this.at.y, z - this.at.z));
    if (this.mode === 0) this.rapid(x, y, z);
    else this.push(MOVE.line, x, y, z);
  }

  private checkCut(): void {
    this.refuse(this.feed.fault(), 'feed');
    if (!this.spindleOn) this.report('spindle-off', {}, `spindle:${this.tool}`);
    if (this.spindleOn && !this.options.beam) {
      this.checkTurn();
      this.checkFeed();
    }
    if (!this.at.offset) this.report('no-offset', {});
    if (this.tool > 0 && !this.hasLength && !this.withoutLength.has(this.tool))
      this.withoutLength.set(this.tool, this.line);
    if (this.tool === 0) this.report('no-tool', {});
  }

  private checkFeed(): void {
    const fault = this.feed.odd(this.rpm);
    if (fault) this.tell(fault, `odd:${this.feed.value}`);
  }

  private checkTurn(): void {
    const { tool, turnsLeft } = this;
    if (this.rpm <= 0) this.report('no-speed', {}, `speed:${tool}`);
    const { leftHanded } = this.options;
    if (leftHanded && tool > 0 && leftHanded.has(tool) !== turnsLeft)
      this.report('wrong-turn', { tool, toLeft: turnsLeft }, `turn:${tool}`);
  }

  /** Centre of an arc from I, J, K or R in the plane's own axes, or a finding. */
  private centre(words: Word[], ends: ArcEnds, letters: [string, string]): [number, number] | undefined {
    const given = ([...letters, 'R'] as const).map((letter) => words.find((w) => w.letter === letter)?.value);
    const [i, j, r] = given.map((value) => value && value * this.at.scale);
    const found = centreOf(ends, { i, j, r }, this.mode === 2);
    if (Array.isArray(found)) return found;
    this.tell(found, `arc:${this.line}`);
    return undefined;
  }

  private arc(words: Word[], x: number, y: number, z: number): void {
    if ([this.at.x, this.at.y, x, y].some(Number.isNaN)) {
      this.report('no-start', {}, `arc:${this.line}`);
      return;
    }
    if (this.plane === 17) {
      const c = this.centre(words, [this.at.x, this.at.y, x, y], ['I', 'J']);
      if (!c) return;
      const r = maths.hypot(this.at.x - c[0], this.at.y - c[1]);
      this.timed(maths.hypot(r * sweepOf(this.mode, this.at.x, this.at.y, x, y, c[0], c[1]), z - this.at.z));
      this.push(this.mode === 2 ? MOVE.arcCw : MOVE.arcCcw, x, y, z, c[0], c[1]);
      return;
    }
    this.verticalArc(words, x, y, z);
  }

  /** Arcs in the XZ and YZ planes become chords within a micrometre. */
  private verticalArc(words: Word[], x: number, y: number, z: number): void {
    const zx = this.plane === 18;
    const [u0, v0, u1, v1] = zx ? [this.at.z, this.at.x, z, x] : [this.at.y, this.at.z, y, z];
    const c = this.centre(words, [u0, v0, u1, v1], zx ? ['K', 'I'] : ['J', 'K']);
    if (!c) return;
    const along = zx ? y - this.at.y : x - this.at.x;
    const sweep = sweepOf(this.mode, u0, v0, u1, v1, c[0], c[1]);
    this.timed(maths.hypot(maths.hypot(u0 - c[0], v0 - c[1]) * sweep, along));
    for (const [u, v, share] of chords([u0, v0, u1, v1], c, sweep)) {
      if (zx) this.push(MOVE.line, v, this.at.y + along * share, u);
      else this.push(MOVE.line, this.at.x + along * share, u, v);
    }
  }

  private drill(words: Word[], x: number, y: number): void {
    const cycle = this.cycle!;
    cycle.take(words, this.at.absolute, this.at.scale);
    if (!cycle.isWhole) {
      this.report('cycle-incomplete', {}, `cycle:${this.line}`);
      return;
    }
    this.refuse(cycle.fault, `cycle:${cycle.z}:${cycle.r}`);
    const times = Math.floor(words.find((w) => 'LK'.includes(w.letter))?.value ?? 1);
    if (times < 1) return;
    if (times > MOST_HOLES) this.report('cycle-too-often', { times, most: MOST_HOLES }, `often:${this.line}`);
    this.checkCut();
    const [dx, dy] = this.at.absolute ? [0, 0] : [x - this.at.x, y - this.at.y];
    for (let n = 0; n < Math.min(times, MOST_HOLES); n++) this.hole(cycle, x + n * dx, y + n * dy);
  }

  private hole(cycle: FixedCycle, x: number, y: number): void {
    const hop = Math.max(this.returnToInitial ? cycle.initial : cycle.r, cycle.r);
    const path = cycle.hole(x, y, this.at.z, hop, this.feed.value);
    for (let i = 0; i < path.count; i++) {
      const [toX, toY, toZ] = [path.x[i], path.y[i], path.z[i]];
      if (path.kind[i] === 0) this.rapid(toX, toY, toZ);
      else this.push(MOVE.line, toX, toY, toZ);
      [this.at.x, this.at.y, this.at.z] = [toX, toY, toZ];
      if (path.kind[i] !== 0 && path.z[i] === cycle.z && cycle.p > 0)
        this.push(MOVE.dwell, x, y, cycle.z, 0, 0, cycle.p);
    }
    [this.at.x, this.at.y, this.at.z] = [x, y, hop];
  }
}

/**
 * Reads a milling program into motions. What it does not understand it reports with the line and never guesses.
 * Dwells: P without a decimal point is milliseconds, with one seconds.
 * @param text the program
 * @param options where machine zero lies, and the unit until the program names one
 */
export function readProgram(text: string, options: ReadOptions): ReadProgram {
  const reader = new Reader(options);
  const lines = new Lines(text);
  withinBudget(
    () =>
      lines.run(
        (raw, number) => reader.read(raw, number),
        {
          cannotFollow: (why, call) => reader.cannotFollow(why, call),
          withoutEnd: () => reader.withoutEnd(),
          runsInto: (line) => reader.runsInto(line),
        },
        options.stopped,
      ),
    () => reader.tooLong(),
  );
  reader.finish();
  const motions = reader.motions.build();
  if (motions.count === 0) {
    reader.findings.push(finding('no-motion', {}, { line: 1 }));
  }
  const { findings, comments, tools, coolants, ran } = reader;
  return { motions, findings, comments, tools, coolants, ran, lines: lines.count };
}
