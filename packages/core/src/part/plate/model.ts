import { asCircle, Chain, circle, chainBounds, flatten, signedArea } from '../../geometry/plane/chain';
import {
  Region,
  contains,
  difference,
  intersection,
  offset,
  offsetOpen,
  ringArea,
  union,
} from '../../geometry/plane/clip';
import { selfCrossing } from '../../geometry/plane/crossing';
import { Thread, parseThread } from '../../cutting/threads';
import { Bounds, EMPTY_BOUNDS, Point, distance, joinBounds } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { BESIDE, Edge, edgeDrop, surfaceAround } from './edges';
import { Counterbore, EdgeForm, Feature, Part, endsAt, isBeside } from './feature';
import { unknownLetters } from './lettering';
import { halfWidth } from './limits';
import { trimmedPart } from './notch';
import { instancesOf } from './shapes';

/** Chords of drawn arcs stay within this of the true arc when regions are made, mm. */
const FLATTEN = 0.001;

export interface Hole {
  feature: string;
  centre: Point;
  diameter: number;
  /** Down from the part's top, mm; where it goes through, to where it comes out. */
  depth: number;
  /** Where its mouth lies when the part is done, as far as that is known, mm down. */
  from?: number;
  through: boolean;
  /** How far either way its diameter may be off, mm, where the part says so. */
  within?: number;
  /** Thread to be cut in it. */
  thread?: Thread;
  counterbore?: Counterbore;
}

/** How much of a hole is wall, mm: from the floor its mouth lies in, which is cut before, to its own end. */
export const wallOf = ({ feature, centre, depth, from = 0 }: Hole, { floors }: Pick<PartModel, 'floors'>): number =>
  depth +
  Math.min(
    -from,
    ...floors.filter((f) => f.feature !== feature && f.z > -depth && contains(f.region, centre)).map((f) => f.z),
  );

/** A thread around a round boss. */
export interface ThreadedBoss {
  feature: string;
  centre: Point;
  thread: Thread;
}

/** A flat area below the top of the part. */
export interface Floor {
  feature: string;
  region: Region;
  /** Z of the floor, 0 at the top of the part, negative downwards. */
  z: number;
}

/** The part as regions and levels, ready for planning and judging. */
export interface PartModel {
  thickness: number;
  outline: Region;
  bounds: Bounds;
  floors: Floor[];
  holes: Hole[];
  bosses: ThreadedBoss[];
  /** Edges the part wants broken. */
  edges: Edge[];
  findings: Finding[];
}

const ringOf = (chain: Chain): Region => {
  const points = flatten(chain, FLATTEN);
  return [signedArea(chain) < 0 ? points.reverse() : points];
};

/** Region of all closed copies of a feature. */
export const regionOf = (feature: Feature): Region =>
  union(
    instancesOf(feature)
      .filter((c) => c.closed)
      .flatMap(ringOf),
  );

function chainFindings(feature: Feature, chain: Chain): Finding[] {
  const place = { feature: feature.id, at: chain.vertices[0] && { x: chain.vertices[0].x, y: chain.vertices[0].y } };
  if (!chain.closed) {
    return feature.meaning === 'edge' || feature.meaning === 'line'
      ? []
      : [finding('open-chain', { feature: feature.name }, place)];
  }
  const crossing = selfCrossing(flatten(chain, 0.01));
  if (crossing) {
    return [finding('self-crossing', { feature: feature.name, near: crossing }, { feature: feature.id, at: crossing })];
  }
  if (Math.abs(signedArea(chain)) < 1e-3) {
    return [finding('no-area', { feature: feature.name }, place)];
  }
  return [];
}

/** Text counts as open as soon as one of its strokes is. */
const openOf = (strokes: Chain[]): Chain => strokes.find((s) => !s.closed) ?? strokes[0];

