/** A solid as a part: what is to be cut from each of its six sides, found once and told from the side it is best cut from. */
import { Box3 } from '../../geometry/space/triangles';
import { Feature, LeftFace, LeftWhy, Part, SINGLE } from '../plate/feature';
import { drawnFrom } from '../plate/side';
import { Body, FACES, FACE_UPS, Face } from '../plate/turn';
import { Faces, ModelFace } from './faces/faces';
import { bodyIn, boxOf, lyingAs, onPlace } from './lying';
import { Arranged, arranged, isAlike } from './patterns';
import { isReached, reachedFromAbove } from './reach';
import { Found } from './found';
import { UPRIGHT } from './looked';
import { recognised } from './recognise';
import { tidy } from './rings';
import { Tops } from './tops';

/** What was understood of a solid. */
export interface Understood {
  thickness: number;
  features: Feature[];
  /** Faces that no feature makes, with why. */
  left: LeftFace[];
  /** The faces each side comes to. */
  reached: Record<Face, number[]>;
}

const KEPT_ORDER: Found['meaning'][] = ['outline', 'pocket', 'boss', 'hole', 'edge'];

/** What a found thing is called before it is counted. */
export function nameOf({ meaning, shape, isOpen, through }: Found): string {
  if (meaning === 'outline') return 'Outside';
  if (meaning === 'boss') return 'Boss';
  if (meaning === 'edge') return 'Edge';
  if (meaning === 'hole') return `Hole ${shape.type === 'round' ? shape.diameter : ''}`.trim();
  if (isOpen) return 'Step';
  if (shape.type === 'slot') return 'Slot';
  if (shape.type === 'round') return through ? 'Bore' : 'Round pocket';
  return through ? 'Opening' : 'Pocket';
}

/** What equal things have in common, beside their shape. */
const likeness = ({ meaning, depth, through, from, ends, counterbore, edge, foot, taper, lean }: Found): string =>
  JSON.stringify([meaning, depth, through, from, ends, counterbore, edge, foot, taper, lean]);

/** Equal things as one feature each; what stands alone stays. */
function grouped(found: Found[]): { found: Found; pattern: Arranged['pattern']; faces: number[] }[] {
  const groups: Found[][] = [];
  for (const f of found) {
    const its = groups.find(([first]) => likeness(first) === likeness(f) && isAlike(first, f));
    if (its) its.push(f);
    else groups.push([f]);
  }
  return groups.flatMap((group) =>
    arranged(group).map(({ pattern, members }) => ({
      found: group[members[0]],
      pattern,
      faces: [...new Set(members.flatMap((k) => group[k].faces))].sort((a, b) => a - b),
    })),
  );
}

/** Walls that bend less than this where they meet are one, rad. */
const LEAST_BEND = 0.02;

/** Whether one thing stands within another, seen from above. */
const standsIn = (boss: Found, pocket: Found): boolean => boss.depth < pocket.depth;

/** Of what was found from a side, that which is not made from another before it. */
function ownOf(found: Found[], made: Set<number>, { faces }: Faces): Found[] {
  const isNew = (its: number[]) => its.some((i) => !made.has(i));
  const areaOf = (its: number[]) => its.reduce((sum, i) => sum + faces[i].area, 0);
  // What is cut off right through is mostly new: a leaning wall of a step is no reason to cut the step from beside.
  const isWorth = ({ isOpen, through, faces: its }: Found) =>
    !(isOpen && through) || areaOf(its.filter((i) => !made.has(i))) > areaOf(its) / 2;
  const wallsOf = ({ faces: its, rim = [] }: Found) => its.filter((i) => !rim.includes(i));
  const cut = found.filter((f) => (f.meaning === 'pocket' || f.meaning === 'hole') && isNew(wallsOf(f)) && isWorth(f));
  // What another side makes, but its edge: that is broken from here.
  const edges = found.flatMap((f): Found[] => {
    if (f.meaning === 'edge') return isNew(f.faces) ? [f] : [];
    const { shape, x, y, turn, edge, rim = [] } = f;
    if (cut.includes(f) || f.meaning === 'boss' || !isNew(rim)) return [];
    return [{ meaning: 'edge', shape, x, y, turn, edge, depth: 0, through: false, faces: rim }];
  });
  const stands = found.filter((f) => f.meaning === 'boss' && cut.some((p) => p.meaning === 'pocket' && standsIn(f, p)));
  return [...cut, ...stands, ...edges].sort((a, b) => KEPT_ORDER.indexOf(a.meaning) - KEPT_ORDER.indexOf(b.meaning));
}

/** A through hole with a mouth is cut from the side of its mouth. */
const hasMouth = ({ counterbore, edge }: Found): boolean => counterbore !== undefined || edge !== undefined;

