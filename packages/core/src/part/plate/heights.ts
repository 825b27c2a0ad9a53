import { asCircle, circle, flatten, signedArea } from '../../geometry/plane/chain';
import { Boundary } from '../../geometry/plane/boundary';
import { Region, difference, intersection, offset, union } from '../../geometry/plane/clip';
import { Bounds, Point, boundsOf, distanceToSegment, growBounds } from '../../geometry/plane/point';
import { threadSizes } from '../../cutting/threads';
import { profileHeight } from '../../shop/tool';
import { Added, Carving, Mark } from './added';
import { Edge, edgeHeight } from './edges';
import { Feature, Part, endsAt } from './feature';
import { Lean, leaningFaces } from './leaning';
import { PartModel, threadOf } from './model';
import { instancesOf } from './shapes';
import type { Body } from './turn';

/** Sideways and downward slack within which a cut counts as right, mm: the bar for gouges plus grid error at walls. */
export const GOUGE = 0.01;
/** Sideways and upward slack within which nothing counts as left, mm. */
export const LEFT = 0.06;

/** Where anything is right, mm. */
export const ANYTHING = 1e6;

type Height = number | ((p: Point) => number);

/** What is right in a region: how low it may be cut and how high it may stand, mm; the later of two rules decides. */
export interface HeightRule {
  region: Region;
  /** Whether heights are set, brought down where they are higher, or brought up where they are lower. */
  how: 'set' | 'lower' | 'raise';
  low?: Height;
  high?: Height;
}

/** The same rule elsewhere. */
export function movedRule(rule: HeightRule, { x, y }: Point): HeightRule {
  if (x === 0 && y === 0) return rule;
  const there = (height?: Height): Height | undefined =>
    typeof height === 'function' ? (p) => height({ x: p.x - x, y: p.y - y }) : height;
  const region = rule.region.map((ring) => ring.map((p) => ({ x: p.x + x, y: p.y + y })));
  return { ...rule, region, low: there(rule.low), high: there(rule.high) };
}

/**
 * A rule of a part that leans: as a whole it must keep the faces of its box instead of a level top, and what is open below its underside is
 * open all through.
 */
export function leaningRule(rule: HeightRule, { lean, body }: { lean: Lean; body: Body }): HeightRule {
  const faces = leaningFaces(lean, body);
  const { how, low } = rule;
  if (low === undefined) return rule;
  if (how === 'set') return { ...rule, low: (p) => (faces(p)?.top ?? -ANYTHING) - GOUGE };
  const at = (p: Point) => (typeof low === 'function' ? low(p) : low);
  return { ...rule, low: (p) => (at(p) <= (faces(p)?.bottom ?? ANYTHING) ? -ANYTHING : at(p)) };
}

/** What a feature’s closed lines enclose. */
export const ringsOf = (feature: Feature): Region =>
  union(
    instancesOf(feature)
      .filter((c) => c.closed)
      .map((c) => flatten(c, 0.001)),
  );

const round = ({ x, y }: Point, r: number): Region => (r > 0 ? [flatten(circle(x, y, r), 0.001)] : []);

/** What is cut down to a height within a region, and stands as high beside it. */
const cutTo = (region: Region, low: number, high: number): HeightRule[] => [
  { region: offset(region, GOUGE), how: 'lower', low },
  { region: offset(region, -LEFT), how: 'lower', high },
];

/** What stands up to a height within a region. */
const standTo = (region: Region, z: number): HeightRule[] => [
  { region: offset(region, -GOUGE), how: 'raise', low: z },
  { region: offset(region, LEFT), how: 'raise', high: z },
];

/** Pockets and bosses stand in each other: the larger first, so that the smaller decides. */
function levels(features: Feature[], outline: Region, thickness: number): HeightRule[] {
  const size = (f: Feature) => Math.max(...instancesOf(f).map((c) => Math.abs(signedArea(c))));
  return features
    .filter((f) => f.meaning === 'pocket' || f.meaning === 'boss')
    .sort((a, b) => size(b) - size(a))
    .flatMap((f) => {
      const region = ringsOf(f);
      if (f.meaning === 'boss') return standTo(intersection(region, outline), -f.depth);
      return f.through ? cutTo(region, -ANYTHING, -thickness) : cutTo(region, -f.depth, -f.depth);
    });
}

