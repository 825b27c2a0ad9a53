import { Region, offset } from '../geometry/clip';
import { Point } from '../geometry/point';
import { Finding, care, stop } from '../quantity/finding';
import { formatNumber } from '../quantity/units';
import { Motions } from '../program/motions';
import { PartModel } from '../part/model';
import { HeightField, eachInside } from '../simulate/field';
import { Allowed, deviation, middleOf, round } from './allowed';

interface Worst {
  index: number;
  by: number;
  volume: number;
}

const at = (field: HeightField, index: number) => ({ ...middleOf(field, index), z: field.height[index] });

/** A place as the program says it, in work coordinates. */
const where = (p: Point, zero: Point) => `X ${formatNumber(p.x - zero.x, 2)} Y ${formatNumber(p.y - zero.y, 2)}`;

const mm = (v: number) => `${formatNumber(v, 2)} mm`;

/** Cuts into the part, gathered by the motion that made them; each names its program line, and its place from the work zero. */
export function gouges(
  field: HeightField,
  owner: Int32Array,
  allowed: Allowed,
  motions: Motions,
  zero: Point,
): Finding[] {
  const byMotion = new Map<number, Worst>();
  field.height.forEach((h, i) => {
    const by = owner[i] < 0 ? 0 : -deviation(allowed, i, h);
    if (by <= 0) return;
    const known = byMotion.get(owner[i]) ?? { index: i, by: 0, volume: 0 };
    known.volume += by * field.cell * field.cell;
    if (by > known.by) [known.by, known.index] = [by, i];
    byMotion.set(owner[i], known);
  });
  return [...byMotion]
    .sort(([a], [b]) => a - b)
    .slice(0, 20)
    .map(([motion, w]) => {
      const p = at(field, w.index);
      return stop(
        'gouge',
        `Cuts ${mm(w.by)} into the part at ${where(p, zero)}, ${formatNumber(w.volume, 1)} mm³ in all`,
        'Correct the depth, the side or the tool of this move',
        { line: motions.line[motion], motion, at: p },
      );
    });
}

/** Less is the grain of the grid at walls, mm³. */
const SHORT = 5;

/** Where the piece never had the metal the part wants, in one finding. */
export function shortfalls(field: HeightField, owner: Int32Array, allowed: Allowed, zero: Point): Finding[] {
  const worst: Worst = { index: -1, by: 0, volume: 0 };
  field.height.forEach((h, i) => {
    const by = owner[i] < 0 ? -deviation(allowed, i, h) : 0;
    if (by <= 0) return;
    worst.volume += by * field.cell * field.cell;
    if (by > worst.by) [worst.by, worst.index] = [by, i];
  });
  if (worst.volume < SHORT) return [];
  const p = at(field, worst.index);
  return [
    care(
      'stock-short',
      `The stock does not fill the part: it is ${mm(worst.by)} short at ${where(p, zero)}, ${formatNumber(worst.volume, 1)} mm³ in all`,
      'Take a larger piece, or move the part in it',
      { at: p, field: 'stock' },
    ),
  ];
}

/** Metal still standing inside the part's features, gathered by feature. */
export function leftovers(field: HeightField, model: PartModel, allowed: Allowed, zero: Point): Finding[] {
  const regions: { feature: string; region: Region }[] = [
    ...model.floors.map((f) => ({ feature: f.feature, region: f.region })),
    ...model.holes.map((h) => ({ feature: h.feature, region: round(h.centre.x, h.centre.y, h.diameter / 2) })),
    ...model.edges.map((e) => ({ feature: e.feature, region: offset(e.region, e.metalInside ? 0 : e.form.size) })),
    { feature: '', region: model.outline },
  ];
  const counted = new Uint8Array(field.height.length);
  const byFeature = new Map<string, Worst>();
  for (const { feature, region } of regions) {
    eachInside(field, region, (i) => {
      if (counted[i]) return;
      counted[i] = 1;
      const by = deviation(allowed, i, field.height[i]);
      if (by <= 0) return;
      const known = byFeature.get(feature) ?? { index: i, by: 0, volume: 0 };
      known.volume += by * field.cell * field.cell;
      if (by > known.by) [known.by, known.index] = [by, i];
      byFeature.set(feature, known);
    });
  }
  return [...byFeature]
    .filter(([, w]) => w.volume > 0.5)
    .map(([feature, w]) => {
      const p = at(field, w.index);
      return care(
        'metal-left',
        `${formatNumber(w.volume, 1)} mm³ still stands ${feature ? 'in a feature' : 'on the top'}, up to ${mm(w.by)} high at ${where(p, zero)}`,
        'Add an operation for it, or use a smaller tool',
        { feature: feature || undefined, at: p },
      );
    });
}
