/** Sizes of a piece that carry limits, and what was measured against them. */
import { IsInt, IsNumber, IsOptional, IsString, Length, Matches, Max, Min } from 'class-validator';
import type { Job, Setup } from '../document/job';
import type { Operation } from '../document/operation';
import { kindOf } from '../operation/registry';
import type { Feature, Limited, SizeLimits } from '../part/plate/feature';
import { LengthUnit, formatThin } from '../quantity/units';

/** A size to measure, mm. */
export interface SizeToMeasure {
  id: string;
  feature: string;
  size: Limited;
  mm: number;
  limits: SizeLimits;
}

const ID = /^[0-9a-f-]{1,36}$/;

/** A size as it was measured. */
export class SizeEntry {
  /** Made where it is measured, so that sent twice it is the same; pages from before know none. */
  @IsOptional() @Matches(ID) id?: string;
  @IsString() @Length(1, 60) size!: string;
  /** mm. */
  @IsNumber() @Min(-20_000) @Max(20_000) measured!: number;
  /** Which one it was measured on, from 1; measured again on the same it is a second look. The first where left out. */
  @IsOptional() @IsInt() @Min(1) @Max(1_000_000) part?: number;
  /** The one that was mistyped. */
  @IsOptional() @Matches(ID) replaces?: string;
}

/** What was entered at the control because of a size. */
export class CorrectionEntry {
  @Matches(ID) id!: string;
  @IsString() @Length(1, 60) size!: string;
  /** By how much the size gets smaller, mm. */
  @IsNumber() @Min(-10) @Max(10) by!: number;
}

export interface KeptCorrection extends CorrectionEntry {
  who: string;
  at: string;
}

export interface KeptSize extends SizeEntry {
  id: string;
  part: number;
  who: string;
  at: string;
}

/** Id of the feature a size belongs to. */
export const featureOf = ({ id }: Pick<SizeToMeasure, 'id'>): string => id.slice(0, id.lastIndexOf(' '));

const valueOf = ({ shape, depth }: Feature, size: Limited): number | undefined =>
  size === 'depth' ? depth : (shape as Partial<Record<Limited, number>>)[size];

/** What a setup cuts that has limits, in the order it is drawn. */
export function sizesToMeasure({ part }: Job, { operations }: Setup): SizeToMeasure[] {
  const cut = new Set(operations.flatMap((o) => (o.on ? o.targets : [])));
  return part.features
    .filter((f) => cut.has(f.id))
    .flatMap((f) =>
      (f.limits ?? []).flatMap((limits): SizeToMeasure[] => {
        const mm = valueOf(f, limits.size);
        return mm === undefined
          ? []
          : [{ id: `${f.id} ${limits.size}`, feature: f.name, size: limits.size, mm, limits }];
      }),
    );
}

/** Operations of a setup that make a size, the last of which leaves it as it is. */
export const makersOf = ({ operations }: Setup, { id }: Pick<SizeToMeasure, 'id'>): Operation[] => {
  const feature = featureOf({ id });
  return operations.filter((o) => o.on && o.targets.includes(feature) && !kindOf(o.kind)?.leavesSizes);
};

/** Sizes this near to a limit are at it, mm: less than is measured. */
const AT = 1e-6;

/** How a measured size stands, in words: "within, 30 % of the way up", "too small by 0.012 mm". */
export function sizeVerdict(
  { mm, limits }: SizeToMeasure,
  measured: number,
  unit: LengthUnit,
): { ok: boolean; words: string } {
  const [low, high] = [mm + limits.lower, mm + limits.upper];
  if (measured < low - AT) return { ok: false, words: `too small by ${formatThin(low - measured, unit, 4)}` };
  if (measured > high + AT) return { ok: false, words: `too large by ${formatThin(measured - high, unit, 4)}` };
  const width = high - low;
  const share = width > 0 ? Math.round((100 * (measured - low)) / width) : 50;
  return { ok: true, words: `within, at ${Math.min(100, Math.max(0, share))} % of its band` };
}
