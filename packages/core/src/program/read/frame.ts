/** A place or a distance along the axes, mm. */
import { maths } from '../../quantity/maths';
export interface Axes {
  x: number;
  y: number;
  z: number;
}

const ZERO: Axes = { x: 0, y: 0, z: 0 };

/**
 * How the coordinates a program writes lie in those of the work: the work offset in force, a local zero (G52), a shifted one
 * (G92), and a rotation in the plane (G68). The rotation turns what is written about a centre that is written too; then the
 * zeros are added.
 */
export class Frame {
  /** Zero of the work offset in force, from the zero of the work. */
  offset = ZERO;
  local = ZERO;
  shift = ZERO;
  private centre = { x: 0, y: 0 };
  private cos = 1;
  private sin = 0;

  /** @param degrees counterclockwise; 0 switches the rotation off */
  rotate(centre: { x: number; y: number }, degrees: number): void {
    const a = (degrees * Math.PI) / 180;
    [this.centre, this.cos, this.sin] = [centre, maths.cos(a), maths.sin(a)];
  }

  get isRotated(): boolean {
    return this.sin !== 0 || this.cos !== 1;
  }

  private get zero(): Axes {
    const { offset, local, shift } = this;
    return { x: offset.x + local.x + shift.x, y: offset.y + local.y + shift.y, z: offset.z + local.z + shift.z };
  }

  private turned(x: number, y: number, sin: number): { x: number; y: number } {
    if (!this.isRotated) return { x, y };
    const { centre, cos } = this;
    const [dx, dy] = [x - centre.x, y - centre.y];
    return { x: centre.x + dx * cos - dy * sin, y: centre.y + dx * sin + dy * cos };
  }

  /** Where a place that is written lies in the work. */
  toWork({ x, y, z }: Axes): Axes {
    const zero = this.zero;
    const turned = this.turned(x, y, this.sin);
    return { x: turned.x + zero.x, y: turned.y + zero.y, z: z + zero.z };
  }

  /** How a place in the work would be written. */
  fromWork({ x, y, z }: Axes): Axes {
    const zero = this.zero;
    return { ...this.turned(x - zero.x, y - zero.y, -this.sin), z: z - zero.z };
  }
}
