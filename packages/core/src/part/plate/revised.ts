/** A newer revision of a part: what is the same keeps its name and whatever hangs on it, and what changed is told. */
import { distance } from '../../geometry/plane/point';
import { chainBounds } from '../../geometry/plane/chain';
import { freshId } from '../../quantity/ids';
import { Feature, Part, sideOf } from './feature';
import { placements } from './placed';
import { instancesOf } from './shapes';

/** What became of a feature. */
export interface Change {
  kind: 'added' | 'removed' | 'changed';
  feature: Feature;
  /** As it was, where it changed. */
  before?: Feature;
}

/** Of what was read before, so much has to be found again hardly changed, mm: else it is another part, not a newer one. */
const AGAIN = { share: 1 / 2, within: 5 };
/** Closer than this nothing changed, mm. */
export const SAME = 2e-3;
/** Something further away is something else, mm, and something as much larger or smaller, as a share. */
const FAR = 25;
const OTHER = 0.5;

/** Sizes of a shape that can be compared, mm. */
function sizesOf(feature: Feature): number[] {
  const { shape, counterbore } = feature;
  const seat = counterbore ? [counterbore.diameter, counterbore.depth] : [0, 0];
  if (shape.type === 'round') return [shape.diameter, ...seat];
  if (shape.type === 'rectangle') return [shape.width, shape.height, shape.radius];
  if (shape.type === 'slot') return [shape.length, shape.width];
  const all = instancesOf(feature).map(chainBounds);
  return all.length === 0 ? [] : [all[0].maxX - all[0].minX, all[0].maxY - all[0].minY];
}

/** Where the first of its copies stands. */
export function placeOf(feature: Feature) {
  const [first] = instancesOf(feature);
  if (!first) return { x: feature.x, y: feature.y };
  const { minX, maxX, minY, maxY } = chainBounds(first);
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
}

const deepOf = ({ through, depth }: Feature) => (through ? Infinity : depth);

/** How far apart the widths of their broken edges are, mm, where both were read from a solid: a drawing says nothing of them. */
function edgesApart(a: Feature, b: Feature): number {
  if (!a.faces || !b.faces) return 0;
  const other = a.edge && b.edge && a.edge.form !== b.edge.form ? 1 : 0;
  return Math.abs((a.edge?.size ?? 0) - (b.edge?.size ?? 0)) + other;
}

/** How far two features are from being one, mm; undefined where they are two. */
function apart(a: Feature, b: Feature): number | undefined {
  if (a.meaning !== b.meaning || sideOf(a) !== sideOf(b) || a.shape.type !== b.shape.type) return undefined;
  const away = distance(placeOf(a), placeOf(b));
  const [own, others] = [sizesOf(a), sizesOf(b)];
  if (away > FAR || own.length !== others.length) return undefined;
  if (own.length > 0 && Math.abs(own[0] - others[0]) > OTHER * Math.max(own[0], others[0])) return undefined;
  const sizes = own.reduce((sum, v, i) => sum + Math.abs(v - others[i]), 0);
  const [deep, other] = [deepOf(a), deepOf(b)];
  const depth = deep === other ? 0 : Number.isFinite(deep - other) ? Math.abs(deep - other) : 1;
  const copies = Math.abs(placements(a.pattern).length - placements(b.pattern).length);
  return away + sizes + depth + copies + edgesApart(a, b) + Math.abs(a.turn - b.turn) / 90;
}

/** Finds the faces of a feature in a newer revision; undefined where one of them is not where it was. */
export type FacesAgain = (feature: Feature) => number[] | undefined;

/** What somebody told, where its faces still are: it takes the place of what is found in them anew. */
function keptAsTold(before: Part, again: FacesAgain | undefined): Feature[] {
  return before.features.flatMap((f) => {
    const faces = f.told ? again?.(f) : undefined;
    return faces ? [{ ...f, faces }] : [];
  });
}

/** Features that came from the file, not by hand. */
const isRead = ({ faces, layer }: Feature) => (faces ?? []).length > 0 || layer !== '';

/**
 * A newer revision in the place of a part. A feature that is still there keeps its id, its name and what was said about it; what somebody
 * drew by hand stays. Where hardly anything is found again it is another part, taken as it is.
 * @param before as it was
 * @param next as it was read anew
 * @param again finds faces that were told something
 * @returns the part as it is then, and what changed; no changes where it is another part
 */
export function revised<P extends Part>(before: Part, next: P, again?: FacesAgain): { part: P; changes?: Change[] } {
  const told = keptAsTold(before, again);
  const isTold = (id: string) => told.some((f) => f.id === id);
  const faces = new Set(told.flatMap((f) => f.faces ?? []));
  const anew = next.features.filter((f) => !f.faces?.some((i) => faces.has(i)) || f.meaning === 'outline');
  const known = before.features.filter((f) => isRead(f) && !isTold(f.id));
  const pairs = anew.flatMap((feature, i) =>
    known.flatMap((was) => {
      const by = apart(was, feature);
      return by === undefined ? [] : [{ i, was, by }];
    }),
  );
  pairs.sort((a, b) => a.by - b.by);
  const matched = new Map<number, (typeof pairs)[number]>();
  const taken = new Set<string>();
  for (const pair of pairs) {
    if (matched.has(pair.i) || taken.has(pair.was.id)) continue;
    matched.set(pair.i, pair);
    taken.add(pair.was.id);
  }
  const same = told.length + [...matched.values()].filter((pair) => pair.by <= AGAIN.within).length;
  const all = told.length + known.length;
  if (all === 0 || same < AGAIN.share * all) return { part: next };
  const byHand = before.features.filter((f) => !isRead(f));
  const features: Feature[] = [...byHand, ...told];
  const changes: Change[] = [];
  const ids = before.features.map((f) => f.id);
  anew.forEach((feature, i) => {
    const pair = matched.get(i);
    if (!pair) {
      const added = { ...feature, id: freshId('f', [...ids, ...features.map((f) => f.id)]) };
      features.push(added);
      changes.push({ kind: 'added', feature: added });
      return;
    }
    const { was, by } = pair;
    const { id, name, thread, finish, limits } = was;
    const said = { ...(thread && { thread }), ...(finish && { finish }), ...(limits && by <= SAME && { limits }) };
    // A solid says how its edges are broken; a drawing does not.
    const edge = feature.faces ? undefined : was.edge;
    const kept = { ...(edge && { edge }), ...feature, id, name, ...said };
    features.push(kept);
    if (by > SAME) changes.push({ kind: 'changed', feature: kept, before: was });
  });
  for (const was of known) if (!taken.has(was.id)) changes.push({ kind: 'removed', feature: was });
  return { part: { ...next, features }, changes };
}
