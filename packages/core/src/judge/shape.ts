import { Boundary } from '../geometry/plane/boundary';
import { Region, offset } from '../geometry/plane/clip';
import { Point } from '../geometry/plane/point';
import { Finding, finding } from '../quantity/finding';
import { Motions } from '../path/motions';
import { PartModel } from '../part/plate/model';
import { eachInside } from '../stock/height/field';
import { round } from './allowed';
import { Judged, spotOf } from './judged';

/** The worst of several cells, and how much it is in all. */
class Worst {
  index = -1;
  by = 0;
  volume = 0;

  add({ off, volume }: Judged, i: number): void {
    const by = Math.abs(off[i]);
    this.volume += volume[i];
    if (by > this.by) [this.by, this.index] = [by, i];
  }

  at(judged: Judged) {
    return { ...spotOf(judged, this.index), z: judged.z[this.index] };
  }
}

/** A place as the program says it, in work coordinates. */
const away = (p: Point, zero: Point) => ({ x: p.x - zero.x, y: p.y - zero.y });

/** For each motion the first of those in a row that one program line makes: an arc in an upright plane is many. */
function firstsOf({ line, count }: Motions): Int32Array {
  const firsts = new Int32Array(count);
  for (let m = 1; m < count; m++) firsts[m] = line[m] === line[m - 1] ? firsts[m - 1] : m;
  return firsts;
}

/** Most cuts into the part that are told one by one. */
const MOST_GOUGES = 20;

/** Cuts into the part, gathered by the line that made them each time it ran; the place is told from the work zero. */
export function gouges(judged: Judged, motions: Motions, zero: Point): Finding[] {
  const { off, owner } = judged;
  const firsts = firstsOf(motions);
  const byRun = new Map<number, Worst>();
  for (let i = 0; i < off.length; i++) if (off[i] < 0 && owner[i] >= 0) worstOf(byRun, firsts[owner[i]]).add(judged, i);
  return [...byRun]
    .sort(([a], [b]) => a - b)
    .slice(0, MOST_GOUGES)
    .map(([, w]) => {
      const at = w.at(judged);
      const motion = owner[w.index];
      return finding(
        'gouge',
        { by: w.by, where: away(at, zero), volume: w.volume },
        { line: motions.line[motion], motion, at },
      );
    });
}

function worstOf<K>(of: Map<K, Worst>, key: K): Worst {
  const known = of.get(key) ?? new Worst();
  of.set(key, known);
  return known;
}

/** Less is the grain of the grid at walls, mm³. */
const SHORT = 5;

/** Where the piece never had the metal the part wants, in one finding. */
export function shortfalls(judged: Judged, zero: Point): Finding[] {
  const { off, owner } = judged;
  const worst = new Worst();
  for (let i = 0; i < off.length; i++) if (off[i] < 0 && owner[i] < 0) worst.add(judged, i);
  if (worst.volume < SHORT) return [];
  const at = worst.at(judged);
  return [
    finding('stock-short', { by: worst.by, where: away(at, zero), volume: worst.volume }, { at, field: 'stock' }),
  ];
}

/** Less in a feature is the grain of the grid, mm³. */
const LITTLE = 0.5;

/** Metal still standing inside the part's features, gathered by feature. */
export function leftovers(judged: Judged, model: PartModel, zero: Point): Finding[] {
  const regions: { feature: string; region: Region }[] = [
    ...model.floors.map((f) => ({ feature: f.feature, region: f.region })),
    ...model.holes.map((h) => ({ feature: h.feature, region: round(h.centre.x, h.centre.y, h.diameter / 2) })),
    ...model.edges.map((e) => ({ feature: e.feature, region: offset(e.region, e.metalInside ? 0 : e.form.size) })),
    { feature: '', region: model.outline },
  ];
  const counted = new Uint8Array(judged.off.length);
  const byFeature = new Map<string, Worst>();
  for (const { feature, region } of regions.filter((r) => r.region.length)) {
    const boundary = new Boundary(region);
    eachInside(judged.grid, offset(region, judged.grid.cell), (i) => {
      if (counted[i] || judged.off[i] <= 0) return;
      const { x, y } = spotOf(judged, i);
      if (boundary.distance(x, y) < 0) return;
      counted[i] = 1;
      worstOf(byFeature, feature).add(judged, i);
    });
  }
  return [...byFeature]
    .filter(([, w]) => w.volume > LITTLE)
    .map(([feature, w]) => {
      const at = w.at(judged);
      return finding(
        'metal-left',
        { volume: w.volume, inFeature: feature !== '', by: w.by, where: away(at, zero) },
        { feature: feature || undefined, at },
      );
    });
}