function holes(feature: Feature, thickness: number): HeightRule[] {
  const { through, depth, counterbore } = feature;
  const major = threadOf(feature)?.major ?? 0;
  return instancesOf(feature).flatMap((chain) => {
    const found = asCircle(chain);
    if (!found) return [];
    const { centre, radius } = found;
    const mouth =
      counterbore && counterbore.diameter > 2 * radius && counterbore.depth < endsAt(feature, thickness)
        ? cutTo(round(centre, counterbore.diameter / 2), -counterbore.depth, -counterbore.depth)
        : [];
    const low = through ? -ANYTHING : -depth - 2 * radius;
    return [
      ...mouth,
      { region: round(centre, Math.max(radius, major / 2) + GOUGE), how: 'lower' as const, low },
      { region: round(centre, radius - LEFT), how: 'lower' as const, high: -endsAt(feature, thickness) },
    ];
  });
}

/** A thread round a boss: between its crests anything is right. */
function crests(feature: Feature): HeightRule[] {
  const thread = threadOf(feature);
  if (!thread) return [];
  const { major, externalMinor } = threadSizes(thread);
  return instancesOf(feature).flatMap((chain) => {
    const found = asCircle(chain);
    if (!found) return [];
    const { centre } = found;
    const region = difference(round(centre, major / 2 + GOUGE), round(centre, externalMinor / 2 - GOUGE));
    return [{ region, how: 'lower' as const, low: -ANYTHING }];
  });
}

/** Least distance to a run of straights. */
const distanceToLine = (p: Point, line: Point[]): number =>
  Math.min(...line.slice(1).map((b, k) => distanceToSegment(p, line[k], b).distance));

/** What a broken edge allows and, where it is the part's own, asks. */
function broken(edge: Edge, isAsked: boolean): HeightRule {
  const { region, line, metalInside, form } = edge;
  const band = metalInside
    ? difference(region, offset(region, -form.size - GOUGE))
    : difference(offset(region, form.size + GOUGE), region);
  const boundary = new Boundary(region);
  const into = (p: Point) => (line ? distanceToLine(p, line) : Math.abs(boundary.distance(p.x, p.y)));
  return {
    region: band,
    how: 'lower',
    low: (p) => edgeHeight(edge, into(p) - GOUGE),
    high: isAsked ? (p) => edgeHeight(edge, into(p) + LEFT) : undefined,
  };
}

const boxOf = ({ minX, minY, maxX, maxY }: Bounds): Point[] => [
  { x: minX, y: minY },
  { x: maxX, y: minY },
  { x: maxX, y: maxY },
  { x: minX, y: maxY },
];

/** The shape a tool leaves along lines. */
function marked({ lines, z, profile }: Mark): HeightRule[] {
  const reach = profile.diameter / 2 + GOUGE;
  return lines.flatMap((line) =>
    line.slice(1).map((b, k): HeightRule => {
      const a = line[k];
      return {
        region: [boxOf(growBounds(boundsOf([a, b]), reach))],
        how: 'lower',
        low: (p) => {
          const { distance } = distanceToSegment(p, a, b);
          return distance <= reach ? z + profileHeight(profile, Math.max(0, distance - GOUGE)) : ANYTHING;
        },
      };
    }),
  );
}

/** Steps from a tool's middle to its rim in which the slope of its flank is looked at. */
const FLANK = 64;

