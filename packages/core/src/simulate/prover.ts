import { chordCount } from '../geometry/chain';
import { Finding } from '../quantity/finding';
import { powerAt } from '../shop/machine';
import { Tool, formOf } from '../shop/tool';
import { cutState } from '../cutting/cut';
import { MOVE, Motions } from '../program/motions';
import { sweepOf } from '../toolpath/path';
import { ContactState, Contacts } from './contacts';
import { Clock, clock, clockSettings } from './clock';
import { HeightField, copyField } from './field';
import { stockField } from './stock';
import { ProveInput } from './input';
import { SampleList, Samples } from './samples';
import { Bite, Cutter, Sweeper, cutterOf } from './sweep';

const SAMPLE_LENGTH = 0.5;
/** Chords stay this close to a true arc, mm. */
const CHORD = 0.001;
/** Ramps and helices are roughing: their stretches are this many times longer, their chords coarser. */
const SLOPED = 4;
const MOST_SAMPLES = 400_000;
/** Programs of more motions than this are sampled by length, not once a motion at least. */
const MANY_MOTIONS = 200_000;
/** Thinner contact than this does not count as engaged, mm: below it lies the grid's own error. */
const THIN = 0.003;

/** Key frames of a program, evenly spread: each holds heights and owners, 8 bytes a cell. */
const FRAMES = 10;

/** A proof as it stood before a motion. */
interface Frame extends Pick<HeightField, 'height' | 'below'> {
  next: number;
  elapsed: number;
  samples: number;
  gathered: Stretch | undefined;
  owner: Int32Array;
  contacts: ContactState;
}

/** Reads a program's motions over the stock, cutting as it goes; can be run in steps and stopped anywhere. */
export class Prover {
  readonly field: HeightField;
  readonly sweeper: Sweeper;
  readonly clock: Clock;
  readonly contacts: Contacts;
  /** What each motion took away, mm³. */
  readonly removedBy: Float32Array;
  private readonly samples = new SampleList();
  private readonly cutters = new Map<number, Cutter>();
  private readonly sampleLength: number;
  private gathered: Stretch | undefined;
  private next = 0;
  private elapsed = 0;
  private frames: Frame[] = [];

  constructor(readonly input: ProveInput) {
    this.field = stockField(input.stock, input.cell, input.left);
    this.sweeper = new Sweeper(this.field, input.stock.bottom);
    const { machine, motions } = input;
    this.removedBy = new Float32Array(motions.count);
    this.clock = clock(motions, clockSettings(machine));
    this.contacts = new Contacts(input, this.field);
    for (const [number, tool] of input.tools) this.cutters.set(number, cutterOf(tool));
    this.sampleLength = Math.max(SAMPLE_LENGTH, totalLength(motions) / MOST_SAMPLES);
  }

  get done(): boolean {
    return this.next >= this.input.motions.count;
  }

  /** Share of the motions already cut, 0..1. */
  get progress(): number {
    return this.input.motions.count ? this.next / this.input.motions.count : 1;
  }

  /** Memory of the grid and its key frames, bytes. */
  get memory(): number {
    return this.field.height.length * 8 * (1 + this.frames.length);
  }

  /** Cuts up to `most` further motions. */
  advance(most = Infinity): void {
    const end = Math.min(this.input.motions.count, this.next + most);
    const every = Math.ceil(this.input.motions.count / FRAMES);
    while (this.next < end) {
      if (this.next >= (this.frames[this.frames.length - 1]?.next ?? 0) + every) this.frames.push(this.frame());
      this.motion(this.next);
      this.elapsed += this.clock.seconds[this.next];
      this.next++;
    }
  }

  private frame(): Frame {
    const { next, elapsed, gathered, sweeper } = this;
    const { height, below } = copyField(this.field);
    const owner = sweeper.owner.slice();
    return {
      next,
      elapsed,
      gathered,
      height,
      below,
      owner,
      samples: this.samples.count,
      contacts: this.contacts.state(),
    };
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
    const { height, below } = copyField({ ...this.field, height: frame.height, below: frame.below });
    this.field.height.set(height);
    this.field.below = below;
    this.sweeper.owner.set(frame.owner);
    this.removedBy.set(earlier.removedBy.subarray(0, frame.next));
    this.samples.takeFrom(earlier.samples, frame.samples);
    this.contacts.takeUp(frame.contacts);
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
    const { motions: m, zero, tools } = this.input;
    if (i === 0 || m.type[i] >= MOVE.dwell) return;
    const [ax, ay, az] = [m.x[i - 1] + zero.x, m.y[i - 1] + zero.y, m.z[i - 1] + zero.z];
    const [bx, by, bz] = [m.x[i] + zero.x, m.y[i] + zero.y, m.z[i] + zero.z];
    if (Number.isNaN(bx) || Number.isNaN(by)) return;
    const from = { x: Number.isNaN(ax) ? bx : ax, y: Number.isNaN(ay) ? by : ay, z: az };
    const to = { x: bx, y: by, z: bz };
    const tool = tools.get(m.tool[i]);
    this.contacts.motion(i, from, to, tool);
    const cutter = this.cutters.get(m.tool[i]);
    if (!tool || !cutter) return;
    this.strokes(i, from, to, tool, cutter);
  }