function letterFindings({ id, name, shape }: Feature): Finding[] {
  const missing = shape.type === 'text' ? unknownLetters(shape.text) : [];
  return missing.length === 0
    ? []
    : [
        finding(
          'no-such-letter',
          { letters: missing.map((c) => `“${c}”`).join(', '), feature: name },
          { feature: id, field: 'shape.text' },
        ),
      ];
}

function depthFindings(feature: Feature, thickness: number): Finding[] {
  if (feature.meaning !== 'pocket' && feature.meaning !== 'hole') return [];
  const place = { feature: feature.id, field: 'depth' };
  if (feature.through) return [];
  if (feature.depth <= 0) return [finding('no-depth', { feature: feature.name }, place)];
  if (feature.depth > thickness + 1e-6) {
    return [finding('deeper-than-part', { feature: feature.name, depth: feature.depth, thickness }, place)];
  }
  return [];
}

function limitFindings({ id, name, limits = [] }: Feature): Finding[] {
  const crossed = limits.find((l) => l.upper < l.lower);
  return crossed
    ? [finding('limits-crossed', { feature: name, size: crossed.size }, { feature: id, field: 'limits' })]
    : [];
}

function holesOf(feature: Feature, chains: Chain[], thickness: number): { holes: Hole[]; findings: Finding[] } {
  const holes: Hole[] = [];
  const findings: Finding[] = [];
  for (const chain of chains) {
    const round = asCircle(chain);
    if (!round) {
      findings.push(
        finding(
          'hole-not-round',
          { feature: feature.name },
          {
            feature: feature.id,
          },
        ),
      );
      continue;
    }
    holes.push({
      feature: feature.id,
      centre: round.centre,
      diameter: 2 * round.radius,
      depth: endsAt(feature, thickness),
      ...(feature.from && { from: feature.from }),
      through: feature.through,
      ...(feature.limits && { within: halfWidth(feature, 'diameter') }),
      thread: threadOf(feature),
      counterbore: feature.counterbore,
    });
  }
  return { holes, findings };
}

/** The thread a feature names, where it can be read. */
export function threadOf(feature: Pick<Feature, 'thread'>): Thread | undefined {
  const read = feature.thread ? parseThread(feature.thread) : undefined;
  return read?.ok ? read.thread : undefined;
}

const round = ({ x, y }: Point, diameter: number): Region => [flatten(circle(x, y, diameter / 2), FLATTEN)];

/** The mouths of holes as floors, with what speaks against them. */
function counterbores(model: PartModel, feature: Feature): void {
  const { counterbore } = feature;
  const holes = model.holes.filter((h) => h.feature === feature.id);
  if (!counterbore || holes.length === 0) return;
  const [hole] = holes;
  const place = { feature: feature.id, field: 'counterbore', at: hole.centre };
  if (counterbore.diameter <= hole.diameter || counterbore.depth >= hole.depth)
    model.findings.push(
      finding(
        'counterbore-no-mouth',
        { feature: feature.name, isNarrow: counterbore.diameter <= hole.diameter },
        place,
      ),
    );
  else
    for (const { centre } of holes)
      model.floors.push({ feature: feature.id, region: round(centre, counterbore.diameter), z: -counterbore.depth });
}

/** How high the surface stands at a place, holes and what is beside the part counted. */
function standsAt(model: PartModel, at: Point | undefined): number {
  if (!at || !contains(model.outline, at)) return -Infinity;
  const holes = model.holes.filter((h) => distance(h.centre, at) < h.diameter / 2).map((h) => -h.depth);
  return Math.min(surfaceAt(model, at), ...holes);
}

