import { ArrayMaxSize, IsArray, IsIn, IsInt, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { Nested } from '../../quantity/nested';
import { hashOf } from '../../quantity/hash';
import { Feature, Pattern, SINGLE } from './feature';
import { MIRRORS, Mirror, mirrored, placed, placements, singles } from './placed';

const FAR = 20_000;

/** How often an operation is done: its features stand in a pattern, and all of them once more as in a mirror. */
export class Repeat {
  @Nested(() => Pattern) pattern!: Pattern;
  @IsIn([...MIRRORS]) mirror!: Mirror;
  /** Where the mirror stands: its X between left and right, its Y between front and back, mm. */
  @IsNumber() @Min(-FAR) @Max(FAR) at!: number;
  /** Places of the pattern that are left alone, counted from 1, which is what is drawn; with their images. */
  @IsOptional() @IsArray() @ArrayMaxSize(2000) @IsInt({ each: true }) @Min(1, { each: true }) without?: number[];
}

export const ONCE: Repeat = { pattern: SINGLE, mirror: 'none', at: 0 };

const named = (feature: Feature, of: Feature): Feature => {
  const { x, y, turn, shape } = feature;
  const place = [x, y, turn].map((v) => Number(v.toFixed(6)));
  return { ...feature, id: `${of.id}@${hashOf({ place, shape })}`, name: `${of.name} again`.slice(0, 80) };
};

/** The places of a feature's own pattern as features with names and ids of their own, in the order they are counted. */
export const placesOf = (feature: Feature): Feature[] => singles(feature).map((f) => named(f, feature));

/** Everything a feature becomes under a repeat: itself, then its copies, each a feature of its own; without those left alone. */
export function repeated(feature: Feature, { pattern, mirror, at, without = [] }: Repeat): Feature[] {
  const isKept = (i: number) => !without.includes(i + 1);
  const own = singles(feature);
  const copies = placements(pattern).flatMap((p, i) => (i && isKept(i) ? own.map((f) => placed(f, pattern, p)) : []));
  const drawn = isKept(0) ? [feature] : [];
  const all = isKept(0) ? [...own, ...copies] : copies;
  const images = mirror === 'none' ? [] : all.map((f) => mirrored(f, mirror, at));
  // Copies stand where the solid has no faces of its own.
  return [...drawn, ...[...copies, ...images].map((f) => named({ ...f, faces: undefined }, feature))];
}
