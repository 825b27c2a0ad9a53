import { Vec3 } from '../geometry/space/vec3';
import { Bite, Cutter } from './height/sweep';

/** Stock that is cut, whatever it is made of: what a cutter is driven through. */
export interface Stock<Snapshot = unknown> {
  /** Takes what a cutter passes over from one place of its tip to another; `mark` is remembered as the owner of what it cut. */
  cut(cutter: Cutter, from: Vec3, to: Vec3, mark: number): Bite;
  /** As it is now, to come back to. */
  snapshot(): Snapshot;
  restore(then: Snapshot): void;
}
