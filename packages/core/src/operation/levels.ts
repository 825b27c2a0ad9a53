import { Region, area, difference, intersection, union } from '../geometry/plane/clip';
import { Feature } from '../part/plate/feature';
import { regionOf, solidAt } from '../part/plate/model';
import { keptAway } from './bounds';
import { layersBetween } from './layers';
import type { PlanContext } from './operation';

/** What depths depend on, mm. */
export interface LevelParams {
  /** Most depth of a layer. */
  layer: number;
  /** How far below the part, where it is cut right through. */
  breakthrough: number;
  floorAllowance: number;
  /** Whether flats between the top and the floor are stopped at. */
  flats: boolean;
  /** Thickness of a last layer of its own. */
  lastLayer?: number;
}

/** One depth to be cleared: what is wanted there, and what must stay. */
export interface Level {
  feature: Feature;
  z: number;
  from: number;
  wanted: Region;
  keep: Region;
}

/** Floors of a pocket from the top down; only the deepest where flats are left alone. */
function flatsOf(feature: Feature, { model }: PlanContext, every: boolean): number[] {
  const inside = regionOf(feature);
  const deepest = model.floors.find((f) => f.feature === feature.id);
  if (!deepest) return [];
  const flats = model.floors
    .filter((f) => f.z > deepest.z + 1e-6 && area(intersection(f.region, inside)) > 1e-3)
    .map((f) => f.z);
  const all = [...new Set(every ? [...flats, deepest.z] : [deepest.z])];
  return all.sort((a, b) => b - a);
}

/** What a feature asks for at a height: a pocket its inside, an outline everything of the stock around it. */
export function wantedAt(feature: Feature, context: PlanContext, z: number): Region {
  if (feature.meaning === 'outline') return difference(context.stock, context.model.outline);
  const floors = context.model.floors.filter((f) => f.z <= z + 1e-6).flatMap((f) => f.region);
  return intersection(regionOf(feature), union(floors));
}

/** The depths of a feature from the top down, layer by layer and flat by flat. */
export function levelsOf(feature: Feature, params: LevelParams, context: PlanContext): Level[] {
  const { model, top } = context;
  const outline = feature.meaning === 'outline';
  const through = outline || feature.through;
  const end = context.end?.(feature.id);
  const bottom = (z: number) => {
    if (z === end) return z;
    return through && z <= -model.thickness + 1e-6 ? z - params.breakthrough : z + params.floorAllowance;
  };
  const own = outline ? [-model.thickness] : flatsOf(feature, context, params.flats);
  const flats = end === undefined ? own : [...own.filter((z) => bottom(z) > end + 1e-6), end];
  const away = keptAway(context);
  const levels: Level[] = [];
  let from = top;
  for (const flat of flats) {
    // Below the part the same is wanted as at its underside.
    const height = Math.max(flat, -model.thickness);
    const wanted = wantedAt(feature, context, height);
    const solid = outline ? model.outline : solidAt(model, height);
    const keep = away.length ? union([...solid, ...away]) : solid;
    for (const z of layersBetween(from, bottom(flat), params.layer, params.lastLayer)) {
      levels.push({ feature, z, from, wanted, keep });
      from = z;
    }
  }
  return levels;
}

/** The last layer of every flat: there its walls are finished, in one lap from top to floor. */
export const deepest = (levels: Level[]) => levels.filter((l, i) => levels[i + 1]?.wanted !== l.wanted);