/** Whether two plane walls of a pocket meet in an inside corner without a round: no cutter makes it that comes from above. */
function isSharp({ meaning, faces: its }: Found, { faces }: Faces): boolean {
  const isWall = ({ fit }: ModelFace) => fit.kind === 'plane' && Math.abs(fit.normal.z) < 1 - UPRIGHT;
  const walls = its.filter((i) => isWall(faces[i]));
  const isHollow = (i: number) => walls.some((o) => (faces[i].meets.get(o) ?? 0) < -LEAST_BEND);
  return meaning === 'pocket' && walls.some(isHollow);
}

/** What one side has. */
interface OnSide {
  side: Face;
  found: Found[];
}

/** Leaves a thing to a side that makes it better; not where others make all of its faces. */
function giveUp(thing: Found, sides: OnSide[], made: Set<number>): void {
  const others = sides.flatMap(({ found }) => found).filter((o) => o !== thing);
  const alone = thing.faces.filter((i) => !others.some((o) => o.faces.includes(i)));
  if (alone.length === 0) return;
  alone.forEach((i) => made.delete(i));
  for (const side of sides) side.found = side.found.filter((f) => f !== thing);
}

/** What was found from each side, without what one before it has. */
function foundFrom(solid: Faces, body: Body, told?: (share: number) => void) {
  const made = new Set<number>();
  const reached = {} as Understood['reached'];
  const found: OnSide[] = [];
  /** What would be better made from another side. */
  const sharp: Found[] = [];
  FACES.forEach((side, step) => {
    told?.(step / FACES.length);
    const lying = lyingAs(solid, body, FACE_UPS[side]);
    const tops = new Tops(lying.mesh, lying.against);
    reached[side] = reachedFromAbove(lying, tops).flatMap((share, i) => (isReached(share) ? [i] : []));
    const asked = sharp.filter((f) => f.faces.every((i) => reached[side].includes(i)));
    if (asked.length === 0 && reached[side].every((i) => made.has(i))) return;
    const all = recognised(lying, tops, side, made);
    const round = all.filter((f) => f.meaning === 'pocket' && !f.through && !isSharp(f, lying));
    for (const f of asked) if (round.some((r) => f.faces.every((i) => r.faces.includes(i)))) giveUp(f, found, made);
    const own = ownOf(all, made, solid);
    sharp.push(...own.filter((f) => isSharp(f, lying)));
    const better = new Set(own.filter((f) => f.through && hasMouth(f)).flatMap((f) => f.faces));
    for (const before of found)
      before.found = before.found.filter(
        (f) => f.meaning !== 'hole' || hasMouth(f) || !f.faces.some((i) => better.has(i)),
      );
    const outside = side === 'top' ? all.filter((f) => f.meaning === 'outline') : [];
    found.push({ side, found: [...outside, ...own] });
    found[found.length - 1].found.forEach((f) => f.faces.forEach((i) => made.add(i)));
    // What slopes from here may be a wall from elsewhere.
    reached[side].forEach((i) => isSquare(lying.faces[i].fit) && made.add(i));
  });
  told?.(1);
  return { found, reached };
}

/**
 * Understands a solid that lies in its place: which features each side has, from the top down the sides; what another side makes is not told twice.
 * @param told called with the share that is done
 */
export function understood(solid: Faces, told?: (share: number) => void): Understood {
  const box = boxOf(solid);
  const body = bodyIn(box);
  const { found, reached } = foundFrom(solid, body, told);
  const part: Part = { kind: 'plate', thickness: tidy(body.size[2]), features: [] };
  const counts = new Map<string, number>();
  for (const { side, found: its } of found) {
    const onSide = grouped(its).map(({ found: f, pattern, faces }) => {
      const name = nameOf(f);
      const count = (counts.get(name) ?? 0) + 1;
      counts.set(name, count);
      const called = count === 1 ? name : `${name}, ${count}`;
      return onSideOf({ ...f, faces }, side, part, called, pattern);
    });
    part.features = [...part.features, ...onSide].map((f, i) => ({ ...f, id: `f${i + 1}` }));
  }
  return {
    thickness: part.thickness,
    features: part.features,
    reached,
    left: leftOver(solid, box, part.features, reached),
  };
}

/** What was found from a side as a feature of the part, without an id yet. */
export function onSideOf(
  found: Found,
  side: Face,
  part: Part,
  name: string,
  pattern: Feature['pattern'] = { ...SINGLE },
): Feature {
  const feature = featureOf(found, name, pattern, found.faces);
  return side === 'top' ? feature : neat(drawnFrom(feature, part, FACE_UPS[side]));
}

function featureOf(f: Found, name: string, pattern: Feature['pattern'], faces: number[]): Feature {
  const { meaning, shape, x, y, turn, depth, through, from, ends, counterbore, edge, foot, taper, lean } = f;
  const named = faces.length > 0 ? { faces } : {};
  const more = {
    ...(from && { from }),
    ...(ends && { ends }),
    ...(counterbore && { counterbore }),
    ...(edge && { edge }),
    ...(foot && { foot }),
    ...(taper && { taper }),
    ...(lean && { lean }),
    ...named,
  };
  return { id: '', name, meaning, shape, x, y, turn, pattern, depth, through, layer: '', ...more };
}

