import { Budget, withinBudget } from '../quantity/budget';
import { Finding, finding } from '../quantity/finding';
import { powerAt } from '../machine/machine';
import { removalPower, specificForce } from '../cutting/milling';
import { Tool, formOf, isAxial } from '../shop/tool';
import { kcOf } from '../cutting/conditions';
import { cutState } from '../cutting/cut';
import { MOVE, Motions } from '../path/motions';
import { Contacts, Stroke } from './contacts';
import { Clock, clock, clockSettings } from './clock';
import { Course } from './course';
import { Vec3 } from '../geometry/space/vec3';
import { HeightField } from '../stock/height/field';
import { ProveInput } from './input';
import { Sample, SampleList, Samples } from './samples';
import { HeightSnapshot, HeightStock } from '../stock/height/height-stock';
import { Cutter, cutterOf } from '../stock/height/sweep';
import { Observer, drive } from './drive';
import { ToldState } from './told';
import { maths } from '../quantity/maths';

const SAMPLE_LENGTH = 0.5;
/** Chords stay this close to a true arc, mm. */
export const CHORD = 0.001;
/** Ramps and helices are roughing: their stretches are this many times longer, their chords coarser. */
export const SLOPED = 4;
const MOST_SAMPLES = 400_000;
/** Programs of more motions than this are sampled by length, not once a motion at least. */
const MANY_MOTIONS = 200_000;
/** Thinner contact than this does not count as engaged, mm: below it lies the grid's own error. */
const THIN = 0.003;

/** Cells that a proof may cut over, counted as often as a cutter passes them: hours of work. */
export const MOST_WORK = 2e10;
/** And a chord, wherever it is. */
export const CHORD_WORK = 1000;
/** And a stretch, whatever it passes over. */
export const STRETCH_WORK = 1000;

/** Key frames of a program, evenly spread: each holds heights and owners, 8 bytes a cell, 12 where there are undersides too. */
const FRAMES = 10;

/** A proof as it stood before a motion. */
interface KeyFrame {
  stock: HeightSnapshot;
  next: number;
  elapsed: number;
  samples: number;
  gathered: Stretch | undefined;
  told: ToldState;
}

/** Reads a program's motions over the stock, cutting as it goes; can be run in steps and stopped anywhere. */
export class Prover {
  readonly stock: HeightStock;
  readonly clock: Clock;
  readonly contacts: Contacts;
  /** What each motion took away, mm³. */
  readonly removedBy: Float32Array;
  private readonly samples = new SampleList();
  readonly cutters = new Map<number, Cutter>();
  private readonly sampleLength: number;
  private gathered: Stretch | undefined;
  private next = 0;
  private elapsed = 0;
  private frames: KeyFrame[] = [];
  /** What the stretch under way has taken so far. */
  private stroke: Stroke = { volume: 0, depth: 0, cells: 0, dropped: 0 };
  private readonly gather: Observer = {
    bite: ({ volume, depth, cells }) => {
      this.stroke.volume += volume;
      this.stroke.cells += cells;
      if (depth > this.stroke.depth) this.stroke.depth = depth;
    },
  };
  private readonly budget = new Budget(MOST_WORK);
  /** Motion at which the budget was met; the proof ends there. */
  private endsAt: number | undefined;

  constructor(readonly input: ProveInput) {
    this.stock = HeightStock.of(input.stock, input.cell, input.left);
    const { machine, motions } = input;
    this.removedBy = new Float32Array(motions.count);
    this.clock = clock(motions, clockSettings(machine));
    this.contacts = new Contacts(input, this.stock);
    for (const [number, tool] of input.tools) this.cutters.set(number, cutterOf(tool));
    this.sampleLength = Math.max(SAMPLE_LENGTH, totalLength(motions) / MOST_SAMPLES);
  }

  get field(): HeightField {
    return this.stock.field;
  }

  get done(): boolean {
    return this.isCutShort || this.next >= this.input.motions.count;
  }

  /** Whether it ended before the program did. */
  get isCutShort(): boolean {
    return this.endsAt !== undefined;
  }

  /** Share of the motions already cut, 0..1. */
  get progress(): number {
    return this.input.motions.count ? this.next / this.input.motions.count : 1;
  }

