/** A place or a direction in space, mm. */
export interface Vec3 {
  x: number;
  y: number;
  z: number;
}

export const vec = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
export const plus = (a: Vec3, b: Vec3): Vec3 => vec(a.x + b.x, a.y + b.y, a.z + b.z);
export const minus = (a: Vec3, b: Vec3): Vec3 => vec(a.x - b.x, a.y - b.y, a.z - b.z);
export const times = (a: Vec3, by: number): Vec3 => vec(a.x * by, a.y * by, a.z * by);
export const dot = (a: Vec3, b: Vec3): number => a.x * b.x + a.y * b.y + a.z * b.z;
export const cross = (a: Vec3, b: Vec3): Vec3 =>
  vec(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x);
export const lengthOf = (a: Vec3): number => Math.sqrt(dot(a, a));

/** The same direction, one long; as it is where it has no length. */
export function unit(a: Vec3): Vec3 {
  const length = lengthOf(a);
  return length > 0 ? times(a, 1 / length) : a;
}

/** Two directions that stand square to one and to each other. */
export function squareTo(axis: Vec3): [Vec3, Vec3] {
  const away = Math.abs(axis.z) < 0.9 ? vec(0, 0, 1) : vec(1, 0, 0);
  const u = unit(cross(away, axis));
  return [u, cross(axis, u)];
}
