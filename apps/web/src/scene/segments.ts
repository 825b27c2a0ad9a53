import {
  Feature,
  Part,
  PathRun,
  PlannedView,
  Point,
  Samples,
  Work,
  endsAt,
  flatten,
  instancesOf,
  leaningEdges,
  leaningFaces,
  sweepOf,
} from '@tidypath/core';
import { TEMPER, temperStep } from '../theme/theme';
import type { Segments } from './terms';

const floorOf = (f: Feature, thickness: number) => (f.meaning === 'outline' ? -thickness : -endsAt(f, thickness));

/** How a part leans on a sine plate. */
type Leaning = NonNullable<Work['leaning']>;

/** Edges of the wanted part: every outline at its top and its floor; where it leans, on its slope, and the edges of the box round it. */
export function partEdges(part: Part, leaning?: Leaning): Segments {
  const out: number[] = [];
  const faces = leaning && leaningFaces(leaning.lean, leaning.body);
  if (leaning) for (const [a, b] of leaningEdges(leaning.lean, leaning.body)) out.push(a.x, a.y, a.z, b.x, b.y, b.z);
  for (const f of part.features) {
    if (f.meaning === 'ignore' || (leaning && f.meaning === 'outline')) continue;
    for (const chain of instancesOf(f)) {
      const points = flatten(chain, 0.02);
      const n = chain.closed ? points.length : points.length - 1;
      for (const z of f.meaning === 'boss' ? [-f.depth] : [0, floorOf(f, part.thickness)]) {
        for (let i = 0; i < n; i++) {
          const a = points[i];
          const b = points[(i + 1) % points.length];
          const at = (p: Point) => (z === 0 ? (faces?.(p)?.top ?? 0) : z);
          out.push(a.x, a.y, at(a), b.x, b.y, at(b));
        }
      }
    }
  }
  return { positions: Float32Array.from(out) };
}

const rgb = (hex: string) => [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2);
const TEMPER_RGB = TEMPER.map(rgb);

/** Colours of the ends of pieces, by their bite. */
function coloursOf(engagement: Float32Array): Float32Array {
  const colours = new Float32Array(engagement.length * 6);
  engagement.forEach((degrees, i) => {
    const colour = TEMPER_RGB[temperStep(degrees)];
    colours.set(colour, i * 6);
    colours.set(colour, i * 6 + 3);
  });
  return colours;
}

/** The slice of a run from the first of its pieces whose lines belong to it to the last. */
export function within(run: PathRun, belongs: (line: number) => boolean = () => true): Segments {
  const first = run.line.findIndex(belongs);
  if (first < 0) return { positions: new Float32Array(0) };
  let last = run.line.length;
  while (!belongs(run.line[last - 1])) last--;
  return {
    positions: run.positions.subarray(first * 6, last * 6),
    colours: run.engagement && coloursOf(run.engagement.subarray(first, last)),
  };
}

const CHORDS = 12;

/** A planned path before it is proved: one colour, arcs as a few chords. */
export function planSegments(planned: PlannedView[]): { cut: Segments; rapid: Segments } {
  const cut: number[] = [];
  const rapid: number[] = [];
  for (const { path: p } of planned) {
    for (let i = 1; i < p.count; i++) {
      const out = p.kind[i] === 0 ? rapid : cut;
      if (p.kind[i] < 2) {
        out.push(p.x[i - 1], p.y[i - 1], p.z[i - 1], p.x[i], p.y[i], p.z[i]);
        continue;
      }
      const a0 = Math.atan2(p.y[i - 1] - p.cy[i], p.x[i - 1] - p.cx[i]);
      const sweep = sweepOf(p.kind[i], p.x[i - 1], p.y[i - 1], p.x[i], p.y[i], p.cx[i], p.cy[i]);
      const r = Math.hypot(p.x[i] - p.cx[i], p.y[i] - p.cy[i]);
      const at = (k: number) => {
        const t = k / CHORDS;
        return [
          p.cx[i] + r * Math.cos(a0 + sweep * t),
          p.cy[i] + r * Math.sin(a0 + sweep * t),
          p.z[i - 1] + (p.z[i] - p.z[i - 1]) * t,
        ];
      };
      for (let k = 0; k < CHORDS; k++) out.push(...at(k), ...at(k + 1));
    }
  }
  return { cut: { positions: Float32Array.from(cut) }, rapid: { positions: Float32Array.from(rapid) } };
}

/** Index of the sample nearest to a moment, s. */
export function sampleAt(samples: Samples, time: number): number {
  let low = 0;
  let high = samples.count - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (samples.time[middle] < time) low = middle + 1;
    else high = middle;
  }
  return low;
}
