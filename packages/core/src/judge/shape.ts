import { Region, offset } from '../geometry/plane/clip';
import { Point } from '../geometry/plane/point';
import { Finding, finding } from '../quantity/finding';
import { Motions } from '../path/motions';
import { PartModel } from '../part/plate/model';
import { circle, flatten } from '../geometry/plane/chain';
import { Judged, gathered, leftIn } from '../stock/height/judged';

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
  const firsts = firstsOf(motions);
  const byRun = gathered(judged, (off, owner) => (off < 0 && owner >= 0 ? firsts[owner] : undefined));
  return [...byRun]
    .sort(([a], [b]) => a - b)
    .slice(0, MOST_GOUGES)
    .map(([, w]) => {
      const { at, motion } = w;
      return finding(
        'gouge',
        { by: w.by, where: away(at, zero), volume: w.volume },
        { line: motions.line[motion], motion, at },
      );
    });
}

/** Less is the grain of the grid at walls, mm³. */
const SHORT = 5;

/** Where the piece never had the metal the part wants, in one finding. */
export function shortfalls(judged: Judged, zero: Point): Finding[] {
  const [worst] = gathered(judged, (off, owner) => (off < 0 && owner < 0 ? 'missing' : undefined)).values();
  if (!worst || worst.volume < SHORT) return [];
  const { at } = worst;
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
    ...model.holes.map((h) => ({
      feature: h.feature,
      region: [flatten(circle(h.centre.x, h.centre.y, h.diameter / 2), 0.001)],
    })),
    ...model.edges.map((e) => ({ feature: e.feature, region: offset(e.region, e.metalInside ? 0 : e.form.size) })),
    { feature: '', region: model.outline },
  ];
  return [...leftIn(judged, regions)]
    .filter(([, w]) => w.volume > LITTLE)
    .map(([feature, w]) => {
      const { at } = w;
      return finding(
        'metal-left',
        { volume: w.volume, inFeature: feature !== '', by: w.by, where: away(at, zero) },
        { feature: feature || undefined, at },
      );
    });
}