/** The edges along open lines: the metal is on the side where the surface is higher. None where both are level. */
const openEdges = (model: PartModel, feature: Feature, form: EdgeForm): Edge[] =>
  instancesOf(feature)
    .filter((c) => !c.closed)
    .flatMap((chain): Edge[] => {
      const points = flatten(chain, FLATTEN);
      const [a, b] = points.slice(Math.ceil(points.length / 2) - 1);
      const long = distance(a, b) || 1;
      const beside = (by: number) => ({
        x: (a.x + b.x) / 2 + (by * (b.y - a.y)) / long,
        y: (a.y + b.y) / 2 - (by * (b.x - a.x)) / long,
      });
      const [right, left] = [BESIDE, -BESIDE].map((by) => standsAt(model, beside(by)));
      if (right === left) return [];
      const line = right > left ? points : [...points].reverse();
      const ring = [...line, ...offsetOpen(line, form.size, 'right').reverse()];
      const region = [ringArea(ring) < 0 ? ring.reverse() : ring];
      return [{ feature: feature.id, region, line, metalInside: true, top: Math.max(right, left), form }];
    });

/** The edge along a line that somebody drew: its metal is where the surface is higher. None where both sides are level. */
function lineEdge(model: PartModel, feature: Feature, form: EdgeForm): Edge[] {
  const region = regionOf(feature);
  if (region.length === 0) return openEdges(model, feature, form);
  const surface = (by: number) => standsAt(model, offset(region, by)[0]?.[0]);
  const [inside, outside] = [surface(-BESIDE), surface(BESIDE)];
  if (inside === outside) return [];
  return [{ feature: feature.id, region, metalInside: inside > outside, top: Math.max(inside, outside), form }];
}

/** The broken edge of one feature; around the counterbore of a hole that has one. */
export function edgesOf(model: PartModel, feature: Feature, form = feature.edge): Edge[] {
  if (form && feature.meaning === 'edge') return lineEdge(model, feature, form);
  if (!form || !['outline', 'pocket', 'boss', 'hole'].includes(feature.meaning)) return [];
  const metalInside = feature.meaning === 'outline' || feature.meaning === 'boss';
  const mouths = model.holes
    .filter((h) => h.feature === feature.id)
    .map((h) => round(h.centre, h.counterbore?.diameter ?? h.diameter));
  const regions = mouths.length ? mouths : [regionOf(feature)];
  const others = model.floors.filter((f) => f.feature !== feature.id);
  return regions.map((region) => ({
    feature: feature.id,
    region,
    metalInside,
    top: metalInside ? (feature.meaning === 'boss' ? -feature.depth : 0) : surfaceAround(region, others),
    form,
  }));
}

function edgeFindings(edge: Edge, feature: Feature, model: PartModel): Finding[] {
  const { thickness, floors } = model;
  const around = floors.filter((f) => f.feature !== feature.id);
  const deepest =
    feature.meaning === 'boss'
      ? -surfaceAround(edge.region, around)
      : feature.through || feature.meaning === 'outline'
        ? thickness
        : feature.depth || thickness;
  return edgeDrop(edge.form) < deepest + edge.top
    ? []
    : [finding('edge-too-high', { feature: feature.name }, { feature: feature.id, field: 'edge' })];
}

/**
 * Flat areas that pockets and bosses leave. What is smaller stands in what is larger: a pocket takes away what stood there, a boss
 * puts back up to its top; where floors overlap the lowest shows.
 */
function floorsOf(levels: [Feature, Chain[]][], thickness: number): Floor[] {
  const size = ([, chains]: [Feature, Chain[]]) => Math.max(...chains.map((c) => Math.abs(signedArea(c))));
  const floors = new Map<Feature, Floor>();
  for (const [feature, chains] of [...levels].sort((a, b) => size(b) - size(a))) {
    const region = union(chains.flatMap(ringOf));
    const isPocket = feature.meaning === 'pocket';
    const z = isPocket && feature.through ? -thickness : -feature.depth;
    const lower = isPocket ? [] : [...floors.values()].filter((f) => f.z < z);
    const stood = isPocket ? region : intersection(region, union(lower.flatMap((f) => f.region)));
    for (const f of lower) f.region = difference(f.region, region);
    if (isPocket || (z < 0 && stood.length)) floors.set(feature, { feature: feature.id, region: stood, z });
  }
  return levels.flatMap(([feature]) => floors.get(feature) ?? []);
}

