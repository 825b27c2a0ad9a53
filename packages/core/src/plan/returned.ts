/** A program that was edited at the control and comes back: what was changed, and what of it the operations can take. */
import { editOperation } from '../document/edit';
import { Job, Setup } from '../document/job';
import { Operation, Pause, Speeds } from '../document/operation';
import { targetsOf } from '../document/repeats';
import { Coolant } from '../machine/machine';
import { handOf } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import { Pair, Said, aligned, isSame, isStop } from '../program/read/aligned';
import { remark } from '../program/write/blocks';
import { Program } from '../program/write/step';
import { hashOf } from '../quantity/hash';
import { MM_PER_INCH, formatFeed, formatLength } from '../quantity/units';
import { Controller } from '../shop/controller';
import { controllerOf } from './pipeline';

/** One thing that was changed in a program. */
export interface Edit {
  /** The operation it belongs to; none in the head and at the end. */
  operation?: string;
  /** Line of the edited program, counted from 1. */
  line: number;
  words: string;
  /** Whether the operation takes it. */
  isTaken: boolean;
}

export interface Returned {
  edits: Edit[];
  /** The job with all that could be taken. */
  job: Job;
}

/** What stands in the edited program where a value stood, each with its first line. */
type Shifts<T> = Map<T, Map<T, number>>;

function note<T>(shifts: Shifts<T>, from: T, to: T, line: number): void {
  const seen = shifts.get(from) ?? new Map<T, number>();
  shifts.set(from, seen);
  if (!seen.has(to)) seen.set(to, line);
}

/** What a value became, where it is the same everywhere and another than before. */
function shiftOf<T>(shifts: Shifts<T>, from: T): { to: T; line: number } | undefined {
  const [only, ...more] = shifts.get(from) ?? [];
  return only && more.length === 0 && only[0] !== from ? { to: only[0], line: only[1] } : undefined;
}

/** What stands in one program at a line. */
class Standing {
  feed = NaN;
  rpm = NaN;
  coolant = '';
  /** Whether places are ways from where it stands. */
  isIncremental = false;
  private feeds = false;

  constructor(private readonly wets: Set<string>) {}

  /** @returns whether it moves at feed */
  read({ words }: Said): boolean {
    for (const { letter, value } of words) {
      if (letter === 'F') this.feed = value;
      else if (letter === 'S') this.rpm = value;
      else if (letter === 'M' && value === 9) this.coolant = '';
      else if (letter === 'M' && this.wets.has(`M${value}`)) this.coolant = `M${value}`;
      else if (letter === 'G' && (value === 90 || value === 91)) this.isIncremental = value === 91;
      else if (letter === 'G' && (value === 0 || value === 80)) this.feeds = false;
      else if (letter === 'G' && ((value >= 1 && value <= 3) || (value > 80 && value < 90))) this.feeds = true;
    }
    return this.feeds && words.some((w) => 'XYZIJ'.includes(w.letter));
  }
}

const numberOf = (said: Said, letter: string) => said.words.find((w) => w.letter === letter)?.value;

/** Everything that was changed in one operation. */
class Section {
  readonly feeds: Shifts<number> = new Map();
  readonly speeds: Shifts<number> = new Map();
  readonly depths: Shifts<number> = new Map();
  readonly coolants: Shifts<string> = new Map();
  readonly pairs: Pair[] = [];
  isThere = false;
  /** Lines put in or taken out before it moves. */
  readonly before: Pair[] = [];
  private hasMoved = false;

  add(pair: Pair, own: Standing, edited: Standing): void {
    const fed = pair.own && own.read(pair.own);
    const feeds = pair.edited && edited.read(pair.edited);
    if (pair.edited && pair.own) this.isThere = true;
    if (!isSame(pair)) this.pairs.push(pair);
    if (!(pair.own && pair.edited) && !this.hasMoved) this.before.push(pair);
    this.hasMoved ||= !!fed;
    if (!fed || !feeds) return;
    const { line } = pair;
    note(this.feeds, own.feed, edited.feed, line);
    note(this.speeds, own.rpm, edited.rpm, line);
    note(this.coolants, own.coolant, edited.coolant, line);
    const [z, other] = [numberOf(pair.own!, 'Z'), numberOf(pair.edited!, 'Z')];
    if (z !== undefined && other !== undefined && !own.isIncremental) note(this.depths, z, other, line);
  }
}

