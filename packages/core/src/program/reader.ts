import { chordCount } from '../geometry/chain';
import { Finding, care, note, stop } from '../quantity/finding';
import { LengthUnit, MM_PER_INCH } from '../quantity/units';
import { CycleKind } from '../shop/controller';
import { expandCycle } from '../toolpath/cycle';
import { sweepOf } from '../toolpath/path';
import { compensated } from './compensation';
import { MOVE, Motion, MotionList, Motions } from './motions';

export interface ReadOptions {
  /** Height of machine zero (where G53 Z0, G28 and G30 go) in work coordinates, mm. */
  homeZ: number;
  unit: LengthUnit;
  /** What the diameter registers hold, by tool number: a radius, mm, or 0 for wear alone. */
  registers?: Map<number, { register: number; radius: number }>;
  /** Of a two-axis machine: the tool its beam is, and the heights it stands for when on and off. */
  beam?: { tool: number; low: number; high: number };
  /** Words of the control that switch coolant, besides M7, M8 and M9. */
  coolant?: string[];
}

export interface ReadProgram {
  motions: Motions;
  findings: Finding[];
  /** Remarks with their line. */
  comments: { line: number; text: string }[];
  tools: number[];
  lines: number;
}

const MAX_FINDINGS = 200;
/** Start and end of an arc may lie this far off its circle before it is reported, mm. */
const ARC_SLACK = 0.01;
const FLAT_TOLERANCE = 0.001;

const NOT_UNDERSTOOD: Record<string, string> = {
  G41: 'Cutter compensation is followed only with a register whose radius is known; it is not followed here',
  G42: 'Cutter compensation is followed only with a register whose radius is known; it is not followed here',
  G93: 'Inverse-time feed is not followed',
  G16: 'Polar coordinates are not followed',
  G68: 'Rotated coordinates are not followed',
  G51: 'Scaled coordinates are not followed',
  G92: 'A shifted zero (G92) is not followed',
  M98: 'Subprograms are not followed',
};
const HARMLESS = new Set([
  'G4',
  'G40',
  'G49',
  'G50',
  'G61',
  'G64',
  'G69',
  'G15',
  'G94',
  'G43',
  'G17',
  'G98',
  'G99',
  'G80',
  'G53',
  'M0',
  'M1',
  'M2',
  'M30',
  'M3',
  'M4',
  'M5',
  'M6',
  'M7',
  'M8',
  'M9',
  'M19',
  'M48',
  'M49',
  'M10',
  'M11',
]);
const CYCLE_CODES: Record<number, CycleKind> = {
  73: 'chip-break',
  74: 'tap-left',
  81: 'drill',
  82: 'spot',
  83: 'peck',
  84: 'tap',
  85: 'ream',
  86: 'bore',
};

type Word = { letter: string; value: number; hasPoint: boolean };

class Reader {
  readonly motions = new MotionList();
  readonly findings: Finding[] = [];
  readonly comments: ReadProgram['comments'] = [];
  readonly tools: number[] = [];
  private line = 0;
  private x = NaN;
  private y = NaN;
  private z: number;
  private scale: number;
  private absolute = true;
  private perTurn = false;
  private plane = 17;
  private mode = 0;
  private feed = 0;
  private rpm = 0;
  private spindleOn = false;
  private tool = 0;
  private pending = 0;
  /** Whether tools change at M6; where it never comes, T itself is a change by hand. */
  private changesByWord = false;
  private hasOffset = false;
  private cycle: { kind: CycleKind; z: number; r: number; q: number; p: number } | undefined;
  private returnToInitial = true;
  private initialZ = 0;
  private ended = false;
  /** Moves since compensation was switched on: they can be followed only when it is known what comes after them. */
  private compensation: { hand: 1 | -1; radius: number; from: { x: number; y: number }; moves: Motion[] } | undefined;
  private compensationEnds = false;
  private readonly told = new Set<string>();

  constructor(private readonly options: ReadOptions) {
    this.scale = options.unit === 'mm' ? 1 : MM_PER_INCH;
    this.z = options.beam?.high ?? options.homeZ;
    if (options.beam) this.tool = this.pending = options.beam.tool;
  }

  private report(make: typeof stop, code: string, message: string, remedy: string, once = code): void {
    if (this.told.has(once) || this.findings.length >= MAX_FINDINGS) return;
    this.told.add(once);
    this.findings.push(make(code, message, remedy, { line: this.line }));
  }

