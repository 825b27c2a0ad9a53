/** What can be drawn of a part: its features, its outside, what a plane cuts of it. */
import { fitArcs } from '../../geometry/plane/arcfit';
import { Region, thinned } from '../../geometry/plane/clip';
import { movedPoints } from '../../geometry/space/triangles';
import { Part } from '../plate/feature';
import { metalAt, partModel } from '../plate/model';
import { instancesOf } from '../plate/shapes';
import { Face, FACE_UPS } from '../plate/turn';
import { seenFrom } from '../plate/side';
import { facesOfSolid } from '../solid/faces/faces';
import { uprightsOf } from '../solid/looked';
import { chainOf } from '../solid/rings';
import { sectionAt } from '../solid/section';
import { surfaceOf } from '../solid/surface-of';
import type { Drawn } from './written';

/** Arcs are put back where all of an outline is within this of them, mm. */
const FIT = 0.002;
/** Corners of a section that lie so near a straight are none, mm: an edge between two triangles of one flat makes them. */
const STRAIGHT = 3e-4;
const SECTION = 'section';

/** The outlines of a region as curves. */
export const drawnRegion = (region: Region, layer: string): Drawn[] =>
  region.map((ring) => ({ chain: fitArcs(ring, FIT), layer }));

/** The features a part shows to one of its sides, each on a layer by its name. */
export const drawnFeatures = (part: Part, face: Face): Drawn[] =>
  (face === 'top' ? part : seenFrom(part, FACE_UPS[face])).features
    .filter((f) => f.meaning !== 'ignore' && (f.side ?? 'top') === 'top')
    .flatMap((f) => instancesOf(f).map((chain) => ({ chain, layer: f.name })));

/** A plane across one of the axes of a part. */
export interface Across {
  axis: 'x' | 'y' | 'z';
  /** Where it stands, mm in the part's own place: Z 0 is its top. */
  at: number;
}

/**
 * What a plane cuts of a part: looked at from above, from the front, or from the right.
 * @returns undefined where it cannot be had: the surface of a solid that is not at hand, a plate cut upright
 */
export function drawnSection(part: Part, { axis, at }: Across): Drawn[] | undefined {
  if (part.kind === 'plate') return axis === 'z' ? drawnRegion(levelOf(part, at), SECTION) : undefined;
  const surface = surfaceOf(part);
  if (!surface) return undefined;
  const laid = {
    x: () => movedPoints(surface, (p) => ({ x: p.y, y: p.z, z: p.x })),
    y: () => movedPoints(surface, (p) => ({ x: p.x, y: p.z, z: -p.y })),
    z: () => surface,
  }[axis]();
  const uprights = uprightsOf(facesOfSolid(laid));
  const region = thinned(sectionAt(laid, axis === 'y' ? -at : at), STRAIGHT);
  return region.map((ring) => ({ chain: chainOf(ring, uprights), layer: SECTION }));
}

/** What of a plate is metal at a height. */
const levelOf = (part: Part, at: number): Region =>
  at > 0 || at < -part.thickness ? [] : metalAt(partModel(part), at);
