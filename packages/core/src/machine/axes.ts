import { Nested } from '../quantity/nested';
import { Parameter } from '../quantity/parameter';

/** A linear axis: how far it goes, and how fast. */
export class Axis {
  @Parameter({
    label: 'from',
    help: 'Where its travel begins, as the machine counts.',
    unit: 'length',
    min: -20000,
    max: 20000,
    step: 10,
  })
  from!: number;
  @Parameter({
    label: 'to',
    help: 'Where its travel ends, as the machine counts.',
    unit: 'length',
    min: -20000,
    max: 20000,
    step: 10,
  })
  to!: number;
  @Parameter({ label: 'rapid', help: 'Its rapid rate.', unit: 'feed', min: 1, max: 200000, step: 500 })
  rapid!: number;
  @Parameter({
    label: 'acceleration',
    help: 'How fast it gets up to speed.',
    unit: 'acceleration',
    min: 1,
    max: 50000,
    step: 100,
  })
  acceleration!: number;
}

/** The axes of a machine: X and Y move the work under the spindle, Z the spindle above it. */
export class Axes {
  @Nested(() => Axis) x!: Axis;
  @Nested(() => Axis) y!: Axis;
  @Nested(() => Axis) z!: Axis;
}

export const AXIS_NAMES = ['x', 'y', 'z'] as const;

/** Travel of an axis, mm. */
export const travelOf = ({ from, to }: Pick<Axis, 'from' | 'to'>): number => to - from;

/** Axes all alike: travel from 0, Z downwards from 0. */
export const alike = (x: number, y: number, z: number, rapid: number, acceleration: number): Axes => ({
  x: { from: 0, to: x, rapid, acceleration },
  y: { from: 0, to: y, rapid, acceleration },
  z: { from: -z, to: 0, rapid, acceleration },
});

/** Rapid rate of the slower of X and Y, mm/min. */
export const levelRapid = ({ x, y }: Axes): number => Math.min(x.rapid, y.rapid);

/** Least acceleration of X and Y, mm/s². */
export const levelAcceleration = ({ x, y }: Axes): number => Math.min(x.acceleration, y.acceleration);

const shares = (values: [number, number, number], ux: number, uy: number, uz: number): number =>
  Math.min(
    ux === 0 ? Infinity : values[0] / Math.abs(ux),
    uy === 0 ? Infinity : values[1] / Math.abs(uy),
    uz === 0 ? Infinity : values[2] / Math.abs(uz),
  );

/** Fastest rapid in a direction (a unit vector), mm/min: no axis goes faster than it can. */
export const rapidAlong = ({ x, y, z }: Axes, ux: number, uy: number, uz: number): number =>
  shares([x.rapid, y.rapid, z.rapid], ux, uy, uz);

/** Acceleration in a direction, mm/s²: no axis gets faster than it can, and none of the way more than the liveliest of them. */
export const accelerationAlong = ({ x, y, z }: Axes, ux: number, uy: number, uz: number): number =>
  Math.min(
    shares([x.acceleration, y.acceleration, z.acceleration], ux, uy, uz),
    Math.max(x.acceleration, y.acceleration, z.acceleration),
  );
