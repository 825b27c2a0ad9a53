import { Boundary } from '../geometry/boundary';
import { circle, flatten } from '../geometry/chain';
import { Region, difference, offset } from '../geometry/clip';
import { distanceToSegment } from '../geometry/point';
import { threadSizes } from '../cutting/threads';
import { Added, Freed, Mark, NOTHING_ADDED } from '../part/added';
import { Edge, edgeHeight } from '../part/edges';
import { PartModel } from '../part/model';
import { profileHeight } from '../shop/tool';
import { HeightField, eachInside } from '../simulate/field';

/** Sideways and downward slack within which a cut counts as right, mm: the bar for gouges plus grid error at walls. */
const GOUGE = 0.01;
/** Sideways and upward slack within which nothing counts as left, mm. */
const LEFT = 0.06;

/** Where anything is right. */
const ANYTHING = 1e6;

export const round = (x: number, y: number, r: number): Region => (r > 0 ? [flatten(circle(x, y, r), 0.001)] : []);

export const middleOf = (field: HeightField, index: number) => ({
  x: field.x0 + ((index % field.nx) + 0.5) * field.cell,
  y: field.y0 + (Math.floor(index / field.nx) + 0.5) * field.cell,
});

/** Calls `visit` for every cell of a broken edge with how far into the metal it lies, mm. */
function eachOnEdge(field: HeightField, edge: Edge, visit: (index: number, into: number) => void): void {
  const { region, metalInside, form } = edge;
  const band = metalInside
    ? difference(region, offset(region, -form.size - GOUGE))
    : difference(offset(region, form.size + GOUGE), region);
  const boundary = new Boundary(region);
  eachInside(field, band, (i) => {
    const p = middleOf(field, i);
    visit(i, Math.abs(boundary.distance(p.x, p.y)));
  });
}

/** Lowers what is allowed to the shape a tool leaves along a line. */
function allowMark(field: HeightField, low: Float32Array, { lines, z, profile }: Mark): void {
  const reach = profile.diameter / 2 + GOUGE;
  for (const line of lines) {
    for (let k = 0; k + 1 < line.length; k++) {
      const [a, b] = [line[k], line[k + 1]];
      const [x0, x1] = [Math.min(a.x, b.x) - reach, Math.max(a.x, b.x) + reach];
      const [y0, y1] = [Math.min(a.y, b.y) - reach, Math.max(a.y, b.y) + reach];
      const box = [
        { x: x0, y: y0 },
        { x: x1, y: y0 },
        { x: x1, y: y1 },
        { x: x0, y: y1 },
      ];
      eachInside(field, [box], (i) => {
        const { distance } = distanceToSegment(middleOf(field, i), a, b);
        if (distance <= reach) low[i] = Math.min(low[i], z + profileHeight(profile, Math.max(0, distance - GOUGE)));
      });
    }
  }
}

/** For every cell the lowest height that is still right; below it is a cut into the part. */
function lowestAllowed(field: HeightField, model: PartModel, added: Added): Float32Array {
  const low = new Float32Array(field.height.length).fill(-ANYTHING);
  const solid = (region: Region, z: number) => eachInside(field, region, (i) => (low[i] = Math.min(low[i], z)));
  eachInside(field, offset(model.outline, -GOUGE), (i) => (low[i] = 0));
  for (const floor of model.floors)
    solid(offset(floor.region, GOUGE), floor.z <= -model.thickness ? -ANYTHING : floor.z);
  for (const hole of model.holes) {
    const bottom = hole.through ? -ANYTHING : -hole.depth - hole.diameter / 2;
    const widest = Math.max(hole.diameter, hole.thread?.major ?? 0);
    solid(round(hole.centre.x, hole.centre.y, widest / 2 + GOUGE), bottom);
  }
  for (const { centre, thread } of model.bosses) {
    const { major, externalMinor } = threadSizes(thread);
    const root = round(centre.x, centre.y, externalMinor / 2 - GOUGE);
    solid(difference(round(centre.x, centre.y, major / 2 + GOUGE), root), -ANYTHING);
  }
  for (const edge of [...model.edges, ...added.edges])
    eachOnEdge(field, edge, (i, into) => (low[i] = Math.min(low[i], edgeHeight(edge, into - GOUGE))));
  for (const mark of added.marks) allowMark(field, low, mark);
  return low;
}

/** For every cell the greatest height that counts as finished; above it metal was left. */
function highestAllowed(field: HeightField, model: PartModel): Float32Array {
  const high = new Float32Array(field.height.length).fill(ANYTHING);
  eachInside(field, offset(model.outline, LEFT), (i) => (high[i] = 0));
  for (const floor of model.floors)
    eachInside(field, offset(floor.region, -LEFT), (i) => (high[i] = Math.min(high[i], floor.z)));
  for (const hole of model.holes) {
    const z = hole.through ? -model.thickness : -hole.depth;
    eachInside(
      field,
      round(hole.centre.x, hole.centre.y, hole.diameter / 2 - LEFT),
      (i) => (high[i] = Math.min(high[i], z)),
    );
  }
  for (const edge of model.edges)
    eachOnEdge(field, edge, (i, into) => (high[i] = Math.min(high[i], edgeHeight(edge, into + LEFT))));
  return high;
}

/** Share of the line around a piece that must be cut for it to fall out; the rest are bridges meant to be broken. */
const CUT_ROUND = 0.5;

/** Lets the metal of pieces that have been cut loose stand: it is gone by then. */
function dropFreed(field: HeightField, high: Float32Array, freed: Freed[]): void {
  for (const { region, kerf } of freed) {
    let [cells, cut] = [0, 0];
    eachInside(field, difference(offset(region, -LEFT), offset(region, LEFT - kerf)), (i) => {
      cells++;
      if (field.height[i] <= high[i] + LEFT) cut++;
    });
    if (cut >= CUT_ROUND * cells) eachInside(field, region, (i) => (high[i] = ANYTHING));
  }
}

/** The heights between which a piece is right, cell by cell, mm, slack sideways included. */
export interface Allowed {
  low: Float32Array;
  high: Float32Array;
  /** Underside of the part: below it nothing counts. */
  floor: number;
}

/**
 * What is right where, for a piece on a grid.
 * @param field the piece as it is: pieces already cut loose from it need not stand
 * @param added what operations take beyond the part's features
 */
export function allowedOn(field: HeightField, model: PartModel, added: Added = NOTHING_ADDED): Allowed {
  const high = highestAllowed(field, model);
  dropFreed(field, high, added.freed);
  return { low: lowestAllowed(field, model, added), high, floor: -model.thickness };
}

/** Whether a bound asks for anything. */
export const isWanted = (bound: number) => Math.abs(bound) < ANYTHING;

/** How far a height is from what is allowed, mm: above 0 metal is left, below 0 the part is cut into; 0 within the slack. */
export function deviation({ low, high, floor }: Allowed, i: number, height: number): number {
  const over = height - high[i];
  if (over > LEFT) return over;
  const under = low[i] - Math.max(height, floor);
  return under > GOUGE && isWanted(low[i]) ? -under : 0;
}
