import { Judged, KINDS, WrongKind, kindOf, spotOf } from './judged';

/** A patch where a piece is not as wanted. */
export interface WrongPlace {
  kind: WrongKind;
  /** Where it is worst, part coordinates. */
  x: number;
  y: number;
  z: number;
  /** How far it is off there, mm: above 0 metal is left, below 0 it lacks. */
  by: number;
  /** mm³. */
  volume: number;
}

/** Patches smaller than this are the grain of the grid, mm³. */
const GRAIN = 0.5;

/** Gathers the patch of one kind that a cell belongs to, and takes its cells off the list of those still to visit. */
function patchAt(judged: Judged, off: Float32Array, seed: number): WrongPlace {
  const { volume, owner, z } = judged;
  const { nx } = judged.grid;
  const kind = kindOf(off[seed], owner[seed]);
  const queue: number[] = [];
  let [worst, by, sum] = [seed, 0, 0];
  const visit = (i: number) => {
    if (off[i] === 0 || kindOf(off[i], owner[i]) !== kind) return;
    sum += volume[i];
    if (Math.abs(off[i]) > Math.abs(by)) [by, worst] = [off[i], i];
    off[i] = 0;
    queue.push(i);
  };
  visit(seed);
  for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
    if (i % nx > 0) visit(i - 1);
    if (i % nx < nx - 1) visit(i + 1);
    if (i >= nx) visit(i - nx);
    if (i + nx < off.length) visit(i + nx);
  }
  return { kind, ...spotOf(judged, worst), z: z[worst], by, volume: sum };
}

/**
 * Patches that are not as wanted, each in one piece: cuts into the part first, then what the stock never had, then metal left,
 * the worst of each first.
 * @param most how many at most
 */
export function worstPlaces(judged: Judged, most = 6): WrongPlace[] {
  const off = judged.off.slice();
  const places: WrongPlace[] = [];
  for (let i = 0; i < off.length; i++) if (off[i] !== 0) places.push(patchAt(judged, off, i));
  const rank = (p: WrongPlace) => KINDS.indexOf(p.kind);
  return places
    .filter((p) => p.volume >= GRAIN)
    .sort((a, b) => rank(a) - rank(b) || Math.abs(b.by) - Math.abs(a.by) || b.volume - a.volume)
    .slice(0, most);
}
