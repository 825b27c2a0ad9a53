import { formatNumber } from '../../quantity/units';
import { asCircle, Chain, circle, chainBounds, flatten, signedArea } from '../../geometry/plane/chain';
import { Region, contains, difference, intersection, union } from '../../geometry/plane/clip';
import { selfCrossing } from '../../geometry/plane/crossing';
import { Thread, parseThread } from '../../cutting/threads';
import { Bounds, EMPTY_BOUNDS, Point, joinBounds } from '../../geometry/plane/point';
import { Finding, care, stop } from '../../quantity/finding';
import { Edge, edgeDrop, surfaceAround } from './edges';
import { Counterbore, Feature, Part } from './feature';
import { unknownLetters } from './lettering';
import { instancesOf } from './shapes';

/** Chords of drawn arcs stay within this of the true arc when regions are made, mm. */
const FLATTEN = 0.001;

export interface Hole {
  feature: string;
  centre: Point;
  diameter: number;
  /** Down from the part's top, mm; the full thickness when it goes through. */
  depth: number;
  through: boolean;
  /** Thread to be cut in it. */
  thread?: Thread;
  counterbore?: Counterbore;
}

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
      : [
          stop(
            'open-chain',
            `“${feature.name}” is open: its ends do not meet`,
            'Close the gap in the drawing, close it on import, or set its meaning to ignore',
            place,
          ),
        ];
  }
  const crossing = selfCrossing(flatten(chain, 0.01));
  if (crossing) {
    return [
      stop(
        'self-crossing',
        `“${feature.name}” crosses itself at X ${formatNumber(crossing.x, 2)} Y ${formatNumber(crossing.y, 2)}`,
        'Correct the outline so that it does not cross itself',
        { feature: feature.id, at: crossing },
      ),
    ];
  }
  if (Math.abs(signedArea(chain)) < 1e-3) {
    return [
      stop('no-area', `“${feature.name}” encloses no area`, 'Give it a size or set its meaning to ignore', place),
    ];
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
        care(
          'no-such-letter',
          `The lettering has no ${missing.map((c) => `“${c}”`).join(', ')}; “${name}” is engraved without`,
          'Write it with other letters',
          { feature: id, field: 'shape.text' },
        ),
      ];
}

function depthFindings(feature: Feature, thickness: number): Finding[] {
  if (feature.meaning !== 'pocket' && feature.meaning !== 'hole') return [];
  const place = { feature: feature.id, field: 'depth' };
  if (feature.through) return [];
  if (feature.depth <= 0)
    return [
      stop(
        'no-depth',
        `“${feature.name}” has no depth`,
        'Give it a depth below the top of the part, or let it go through',
        place,
      ),
    ];
  if (feature.depth > thickness + 1e-6) {
    return [
      care(
        'deeper-than-part',
        `“${feature.name}” is ${feature.depth} mm deep in a part ${thickness} mm thick`,
        'Lessen its depth, thicken the part, or let it go through',
        place,
      ),
    ];
  }
  return [];
}

function holesOf(feature: Feature, chains: Chain[], thickness: number): { holes: Hole[]; findings: Finding[] } {
  const holes: Hole[] = [];
  const findings: Finding[] = [];
  for (const chain of chains) {
    const round = asCircle(chain);
    if (!round) {
      findings.push(
        stop('hole-not-round', `“${feature.name}” is not round, so it cannot be drilled`, 'Set its meaning to pocket', {
          feature: feature.id,
        }),
      );
      continue;
    }
    holes.push({
      feature: feature.id,
      centre: round.centre,
      diameter: 2 * round.radius,
      depth: feature.through ? thickness : feature.depth,
      through: feature.through,
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
      stop(
        'counterbore-no-mouth',
        `The counterbore of “${feature.name}” is ${counterbore.diameter <= hole.diameter ? 'no wider' : 'no shallower'} than its hole`,
        'Make it wider than the hole and less deep',
        place,
      ),
    );
  else
    for (const { centre } of holes)
      model.floors.push({ feature: feature.id, region: round(centre, counterbore.diameter), z: -counterbore.depth });
}

/** The broken edge of one feature; around the counterbore of a hole that has one. */
export function edgesOf(model: PartModel, feature: Feature, form = feature.edge): Edge[] {
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

function edgeFindings(edge: Edge, feature: Feature, thickness: number): Finding[] {
  const deepest = feature.through || feature.meaning === 'outline' ? thickness : feature.depth || thickness;
  return edgeDrop(edge.form) < deepest + edge.top
    ? []
    : [
        care(
          'edge-too-high',
          `The broken edge of “${feature.name}” is as high as its wall`,
          'Make it smaller, or give it a wider angle',
          { feature: feature.id, field: 'edge' },
        ),
      ];
}

/**
 * Works out outline, floors and holes of a part. Features with a fault are reported and left out; the rest stands.
 */
export function modelOf(part: Part): PartModel {
  const findings: Finding[] = [];
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
    if (feature.meaning === 'ignore') continue;
    const chains = instancesOf(feature);
    const faults = [
      ...chains.slice(0, 1).flatMap((c) => chainFindings(feature, feature.shape.type === 'text' ? openOf(chains) : c)),
      ...letterFindings(feature),
      ...depthFindings(feature, part.thickness),
    ];
    findings.push(...faults);
    if (!faults.some((f) => f.level === 'stop')) sound.set(feature, chains);
  }
  const of = (meaning: string) => [...sound].filter(([f]) => f.meaning === meaning);
  const regions = (entries: [Feature, Chain[]][]) => union(entries.flatMap(([, chains]) => chains.flatMap(ringOf)));

  model.outline = regions(of('outline'));
  if (model.outline.length === 0) {
    findings.push(
      stop(
        'no-outline',
        'The part has no outside',
        'Give one closed chain the meaning “outside of the part”, or draw a plate',
        {},
      ),
    );
  }
  for (const [, chains] of of('outline'))
    for (const c of chains) model.bounds = joinBounds(model.bounds, chainBounds(c));

  const bosses = of('boss');
  for (const [feature, chains] of of('pocket')) {
    const region = difference(union(chains.flatMap(ringOf)), regions(bosses));
    model.floors.push({ feature: feature.id, region, z: feature.through ? -part.thickness : -feature.depth });
  }
  const pockets = regions(of('pocket'));
  for (const [feature, chains] of bosses) {
    if (feature.depth <= 0) continue;
    const top = intersection(union(chains.flatMap(ringOf)), pockets);
    if (top.length) model.floors.push({ feature: feature.id, region: top, z: -feature.depth });
  }
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
    findings.push(...edges.slice(0, 1).flatMap((e) => edgeFindings(e, feature, part.thickness)));
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
