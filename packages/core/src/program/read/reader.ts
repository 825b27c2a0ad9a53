import { Budget, withinBudget } from '../../quantity/budget';
import { Finding, finding } from '../../quantity/finding';
import { LengthUnit, MM_PER_INCH } from '../../quantity/units';
import { Motions } from '../../path/motions';
import { blockFault } from './block-check';
import { CYCLE_CODES, FEED_MODES, HARMLESS, NOT_FOLLOWED } from './codes';
import { Feed } from './feed';
import { FixedCycle } from './fixed-cycle';
import { Axes } from './frame';
import { Flow, FlowFault, Lines } from './lines';
import { Moves, Ways } from './moves';
import { Places } from './places';
import { Told } from './told';
import { KnownTools, Tooling } from './tooling';
import { Registers, Track } from './track';
import { Word, wordsOf } from './words';

export interface ReadOptions extends Ways, KnownTools {
  unit: LengthUnit;
  /** What the diameter registers hold. */
  registers?: Registers;
  /** Of a two-axis machine: the tool its beam is, and the heights it stands for when on and off. */
  beam?: { tool: number; low: number; high: number };
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

/** Steps of reading, one for a line and one for a motion: a million lines take two million. */
const MOST_STEPS = 6_000_000;
/** Words that one block can hold. */
const MOST_WORDS = 100;
/** Words that every control knows as coolant. */
const WETS = new Set(['M7', 'M8']);
/** Words that stop the spindle. */
const STOPS = new Set([2, 5, 30]);

/** Reads block by block what a program sets, switches and moves. */
class Reader {
  readonly comments: ReadProgram['comments'] = [];
  readonly coolants: ReadProgram['coolants'] = [];
  readonly ran: number[] = [];
  readonly told = new Told();
  readonly tooling: Tooling;
  readonly track: Track;
  private readonly budget = new Budget(MOST_STEPS);
  private readonly feed = new Feed();
  private readonly at: Places;
  private readonly moves: Moves;

  constructor(private readonly options: ReadOptions) {
    const { told, feed, budget } = this;
    const scale = options.unit === 'mm' ? 1 : MM_PER_INCH;
    this.at = new Places(options.beam?.high ?? options.homeZ, scale, options.offsets);
    this.tooling = new Tooling(told, feed, options);
    this.track = new Track(told, this.at, feed, this.tooling, budget, options.registers);
    this.moves = new Moves(told, this.at, feed, this.tooling, this.track, options);
  }

  finish(): void {
    this.track.finish();
    this.tooling.finish();
  }

  /** The text is over, and nothing said that the program is. */
  withoutEnd(): void {
    if (this.track.motions.count > 0) this.told.report('no-end', {});
  }

  /** The end of a subprogram, or the head of another program, in a program that nobody called. */
  runsInto(line: number): void {
    this.told.line = line;
    this.told.report('runs-into', {}, `into:${line}`);
  }

  /** What a program that runs on and on is told. */
  tooLong(): void {
    this.told.report('program-too-long', { millions: MOST_STEPS / 1e6 });
  }

  /** A subprogram that cannot be followed. */
  cannotFollow(why: FlowFault, call: number): void {
    this.told.report(`subprogram-${why}`, { call }, `sub:${why}:${call}`);
  }

  read(raw: string, line: number): Flow {
    const { told } = this;
    told.line = line;
    this.budget.spend();
    const { words, comments, skipped, fault } = wordsOf(raw);
    for (const text of comments) this.comments.push({ line, text });
    if (skipped) told.report('block-skip', {});
    if (fault !== undefined) told.report('not-understood', { what: fault }, `word:${line}`);
    if (words.length === 0) return 'on';
    this.ran.push(line);
    if (words.length > MOST_WORDS) {
      told.report('block-too-long', { count: words.length }, `long:${line}`);
      return 'on';
    }
    told.tell(blockFault(words, !!this.moves.cycle));
    return this.block(words);
  }

