/** The part as one body, looked at from any of its sides: how far down its metal begins. */
import { asCircle, circle, flatten } from '../../geometry/plane/chain';
import { Region, chordsOf, difference, offset, ringArea, union } from '../../geometry/plane/clip';
import type { Vec3 } from '../../geometry/space/vec3';
import { Point } from '../../geometry/plane/point';
import { Edge, edgeDrop } from './edges';
import { Feature, Part } from './feature';
import { ANYTHING, GOUGE, HeightRule, LEFT, ringsOf } from './heights';
import { modelOf, threadOf } from './model';
import { instancesOf } from './shapes';
import { bodyAs, facesOf, seenFrom } from './side';
import { Body, FACE_UPS, Turn, Up, isFlat, isOnSide, turnBetween, turnPlace } from './turn';

/** A prism that stands upright as the part lies: it takes metal away, or puts it back. */
interface Prism {
  region: Region;
  from: number;
  to: number;
  isMetal: boolean;
}

const cut = (region: Region, from: number, slack: number, to = ANYTHING): Prism => ({
  region: offset(region, slack),
  from: from - slack,
  to,
  isMetal: false,
});

/** What pockets and bosses take away and leave, the larger first. */
function levelPrisms(features: Feature[], slack: number): Prism[] {
  const size = ({ region }: { region: Region }) => Math.max(...region.map((ring) => Math.abs(ringArea(ring))));
  return features
    .filter((f) => f.meaning === 'pocket' || f.meaning === 'boss')
    .map((feature) => ({ feature, region: ringsOf(feature) }))
    .filter(({ region }) => region.length > 0)
    .sort((a, b) => size(b) - size(a))
    .map(({ feature: f, region }) =>
      f.meaning === 'pocket'
        ? cut(region, f.through ? -ANYTHING : -f.depth, slack)
        : { region: offset(region, -slack), from: -ANYTHING, to: -f.depth, isMetal: true },
    );
}

/** A hole with the point of its drill, its mouth and its thread. */
function holePrisms(feature: Feature, slack: number): Prism[] {
  const major = threadOf(feature)?.major ?? 0;
  const { counterbore, through, depth } = feature;
  return instancesOf(feature).flatMap((chain) => {
    const found = asCircle(chain);
    if (!found) return [];
    const round = (radius: number): Region => [flatten(circle(found.centre.x, found.centre.y, radius), 0.001)];
    return [
      cut(round(Math.max(found.radius, major / 2)), through ? -ANYTHING : -depth - 2 * found.radius, slack),
      ...(counterbore ? [cut(round(counterbore.diameter / 2), -counterbore.depth, slack)] : []),
    ];
  });
}

/** The room a broken edge may take. */
function edgePrism({ region, metalInside, top, form }: Edge, slack: number): Prism {
  const band = metalInside
    ? difference(region, offset(region, -form.size))
    : difference(offset(region, form.size), region);
  return cut(band, top - edgeDrop(form), slack, top + slack);
}

const boxed = ({ x, y, size: [width, height] }: Body): Region => [
  [
    { x: x - width / 2, y: y - height / 2 },
    { x: x + width / 2, y: y - height / 2 },
    { x: x + width / 2, y: y + height / 2 },
    { x: x - width / 2, y: y + height / 2 },
  ],
];

const outlineOf = ({ features }: Part): Region =>
  union(features.filter((f) => f.meaning === 'outline').flatMap(ringsOf));

/** What is cut from one side of the part as it is seen there. */
function cutFrom(seen: Part, body: Body | undefined, slack: number): Prism[] {
  const { features } = seen;
  const trimmed = body ? difference(boxed(body), offset(outlineOf(seen), slack)) : [];
  return [
    ...(trimmed.length ? [cut(trimmed, -ANYTHING, slack)] : []),
    ...levelPrisms(features, slack),
    ...features.filter((f) => f.meaning === 'hole').flatMap((f) => holePrisms(f, slack)),
    ...modelOf(seen).edges.map((e) => edgePrism(e, slack)),
  ];
}

/** Edges that operations break, as the part lies for them. */
export interface BrokenEdges {
  up: Up;
  edges: Edge[];
}

/** Stretches along a line, each from its lower to its upper end. */
type Stretches = [number, number][];

const without = (metal: Stretches, taken: Stretches): Stretches =>
  taken.reduce<Stretches>(
    (left, [low, high]) =>
      left.flatMap(([a, b]): Stretches => {
        const kept: Stretches = [
          [a, Math.min(b, low)],
          [Math.max(a, high), b],
        ];
        return kept.filter(([from, to]) => to > from);
      }),
    metal,
  );

