import { ListOf } from '../quantity/nested';
import { IsNumber, IsString, Length, Max, Min } from 'class-validator';
import { Choice, Parameter, Words } from '../quantity/parameter';
import { maths } from '../quantity/maths';

export const GRIPS = [
  'collet',
  'drill chuck',
  'side-lock',
  'hydraulic',
  'shrink',
  'milling chuck',
  'tap chuck',
  'arbor',
] as const;
export type Grip = (typeof GRIPS)[number];

/** One cylinder or cone of a holder, counted from its nose upwards; mm. */
export class HolderSegment {
  @IsNumber() @Min(1) @Max(300) lower!: number;
  @IsNumber() @Min(1) @Max(300) upper!: number;
  @IsNumber() @Min(0.5) @Max(400) length!: number;
}

/** What grips the tool: its outline above the tool, how fast it may turn, and how hard it holds. */
export class Holder {
  @IsString() @Length(1, 40) id!: string;
  @Words({ label: 'Name', help: 'As people in the shop call it.', min: 1, max: 80 })
  name!: string;
  @Choice({ label: 'Grip', help: 'How it holds the shank.', choices: GRIPS })
  grip!: Grip;
  @Words({ label: 'Taper', help: 'The spindle taper it fits.', min: 0, max: 40 })
  taper!: string;
  @Parameter({
    label: 'Balanced to',
    help: 'Fastest speed it is balanced for.',
    unit: 'rpm',
    min: 100,
    max: 200000,
    step: 1000,
  })
  balancedRpm!: number;
  @Parameter({
    label: 'Grip on a 10 mm shank',
    help: 'Torque at which a clean 10 mm shank slips. It grows with the square of the shank diameter.',
    unit: 'torque',
    min: 1,
    max: 2000,
    step: 5,
  })
  gripTorque!: number;
  @Parameter({
    label: 'Runout',
    help: 'At three diameters from the nose.',
    unit: 'length',
    min: 0,
    max: 0.5,
    step: 0.005,
  })
  runout!: number;
  @ListOf(() => HolderSegment, 12, 1)
  segments!: HolderSegment[];
}

/** Length of a holder from its nose to the spindle, mm. */
export const holderLength = (holder: Pick<Holder, 'segments'>) => holder.segments.reduce((sum, s) => sum + s.length, 0);

/** Widest diameter of a holder, mm. */
export const holderWidth = (holder: Pick<Holder, 'segments'>) =>
  Math.max(...holder.segments.flatMap((s) => [s.lower, s.upper]));

/** Torque at which a clean shank of diameter d (mm) slips, N·m: the holder's figure for 10 mm × (d/10)². */
export const slipTorque = (holder: Pick<Holder, 'gripTorque'>, d: number) => holder.gripTorque * maths.pow(d / 10, 2);

const CONE_SLABS = 4;

/** A holder as cylinders, cones in four steps: radius and height of the underside above the nose, mm. */
export function holderSlabs({ segments }: Pick<Holder, 'segments'>): { radius: number; from: number }[] {
  const slabs: { radius: number; from: number }[] = [];
  let from = 0;
  for (const s of segments) {
    const steps = s.lower === s.upper ? 1 : CONE_SLABS;
    for (let i = 0; i < steps; i++)
      slabs.push({
        radius: (s.lower + ((s.upper - s.lower) * (i + 0.5)) / steps) / 2,
        from: from + (s.length * i) / steps,
      });
    from += s.length;
  }
  return slabs;
}

/** Height above the nose at which a holder is as wide as `r` from its axis, mm; Infinity where it never is. */
export function holderHeight({ segments }: Pick<Holder, 'segments'>, r: number): number {
  let from = 0;
  for (const s of segments) {
    if (r < s.lower / 2) return from;
    if (r < s.upper / 2) return from + (s.length * (2 * r - s.lower)) / (s.upper - s.lower);
    from += s.length;
  }
  return Infinity;
}

/** Height above the nose at which each segment starts, mm. */
export const segmentStarts = ({ segments }: Pick<Holder, 'segments'>): number[] =>
  segments.map((_, i) => segments.slice(0, i).reduce((sum, s) => sum + s.length, 0));