/**
 * Works out outline, floors and holes of a part, without what is cut from beside it. Features with a fault are reported and left out; the
 * rest stands.
 */
export function modelOf(drawn: Part): PartModel {
  const { part, findings: untrimmed } = trimmedPart(drawn);
  const findings: Finding[] = [...untrimmed];
  const model: PartModel = {
    thickness: part.thickness,
    outline: [],
    bounds: EMPTY_BOUNDS,
    floors: [],
    holes: [],
    bosses: [],
    edges: [],
    findings,
  };
  const sound = new Map<Feature, Chain[]>();
  for (const feature of part.features) {
    if (feature.meaning === 'ignore' || feature.meaning === 'notch' || isBeside(feature)) continue;
    const chains = instancesOf(feature);
    const faults = [
      ...chains.slice(0, 1).flatMap((c) => chainFindings(feature, feature.shape.type === 'text' ? openOf(chains) : c)),
      ...letterFindings(feature),
      ...depthFindings(feature, part.thickness),
      ...limitFindings(feature),
    ];
    findings.push(...faults);
    if (!faults.some((f) => f.level === 'stop')) sound.set(feature, chains);
  }
  const of = (meaning: string) => [...sound].filter(([f]) => f.meaning === meaning);

  model.outline = union(of('outline').flatMap(([, chains]) => chains.flatMap(ringOf)));
  if (model.outline.length === 0) {
    findings.push(finding('no-outline', {}));
  }
  for (const [, chains] of of('outline'))
    for (const c of chains) model.bounds = joinBounds(model.bounds, chainBounds(c));

  const bosses = of('boss');
  model.floors.push(...floorsOf([...of('pocket'), ...bosses], part.thickness));
  for (const [feature, chains] of of('hole')) {
    const found = holesOf(feature, chains, part.thickness);
    model.holes.push(...found.holes);
    findings.push(...found.findings);
    counterbores(model, feature);
  }
  for (const [feature, chains] of bosses) {
    const thread = threadOf(feature);
    const rounds = thread ? chains.map(asCircle) : [];
    for (const r of rounds) if (r) model.bosses.push({ feature: feature.id, centre: r.centre, thread: thread! });
  }
  for (const feature of sound.keys()) {
    const edges = edgesOf(model, feature);
    model.edges.push(...edges);
    findings.push(...edges.slice(0, 1).flatMap((e) => edgeFindings(e, feature, model)));
  }
  return model;
}

/** Z of the part's surface over a point: the lowest floor there, else its top. */
export const surfaceAt = (model: PartModel, p: Point): number =>
  Math.min(0, ...model.floors.filter((f) => contains(f.region, p)).map((f) => f.z));

/** Where metal must stay just below the height `z`: the outline less every floor that lies at or below it. */
export function solidAt(model: PartModel, z: number): Region {
  const open = model.floors.filter((f) => f.z <= z + 1e-6).flatMap((f) => f.region);
  return open.length ? difference(model.outline, union(open)) : model.outline;
}

/** Chords of holes stay this near their arc, mm. */
const HOLE = 2e-4;

/** What is metal just below the height `z`, the holes that are drilled there gone too. */
export function metalAt(model: PartModel, z: number): Region {
  const holes = model.holes.filter((h) => h.through || -h.depth < z + 1e-6);
  const drilled = holes.map((h) => flatten(circle(h.centre.x, h.centre.y, h.diameter / 2), HOLE));
  return drilled.length > 0 ? difference(solidAt(model, z), drilled) : solidAt(model, z);
}

const KNOWN = new WeakMap<Part, PartModel>();

/** The same, worked out once for each version of a part. */
export function partModel(part: Part): PartModel {
  const model = KNOWN.get(part) ?? modelOf(part);
  KNOWN.set(part, model);
  return model;
}