const rangeOf = (values: number[]): [number, number] =>
  values.reduce(([a, b], v) => [Math.min(a, v), Math.max(b, v)], [Infinity, -Infinity]);

/** Prisms that stand one way, looked through along a line that goes down as the part lies another way. */
class Seen {
  private readonly turn: Turn;
  private readonly along: 'x' | 'y';
  private readonly sign: number;
  private readonly chords: Map<number, number[]>[];
  /** From where to where each prism reaches across its chords. */
  private readonly reaches: [number, number][];

  constructor(
    private readonly body: Body,
    from: Up,
    up: Up,
    readonly prisms: Prism[],
  ) {
    this.turn = turnBetween(from, up);
    const axis = this.turn.takes.indexOf(2);
    this.along = axis === 0 ? 'x' : 'y';
    this.sign = this.turn.flips[axis] ? -1 : 1;
    this.chords = prisms.map(() => new Map());
    const across = axis === 0 ? 'y' : 'x';
    this.reaches = prisms.map(({ region }) => rangeOf(region.flatMap((ring) => ring.map((q) => q[across]))));
  }

  /** A place on the line below a point, as the prisms stand. */
  private under(p: Point): Vec3 {
    return turnPlace(this.turn, { x: p.x, y: p.y, z: 0 }, this.body);
  }

  /** Where the line through a place runs through a prism, Z of the side it is looked at from. */
  private through(index: number, at: Vec3): Stretches {
    const { region, from, to } = this.prisms[index];
    const across = this.along === 'x' ? at.y : at.x;
    const [least, most] = this.reaches[index];
    if (at.z < from || at.z > to || across < least || across > most) return [];
    const known = this.chords[index];
    let ends = known.get(across);
    if (!ends) known.set(across, (ends = chordsOf(region, this.along, across)));
    const stretches: Stretches = [];
    for (let k = 0; k + 1 < ends.length; k += 2) {
      const [a, b] = [ends[k], ends[k + 1]].map((v) => this.sign * (v - at[this.along]));
      stretches.push([Math.min(a, b), Math.max(a, b)]);
    }
    return stretches;
  }

  /** What is metal of the only prism along the line below a point. */
  metal(p: Point): Stretches {
    return this.through(0, this.under(p));
  }

  /** What is cut away along the line below a point. */
  taken(p: Point): Stretches {
    const at = this.under(p);
    return this.prisms.reduce<Stretches>((taken, { isMetal }, i) => {
      const found = this.through(i, at);
      if (found.length === 0) return taken;
      return isMetal ? without(taken, found) : [...taken, ...found];
    }, []);
  }
}

/**
 * How low it is right to cut where that is known from other sides of the part: down to where its metal begins. Nothing for a part that has
 * nothing beside it, seen from above or below.
 * @param drawn the part as it is drawn
 * @param up how it lies
 * @param broken edges that operations break besides
 * @param within how well its walls are known, mm
 */
export function otherSides(drawn: Part, up: Up, broken: () => BrokenEdges[], within = 0): HeightRule[] {
  const slack = GOUGE + within;
  const beside = facesOf(drawn);
  if (beside.length === 0 && !isOnSide(up)) return [];
  const body = bodyAs(drawn, up);
  const depth = body.size[2];
  const isAcross = (other: Up) => !isFlat(turnBetween(up, other));
  const sides = [FACE_UPS.top, FACE_UPS.underside, ...beside.map((face) => FACE_UPS[face])].filter(isAcross);
  const cuts = [
    ...sides.map(
      (other) =>
        new Seen(
          body,
          up,
          other,
          cutFrom(seenFrom(drawn, other), isOnSide(other) ? bodyAs(drawn, other) : undefined, slack),
        ),
    ),
    ...broken()
      .filter((b) => isAcross(b.up))
      .map(
        (b) =>
          new Seen(
            body,
            up,
            b.up,
            b.edges.map((e) => edgePrism(e, slack)),
          ),
      ),
  ];
  const outline = offset(outlineOf(seenFrom(drawn, 'top')), -slack);
  const plate = new Seen(body, up, 'top', [
    { region: outline, from: slack - drawn.thickness, to: -slack, isMetal: true },
  ]);
  const low = (p: Point) => {
    const metal: Stretches = isOnSide(up) ? plate.metal(p) : [[-depth, 0]];
    const left = cuts.reduce((some, seen) => (some.length ? without(some, seen.taken(p)) : some), metal);
    return Math.max(-ANYTHING, ...left.map(([, high]) => high));
  };
  return [{ region: offset(boxed(body), LEFT), how: 'lower', low }];
}