  /** A program that ends with compensation on has been cut as far as it goes. */
  finish(): void {
    if (this.compensation?.moves.length) this.followCompensation();
  }

  read(raw: string): void {
    this.line++;
    if (this.ended) return;
    const words = this.words(raw);
    if (words.length > 0) this.block(words);
  }

  /** Splits a line into words, taking out remarks; a character that belongs nowhere is reported. */
  private words(raw: string): Word[] {
    const words: Word[] = [];
    let i = 0;
    while (i < raw.length) {
      const c = raw[i];
      if (c === ' ' || c === '\t' || c === '\r' || c === '%' || c === '\uFEFF') i++;
      else if (c === ';') {
        this.comments.push({ line: this.line, text: raw.slice(i + 1).trim() });
        break;
      } else if (c === '(') {
        const end = raw.indexOf(')', i);
        this.comments.push({ line: this.line, text: raw.slice(i + 1, end < 0 ? undefined : end).trim() });
        if (end < 0) break;
        i = end + 1;
      } else if (c === '/' && words.length === 0) {
        this.report(
          note,
          'block-skip',
          'A line marked with / is read as if the skip switch were off',
          'Set the switch the same way at the machine',
        );
        i++;
      } else if ((c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z')) {
        const match = NUMBER.exec(raw.slice(i + 1, i + 40));
        if (!match) {
          this.report(
            stop,
            'not-understood',
            `“${raw.slice(i, i + 12).trim()}” is not understood`,
            'Macros and expressions are not guessed; take them out, or prove this program at the machine',
            `word:${this.line}`,
          );
          return [];
        }
        words.push({
          letter: c.toUpperCase(),
          value: Number(match[0].replace(/\s/g, '')),
          hasPoint: match[0].includes('.'),
        });
        i += 1 + match[0].length;
      } else {
        this.report(
          stop,
          'not-understood',
          `“${raw.slice(i, i + 12).trim()}” is not understood`,
          'Macros and expressions are not guessed; take them out, or prove this program at the machine',
          `word:${this.line}`,
        );
        return [];
      }
    }
    return words;
  }

  private block(words: Word[]): void {
    const value = (letter: string) => words.find((w) => w.letter === letter)?.value;
    const g = words.filter((w) => w.letter === 'G').map((w) => w.value);
    const m = words.filter((w) => w.letter === 'M').map((w) => w.value);
    if (value('O') !== undefined && words.length === 1) return;
    this.settings(g, words);
    const f = value('F');
    if (f !== undefined) this.setFeed(f);
    const s = value('S');
    if (s !== undefined) this.rpm = s;
    const t = value('T');
    if (t !== undefined) this.pending = t;
    this.machine(m);
    if (g.includes(4)) return this.dwell(words);
    if (g.includes(28) || g.includes(30)) return this.home(words);
    if (g.includes(53)) return this.machineMove(words);
    if (words.some((w) => 'XYZIJKR'.includes(w.letter)) && !g.some((c) => c === 10 || c === 92 || c === 52))
      this.motion(words);
    if (m.includes(2) || m.includes(30)) this.ended = true;
  }

  private setFeed(value: number): void {
    if (value <= 0)
      this.report(stop, 'feed-zero', `A feed of ${value} does not move`, 'Give a feed above zero', `feed:${this.line}`);
    this.feed = this.perTurn ? value * this.scale * this.rpm : value * this.scale;
  }

  private settings(codes: number[], words: Word[]): void {
    for (const code of codes) {
      if (code >= 0 && code <= 3 && Number.isInteger(code)) [this.mode, this.cycle] = [code, undefined];
      else if (code === 20 || code === 70) this.scale = MM_PER_INCH;
      else if (code === 21 || code === 71) this.scale = 1;
      else if (code === 17 || code === 18 || code === 19) this.plane = code;
      else if (code === 90) this.absolute = true;
      else if (code === 91) this.absolute = false;
      else if (code === 94) this.perTurn = false;
      else if (code === 95) this.perTurn = true;
      else if (code === 80) this.cycle = undefined;
      else if (code === 98) this.returnToInitial = true;
      else if (code === 99) this.returnToInitial = false;
      else if (code >= 54 && code < 60) this.hasOffset = true;
      else if (CYCLE_CODES[code]) this.startCycle(code);
      else if (code === 40) this.compensationEnds = !!this.compensation;
      else if ((code === 41 || code === 42) && this.compensates(code, words)) continue;
      else if (code !== 28 && code !== 30) this.unknown(`G${code}`, words);
    }
  }

  private startCycle(code: number): void {
    this.cycle = { kind: CYCLE_CODES[code], z: NaN, r: NaN, q: 0, p: 0 };
    this.initialZ = this.z;
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
        from: { x: this.x, y: this.y },
        moves: [],
      };
    this.compensationEnds = false;
    return true;
  }

