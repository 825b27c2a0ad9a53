import { flatten } from '../geometry/plane/chain';
import { Region, area, intersection, union } from '../geometry/plane/clip';
import { Height, Heights } from '../document/heights';
import { Feature } from '../part/plate/feature';
import { PartModel, regionOf } from '../part/plate/model';
import { surfaceAt, surfaceAround } from '../part/plate/edges';
import { instancesOf } from '../part/plate/shapes';
import { DataOf, Finding, finding } from '../quantity/finding';
import { wallBottom } from './depth';
import { metalLeft } from './milling/rest';
import type { PlanContext } from './operation';

/** Gap above the metal where feeding starts, mm. */
export const APPROACH = 1;
/** Specks of metal smaller than this are the grid's own, mm². */
const SPECK = 0.5;
const HAIR = 1e-6;

/** What heights are told by. */
export interface Levels
  extends
    Pick<PlanContext, 'targets' | 'model' | 'stock' | 'stockTop' | 'top' | 'earlier' | 'clearance'>,
    Partial<Pick<PlanContext, 'budget'>> {
  heights: Heights | undefined;
  features: Feature[];
  /** How finely what is left is looked at: the radius of the cutter, mm. */
  fine: number;
}

type HeightCode = 'height-gone' | 'start-below-end' | 'end-in-part' | 'retract-low';

/** Heights of one operation, resolved. */
export type Resolved = Pick<PlanContext, 'top' | 'end' | 'clearance' | 'approach'>;

/** What a kind of operation lets be said about its heights. */
export interface HeightRules {
  takesHeights?: 'start' | 'start and end';
  approach?: number;
}

/** Z of the surface a feature begins at: the mouth of a hole or pocket, the top of a boss, the surface a line lies on. */
export function topOf(feature: Feature, { floors }: Pick<PartModel, 'floors'>): number {
  if (feature.meaning === 'outline') return 0;
  if (feature.meaning === 'boss') return -feature.depth;
  const region = regionOf(feature);
  if (region.length > 0) return surfaceAround(region, floors);
  const [line] = instancesOf(feature);
  return line ? surfaceAt(flatten(line, 0.01)[0], floors) : 0;
}

/** Z where a feature ends: the floor of a pocket, the bottom of a hole, what a boss stands on, the part's underside. */
export const floorOf = (feature: Feature, model: PartModel): number => wallBottom(feature, { model }, 0);

/** The height at which nothing stands any more over what is worked on, mm; no lower than its floors. */
function leftOver({ targets, model, stock, top, earlier, fine, budget }: Levels): number {
  const within: Region = union(targets.flatMap((t) => regionOf(t)));
  if (within.length === 0) return top;
  const floor = Math.min(...targets.map((t) => floorOf(t, model)));
  const stands = (z: number) =>
    area(intersection(metalLeft(stock, earlier, z + HAIR, within, fine, budget), within)) > SPECK;
  const tips = new Set(earlier.filter((e) => !e.below).flatMap(({ path }) => [...path.z]));
  const heights = [...tips].filter((z) => z >= floor - HAIR && z < top).sort((a, b) => b - a);
  let [clear, dense] = [-1, heights.length];
  while (dense - clear > 1) {
    const middle = (clear + dense) >> 1;
    if (stands(heights[middle])) dense = middle;
    else clear = middle;
  }
  return clear < 0 ? top : heights[clear];
}

/** Z of a height over a feature; undefined where what it is measured from is gone. */
function levelOf({ at, feature: id, offset }: Height, own: Feature | undefined, context: Levels): number | undefined {
  const { model, features, top, stockTop } = context;
  const named = id === undefined ? own : features.find((f) => f.id === id);
  const from = {
    'stock top': () => stockTop,
    'part top': () => 0,
    underside: () => -model.thickness,
    'what is left': () => leftOver({ ...context, top }),
    top: () => named && topOf(named, model),
    floor: () => named && floorOf(named, model),
  }[at]();
  return from === undefined ? undefined : from + offset;
}

/** Highest of a height over everything an operation works on. */
function highest(height: Height, context: Levels): number | undefined {
  const own = context.targets.length ? context.targets : [undefined];
  const found = own.map((f) => levelOf(height, f, context));
  return found.includes(undefined) ? undefined : Math.max(...(found as number[]));
}

/**
 * Where an operation begins, ends and goes back to; what it is not asked about is as its features and its setup say.
 * @returns the heights, and what speaks against them; where that is a stop they are not to be planned with
 */
export function heightsFor(
  { takesHeights, approach = APPROACH }: HeightRules,
  context: Levels,
): Resolved & { findings: Finding[] } {
  const { targets, top, clearance, heights: asked = {} } = context;
  const findings: Finding[] = [];
  const told = <C extends HeightCode>(field: keyof Heights, code: C, data: DataOf<C>) =>
    findings.push(finding(code, data, { field: `heights.${field}` }));
  const resolve = (field: 'start' | 'end' | 'retract', height: Height | undefined): number | undefined => {
    const z = height && highest(height, context);
    if (height && z === undefined) told(field, 'height-gone', { feature: height.feature ?? '' });
    return z;
  };
  const gap = asked.approach ?? approach;
  const start = (takesHeights && resolve('start', asked.start)) ?? top;
  const back = resolve('retract', asked.retract) ?? clearance;
  const isAsked = !!asked.retract || !!asked.start || asked.approach !== undefined;
  if (isAsked && back < start + gap - HAIR) told('retract', 'retract-low', { retract: back, from: start + gap });
  const resolved = { top: start, clearance: back, approach: gap };
  if (takesHeights !== 'start and end' || !asked.end) return { ...resolved, findings };
  const ends = new Map(targets.map((t) => [t.id, levelOf(asked.end!, t, context)]));
  for (const target of targets) {
    const end = ends.get(target.id);
    const floor = floorOf(target, context.model);
    if (end === undefined) told('end', 'height-gone', { feature: asked.end.feature ?? '' });
    else if (end > start - HAIR) told('end', 'start-below-end', { start, end, feature: target.name });
    else if (end < floor - HAIR && floor > -context.model.thickness + HAIR)
      told('end', 'end-in-part', { feature: target.name, below: floor - end });
  }
  return { ...resolved, end: (id) => ends.get(id), findings };
}