  /** Whether its samples are several motions together. */
  get isGathered(): boolean {
    return this.input.motions.count > MANY_MOTIONS;
  }

  /** Memory of the grid and its key frames, bytes. */
  get memory(): number {
    return this.stock.memory * (1 + this.frames.length);
  }

  /** Cuts up to `most` further motions, as far as the budget goes. */
  advance(most = Infinity): void {
    const end = Math.min(this.input.motions.count, this.next + most);
    const every = Math.ceil(this.input.motions.count / FRAMES);
    withinBudget(
      () => {
        while (this.next < end && !this.isCutShort) {
          if (this.next >= (this.frames[this.frames.length - 1]?.next ?? 0) + every) this.frames.push(this.frame());
          this.motion(this.next);
          this.elapsed += this.clock.seconds[this.next];
          this.next++;
        }
      },
      () => void (this.endsAt = this.next),
    );
  }

  private frame(): KeyFrame {
    const { next, elapsed, gathered } = this;
    const stock = this.stock.snapshot();
    return { next, elapsed, gathered, stock, samples: this.samples.count, told: this.contacts.told.state() };
  }

  /**
   * Starts where an earlier proof stood when it came to what has changed, if both cut the same piece in the same way until then.
   * @returns how many motions need not be cut again
   */
  follow(earlier: Prover): number {
    const same = isSameGround(this.input, earlier.input) ? this.sameUntil(earlier) : 0;
    const kept = earlier.frames.filter((f) => f.next <= same);
    const frame = kept[kept.length - 1];
    if (!frame || this.next > 0) return 0;
    this.stock.restore(frame.stock);
    this.removedBy.set(earlier.removedBy.subarray(0, frame.next));
    this.samples.takeFrom(earlier.samples, frame.samples);
    this.contacts.told.takeUp(frame.told);
    [this.next, this.elapsed, this.gathered, this.frames] = [frame.next, frame.elapsed, frame.gathered, kept];
    return frame.next;
  }

  /** How many motions are the same, last as long and are made with the same tools. */
  private sameUntil(earlier: Prover): number {
    const [a, b] = [this.input, earlier.input];
    const columns = Object.keys(a.motions).filter((k): k is keyof Omit<Motions, 'count'> => k !== 'count');
    const isSameTool = new Map([...a.tools].map(([n, t]) => [n, isSame(t, b.tools.get(n))]));
    for (let i = 0; i < Math.min(a.motions.count, b.motions.count); i++) {
      const same =
        columns.every((c) => Object.is(a.motions[c][i], b.motions[c][i])) &&
        this.clock.seconds[i] === earlier.clock.seconds[i] &&
        (isSameTool.get(a.motions.tool[i]) ?? !b.tools.has(a.motions.tool[i]));
      if (!same) return i;
    }
    return Math.min(a.motions.count, b.motions.count);
  }

  private motion(i: number): void {
    const { motions, zero, tools } = this.input;
    if (motions.type[i] === MOVE.toolChange && i > 0) this.change(i);
    const course = Course.of(motions, i, zero);
    if (!course) return;
    const tool = tools.get(motions.tool[i]);
    this.contacts.motion(i, course, tool);
    const cutter = this.cutters.get(motions.tool[i]);
    if (tool && cutter && course.length >= 1e-9) this.strokes(i, course, tool, cutter);
  }

  private change(i: number): void {
    const { motions: m, zero, tools } = this.input;
    const before = tools.get(m.tool[i - 1]);
    const at = { x: m.x[i] + zero.x, y: m.y[i] + zero.y, z: m.z[i] + zero.z };
    if (before && !Number.isNaN(at.x) && !Number.isNaN(at.y)) this.contacts.change(i, at, before);
  }

