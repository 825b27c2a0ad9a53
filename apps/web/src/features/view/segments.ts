import { Feature, Part, Samples, flatten, instancesOf } from '@tidypath/core';
import type { PlannedView, ProofView } from '../../compute/messages';
import { TEMPER, temperStep } from '../../theme/theme';
import type { Segments } from './scene';

const rgb = (hex: string) => [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2);
const TEMPER_RGB = TEMPER.map(rgb);

const floorOf = (f: Feature, thickness: number) => (f.through || f.meaning === 'outline' ? -thickness : -f.depth);

/** Edges of the wanted part: every outline at its top and its floor. */
export function partEdges(part: Part): Segments {
  const out: number[] = [];
  for (const f of part.features) {
    if (f.meaning === 'ignore') continue;
    for (const chain of instancesOf(f)) {
      const points = flatten(chain, 0.02);
      const n = chain.closed ? points.length : points.length - 1;
      for (const z of f.meaning === 'boss' ? [-f.depth] : [0, floorOf(f, part.thickness)]) {
        for (let i = 0; i < n; i++) {
          const a = points[i];
          const b = points[(i + 1) % points.length];
          out.push(a.x, a.y, z, b.x, b.y, z);
        }
      }
    }
  }
  return { positions: Float32Array.from(out) };
}

/** The proved path coloured by bite; with `lines` only the samples whose program line lies in that stretch keep their colour. */
export function proofSegments(proof: ProofView, from = 0, to = Infinity): { cut: Segments; rapid: Segments } {
  const { samples, lines, path } = proof;
  const cut: number[] = [];
  const colours: number[] = [];
  const rapid: number[] = [];
  const inside = (motion: number) => lines[motion] >= from && lines[motion] < to;
  let last = -1;
  let [x, y, z] = [NaN, NaN, NaN];
  for (let i = 0; i < samples.count; i++) {
    const motion = samples.motion[i];
    if (motion !== last) {
      for (let m = Math.max(1, last + 1); m < motion; m++) if (path.rapid[m] && inside(m)) pushMove(rapid, path, m);
      if (last !== motion - 1 || Number.isNaN(x))
        [x, y, z] = [path.x[motion - 1], path.y[motion - 1], path.z[motion - 1]];
      last = motion;
    }
    const [nx, ny, nz] = [samples.x[i], samples.y[i], samples.z[i]];
    if (inside(motion) && !Number.isNaN(x)) {
      cut.push(x, y, z, nx, ny, nz);
      const c = TEMPER_RGB[temperStep(samples.engagement[i])];
      colours.push(...c, ...c);
    }
    [x, y, z] = [nx, ny, nz];
  }
  for (let m = Math.max(1, last + 1); m < path.x.length; m++) if (path.rapid[m] && inside(m)) pushMove(rapid, path, m);
  return {
    cut: { positions: Float32Array.from(cut), colours: Float32Array.from(colours) },
    rapid: { positions: Float32Array.from(rapid) },
  };
}

function pushMove(out: number[], path: ProofView['path'], m: number): void {
  const six = [path.x[m - 1], path.y[m - 1], path.z[m - 1], path.x[m], path.y[m], path.z[m]];
  if (six.every(Number.isFinite)) out.push(...six);
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
      let sweep = Math.atan2(p.y[i] - p.cy[i], p.x[i] - p.cx[i]) - a0;
      if (p.kind[i] === 3 && sweep <= 0) sweep += 2 * Math.PI;
      if (p.kind[i] === 2 && sweep >= 0) sweep -= 2 * Math.PI;
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