/** The feeds an operation is given, by where they stand. */
const FED: {
  label: string;
  get: (o: Operation) => number | undefined;
  set: (o: Operation, feed: number) => Operation;
}[] = [
  ...(['feed', 'entryFeed'] as const satisfies (keyof Speeds)[]).map((key) => ({
    label: key === 'feed' ? 'feed' : 'entry feed',
    get: (o: Operation) => o.speeds[key],
    set: (o: Operation, feed: number) => ({ ...o, speeds: { ...o.speeds, [key]: feed } }),
  })),
  ...(['lead', 'plunge', 'last'] as const).map((key) => ({
    label: { lead: 'feed of its leads', plunge: 'plunging feed', last: 'feed of its deepest layer' }[key],
    get: (o: Operation) => o.feeds?.[key],
    set: (o: Operation, feed: number) => ({ ...o, feeds: { ...o.feeds, [key]: feed } }),
  })),
];

/** What a job may say of speed and feeds. */
const FASTEST = 200_000;
const isFeed = (mmPerMin: number) => mmPerMin >= 0.1 && mmPerMin <= FASTEST;
const MOST_NOTE = 80;
const MOST_NAME = 80;
/** Lines of one operation that are named one by one. */
const MOST_LINES = 6;

/** What one operation takes of its section, and what is left of it. */
class Taking {
  readonly edits: Edit[] = [];
  private readonly settled = new Set<Pair>();
  private takesFeeds = true;

  constructor(
    private readonly job: Job,
    private readonly zeroZ: number,
    private readonly controller: Controller,
    private readonly section: Section,
    public operation: Operation,
  ) {}

  private take(line: number, words: string, next: Operation): void {
    this.edits.push({ operation: this.operation.id, line, words, isTaken: true });
    this.operation = next;
  }

  private get scale() {
    return this.job.output.unit === 'mm' ? 1 : MM_PER_INCH;
  }

  private written(mmPerMin: number): number {
    return Number((mmPerMin / this.scale).toFixed(this.controller.decimals.feed));
  }

  feeds(): void {
    const given = this.operation;
    for (const from of this.section.feeds.keys()) {
      const shift = shiftOf(this.section.feeds, from);
      const own = FED.filter(({ get }) => get(given) !== undefined && this.written(get(given)!) === from);
      if (!shift) this.takesFeeds &&= this.section.feeds.get(from)!.size === 1;
      else if (own.length === 0 || !isFeed(shift.to * this.scale)) this.takesFeeds = false;
      else
        for (const { label, set } of own) {
          const [is, was] = [shift.to, from].map((f) => formatFeed(f * this.scale, this.job.unit));
          this.take(shift.line, `${label} ${is} instead of ${was}`, set(this.operation, shift.to * this.scale));
        }
    }
  }

  rpm(): void {
    const { speeds } = this.operation;
    const shift = shiftOf(this.section.speeds, speeds.rpm);
    if (!shift || !Number.isInteger(shift.to) || shift.to < 1 || shift.to > FASTEST) return;
    const next = { ...this.operation, speeds: { ...speeds, rpm: shift.to } };
    this.take(shift.line, `${shift.to} rpm instead of ${speeds.rpm}`, next);
  }

  coolant(): void {
    if (this.section.coolants.size !== 1) return;
    const [from] = this.section.coolants.keys();
    const shift = shiftOf(this.section.coolants, from);
    const words = Object.entries(this.controller.coolant) as [Coolant, string][];
    const to = shift && (shift.to === '' ? 'off' : words.find(([, w]) => w === shift.to)?.[0]);
    if (to)
      this.take(shift.line, `coolant ${to} instead of ${this.operation.coolant}`, { ...this.operation, coolant: to });
  }

  /** Its deepest cuts are deeper or higher, all by the same. */
  depth(): void {
    const from = this.deepest;
    const shift = from === undefined ? undefined : shiftOf(this.section.depths, from);
    const targets = targetsOf(this.operation, this.job.part);
    const ends = new Set(targets.map(({ depth, through, meaning }) => hashOf([through || depth, meaning])));
    if (
      from === undefined ||
      !shift ||
      ends.size !== 1 ||
      kindOf(this.operation.kind)?.takesHeights !== 'start and end'
    )
      return;
    const by = (shift.to - from) * this.scale;
    const { end } = this.operation.heights ?? {};
    const at = { at: 'part top' as const, offset: rounded(shift.to * this.scale + this.zeroZ) };
    const heights = { ...this.operation.heights, end: end ? { ...end, offset: rounded(end.offset + by) } : at };
    if (this.isDrilled) heights.reach ??= 'tip';
    const [is, was] = [shift.to, from].map((z) => formatLength(z * this.scale, this.job.unit));
    this.take(shift.line, `down to Z ${is} instead of ${was}`, { ...this.operation, heights });
  }

