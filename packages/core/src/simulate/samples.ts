/** The cut moment by moment: one entry a stretch of path. */
export interface Samples {
  count: number;
  motion: Uint32Array;
  /** Seconds from the start, at the end of the stretch. */
  time: Float32Array;
  /** mm³ a second. */
  rate: Float32Array;
  /** Thickest metal taken, mm. */
  depth: Float32Array;
  /** Engaged angle, degrees. */
  engagement: Float32Array;
  /** Share of the spindle's power at that speed, which is its share of the torque too. */
  load: Float32Array;
  /** Thickest chip, mm. */
  chip: Float32Array;
  /** Largest side force over a turn, N. */
  force: Float32Array;
  /** How far it bends the tool, mm. */
  bend: Float32Array;
  /** At the root of the tool, N/mm². */
  stress: Float32Array;
  /** Share of the grip of its holder. */
  grip: Float32Array;
  /** Of the stretch: s, and mm. */
  seconds: Float32Array;
  length: Float32Array;
  /** Tip at the end of the stretch, part coordinates. */
  x: Float32Array;
  y: Float32Array;
  z: Float32Array;
}

/** What can be shown over time. */
export const MEASURES = ['rate', 'engagement', 'chip', 'load', 'force', 'bend'] as const;
export type Measure = (typeof MEASURES)[number];

/** One entry. */
export type Sample = Record<Exclude<keyof Samples, 'count'>, number>;

const COLUMNS = [
  'motion',
  'time',
  'rate',
  'depth',
  'engagement',
  'load',
  'chip',
  'force',
  'bend',
  'stress',
  'grip',
  'seconds',
  'length',
  'x',
  'y',
  'z',
] as const;

/** Collects samples; doubles its room when full. */
export class SampleList {
  count = 0;
  private data = new Float64Array(COLUMNS.length * 4096);

  push(sample: Sample): void {
    const at = this.count++ * COLUMNS.length;
    if (at + COLUMNS.length > this.data.length) {
      const next = new Float64Array(this.data.length * 2);
      next.set(this.data);
      this.data = next;
    }
    for (let k = 0; k < COLUMNS.length; k++) this.data[at + k] = sample[COLUMNS[k]];
  }

  /** Takes over the first entries of another list. */
  takeFrom(other: SampleList, count: number): void {
    this.data = other.data.slice();
    this.count = count;
  }

  build(): Samples {
    const column = (name: (typeof COLUMNS)[number]) => {
      const k = COLUMNS.indexOf(name);
      return Float32Array.from({ length: this.count }, (_, i) => this.data[i * COLUMNS.length + k]);
    };
    const motion = Uint32Array.from({ length: this.count }, (_, i) => this.data[i * COLUMNS.length]);
    const rest = Object.fromEntries(COLUMNS.slice(1).map((name) => [name, column(name)]));
    return { count: this.count, motion, ...rest } as Samples;
  }
}

/** Those samples that are asked for, in their order. */
export function samplesWhere(samples: Samples, isAsked: (i: number) => boolean): Samples {
  const kept = Array.from({ length: samples.count }, (_, i) => i).filter(isAsked);
  const motion = Uint32Array.from(kept, (i) => samples.motion[i]);
  const rest = COLUMNS.slice(1).map((name) => [name, Float32Array.from(kept, (i) => samples[name][i])]);
  return { count: kept.length, motion, ...Object.fromEntries(rest) } as Samples;
}
