import { Region, area } from '../geometry/plane/clip';
import { Bounds, Point, boundsOf } from '../geometry/plane/point';
import { outlineOf } from '../geometry/space/box';
import { PartModel } from '../part/plate/model';
import { Lean, leaningFaces, leaningPlace } from '../part/plate/leaning';
import type { Body } from '../part/plate/turn';
import { Setup, ZERO_POINTS } from '../document/job';
import { HeldBy } from '../holding/held';
import { Work } from '../holding/holding';
import { StockModel } from '../stock/height/stock';

/** Work zero of a setup in part coordinates. */
export function zeroOf(
  setup: Setup,
  model: PartModel,
  part: Bounds,
  stock: StockModel,
  held: HeldBy[],
): { x: number; y: number; z: number } {
  const { on, of, point, height } = setup.zero;
  if (on === 'feature') {
    const at = middleOfFeature(model, of);
    if (at) return { ...at, z: height === 'top' ? 0 : -model.thickness };
  }
  const stands = on === 'holding' ? held.find((h) => h.holding.id === of)?.placed.fixed : undefined;
  if (stands) return { ...pointOn(stands, point), z: height === 'top' ? stands.maxZ : stock.bottom };
  const points = on === 'stock' ? stock.region.flat() : undefined;
  const box = points
    ? {
        minX: Math.min(...points.map((p) => p.x)),
        maxX: Math.max(...points.map((p) => p.x)),
        minY: Math.min(...points.map((p) => p.y)),
        maxY: Math.max(...points.map((p) => p.y)),
      }
    : part;
  const z = on === 'stock' ? (height === 'top' ? stock.top : stock.bottom) : height === 'top' ? 0 : -model.thickness;
  return { ...pointOn(box, point), z };
}

/** The same of work that leans: a corner is that of the block itself; the middle of a feature where its axis meets the top. */
export function leaningZero(
  { zero: { on, of, height } }: Setup,
  model: PartModel,
  flat: { x: number; y: number; z: number },
  { lean, body }: { lean: Lean; body: Body },
): { x: number; y: number; z: number } {
  const at = on === 'feature' ? middleOfFeature(model, of) : undefined;
  if (!at) return leaningPlace(lean, flat, body);
  const faces = leaningFaces(lean, body)(at);
  return { ...at, z: faces?.[height] ?? 0 };
}

/** The middle of a hole, or of a pocket or a boss: of its first place. */
export function middleOfFeature(model: PartModel, id: string | undefined): Point | undefined {
  const hole = model.holes.find((h) => h.feature === id);
  const floor = model.floors.find((f) => f.feature === id);
  if (hole || !floor) return hole?.centre;
  const [ring] = floor.region;
  const { minX, maxX, minY, maxY } = boundsOf(ring);
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
}

/** A named point of a box seen from above. */
function pointOn(box: Bounds, point: Setup['zero']['point']): Point {
  if (point === 'centre') return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
  return { x: point.endsWith('left') ? box.minX : box.maxX, y: point.startsWith('front') ? box.minY : box.maxY };
}

/** A place a zero can be set on. */
export interface ZeroPlace {
  zero: Pick<Setup['zero'], 'on' | 'of' | 'point'>;
  at: Point;
  /** What it is, in words. */
  name: string;
}

/** What places are looked for on. */
interface ToPlace {
  model: PartModel;
  stock: StockModel;
  held: HeldBy[];
}

/** A disc fills less of the box round it. */
const ROUND = 0.8;

/**
 * The places a zero can be set on, what stands still first.
 * @param features names of the features a middle can be taken of, by their ids
 */
export function zeroPlaces(
  { model, stock, held, work, flat }: ToPlace & { work: Pick<Work, 'leaning'>; flat?: ToPlace },
  features: { id: string; name: string }[],
): ZeroPlace[] {
  const { leaning } = work;
  // Corners are those of the block, wherever it leans to.
  const [block, part] = [flat?.stock ?? stock, flat?.model ?? model];
  const leans = (p: ZeroPlace, z: number): ZeroPlace =>
    leaning ? { ...p, at: leaningPlace(leaning.lean, { ...p.at, z }, leaning.body) } : p;
  const corners = (on: 'stock' | 'part' | 'holding', region: Region, name: string, of?: string): ZeroPlace[] => {
    const box = boundsOf(region.flat());
    const filled = area(region) / ((box.maxX - box.minX) * (box.maxY - box.minY));
    // What is round has no corners to feel for.
    return ZERO_POINTS.filter((point) => point === 'centre' || filled > ROUND).map((point) => ({
      zero: { on, of, point },
      at: pointOn(box, point),
      name: `${name}, ${point}`,
    }));
  };
  return [
    ...held.flatMap(({ holding, placed }) =>
      placed.fixed ? corners('holding', [outlineOf(placed.fixed)], placed.fixed.name, holding.id) : [],
    ),
    ...corners('stock', block.region, 'stock').map((p) => leans(p, block.top)),
    ...corners('part', part.outline, 'part').map((p) => leans(p, 0)),
    ...features.flatMap(({ id, name }): ZeroPlace[] => {
      const at = middleOfFeature(model, id);
      return at ? [{ zero: { on: 'feature', of: id, point: 'centre' }, at, name: `middle of ${name}` }] : [];
    }),
  ];
}

/** The place a setup’s zero is on, of all there are; undefined where that is gone. */
export const placeOfZero = ({ on, of, point }: Setup['zero'], places: ZeroPlace[]): ZeroPlace | undefined =>
  places.find(({ zero }) => zero.on === on && zero.of === of && (on === 'feature' || zero.point === point));