  /** Cuts one motion in stretches of about the sample length; arcs as chords. */
  private strokes(i: number, from: P3, to: P3, tool: Tool, cutter: Cutter): void {
    const { motions: m, zero } = this.input;
    const arc = m.type[i] === MOVE.arcCw || m.type[i] === MOVE.arcCcw;
    const cx = m.cx[i] + zero.x;
    const cy = m.cy[i] + zero.y;
    const sweep = arc ? sweepOf(m.type[i], from.x, from.y, to.x, to.y, cx, cy) : 0;
    const radius = arc ? Math.hypot(from.x - cx, from.y - cy) : 0;
    const start = arc ? Math.atan2(from.y - cy, from.x - cx) : 0;
    const length = Math.hypot(arc ? radius * sweep : Math.hypot(to.x - from.x, to.y - from.y), to.z - from.z);
    if (length < 1e-9) return;
    const sloped = Math.abs(to.z - from.z) > 1e-9;
    const stretches =
      m.type[i] === MOVE.rapid ? 1 : Math.max(1, Math.ceil(length / (this.sampleLength * (sloped ? SLOPED : 1))));
    const chords = arc
      ? Math.max(1, Math.ceil(chordCount(radius, sweep, CHORD * (sloped ? SLOPED : 1)) / stretches))
      : 1;
    const steps = stretches * chords;
    const seconds = this.clock.seconds[i] / stretches;
    const isThreading = formOf(tool) === 'thread';
    const at = (t: number): P3 => {
      if (t === 1) return to;
      const z = from.z + (to.z - from.z) * t;
      return arc
        ? { x: cx + radius * Math.cos(start + sweep * t), y: cy + radius * Math.sin(start + sweep * t), z }
        : { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z };
    };
    let { x, y, z } = from;
    for (let s = 1; s <= stretches; s++) {
      let volume = 0;
      let depth = 0;
      let dropped = z;
      const before = this.contacts.before(i, tool, at(s / stretches));
      for (let c = 1; c <= chords; c++) {
        const next = at(((s - 1) * chords + c) / steps);
        const bite: Bite = this.sweeper.sweep(cutter, x, y, z, next.x, next.y, next.z, i);
        volume += bite.volume;
        if (bite.depth > depth) depth = bite.depth;
        ({ x, y, z } = next);
      }
      dropped -= z;
      if (isThreading) [volume, depth] = threadBite(tool, volume, depth, length / stretches);
      this.removedBy[i] += volume;
      this.contacts.stretch(i, tool, { x, y, z }, { volume, depth, dropped }, before);
      if (m.type[i] !== MOVE.rapid || volume > 0)
        this.record({
          motion: i,
          tool,
          volume,
          depth,
          length: length / stretches,
          dropped,
          time: this.elapsed + seconds * s,
          seconds,
          x,
          y,
          z,
        });
    }
  }

  /** Samples a stretch; in programs of very many motions, together with those before it up to the sample length. */
  private record(stretch: Stretch): void {
    if (this.input.motions.count <= MANY_MOTIONS) return this.sample(stretch);
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
    if (this.gathered) this.sample(this.gathered);
    this.gathered = undefined;
  }

  private sample({ motion: i, tool, volume, depth, length, dropped, time, seconds, x, y, z }: Stretch): void {
    const { motions: m, material, machine } = this.input;
    const steep = dropped > 0.3 * length;
    const ae = steep || depth < THIN ? 0 : Math.min(tool.diameter, volume / (depth * length));
    const angle = steep && volume > 0 ? 180 : ae < THIN ? 0 : (Math.acos(1 - (2 * ae) / tool.diameter) * 180) / Math.PI;
    const at = { motion: i, time, rate: seconds > 0 ? volume / seconds : 0, depth, engagement: angle, x, y, z };
    let [load, chip, force, bend] = [0, 0, 0, 0];
    if (volume > 0 && m.rpm[i] > 0 && m.feed[i] > 0) {
      const state = cutState({
        tool,
        material,
        machine,
        rpm: m.rpm[i],
        feed: m.feed[i],
        ae: Math.max(ae, THIN),
        ap: depth,
      });
      load = state.power / Math.max(1e-9, powerAt(machine, m.rpm[i]));
      [chip, force, bend] = [state.largestChip, state.force, state.deflection];
    }
    this.samples.push({ ...at, load, chip, force, bend });
  }

  /** What happened so far. */
  result(): { samples: Samples; findings: Finding[]; removed: number } {
    this.sampleGathered();
    const removed = this.removedBy.reduce((sum, v) => sum + v, 0);
    return { samples: this.samples.build(), findings: this.contacts.findings(), removed };
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
    (['machine', 'material', 'stock', 'zero', 'fixtures', 'zeroAboveTable'] as const).every((k) => isSame(a[k], b[k]))
  );
}

/** A stretch of path and what it took away. */
interface Stretch extends P3 {
  motion: number;
  tool: Tool;
  /** mm³. */
  volume: number;
  /** Thickest metal taken, mm. */
  depth: number;
  length: number;
  /** How far it went down, mm. */
  dropped: number;
  /** s, at its end. */
  time: number;
  seconds: number;
}

interface P3 {
  x: number;
  y: number;
  z: number;
}

function totalLength(m: Motions): number {
  let sum = 0;
  for (let i = 1; i < m.count; i++) {
    const d = Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]);
    if (Number.isFinite(d)) sum += d;
  }
  return sum;
}
