/** The surface of a part that is a solid, as it lies. */
import { Triangles, areaVectors, countOf, edgesAgainst } from '../../geometry/space/triangles';
import { Vec3 } from '../../geometry/space/vec3';
import { atHand } from '../../quantity/files';
import { Part, Solid, sideOf } from '../plate/feature';
import { FACES, Face } from '../plate/turn';
import { surfaceIn } from './read/surface';
import { Tops } from './tops';

const READ = new WeakMap<Uint8Array, Triangles | undefined>();

/** The surface of a solid in its own place; undefined where its file is not at hand. What was read once is remembered. */
export function surfaceOf({ surface }: Solid): Triangles | undefined {
  const file = atHand(surface.sha256);
  if (!file) return undefined;
  if (!READ.has(file)) READ.set(file, surfaceIn(file));
  return READ.get(file);
}

const LAID = new WeakMap<Triangles, Map<string, Tops>>();

/**
 * What is seen of a surface from above once it lies some way.
 * @param key says which way
 */
export function topsAs(surface: Triangles, key: string, laid: () => Triangles): Tops {
  const known = LAID.get(surface) ?? new Map<string, Tops>();
  LAID.set(surface, known);
  if (!known.has(key)) {
    const mesh = laid();
    known.set(key, new Tops(mesh, edgesAgainst(mesh)));
  }
  return known.get(key)!;
}

/** Where each side of a part looks, as it is drawn. */
export const LOOKS: Record<Face, Vec3> = {
  top: { x: 0, y: 0, z: 1 },
  underside: { x: 0, y: 0, z: -1 },
  front: { x: 0, y: -1, z: 0 },
  back: { x: 0, y: 1, z: 0 },
  left: { x: -1, y: 0, z: 0 },
  right: { x: 1, y: 0, z: 0 },
};

/**
 * Which triangles of a solid are to be cut with a side up: those of the features that are cut from there, and of faces no feature has
 * those that look most to it.
 */
export function askedFrom(part: Part, surface: Triangles, side: Face): Uint8Array {
  const sides = new Map<number, Set<Face>>();
  for (const f of part.features)
    for (const face of f.meaning === 'ignore' ? [] : (f.faces ?? []))
      sides.set(face, (sides.get(face) ?? new Set()).add(sideOf(f)));
  const areas = areaVectors(surface);
  const sums = new Map<number, [number, number, number]>();
  const face = (t: number) => surface.face?.[t] ?? -1;
  for (let t = 0; t < countOf(surface); t++) {
    const sum = sums.get(face(t)) ?? [0, 0, 0];
    for (let k = 0; k < 3; k++) sum[k] += areas[3 * t + k];
    sums.set(face(t), sum);
  }
  const looksMost = new Map<number, Face>();
  for (const [f, [x, y, z]] of sums) {
    const towards = (s: Face) => LOOKS[s].x * x + LOOKS[s].y * y + LOOKS[s].z * z;
    looksMost.set(
      f,
      FACES.reduce((best, s) => (towards(s) > towards(best) + 1e-9 ? s : best)),
    );
  }
  return Uint8Array.from({ length: countOf(surface) }, (_, t) =>
    Number(sides.get(face(t))?.has(side) ?? looksMost.get(face(t)) === side),
  );
}