  /** Works out the way the cutter takes once compensation is switched off again. */
  private followCompensation(): void {
    const { moves, from, radius, hand } = this.compensation!;
    this.compensation = undefined;
    this.compensationEnds = false;
    const followed = compensated(moves, from, radius, hand);
    for (const motion of followed.moves) this.motions.push(motion);
    if (!followed.fault) return;
    const { line } = followed.fault;
    this.findings.push(
      stop(
        'compensation-does-not-fit',
        `A cutter of radius ${radius.toFixed(3)} mm does not fit into what is programmed here`,
        'Take a smaller cutter, or round the corner by more than its radius',
        { line },
      ),
    );
  }

  private harmless(name: string): boolean {
    return HARMLESS.has(name) || !!this.options.coolant?.includes(name);
  }

  private unknown(name: string, words: Word[]): void {
    if (NOT_UNDERSTOOD[name])
      this.report(
        stop,
        'not-followed',
        `${NOT_UNDERSTOOD[name]} (${name})`,
        'Post the program without it, or prove it at the machine',
        name,
      );
    else if (name === 'G10')
      this.report(
        care,
        'offset-set',
        'The program sets offsets itself (G10); the proof uses the ones you gave',
        'Check them at the machine',
        name,
      );
    else if (!this.harmless(name) && words.length)
      this.report(
        stop,
        'not-understood',
        `${name} is not understood`,
        'Take it out, or prove this program at the machine',
        name,
      );
  }

  /** A beam that is switched on stands for a tool that goes down, and up again when it goes out. */
  private spindle(on: boolean): void {
    const { beam } = this.options;
    if (beam && on && !this.spindleOn) this.push(MOVE.line, this.x, this.y, (this.z = beam.low));
    this.spindleOn = on;
    if (beam && !on && this.z < beam.high) this.rapidTo(this.x, this.y, beam.high);
  }

  private machine(codes: number[]): void {
    for (const code of codes) {
      if (code === 3 || code === 4) this.spindle(true);
      else if (code === 5 || code === 2 || code === 30) this.spindle(false);
      else if (code === 6) {
        this.changesByWord = true;
        this.changeTool();
      }
      if (code === 98 || code === 99 || !this.harmless(`M${code}`))
        this.unknown(`M${code}`, [{ letter: 'M', value: code, hasPoint: false }]);
    }
  }

  private changeTool(): void {
    if (this.pending === 0)
      this.report(
        care,
        'no-tool-number',
        'A tool change without a tool number',
        'Name the tool (T) before or on the line of M6',
        `m6:${this.line}`,
      );
    this.tool = this.pending;
    if (!this.tools.includes(this.tool)) this.tools.push(this.tool);
    this.push(MOVE.toolChange, this.x, this.y, this.z);
  }