  /** Z of its deepest cuts, in the unit of the program. */
  private get deepest(): number | undefined {
    const { depths } = this.section;
    return depths.size > 0 ? Math.min(...depths.keys()) : undefined;
  }

  /** Whether an M word, or none, is one of the coolant. */
  private isWet(m: number | undefined): boolean {
    return m === undefined || m === 9 || Object.values(this.controller.coolant).includes(`M${m}`);
  }

  private get isDrilled() {
    return kindOf(this.operation.kind)?.process === 'hole';
  }

  /** What it is called, and what is said where it stops. */
  remarks(): void {
    const { name, before } = this.operation;
    for (const pair of this.section.pairs) {
      const [was, is] = [pair.own?.comments[0], pair.edited?.comments[0]];
      if (was === undefined || !is || is.length > MOST_NAME) continue;
      const line = pair.edited!.line;
      const stood = (text: string) => remark(this.controller, text) === remark(this.controller, was);
      if (stood(name)) this.take(line, `called “${is}” instead of “${name}”`, { ...this.operation, name: is });
      else if (before && stood(before.note))
        this.take(line, `“${is}” instead of “${before.note}”`, { ...this.operation, before: { ...before, note: is } });
      else continue;
      this.settled.add(pair);
    }
  }

  /** A stop and remarks that were put in before it moves. */
  stop(): void {
    if (this.operation.before) return;
    const alone = this.section.before.filter((p) => !p.own);
    const stops = alone.filter((p) => isStop(p.edited!));
    const said = alone.filter(({ edited }) => edited!.words.length === 0 && edited!.comments.length > 0);
    const text = said.flatMap(({ edited }) => edited!.comments).join('; ');
    if ((stops.length === 0 && said.length === 0) || text.length > MOST_NOTE || stops.length > 1) return;
    const [first] = [...stops, ...said];
    const isPlanned = stops[0]?.edited!.words.some((w) => w.letter === 'M' && w.value === 0);
    const stop: Pause['stop'] = stops.length === 0 ? 'remark' : isPlanned ? 'planned' : 'optional';
    const words = stops.length === 0 ? `remark “${text}”` : `${stop} stop before it${text && `, “${text}”`}`;
    this.take(first.line, words, { ...this.operation, before: { stop, note: text } });
    [...stops, ...said].forEach((p) => this.settled.add(p));
  }

  /** What stands a few lines on or back before it moves says the same. */
  private moved(): void {
    for (const went of this.section.before.filter((p) => p.own && !this.settled.has(p))) {
      const same = (p: Pair) => !!p.edited && !this.settled.has(p) && isSame({ own: went.own, edited: p.edited });
      const came = this.section.before.find(same);
      if (came) [went, came].forEach((p) => this.settled.add(p));
    }
  }

  /** Whether a line differs by nothing but what was taken. */
  private isSettled(pair: Pair, taken: Operation, given: Operation): boolean {
    if (this.settled.has(pair)) return true;
    const differ = differing(pair);
    return differ.every((d) => {
      if (d.letter === 'F') return this.takesFeeds;
      if (d.letter === 'S') return taken.speeds.rpm !== given.speeds.rpm;
      if (d.letter === 'M') return taken.coolant !== given.coolant && this.isWet(d.was) && this.isWet(d.is);
      if (d.letter !== 'Z' || taken.heights === given.heights || d.was !== this.deepest) return false;
      return d.is === shiftOf(this.section.depths, d.was)?.to;
    });
  }

  all(): void {
    const given = this.operation;
    for (const step of ['feeds', 'rpm', 'coolant', 'depth', 'remarks', 'stop'] as const) this[step]();
    this.moved();
    const left = this.section.pairs.filter((p) => !this.isSettled(p, this.operation, given));
    this.edits.push(...leftEdits(left, given.id));
  }
}

const rounded = (mm: number) => Math.round(mm * 1e6) / 1e6;

interface Differing {
  letter: string;
  was?: number;
  is?: number;
}

