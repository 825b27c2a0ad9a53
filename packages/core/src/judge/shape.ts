import { Boundary } from '../geometry/boundary';
import { Region, difference, offset } from '../geometry/clip';
import { distanceToSegment } from '../geometry/point';
import { Finding, care, stop } from '../quantity/finding';
import { formatNumber } from '../quantity/units';
import { circle, flatten } from '../geometry/chain';
import { Motions } from '../program/motions';
import { profileHeight } from '../shop/tool';
import { threadSizes } from '../cutting/threads';
import { Added, Freed, Mark, NOTHING_ADDED } from '../part/added';
import { Edge, edgeHeight } from '../part/edges';
import { PartModel } from '../part/model';
import { HeightField, eachInside } from '../simulate/field';

/** Sideways and downward slack within which a cut counts as right, mm: the bar for gouges plus grid error at walls. */
export const GOUGE = 0.01;
/** Sideways and upward slack within which nothing counts as left, mm. */
export const LEFT = 0.06;

const ANYTHING = 1e6;

const round = (x: number, y: number, r: number): Region => (r > 0 ? [flatten(circle(x, y, r), 0.001)] : []);

const middleOf = (field: HeightField, index: number) => ({
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

interface Worst {
  index: number;
  by: number;
  volume: number;
}

const at = (field: HeightField, index: number) => ({ ...middleOf(field, index), z: field.height[index] });

const mm = (v: number) => `${formatNumber(v, 2)} mm`;

/** Cuts into the part, gathered by the motion that made them; each names its program line. */
export function gouges(
  field: HeightField,
  owner: Int32Array,
  model: PartModel,
  motions: Motions,
  added: Added = NOTHING_ADDED,
): Finding[] {
  const low = lowestAllowed(field, model, added);
  const byMotion = new Map<number, Worst>();
  field.height.forEach((h, i) => {
    const by = low[i] - Math.max(h, -model.thickness);
    if (by <= GOUGE || low[i] <= -ANYTHING || owner[i] < 0) return;
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
        `Cuts ${mm(w.by)} into the part at X ${formatNumber(p.x, 2)} Y ${formatNumber(p.y, 2)}, ${formatNumber(w.volume, 1)} mm³ in all`,
        'Correct the depth, the side or the tool of this move',
        { line: motions.line[motion], motion, at: p },
      );
    });
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

/** Metal still standing inside the part's features, gathered by feature. */
export function leftovers(field: HeightField, model: PartModel, { freed }: Added = NOTHING_ADDED): Finding[] {
  const high = highestAllowed(field, model);
  dropFreed(field, high, freed);
  const regions = [
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
      const by = field.height[i] - high[i];
      if (by <= LEFT) return;
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
        `${formatNumber(w.volume, 1)} mm³ still stands ${feature ? 'in a feature' : 'on the top'}, up to ${mm(w.by)} high at X ${formatNumber(p.x, 2)} Y ${formatNumber(p.y, 2)}`,
        'Add an operation for it, or use a smaller tool',
        { feature: feature || undefined, at: p },
      );
    });
}
