import { Region, contains, offset } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { radians } from '../../quantity/units';
import { EdgeForm } from './feature';
import { maths } from '../../quantity/maths';

/** The broken top edge of a wall, ready for planning and judging. */
export interface Edge {
  feature: string;
  /** What the wall encloses; of an open edge the metal along it, as wide as it is broken. */
  region: Region;
  /** An open edge, its metal at the right. */
  line?: Point[];
  /** Whether the metal lies inside the wall, as on the outside of a part, or outside it, as around a pocket. */
  metalInside: boolean;
  /** Z of the surface the edge bounds. */
  top: number;
  form: EdgeForm;
}

/** Height of a broken edge, mm: the radius, or width / tan(half the included angle). Geometry. */
export const edgeDrop = ({ form, size, angle }: EdgeForm) =>
  form === 'round' ? size : size / maths.tan(radians(angle) / 2);

/**
 * Z of the broken edge at a distance `into` mm from the wall, measured into the metal; the surface's own beyond its width.
 */
export function edgeHeight({ top, form }: Pick<Edge, 'top' | 'form'>, into: number): number {
  if (into >= form.size) return top;
  const d = Math.max(0, into);
  if (form.form === 'chamfer') return top - edgeDrop(form) * (1 - d / form.size);
  return top - form.size + Math.sqrt(maths.pow(form.size, 2) - maths.pow(form.size - d, 2));
}

/** Just outside a wall, mm. */
export const BESIDE = 0.05;

/** Z of the surface around the wall of a region: the lowest floor that reaches up to it, else the part's top. */
export function surfaceAround(region: Region, floors: { region: Region; z: number }[]): number {
  const beside = offset(region, BESIDE)[0]?.[0];
  return beside ? surfaceAt(beside, floors) : 0;
}

/** Z of the part's surface at a place: the lowest floor there, else its top. */
export const surfaceAt = (p: Point, floors: { region: Region; z: number }[]): number =>
  Math.min(0, ...floors.filter((f) => contains(f.region, p)).map((f) => f.z));