/** Places without the dust of turning them. */
const neat = (feature: Feature): Feature => ({ ...feature, x: tidy(feature.x), y: tidy(feature.y) });

/** Whether a flat lies on the box round the solid. */
function isOnBox({ fit }: Faces['faces'][number], { min, max }: Box3): boolean {
  if (fit.kind !== 'plane') return false;
  return (['x', 'y', 'z'] as const).some((k) => {
    if (Math.abs(fit.normal[k]) < 0.99999) return false;
    const at = (fit.at.x * fit.normal.x + fit.at.y * fit.normal.y + fit.at.z * fit.normal.z) / fit.normal[k];
    return Math.abs(at - (fit.normal[k] > 0 ? max : min)[k]) < 2e-3;
  });
}

/** Opposite sides. */
const ENDS: [Face, Face][] = [
  ['top', 'underside'],
  ['front', 'back'],
  ['left', 'right'],
];

/** Whether two opposite sides come to a face, and no other. */
const isAlong = (face: number, reached: Understood['reached']): boolean =>
  ENDS.some((ends) => FACES.every((side) => reached[side].includes(face) === ends.includes(side)));

/** Faces that are no side of the box and in no feature, with why. */
function leftOver(
  { faces }: Faces,
  box: Box3,
  features: Feature[],
  reached: Understood['reached'],
): Understood['left'] {
  const taken = new Set(features.flatMap((f) => f.faces ?? []));
  const all = new Set(FACES.flatMap((side) => reached[side]));
  const why = (i: number): LeftWhy => {
    const { fit } = faces[i];
    if (!all.has(i)) return 'undercut';
    if (isAlong(i, reached)) return 'along';
    if (fit.kind === 'free') return 'free';
    if (fit.kind === 'ring' || fit.kind === 'ball') return 'round';
    const axis = fit.kind === 'plane' ? fit.normal : fit.axis;
    const isSquare = Math.max(Math.abs(axis.x), Math.abs(axis.y), Math.abs(axis.z)) > 0.99999;
    return fit.kind === 'cone' || !isSquare ? 'slope' : 'flat';
  };
  return faces.flatMap((f, face) =>
    taken.has(face) || isOnBox(f, box) ? [] : [{ face, why: why(face), area: f.area }],
  );
}

/** What something wide to lie on is worth beside what is shown. */
const LYING = 0.3;

/** What a face is worth that lies neither level nor upright: an end mill makes no such face. */
const ASKEW = 0.5;

/** Whether a face is level or upright, or turned about an upright axis. */
function isSquare(fit: Faces['faces'][number]['fit']): boolean {
  if (fit.kind === 'plane') return Math.abs(fit.normal.z) > UPRIGHT || Math.abs(fit.normal.z) < 1 - UPRIGHT;
  return 'axis' in fit && Math.abs(fit.axis.z) > UPRIGHT;
}

/** A way a solid may lie: which of its sides is up, and how many of its faces are reached then. */
export interface WayUp {
  side: Face;
  reached: number;
  /** Better ways have more. */
  score: number;
}

/**
 * The six ways a solid may lie, the best first: those that show most of its faces, low and on something wide to lie on. Faces on the box round it are
 * those of the blank: that a plate on its edge shows both its flats as walls counts for nothing.
 */
export function waysUp(solid: Faces): WayUp[] {
  const placed = onPlace(solid);
  const box = boxOf(placed);
  const body = bodyIn(box);
  const whole = placed.faces.reduce((s, f) => s + f.area, 0);
  const low = Math.min(...body.size);
  const isBlank = placed.faces.map((f) => isOnBox(f, box));
  return FACES.map((side): WayUp => {
    const lying = lyingAs(placed, body, FACE_UPS[side]);
    const shares = reachedFromAbove(lying, new Tops(lying.mesh, lying.against));
    let score = 0;
    lying.faces.forEach(({ area, fit }, i) => {
      if (!isBlank[i]) score += shares[i] * (isSquare(fit) ? 1 : ASKEW) * (1 / lying.faces.length + area / whole);
      // What it would lie on.
      if (fit.kind === 'plane' && fit.normal.z < -0.99999) score += LYING * (area / whole);
    });
    const high = bodyIn(boxOf(lying)).size[2];
    return { side, reached: shares.filter(isReached).length, score: score * Math.sqrt(Math.sqrt(low / high)) };
  }).sort((a, b) =>
    Math.abs(a.score - b.score) > 1e-3 ? b.score - a.score : FACES.indexOf(a.side) - FACES.indexOf(b.side),
  );
}