  /** Cuts one motion in stretches of about the sample length; arcs as chords. */
  private strokes(i: number, course: Course, tool: Tool, cutter: Cutter): void {
    const isRapid = this.input.motions.type[i] === MOVE.rapid;
    const { stretches, chords } = this.divided(i, course);
    const { grain } = this.stock;
    const wide = (2 * cutter.radius) / grain;
    if (wide * (course.length / grain + wide * stretches * chords) > MOST_WORK) this.budget.spend(MOST_WORK + 1);
    const seconds = this.clock.seconds[i] / stretches;
    const length = course.length / stretches;
    for (let s = 1; s <= stretches; s++) {
      const at = course.at(s / stretches);
      const before = this.contacts.before(i, tool, course.at((s - 1) / stretches), at);
      const bite = this.stretch(this.stock, i, course, [(s - 1) * chords, s * chords, stretches * chords]);
      this.budget.spend(STRETCH_WORK + chords * CHORD_WORK + bite.cells);
      if (formOf(tool) === 'thread') [bite.volume, bite.depth] = threadBite(tool, bite.volume, bite.depth, length);
      this.removedBy[i] += bite.volume;
      this.contacts.stretch(i, tool, at, bite, before);
      const time = this.elapsed + seconds * s;
      if (!isRapid || bite.volume > 0) this.record({ motion: i, tool, ...bite, length, time, seconds, ...at });
    }
  }

  /** Into how many stretches a motion is divided, and each of them into how many chords. */
  private divided(i: number, course: Course): { stretches: number; chords: number } {
    const isRapid = this.input.motions.type[i] === MOVE.rapid;
    const coarse = course.isSloped ? SLOPED : 1;
    const stretches = isRapid ? 1 : Math.max(1, Math.ceil(course.length / (this.sampleLength * coarse)));
    return { stretches, chords: Math.max(1, Math.ceil(course.chords(CHORD * coarse) / stretches)) };
  }

  /**
   * Cuts a motion over another piece of the same stock, as it stood before, and measures some of its stretches.
   * @param isAsked whether a stretch is measured, counted from 0
   */
  again(i: number, stock: HeightStock, isAsked: (stretch: number) => boolean, samples: SampleList): void {
    const course = Course.of(this.input.motions, i, this.input.zero);
    const tool = this.input.tools.get(this.input.motions.tool[i]);
    if (!course || !tool || course.length < 1e-9) return;
    const { stretches, chords } = this.divided(i, course);
    const [length, seconds] = [course.length / stretches, this.clock.seconds[i] / stretches];
    for (let s = 0; s < stretches; s++) {
      const bite = this.stretch(stock, i, course, [s * chords, (s + 1) * chords, stretches * chords]);
      const at = course.at((s + 1) / stretches);
      if (isAsked(s)) samples.push(this.sampled({ motion: i, tool, ...bite, length, time: 0, seconds, ...at }));
    }
  }

  /** Cuts the chords from one up to another, of so many in all. */
  private stretch(stock: HeightStock, i: number, course: Course, [first, last, all]: [number, number, number]): Stroke {
    const stroke: Stroke = (this.stroke = { volume: 0, depth: 0, cells: 0, dropped: 0 });
    const place = (k: number) => course.at((first + k) / all);
    drive(stock, this.cutters.get(this.input.motions.tool[i])!, i, last - first, place, this.gather);
    stroke.dropped = place(0).z - place(last - first).z;
    return stroke;
  }

  /** Samples a stretch; in programs of very many motions, together with those before it up to the sample length. */
  private record(stretch: Stretch): void {
    if (!this.isGathered) return this.samples.push(this.sampled(stretch));
    const { gathered } = this;
    if (gathered && gathered.tool === stretch.tool && gathered.volume > 0 === stretch.volume > 0)
      this.gathered = {
        ...stretch,
        volume: gathered.volume + stretch.volume,
        depth: Math.max(gathered.depth, stretch.depth),
        length: gathered.length + stretch.length,
        dropped: gathered.dropped + stretch.dropped,
        seconds: gathered.seconds + stretch.seconds,
      };
    else {
      this.sampleGathered();
      this.gathered = stretch;
    }
    if (this.gathered!.length >= this.sampleLength) this.sampleGathered();
  }

  private sampleGathered(): void {
    if (this.gathered) this.samples.push(this.sampled(this.gathered));
    this.gathered = undefined;
  }

