import { Region, area, offset } from '../geometry/plane/clip';
import { Point, distance } from '../geometry/plane/point';
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

/** Metal that the operations of a feature were asked to leave, mm; all of them ask for at least so much. */
export interface Allowance {
  wall: number;
  floor: number;
}

/** Room for the grid in what was asked to be left, as a share. */
const GRAIN = 1.5;

/** Volume of what is asked to be left in a feature, mm³. */
function askedVolume(feature: string, { floors, holes }: PartModel, { wall, floor }: Allowance): number {
  const rings = [
    ...floors.filter((f) => f.feature === feature).map(({ region, z }) => ({ region, deep: -z })),
    ...holes
      .filter((h) => h.feature === feature)
      .map((h) => ({ region: [flatten(circle(h.centre.x, h.centre.y, h.diameter / 2), 0.01)], deep: h.depth })),
  ];
  const round = (region: Region) => region.flat().length && region.reduce((sum, ring) => sum + length(ring), 0);
  return rings.reduce((sum, { region, deep }) => sum + round(region) * deep * wall + area(region) * floor, 0);
}

const length = (ring: Point[]) => ring.reduce((sum, p, i) => sum + distance(p, ring[(i + 1) % ring.length]), 0);

/**
 * Metal still standing inside the part's features, gathered by feature.
 * @param asked what the operations of a feature were to leave, where they were to leave anything
 */
export function leftovers(
  judged: Judged,
  model: PartModel,
  zero: Point,
  asked: ReadonlyMap<string, Allowance> = new Map(),
): Finding[] {
  const regions: { feature: string; region: Region }[] = [
    ...model.holes.map((h) => ({
      feature: h.feature,
      region: [flatten(circle(h.centre.x, h.centre.y, h.diameter / 2), 0.001)],
    })),
    // What lies in a wider one is its own.
    ...[...model.floors]
      .sort((a, b) => area(a.region) - area(b.region))
      .map(({ feature, region }) => ({ feature, region })),
    ...model.edges.map((e) => ({ feature: e.feature, region: offset(e.region, e.metalInside ? 0 : e.form.size) })),
    { feature: '', region: model.outline },
  ];
  return [...leftIn(judged, regions)]
    .filter(([, w]) => w.volume > LITTLE)
    .map(([feature, w]) => {
      const { at } = w;
      const allowance = asked.get(feature);
      if (allowance && w.volume <= GRAIN * askedVolume(feature, model, allowance))
        return finding('left-as-asked', { volume: w.volume, ...allowance }, { feature, at });
      return finding(
        'metal-left',
        { volume: w.volume, inFeature: feature !== '', by: w.by, where: away(at, zero) },
        { feature: feature || undefined, at },
      );
    });
}
