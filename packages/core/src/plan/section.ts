import { chainBounds } from '../geometry/plane/chain';
import { contains } from '../geometry/plane/clip';
import { EMPTY_BOUNDS, distance, joinBounds } from '../geometry/plane/point';
import { Height } from '../document/heights';
import { Job, Setup } from '../document/job';
import { Operation } from '../document/operation';
import { targetsOf } from '../document/repeats';
import { floorOf, topOf } from '../operation/heights';
import { kindOf } from '../operation/registry';
import { surfaceAt } from '../part/plate/edges';
import { Feature } from '../part/plate/feature';
import { PartModel, partModel } from '../part/plate/model';
import { instancesOf } from '../part/plate/shapes';
import { groundOf } from './ground';
import { askedHeights } from './situation';

/** A height an operation can be told by, and where it lies. */
export interface PickedHeight {
  height: Height;
  z: number;
}

/** A cut through part and stock along X, through the middle of what an operation works on; Z 0 at the part's top, mm. */
export interface HeightPicture {
  from: number;
  step: number;
  /** Top of the part in every sample; undefined where there is none. */
  surface: (number | undefined)[];
  thickness: number;
  stock: { from: number; to: number; top: number; bottom: number };
  /** What can be picked, from above, one at each height. */
  levels: PickedHeight[];
  /** Where it begins and ends as it is asked now; what is left is taken for the stock's top. */
  start: number;
  end: number | undefined;
}

/** Samples of a picture. */
const SAMPLES = 240;
/** Part of its width that is left free on either side of the stock. */
const MARGIN = 0.06;
const SAME = 1e-3;

const heightOf = (at: Height['at'], z: number, feature?: string): PickedHeight => ({
  height: feature === undefined ? { at, offset: 0 } : { at, feature, offset: 0 },
  z,
});

/** Heights of features: their own first, then of all others that have some. */
function levelsOf(targets: Feature[], features: Feature[], model: PartModel): PickedHeight[] {
  const [first] = targets;
  const own = first ? [heightOf('floor', floorOf(first, model)), heightOf('top', topOf(first, model))] : [];
  const others = features
    .filter((f) => !targets.includes(f) && ['pocket', 'boss', 'hole'].includes(f.meaning))
    .flatMap((f) => [heightOf('floor', floorOf(f, model), f.id), heightOf('top', topOf(f, model), f.id)]);
  return [...own, ...others];
}

/** Topmost metal of the part at a place, where there is some. */
function surfaceOf(x: number, y: number, model: PartModel): number | undefined {
  if (!contains(model.outline, { x, y })) return undefined;
  const hole = model.holes.find((h) => distance(h.centre, { x, y }) < h.diameter / 2);
  const z = hole ? (hole.through ? -model.thickness : -hole.depth) : surfaceAt({ x, y }, model.floors);
  return z > -model.thickness + SAME ? z : undefined;
}

/**
 * The section heights of an operation are picked in.
 * @param job as it is kept; the setup says how it lies
 */
export function heightPicture(job: Job, setup: Setup, operation: Operation): HeightPicture {
  const { job: seen, model, stock } = groundOf(job, setup, partModel);
  const targets = targetsOf({ targets: operation.targets }, seen.part);
  const box = (targets[0] ? instancesOf(targets[0]).slice(0, 1).map(chainBounds) : []).reduce(joinBounds, EMPTY_BOUNDS);
  const y = targets[0] ? (box.minY + box.maxY) / 2 : (model.bounds.minY + model.bounds.maxY) / 2;
  const xs = stock.region.flat().map((p) => p.x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const margin = (high - low) * MARGIN;
  const from = low - margin;
  const step = (high - low + 2 * margin) / SAMPLES;
  const fixed = [heightOf('stock top', stock.top), heightOf('part top', 0), heightOf('underside', -model.thickness)];
  const all = [...fixed, ...levelsOf(targets, seen.part.features, model)];
  const kind = kindOf(operation.kind);
  const asked = kind && askedHeights(job, setup, kind, operation);
  return {
    from,
    step,
    surface: Array.from({ length: SAMPLES }, (_, i) => surfaceOf(from + (i + 0.5) * step, y, model)),
    thickness: model.thickness,
    stock: { from: low, to: high, top: stock.top, bottom: stock.bottom },
    levels: all.filter((l, i) => all.findIndex((k) => Math.abs(k.z - l.z) < SAME) === i).sort((a, b) => b.z - a.z),
    start: asked?.start ?? stock.top,
    end: asked?.end,
  };
}
