import { Boundary } from '../../geometry/plane/boundary';
import { circle, flatten } from '../../geometry/plane/chain';
import { Region, difference, offset } from '../../geometry/plane/clip';
import { Bounds, Point, boundsOf, distanceToSegment, growBounds } from '../../geometry/plane/point';
import { threadSizes } from '../../cutting/threads';
import { Added, Mark, NOTHING_ADDED } from '../../part/plate/added';
import { Edge, edgeHeight } from '../../part/plate/edges';
import { PartModel } from '../../part/plate/model';
import { profileHeight } from '../../shop/tool';
import { Grid, HeightField, cellMiddle, eachInside } from './field';

/** Sideways and downward slack within which a cut counts as right, mm: the bar for gouges plus grid error at walls. */
const GOUGE = 0.01;
/** Sideways and upward slack within which nothing counts as left, mm. */
const LEFT = 0.06;

/** Where anything is right. */
const ANYTHING = 1e6;

export const round = (x: number, y: number, r: number): Region => (r > 0 ? [flatten(circle(x, y, r), 0.001)] : []);

/** The heights between which a piece is right, cell by cell, mm, slack sideways included. */
export interface Allowed {
  low: Float32Array;
  high: Float32Array;
  /** Underside of the part: below it nothing counts. */
  floor: number;
}

/** Narrows, or widens, what is right on a grid. */
type Rule = (grid: Grid, allowed: Allowed) => void;

const lowerTo =
  (region: Region, z: number): Rule =>
  (grid, { low }) =>
    eachInside(grid, region, (i) => (low[i] = Math.min(low[i], z)));

const cutDownTo =
  (region: Region, z: number): Rule =>
  (grid, { high }) =>
    eachInside(grid, region, (i) => (high[i] = Math.min(high[i], z)));

/** What a broken edge allows and asks; `isAsked` where it is the part's own. */
function edgeRule(edge: Edge, isAsked: boolean): Rule {
  const { region, metalInside, form } = edge;
  const band = metalInside
    ? difference(region, offset(region, -form.size - GOUGE))
    : difference(offset(region, form.size + GOUGE), region);
  const boundary = new Boundary(region);
  return (grid, { low, high }) =>
    eachInside(grid, band, (i) => {
      const p = cellMiddle(grid, i);
      const into = Math.abs(boundary.distance(p.x, p.y));
      low[i] = Math.min(low[i], edgeHeight(edge, into - GOUGE));
      if (isAsked) high[i] = Math.min(high[i], edgeHeight(edge, into + LEFT));
    });
}

const ringOf = ({ minX, minY, maxX, maxY }: Bounds): Point[] => [
  { x: minX, y: minY },
  { x: maxX, y: minY },
  { x: maxX, y: maxY },
  { x: minX, y: maxY },
];

/** Lowers what is allowed to the shape a tool leaves along a line. */
function markRule({ lines, z, profile }: Mark): Rule {
  const reach = profile.diameter / 2 + GOUGE;
  return (grid, { low }) => {
    for (const line of lines) {
      for (let k = 0; k + 1 < line.length; k++) {
        const [a, b] = [line[k], line[k + 1]];
        eachInside(grid, [ringOf(growBounds(boundsOf([a, b]), reach))], (i) => {
          const { distance } = distanceToSegment(cellMiddle(grid, i), a, b);
          if (distance <= reach) low[i] = Math.min(low[i], z + profileHeight(profile, Math.max(0, distance - GOUGE)));
        });
      }
    }
  };
}

/** What a part wants, and what operations take beyond its features: rules that can be laid on any grid. */
function rulesOf(model: PartModel, added: Added): Rule[] {
  const { outline, floors, holes, bosses, edges, thickness } = model;
  const body = offset(outline, -GOUGE);
  const inside = offset(outline, LEFT);
  return [
    (grid, { low }) => eachInside(grid, body, (i) => (low[i] = 0)),
    (grid, { high }) => eachInside(grid, inside, (i) => (high[i] = 0)),
    ...floors.flatMap(({ region, z }) => [
      lowerTo(offset(region, GOUGE), z <= -thickness ? -ANYTHING : z),
      cutDownTo(offset(region, -LEFT), z),
    ]),
    ...holes.flatMap(({ centre: { x, y }, diameter, thread, through, depth }) => [
      lowerTo(
        round(x, y, Math.max(diameter, thread?.major ?? 0) / 2 + GOUGE),
        through ? -ANYTHING : -depth - diameter / 2,
      ),
      cutDownTo(round(x, y, diameter / 2 - LEFT), through ? -thickness : -depth),
    ]),
    ...bosses.map(({ centre: { x, y }, thread }) => {
      const { major, externalMinor } = threadSizes(thread);
      const crests = difference(round(x, y, major / 2 + GOUGE), round(x, y, externalMinor / 2 - GOUGE));
      return lowerTo(crests, -ANYTHING);
    }),
    ...edges.map((edge) => edgeRule(edge, true)),
    ...added.edges.map((edge) => edgeRule(edge, false)),
    ...added.marks.map(markRule),
  ];
}

/** Share of the line around a piece that must be cut for it to fall out; the rest are bridges meant to be broken. */
const CUT_ROUND = 0.5;

/** What is wanted of a piece, to be laid on any grid. */
export class Wanted {
  private readonly rules: Rule[];
  private readonly floor: number;
  /** Pieces known to have been cut loose. */
  private gone: Region[] = [];

  /** @param added what operations take beyond the part's features */
  constructor(
    model: PartModel,
    private readonly added: Added = NOTHING_ADDED,
  ) {
    this.rules = rulesOf(model, added);
    this.floor = -model.thickness;
  }

  /** What is right where on a grid, if no piece is gone but those found loose. */
  on(grid: Grid): Allowed {
    const cells = grid.nx * grid.ny;
    const [low, high] = [new Float32Array(cells).fill(-ANYTHING), new Float32Array(cells).fill(ANYTHING)];
    const allowed = { low, high, floor: this.floor };
    for (const rule of this.rules) rule(grid, allowed);
    for (const region of this.gone) eachInside(grid, region, (i) => (high[i] = ANYTHING));
    return allowed;
  }

  /** Lets the metal of pieces that a field shows cut loose stand: it is gone by then. */
  findLoose(field: HeightField): this {
    this.gone = [];
    if (this.added.freed.length === 0) return this;
    const { high } = this.on(field);
    for (const { region, kerf } of this.added.freed) {
      let [cells, cut] = [0, 0];
      eachInside(field, difference(offset(region, -LEFT), offset(region, LEFT - kerf)), (i) => {
        cells++;
        if (field.height[i] <= high[i] + LEFT) cut++;
      });
      if (cut >= CUT_ROUND * cells) this.gone.push(region);
    }
    return this;
  }
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