  private sampled({ motion: i, tool, volume, depth, length, dropped, time, seconds, x, y, z }: Stretch): Sample {
    const { motions: m, material, machine } = this.input;
    const steep = dropped > 0.3 * length;
    const ae = steep || depth < THIN ? 0 : Math.min(tool.diameter, volume / (depth * length));
    const angle =
      steep && volume > 0 ? 180 : ae < THIN ? 0 : (maths.acos(1 - (2 * ae) / tool.diameter) * 180) / Math.PI;
    const rate = seconds > 0 ? volume / seconds : 0;
    const at = { motion: i, time, rate, depth, engagement: angle, seconds, length, x, y, z };
    const none = { load: 0, chip: 0, force: 0, bend: 0, stress: 0, grip: 0 };
    if (volume <= 0 || !(m.rpm[i] > 0) || !(m.feed[i] > 0)) return { ...at, ...none };
    const feed = Math.min(m.feed[i], 60 * this.clock.fastest[i]);
    const cut = { tool, material, machine, rpm: m.rpm[i], feed, ae: Math.max(ae, THIN), ap: depth };
    const { largestChip, force, deflection, stress, grip, power, meanChip, chipLoad } = cutState(cut);
    // What is taken away in a second is right for slots, helices and plunges alike; only the thickness of its chips is not known.
    // On its way up to speed and down again it is slower: the mean is right for power, the fastest for chip and force.
    const pace = seconds > 0 ? (60 * length) / seconds / feed : 1;
    const taken = removalPower(
      rate,
      specificForce(kcOf(tool, material), material.mc, pace * (steep ? chipLoad : meanChip)),
    );
    // A drill in a hole takes what is left of its section; a tap its whole thread.
    const whole = formOf(tool) === 'tap' ? 0 : (Math.PI * maths.pow(tool.diameter, 2) * length) / 4;
    const share = isAxial(tool) ? Math.min(1, volume / Math.max(1e-9, whole)) : 1;
    const kW = isAxial(tool) ? power * share : taken;
    return {
      ...at,
      load: kW / Math.max(1e-9, powerAt(machine, m.rpm[i])),
      chip: steep && !isAxial(tool) ? chipLoad : largestChip,
      force,
      bend: deflection,
      stress: stress * share,
      grip: grip * share,
    };
  }

  /** What happened so far; `volume` is what was taken away, mm³. */
  result(): { samples: Samples; findings: Finding[]; volume: number } {
    this.sampleGathered();
    const volume = this.removedBy.reduce((sum, v) => sum + v, 0);
    return { samples: this.samples.build(), findings: [...this.cutShort(), ...this.contacts.told.findings()], volume };
  }

  private cutShort(): Finding[] {
    if (this.endsAt === undefined) return [];
    return [finding('proof-too-long', {}, { line: this.input.motions.line[this.endsAt], motion: this.endsAt })];
  }
}

/**
 * A field of heights cannot hold the grooves of a thread: it takes the whole wall above a tooth. What a stretch of thread really
 * removes is at most its profile, 0.6134·P high and P wide at the root, for each tooth in the metal.
 */
function threadBite({ pitch, fluteLength }: Tool, volume: number, depth: number, length: number): [number, number] {
  const teeth = Math.max(1, Math.min(depth, fluteLength) / pitch);
  return [Math.min(volume, (0.6134 * pitch * pitch * teeth * length) / 2), Math.min(depth, fluteLength)];
}

const isSame = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Whether two proofs start from the same piece, held and cut in the same place. */
function isSameGround(a: ProveInput, b: ProveInput): boolean {
  return (
    a.left === b.left &&
    a.cell === b.cell &&
    (['machine', 'material', 'stock', 'zero', 'fixtures', 'grips', 'zeroAboveTable', 'table'] as const).every((k) =>
      isSame(a[k], b[k]),
    )
  );
}

/** A stretch of path and what it took away. */
interface Stretch extends Vec3, Stroke {
  motion: number;
  tool: Tool;
  length: number;
  /** s, at its end. */
  time: number;
  seconds: number;
}

function totalLength(m: Motions): number {
  let sum = 0;
  for (let i = 1; i < m.count; i++) {
    const d = maths.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]);
    if (Number.isFinite(d)) sum += d;
  }
  return sum;
}
