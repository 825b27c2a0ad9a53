/** Carving what closed lines enclose with a cone: laps from the edge inwards, and along the middle. */
import { fitArcs } from '../../geometry/plane/arcfit';
import { Chain, chainLength, flatten } from '../../geometry/plane/chain';
import { Region, area, difference, offset, union } from '../../geometry/plane/clip';
import { MiddlePoint, middleLines, straightened } from '../../geometry/plane/middle';
import { Carving } from '../../part/plate/added';
import { Feature } from '../../part/plate/feature';
import { surfaceAt } from '../../part/plate/model';
import { instancesOf } from '../../part/plate/shapes';
import { Tool, profileHeight } from '../../shop/tool';
import { LAP_STEPS, PlanContext } from '../operation';

const FIT = 0.002;
const CHORD = 0.001;
/** Carving laps closer to the wall than this would cut nothing, mm. */
const LEAST = 0.01;

export type Asked = Pick<PlanContext, 'model' | 'targets' | 'tool'> & Partial<Pick<PlanContext, 'budget'>>;

/** How an area is carved. */
export interface Carve {
  /** How deep it goes at most, mm. */
  depth: number;
  /** From one lap to the next, mm. */
  step: number;
}

/** A line for the tip to follow, and the surface it is let into. */
export interface Stroke {
  chain: Chain;
  surface: number;
  /** Of the tip; where it goes up and down, the lowest. */
  z: number;
  /** Of the tip at each corner of the line, where it goes up and down. */
  heights?: number[];
}

/** What closed lines enclose, lines within lines left standing. */
export function enclosed(feature: Feature): Region {
  const rings = instancesOf(feature)
    .filter((c) => c.closed)
    .map((c) => union([flatten(c, CHORD)]));
  return rings.reduce((all, ring) => union(difference(all, ring), difference(ring, all)), []);
}

/** Width of the groove a tool leaves at a depth, mm: found from its profile by halving. */
export function widthAt(tool: Tool, depth: number): number {
  let [low, high] = [0, tool.diameter / 2];
  if (profileHeight(tool, high) <= depth) return tool.diameter;
  for (let i = 0; i < 40; i++) {
    const r = (low + high) / 2;
    if (profileHeight(tool, r) <= depth) low = r;
    else high = r;
  }
  return 2 * low;
}

/** How far apart places on the edge are looked at for its middle lines, mm, and how many at most. */
const SPACING = { least: 0.05, most: 0.25, places: 20_000 };
/** Middle lines are straightened within this, mm. */
const STRAIGHT = 0.003;

/** Laps from the edge inwards, each as deep as lets the cone touch the edge at the surface, and along the middle between the edges. */
export function carved(region: Region, surface: number, params: Carve, asked: Asked): Stroke[] {
  return [...lapsWithin(region, surface, params, asked), ...alongMiddle(region, surface, params, asked)];
}

/** Strokes along the middle lines, as deep everywhere as the edges on both sides let the cone. */
function alongMiddle(region: Region, surface: number, params: Carve, { tool, budget }: Asked): Stroke[] {
  const round = region.reduce(
    (sum, ring) => sum + chainLength({ closed: true, vertices: ring.map((p) => ({ ...p, bulge: 0 })) }),
    0,
  );
  const spacing = Math.max(SPACING.least, Math.min(SPACING.most, params.step / 2), round / SPACING.places);
  budget?.spend(Math.ceil(round / spacing));
  const deep = ({ clearance }: MiddlePoint) => Math.max(LEAST, Math.min(params.depth, profileHeight(tool, clearance)));
  const runs = middleLines(region, spacing).flatMap((run) =>
    partsWhere(run, (p) => p.clearance >= tool.tipDiameter / 2),
  );
  return runs.map((run) => {
    const points = straightened(run, STRAIGHT);
    const heights = points.map((p) => surface - deep(p));
    const vertices = points.map(({ x, y }) => ({ x, y, bulge: 0 }));
    return { chain: { closed: false, vertices }, surface, z: Math.min(...heights), heights };
  });
}

/** The parts of a run in which something holds. */
function partsWhere<T>(run: T[], holds: (t: T) => boolean): T[][] {
  const found: T[][] = [];
  run.forEach((t, i) => {
    if (!holds(t)) return;
    if (i > 0 && holds(run[i - 1])) found[found.length - 1].push(t);
    else found.push([t]);
  });
  return found;
}

function lapsWithin(region: Region, surface: number, params: Carve, { tool, budget }: Asked): Stroke[] {
  const strokes: Stroke[] = [];
  /** From here on inwards it is as deep as it may be: a lap lies there. */
  const floor = widthAt(tool, params.depth) / 2;
  for (
    let d = Math.max(LEAST, tool.tipDiameter / 2);
    ;
    d = d < floor ? Math.min(d + params.step, floor) : d + params.step
  ) {
    const lap = offset(region, -d, FIT);
    budget?.spend(LAP_STEPS + 10 * lap.flat().length);
    if (area(lap) < LEAST * LEAST) return strokes;
    const z = surface - Math.max(LEAST, Math.min(params.depth, profileHeight(tool, d)));
    strokes.push(...lap.map((ring) => ({ chain: fitArcs(ring, FIT), surface, z })));
  }
}

/** What carving a feature may take away. */
export function carvingOf(feature: Feature, { depth }: Carve, { model, tool }: Asked): Carving {
  const region = enclosed(feature);
  const [ring] = region;
  return { region, surface: ring ? surfaceAt(model, ring[0]) : 0, depth, profile: tool };
}
