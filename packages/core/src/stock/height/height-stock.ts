import { Vec3 } from '../../geometry/space/vec3';
import type { Stock } from '../stock';
import { Below, HeightField, copyField } from './field';
import { Bite, Cutter, Sweeper } from './sweep';

/** A field of heights as it was. */
export interface HeightSnapshot {
  height: Float32Array;
  below?: Below;
  owner: Int32Array;
}

/** Stock as a field of heights, with piles where there is air below metal. */
export class HeightStock implements Stock<HeightSnapshot> {
  private readonly sweeper: Sweeper;

  /**
   * @param field its heights move to where they are cut
   * @param floor underside of the stock: nothing is taken below it
   */
  constructor(
    readonly field: HeightField,
    floor: number,
  ) {
    this.sweeper = new Sweeper(field, floor);
  }

  /** Last mark that cut each cell, −1 for none. */
  get owner(): Int32Array {
    return this.sweeper.owner;
  }

  cut(cutter: Cutter, from: Vec3, to: Vec3, mark: number): Bite {
    return this.sweeper.sweep(cutter, from.x, from.y, from.z, to.x, to.y, to.z, mark);
  }

  snapshot(): HeightSnapshot {
    const { height, below } = copyField(this.field);
    return { height, below, owner: this.owner.slice() };
  }

  restore(then: HeightSnapshot): void {
    const { height, below } = copyField({ ...this.field, height: then.height, below: then.below });
    this.field.height.set(height);
    this.field.below = below;
    this.owner.set(then.owner);
    this.sweeper.restart();
  }
}
