/** What was found in a part put right: one thing that is several, two that are one. */
import { fitArcs } from '../../geometry/plane/arcfit';
import { chainBounds } from '../../geometry/plane/chain';
import { thinned, union } from '../../geometry/plane/clip';
import { Bounds, Point, growBounds } from '../../geometry/plane/point';
import { freshId } from '../../quantity/ids';
import { Feature, Part, SINGLE, Solid, sideOf } from '../plate/feature';
import { regionOf } from '../plate/model';
import { singles } from '../plate/placed';
import { instancesOf } from '../plate/shapes';
import { bodyAs, bodyOf } from '../plate/side';
import { FACE_UPS, Face } from '../plate/turn';
import { SAME_HEIGHT } from './found';
import { surfaceAs } from './lying';
import { arranged, isAlike } from './patterns';
import { tidy } from './rings';
import { surfaceOf } from './surface-of';

/** A name none of some features has: with the next number where it is taken. */
export function freshName(name: string, features: Feature[]): string {
  const taken = new Set(features.map((f) => f.name));
  let called = name;
  for (let n = 2; taken.has(called); n++) called = `${name}, ${n}`;
  return called;
}

/** The middle of each face as its side is drawn: beside the part from the lower left corner of the side, else as from above. */
function middlesOn(part: Solid, side: Face, faces: number[]): Map<number, Point> {
  const surface = surfaceOf(part);
  const beside = side !== 'top' && side !== 'underside';
  const body = bodyOf(part);
  const { size } = bodyAs(part, FACE_UPS[side]);
  const lying = surface && beside ? surfaceAs(surface, body, FACE_UPS[side]) : surface;
  const from = beside ? { x: body.x - size[0] / 2, y: body.y - size[1] / 2 } : { x: 0, y: 0 };
  const sums = new Map(faces.map((f) => [f, { x: 0, y: 0, n: 0 }]));
  surface?.face?.forEach((f, t) => {
    const sum = sums.get(f);
    for (let k = 0; sum && k < 3; k++) {
      sum.x += lying!.points[3 * lying!.corners[3 * t + k]] - from.x;
      sum.y += lying!.points[3 * lying!.corners[3 * t + k] + 1] - from.y;
      sum.n++;
    }
  });
  return new Map([...sums].flatMap(([f, { x, y, n }]) => (n > 0 ? [[f, { x: x / n, y: y / n }]] : [])));
}

/** Each place of a pattern by itself, without the dust of turning it. */
const apart = (feature: Feature): Feature[] => singles(feature).map((f) => ({ ...f, x: tidy(f.x), y: tidy(f.y) }));

/** Faces whose middle is so near beside a place belong to what stands there, mm. */
const BESIDE = 0.1;

/** Each place of a pattern as a feature by itself; the first keeps its id and name. */
export function splitFeature(part: Part, feature: Feature): Feature[] {
  const places = apart(feature);
  if (places.length < 2) return [feature];
  const middles =
    part.kind === 'solid' ? middlesOn(part, sideOf(feature), feature.faces ?? []) : new Map<number, Point>();
  const known = [...part.features];
  return places.map((place, i): Feature => {
    const single = { ...place };
    if (feature.faces) {
      const box = growBounds(chainBounds(instancesOf(single)[0]), BESIDE);
      single.faces = [...middles].flatMap(([f, at]) => (isIn(box, at) ? [f] : []));
      single.told = true;
    }
    if (i > 0) {
      single.id = freshId(
        'f',
        known.map((f) => f.id),
      );
      single.name = freshName(feature.name, known);
    }
    known.push(single);
    return single;
  });
}

const isIn = ({ minX, maxX, minY, maxY }: Bounds, { x, y }: Point): boolean =>
  x >= minX && x <= maxX && y >= minY && y <= maxY;

/** Corners of a joined outline that lie so near a straight are none, mm. */
const STRAIGHT = 1e-4;

/** What two features have to have in common to be one. */
const common = ({ meaning, side, through, thread, counterbore, edge, foot, lean }: Feature): string =>
  JSON.stringify([meaning, side, through, thread, counterbore, edge, foot, lean]);

/**
 * Two features as one: equal ones as a pattern, pockets of one depth that touch as one outline.
 * @returns undefined where they are no such two
 */
export function joinedFeature(a: Feature, b: Feature): Feature | undefined {
  if (a.id === b.id || common(a) !== common(b) || (!a.through && Math.abs(a.depth - b.depth) > SAME_HEIGHT))
    return undefined;
  const faces = [...new Set([...(a.faces ?? []), ...(b.faces ?? [])])];
  const kept = { ...a, ...(faces.length > 0 && { faces, told: true }) };
  if (isAlike(a, b)) {
    const places = [...apart(a), ...apart(b)];
    const [whole, ...others] = arranged(places);
    const { shape, x, y, turn } = places[whole.members[0]];
    if (others.length === 0) return { ...kept, shape, x, y, turn, pattern: whole.pattern };
  }
  if (a.meaning !== 'pocket') return undefined;
  const [ring, ...inner] = thinned(union(regionOf(a), regionOf(b)), STRAIGHT);
  if (!ring || inner.length > 0) return undefined;
  const { vertices } = fitArcs(ring);
  return { ...kept, shape: { type: 'chain', vertices, closed: true }, x: 0, y: 0, turn: 0, pattern: { ...SINGLE } };
}