/** What a tool may take of an area it carves: as deep at a place as it reaches there when it touches the edge, where that is nearest. */
function carved({ region, surface, depth, profile }: Carving): HeightRule {
  const edge = new Boundary(region);
  const radius = profile.diameter / 2;
  const below = (into: number) => {
    let deepest = 0;
    for (let k = 0; k <= FLANK; k++) {
      const r = (radius * k) / FLANK;
      const tip = Math.min(depth, profileHeight(profile, Math.min(radius, into + r)));
      deepest = Math.max(deepest, tip - profileHeight(profile, r));
    }
    return deepest;
  };
  const low = ({ x, y }: Point) => surface - below(Math.max(0, edge.distance(x, y) + GOUGE));
  return { region: offset(region, GOUGE), how: 'lower', low };
}

/** What operations are asked beyond the part. */
const addedRules = (added: Added): HeightRule[] => [
  ...added.edges.map((edge) => broken(edge, false)),
  ...added.marks.flatMap(marked),
  ...added.carvings.map(carved),
];

/**
 * Between which heights a plate is right, and what operations are asked beyond it. It is read from the features themselves, not
 * from the regions paths are planned in, so that one mistake cannot hide in both.
 * @param part as it lies, with copies of repeated operations
 * @param model of the same part; of it the broken edges are taken, and which features are sound
 * @param isTopJudged whether metal on the top counts as left
 */
export function wantedHeights(part: Part, model: PartModel, added: Added, isTopJudged = true): HeightRule[] {
  const faulty = new Set(model.findings.filter((f) => f.level === 'stop').map((f) => f.place.feature));
  const features = part.features.filter((f) => !faulty.has(f.id));
  const outline = union(features.filter((f) => f.meaning === 'outline').flatMap(ringsOf));
  const { thickness } = part;
  return [
    { region: offset(outline, -GOUGE), how: 'set', low: 0 },
    ...(isTopJudged ? [{ region: offset(outline, LEFT), how: 'set' as const, high: 0 }] : []),
    ...levels(features, outline, thickness),
    ...features.filter((f) => f.meaning === 'hole').flatMap((f) => holes(f, thickness)),
    ...features.filter((f) => f.meaning === 'boss').flatMap(crests),
    ...model.edges.map((edge) => broken(edge, true)),
    ...addedRules(added),
  ];
}

/** At the end of a blind hole any drill’s point may stand, whichever the solid shows; below one that comes out in the open, what is cut away there later. */
const drilledEnd = (feature: Feature, thickness: number): HeightRule[] =>
  instancesOf(feature).flatMap((chain) => {
    const found = asCircle(chain);
    return found
      ? [{ region: round(found.centre, found.radius + LEFT), how: 'raise' as const, high: -endsAt(feature, thickness) }]
      : [];
  });

/**
 * What is right beside the surface of a solid itself: what was drawn into it, the points of drills, threads, edges, and what operations are
 * asked beyond it.
 * @param part as it lies, with copies of repeated operations
 * @param model of the same part
 */
export function besidesSurface(part: Part, model: PartModel, added: Added): HeightRule[] {
  const faulty = new Set(model.findings.filter((f) => f.level === 'stop').map((f) => f.place.feature));
  const features = part.features.filter((f) => !faulty.has(f.id));
  const { thickness } = part;
  const outline = union(features.filter((f) => f.meaning === 'outline').flatMap(ringsOf));
  const drawn = features.filter((f) => !f.faces && f.meaning !== 'outline');
  const found = features.filter((f) => f.faces);
  const lowOnly = (rules: HeightRule[]) => rules.map((rule): HeightRule => ({ ...rule, high: undefined }));
  return [
    ...levels(drawn, outline, thickness),
    ...drawn.filter((f) => f.meaning === 'hole').flatMap((f) => holes(f, thickness)),
    ...lowOnly(found.filter((f) => f.meaning === 'hole').flatMap((f) => holes(f, thickness))),
    ...found
      .filter((f) => f.meaning === 'hole' && !(f.through && f.ends === undefined))
      .flatMap((f) => drilledEnd(f, thickness)),
    ...features.filter((f) => f.meaning === 'boss').flatMap(crests),
    ...lowOnly(model.edges.map((edge) => broken(edge, true))),
    ...addedRules(added),
  ];
}
