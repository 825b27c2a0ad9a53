import { Region } from '../geometry/plane/clip';
import { Bounds } from '../geometry/plane/point';
import { Vec3 } from '../geometry/space/vec3';
import { Bite, Cutter } from './height/sweep';

/** Stock that is cut, whatever it is made of: what a cutter is driven through, and what is asked of it afterwards. */
export interface Stock<Snapshot = unknown> {
  /** What of the plane it covers, part coordinates, mm. */
  readonly bounds: Bounds;
  /** What is finer than this it does not show, mm. */
  readonly grain: number;
  /** Takes what a cutter passes over from one place of its tip to another; `mark` is remembered as the owner of what it cut. */
  cut(cutter: Cutter, from: Vec3, to: Vec3, mark: number): Bite;
  /** Faces along the upright line through a place, from above: top, underside, top, underside; none where nothing stands. */
  facesAt(x: number, y: number): number[];
  /**
   * How far metal stands into a body round an upright axis, mm; 0 where none does.
   * @param radius of the body
   * @param bottom Z of its underside on the axis
   * @param rise how much higher the underside is at a distance from the axis; flat where left out
   * @param least what is less does not count, mm
   */
  into(at: Vec3, radius: number, bottom: number, least: number, rise?: (r: number) => number): number;
  /** Outlines of the metal at a height, to half its grain. */
  section(z: number): Region;
  /** Of all metal, mm³. */
  volume(): number;
  /** Its surface as a closed mesh, in the binary STL form, mm. */
  mesh(): Uint8Array;
  /** Memory it holds, bytes; a snapshot holds as much. */
  readonly memory: number;
  /** As it is now, to come back to. */
  snapshot(): Snapshot;
  restore(then: Snapshot): void;
}
