/** A place or a direction in space, mm. */
export interface Vec3 {
  x: number;
  y: number;
  z: number;
}