  private block(words: Word[]): Flow {
    const { tooling, feed, moves } = this;
    const value = (letter: string) => words.find((w) => w.letter === letter)?.value;
    const g = words.filter((w) => w.letter === 'G').map((w) => w.value);
    const m = words.filter((w) => w.letter === 'M').map((w) => w.value);
    if (value('O') !== undefined && words.every((w) => 'ON'.includes(w.letter))) return 'program';
    this.settings(g, words);
    tooling.rpm = value('S') ?? tooling.rpm;
    feed.nextBlock();
    const f = value('F');
    if (f !== undefined) {
      this.told.tell(feed.set(f, this.at.scale, tooling.rpm), `feed:${this.told.line}`);
      tooling.checkFeed();
    }
    tooling.pending = value('T') ?? tooling.pending;
    this.machine(m);
    moves.take(g, words);
    // It stops once the block has been run.
    if (m.some((code) => STOPS.has(code))) moves.spindle(false);
    return this.flow(m, words);
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
    const { at, moves, track, tooling } = this;
    for (const code of codes) {
      if (code >= 0 && code <= 3 && Number.isInteger(code)) [moves.mode, moves.cycle] = [code, undefined];
      else if (code === 20 || code === 70) at.scale = MM_PER_INCH;
      else if (code === 21 || code === 71) at.scale = 1;
      else if (code === 17 || code === 18 || code === 19) moves.plane = code;
      else if (code === 90) at.absolute = true;
      else if (code === 91) at.absolute = false;
      else if (FEED_MODES[code]) this.feed.switchTo(FEED_MODES[code]);
      else if (code === 80) moves.cycle = undefined;
      else if (code === 98) moves.returnToInitial = true;
      else if (code === 99) moves.returnToInitial = false;
      else if (code >= 54 && code < 60) this.workOffset(code, words);
      else if (at.change(code, words, moves.plane)) continue;
      else if (CYCLE_CODES[code]) moves.cycle = new FixedCycle(CYCLE_CODES[code], at.z);
      else if (code === 40) track.endCompensation();
      else if ((code === 41 || code === 42) && track.compensates(code, words)) continue;
      else if (code === 43) tooling.takeLength(words);
      else if (code === 49) tooling.dropLength();
      else if (code !== 28 && code !== 30) this.unknown(`G${code}`, words);
    }
  }

  private workOffset(code: number, words: Word[]): void {
    const fault = this.at.takeOffset(code, words);
    this.told.tell(fault, `offset:${fault?.message}`);
  }

  /** Whether a word switches a coolant on. */
  private wets(name: string): boolean {
    return WETS.has(name) || Object.values(this.options.control?.coolant ?? {}).includes(name);
  }

  private harmless(name: string): boolean {
    return HARMLESS.has(name) || this.wets(name);
  }

  private unknown(name: string, words: Word[]): void {
    const { told } = this;
    if (NOT_FOLLOWED[name]) told.report('not-followed', { what: NOT_FOLLOWED[name], code: name }, name);
    else if (name === 'G10') told.report('offset-set', {}, name);
    else if (!this.harmless(name) && words.length) told.report('not-understood', { what: name }, name);
  }

  private machine(codes: number[]): void {
    const { moves, tooling } = this;
    if (codes.includes(6)) {
      // A change stops the spindle, whatever else the block says.
      moves.spindle(false);
      moves.changeTool(true);
    }
    for (const code of codes) {
      const word = `M${code}`;
      if (code === 3 || code === 4) {
        tooling.turn(code);
        moves.spindle(true);
      }
      const motion = this.track.motions.count;
      if (code === 9) this.coolants.push({ motion, word: '' });
      if (this.wets(word)) this.coolants.push({ motion, word });
      if (!this.harmless(word)) this.unknown(word, [{ letter: 'M', value: code, hasPoint: false }]);
    }
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
  const { told, tooling, track, comments, coolants, ran } = reader;
  const motions = track.motions.build();
  if (motions.count === 0) told.findings.push(finding('no-motion', {}, { line: 1 }));
  return { motions, findings: told.findings, comments, tools: tooling.tools, coolants, ran, lines: lines.count };
}