  private push(type: number, x: number, y: number, z: number, cx = 0, cy = 0, seconds = 0): void {
    const motion = {
      type,
      line: this.line,
      x,
      y,
      z,
      cx,
      cy,
      feed: type === MOVE.rapid ? 0 : this.feed,
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
    this.push(MOVE.dwell, this.x, this.y, this.z, 0, 0, seconds);
  }

  private home(words: Word[]): void {
    if (words.some((w) => w.letter === 'Z') || !words.some((w) => 'XY'.includes(w.letter)))
      this.rapidTo(this.x, this.y, this.options.homeZ);
  }

  private machineMove(words: Word[]): void {
    const z = words.find((w) => w.letter === 'Z');
    if (z) this.rapidTo(this.x, this.y, this.options.homeZ + z.value * this.scale);
  }

  private rapidTo(x: number, y: number, z: number): void {
    this.z = z;
    this.push(MOVE.rapid, x, y, z);
  }

  private axis(words: Word[], letter: string, now: number): number {
    const word = words.find((w) => w.letter === letter);
    if (!word) return now;
    return this.absolute ? word.value * this.scale : (Number.isNaN(now) ? 0 : now) + word.value * this.scale;
  }

  private motion(words: Word[]): void {
    if (!this.changesByWord && this.pending !== this.tool) this.changeTool();
    const x = this.axis(words, 'X', this.x);
    const y = this.axis(words, 'Y', this.y);
    if (this.cycle) return this.drill(words, x, y);
    const z = this.axis(words, 'Z', this.z);
    if (this.mode > 0) this.checkCut();
    if (this.mode <= 1) this.straight(x, y, z);
    else this.arc(words, x, y, z);
    [this.x, this.y, this.z] = [x, y, z];
  }

  private straight(x: number, y: number, z: number): void {
    if (Number.isNaN(this.x) && !Number.isNaN(x)) this.x = x;
    if (Number.isNaN(this.y) && !Number.isNaN(y)) this.y = y;
    this.push(this.mode === 0 ? MOVE.rapid : MOVE.line, x, y, z);
  }

  private checkCut(): void {
    if (this.feed <= 0)
      this.report(stop, 'no-feed', 'A cutting move before any feed is given', 'Give a feed (F) before the first cut');
    if (!this.spindleOn)
      this.report(
        stop,
        'spindle-off',
        'A cutting move while the spindle stands still',
        'Start the spindle (S and M3) before the first cut',
        `spindle:${this.tool}`,
      );
    if (!this.hasOffset)
      this.report(
        care,
        'no-offset',
        'No work offset is named before the first cut',
        'Name one (G54 to G59), so that nobody relies on what was left in the control',
      );
    if (this.tool === 0) this.report(care, 'no-tool', 'A cut before any tool is named', 'Say which tool it is');
  }

  /** Centre of an arc from I, J, K or R in the plane's own axes, or a finding. */
  private centre(
    words: Word[],
    u0: number,
    v0: number,
    u1: number,
    v1: number,
    letters: [string, string],
  ): [number, number] | undefined {
    const r = words.find((w) => w.letter === 'R');
    if (r && !words.some((w) => letters.includes(w.letter))) {
      const radius = Math.abs(r.value * this.scale);
      const chord = Math.hypot(u1 - u0, v1 - v0);
      if (chord < 1e-9 || chord > 2 * radius + ARC_SLACK) {
        this.report(
          stop,
          'arc-impossible',
          `An arc of radius ${radius.toFixed(3)} mm cannot join points ${chord.toFixed(3)} mm apart`,
          'Correct R, or give I and J',
          `arc:${this.line}`,
        );
        return undefined;
      }
      const h = Math.sqrt(Math.max(0, radius * radius - (chord * chord) / 4));
      const side = (this.mode === 2 ? -1 : 1) * (r.value < 0 ? -1 : 1);
      return [(u0 + u1) / 2 - ((v1 - v0) / chord) * h * side, (v0 + v1) / 2 + ((u1 - u0) / chord) * h * side];
    }
    const i = words.find((w) => w.letter === letters[0])?.value ?? 0;
    const j = words.find((w) => w.letter === letters[1])?.value ?? 0;
    const c: [number, number] = [u0 + i * this.scale, v0 + j * this.scale];
    const off = Math.abs(Math.hypot(u1 - c[0], v1 - c[1]) - Math.hypot(u0 - c[0], v0 - c[1]));
    if (Math.hypot(u0 - c[0], v0 - c[1]) < 1e-6 || off > ARC_SLACK + 0.001 * Math.hypot(u0 - c[0], v0 - c[1])) {
      this.report(
        stop,
        'arc-impossible',
        `An arc ends ${off.toFixed(3)} mm off its own circle`,
        'Correct I and J, or the end point',
        `arc:${this.line}`,
      );
      return undefined;
    }
    return c;
  }

  private arc(words: Word[], x: number, y: number, z: number): void {
    if ([this.x, this.y, x, y].some(Number.isNaN)) {
      this.report(
        stop,
        'no-start',
        'An arc from an unknown place',
        'Move to a known X and Y first',
        `arc:${this.line}`,
      );
      return;
    }
    if (this.plane === 17) {
      const c = this.centre(words, this.x, this.y, x, y, ['I', 'J']);
      if (c) this.push(this.mode === 2 ? MOVE.arcCw : MOVE.arcCcw, x, y, z, c[0], c[1]);
      return;
    }
    this.verticalArc(words, x, y, z);
  }

  /** Arcs in the XZ and YZ planes become chords within a micrometre. */
  private verticalArc(words: Word[], x: number, y: number, z: number): void {
    const zx = this.plane === 18;
    const [u0, v0, u1, v1] = zx ? [this.z, this.x, z, x] : [this.y, this.z, y, z];
    const c = this.centre(words, u0, v0, u1, v1, zx ? ['K', 'I'] : ['J', 'K']);
    if (!c) return;
    const sweep = sweepOf(this.mode, u0, v0, u1, v1, c[0], c[1]);
    const radius = Math.hypot(u0 - c[0], v0 - c[1]);
    const n = chordCount(radius, sweep, FLAT_TOLERANCE);
    const start = Math.atan2(v0 - c[1], u0 - c[0]);
    for (let k = 1; k <= n; k++) {
      const u = k === n ? u1 : c[0] + radius * Math.cos(start + (sweep * k) / n);
      const v = k === n ? v1 : c[1] + radius * Math.sin(start + (sweep * k) / n);
      if (zx) this.push(MOVE.line, v, this.y + ((y - this.y) * k) / n, u);
      else this.push(MOVE.line, this.x + ((x - this.x) * k) / n, u, v);
    }
  }

  private drill(words: Word[], x: number, y: number): void {
    const cycle = this.cycle!;
    const take = (letter: string) => words.find((w) => w.letter === letter);
    const r = take('R');
    const z = take('Z');
    if (r) cycle.r = this.absolute ? r.value * this.scale : this.initialZ + r.value * this.scale;
    if (z) cycle.z = this.absolute ? z.value * this.scale : cycle.r + z.value * this.scale;
    const q = take('Q');
    if (q) cycle.q = Math.abs(q.value * this.scale);
    const p = take('P');
    if (p) cycle.p = p.hasPoint ? p.value : p.value / 1000;
    if (Number.isNaN(cycle.z) || Number.isNaN(cycle.r)) {
      this.report(
        stop,
        'cycle-incomplete',
        'A drilling cycle without its depth (Z) or start height (R)',
        'Give both on its first line',
        `cycle:${this.line}`,
      );
      return;
    }
    this.checkCut();
    const hop = Math.max(this.returnToInitial ? this.initialZ : cycle.r, cycle.r);
    const path = expandCycle({
      kind: cycle.kind,
      holes: [{ x, y, z: cycle.z, hop }],
      start: cycle.r,
      clearance: Math.max(this.z, cycle.r),
      peck: cycle.q,
      lessen: 0,
      dwell: 0,
      feed: this.feed,
      stops: 'none',
    });
    for (let i = 0; i < path.count; i++) {
      this.push(path.kind[i] === 0 ? MOVE.rapid : MOVE.line, path.x[i], path.y[i], path.z[i]);
      if (path.kind[i] !== 0 && path.z[i] === cycle.z && cycle.p > 0)
        this.push(MOVE.dwell, x, y, cycle.z, 0, 0, cycle.p);
    }
    [this.x, this.y, this.z] = [x, y, hop];
  }
}

const NUMBER = /^\s*[+-]?(?:\d+\.?\d*|\.\d+)/;

/**
 * Reads a milling program into motions. What it does not understand it reports with the line and never guesses.
 * Dwells: P without a decimal point is milliseconds, with one seconds.
 * @param text the program
 * @param options where machine zero lies, and the unit until the program names one
 */
export function readProgram(text: string, options: ReadOptions): ReadProgram {
  const reader = new Reader(options);
  let from = 0;
  let lines = 0;
  while (from <= text.length) {
    let to = text.indexOf('\n', from);
    if (to < 0) to = text.length;
    reader.read(text.slice(from, to));
    lines++;
    from = to + 1;
  }
  reader.finish();
  const motions = reader.motions.build();
  if (motions.count === 0) {
    reader.findings.push(
      stop('no-motion', 'The program moves nothing', 'Check that this is a milling program', { line: 1 }),
    );
  }
  return { motions, findings: reader.findings, comments: reader.comments, tools: reader.tools, lines };
}
