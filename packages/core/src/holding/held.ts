import { Holding } from '../document/holding';
import { intersection } from '../geometry/plane/clip';
import { FixtureBox, outlineOf } from '../geometry/space/box';
import { regionOf, surfaceAt } from '../part/plate/model';
import { Finding, finding } from '../quantity/finding';
import { NOTHING_PLACED, Placed, Strength, Work } from './holding';
import { holdingOf } from './registry';

/** A holding as it stands. */
export interface HeldBy {
  holding: Holding;
  placed: Placed;
}

/** What holds the work, put to it. */
export const heldBy = (holdings: Holding[], work: Work): HeldBy[] =>
  holdings.map((holding) => ({ holding, placed: placedOf(holding, work) }));

/** Only a sine plate knows how to hold what leans. */
function placedOf({ kind, params, name }: Holding, work: Work): Placed {
  if (!work.outline.length) return NOTHING_PLACED;
  if (work.leaning && kind !== 'sine plate')
    return { ...NOTHING_PLACED, findings: [finding('cannot-hold-leaning', { name })] };
  return holdingOf(kind)?.place(params as never, work, name) ?? NOTHING_PLACED;
}

/** What speaks against it, each told of its holding. */
export const heldFindings = (held: HeldBy[]): Finding[] =>
  held.flatMap(({ holding, placed }) =>
    placed.findings.map((f) => ({
      ...f,
      place: { ...f.place, field: `holding.${holding.id}.${f.place.field ?? ''}` },
    })),
  );

/** What all of it comes to together; undefined where nothing of it holds. */
export function strengthOf(held: HeldBy[]): Strength | undefined {
  const all = held.flatMap(({ placed }) => placed.strength ?? []);
  if (all.length === 0) return undefined;
  const sum = (of: (s: Strength) => number) => all.reduce((total, s) => total + of(s), 0);
  return {
    slip: sum((s) => s.slip),
    lift: sum((s) => s.lift),
    tip: sum((s) => s.tip),
    about: Math.min(...all.map((s) => s.about)),
    working: all.flatMap((s) => s.working),
  };
}

/** Side force at which the work slips or tips that acts at a height, N. */
export const sideForce = ({ slip, tip, about }: Strength, z: number): number =>
  z > about ? Math.min(slip, tip / (z - about)) : slip;

/** Names of features that stand under something that holds. */
export function covered({ model, features }: Work, bodies: FixtureBox[]): string[] {
  const above = bodies.filter((b) => b.maxZ > -model.thickness);
  return features
    .filter((f) => f.meaning === 'pocket' || f.meaning === 'hole' || f.meaning === 'boss')
    .filter((f) => {
      const region = regionOf(f);
      return above.some((b) => {
        const under = intersection(region, [outlineOf(b)]);
        return under.length > 0 && b.maxZ > surfaceAt(model, under[0][0]);
      });
    })
    .map((f) => f.name);
}