/** Words in which two lines differ; a remark by no letter. */
function differing({ own, edited }: Pair): Differing[] {
  const letters = [...new Set([...(own?.words ?? []), ...(edited?.words ?? [])].map((w) => w.letter))];
  const valuesOf = (said: Said | undefined, letter: string) =>
    said?.words.filter((w) => w.letter === letter).map((w) => w.value) ?? [];
  const found = letters.flatMap((letter) => {
    const [was, is] = [valuesOf(own, letter), valuesOf(edited, letter)];
    const n = Math.max(was.length, is.length);
    return Array.from({ length: n }, (_, i) => ({ letter, was: was[i], is: is[i] })).filter((d) => d.was !== d.is);
  });
  const [was, is] = [own, edited].map((s) => s?.comments.join() ?? '');
  return was.toUpperCase() === is.toUpperCase() && found.length > 0 ? found : [...found, { letter: '' }];
}

const textOf = ({ words, comments, fault }: Said) =>
  [...words.map((w) => w.letter + w.value), ...comments.map((c) => `(${c})`), fault ?? ''].filter(Boolean).join(' ');

function wordsOf(pair: Pair): string {
  const { own, edited } = pair;
  if (!own) return `“${textOf(edited!)}” put in`;
  if (!edited) return `“${textOf(own)}” taken out`;
  return `“${textOf(edited)}” instead of “${textOf(own)}”`;
}

/** What is told of lines that nobody takes. */
function leftEdits(pairs: Pair[], operation?: string): Edit[] {
  const edits = pairs.map((p): Edit => ({ operation, line: p.line, words: wordsOf(p), isTaken: false }));
  const more = edits.length - MOST_LINES;
  if (more <= 0) return edits;
  return [...edits.slice(0, MOST_LINES), { ...edits[MOST_LINES], words: `and ${more} more lines` }];
}

/** The changed lines of an edited program by operation; those of the head and the end under no name. */
function sectionsOf(pairs: Pair[], program: Program, wets: Set<string>): Map<string | undefined, Section> {
  const sections = new Map<string | undefined, Section>();
  const [own, edited] = [new Standing(wets), new Standing(wets)];
  const ids: (string | undefined)[] = [];
  // What was put in belongs to what comes after it.
  let id: string | undefined;
  for (let k = pairs.length - 1; k >= 0; k--) {
    const { line } = pairs[k].own ?? {};
    if (line !== undefined) id = program.sections.filter((s) => s.line <= line).pop()?.operationId;
    ids[k] = id;
  }
  pairs.forEach((pair, k) => {
    const section = sections.get(ids[k]) ?? new Section();
    sections.set(ids[k], section);
    section.add(pair, own, edited);
  });
  return sections;
}

/** The program of a setup that an edited text was made from, beside it. */
function nearest(programs: Program[], text: string): { program: Program; pairs: Pair[] } | undefined {
  const found = programs.flatMap((program) => {
    const pairs = aligned(program.text, text);
    return pairs ? [{ program, pairs, off: pairs.filter((p) => !isSame(p)).length }] : [];
  });
  return found.sort((a, b) => a.off - b.off)[0];
}

/**
 * Compares a program that comes back with what a setup posts: what was changed, in words, operation by operation, and the job with what
 * its operations can take of it: speed, feeds, coolant, depth, names, stops and remarks, and operations that were taken out.
 * What it then posts may still differ from the text, as where a new depth is planned anew: compare it again.
 * @param programs as the setup posts them
 * @param zeroZ height of the work zero over the part’s top, mm
 * @returns undefined where the text was not made from any of them
 */
export function returned(
  job: Job,
  setup: Setup,
  programs: Program[],
  zeroZ: number,
  text: string,
): Returned | undefined {
  const controller = controllerOf(job);
  const found = controller && nearest(programs, text);
  if (!found) return undefined;
  const sections = sectionsOf(found.pairs, found.program, new Set(Object.values(controller.coolant)));
  const edits: Edit[] = [];
  let next = job;
  for (const [id, section] of sections) {
    const operation = setup.operations.find((o) => o.id === id);
    if (section.pairs.length === 0) continue;
    if (!operation || handOf(operation)) edits.push(...leftEdits(section.pairs, id));
    else if (!section.isThere) {
      edits.push({ operation: id, line: section.pairs[0].line, words: 'taken out', isTaken: true });
      next = editOperation(next, operation.id, (o) => ({ ...o, on: false }));
    } else {
      const taking = new Taking(job, zeroZ, controller, section, operation);
      taking.all();
      edits.push(...taking.edits);
      next = editOperation(next, operation.id, () => taking.operation);
    }
  }
  return { edits, job: next };
}
