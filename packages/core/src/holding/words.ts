import { Holding } from '../document/holding';
import { parametersOf } from '../quantity/parameter';
import { parameterText } from '../quantity/parameter-text';
import { formatLength, formatNumber, LengthUnit } from '../quantity/units';
import { HOLD_SAFETY } from '../cutting/limits';
import { sideForce } from './held';
import { SIZES, Strength } from './holding';
import { holdingOf } from './registry';

const newton = (n: number) => `${formatNumber(n, n < 100 ? 1 : 0)} N`;

/**
 * What a grip stands, before anything is known of the cut.
 * @param top how high the work stands where it is cut first, Z
 */
export function strengthWords(strength: Strength, top: number, unit: LengthUnit): string {
  const [low, high] = [strength.slip / HOLD_SAFETY, sideForce(strength, top) / HOLD_SAFETY];
  const arm = formatLength(Math.max(0, top - strength.about), unit);
  const above = high < low * 0.999 ? `, and with ${newton(high)} at its top, ${arm} higher` : '';
  return `The cutter may push with ${newton(low)} where it is held${above}; it holds twice that (estimate).`;
}

/** The worst moment for a grip, put into a sentence. */
export function gripWords(
  { way, force, may, margin }: { way: 'slip' | 'tip' | 'lift'; force: number; may: number; margin: number },
  operation: string | undefined,
): string {
  const who = operation ? `“${operation}”` : 'The program';
  const does = { slip: 'slip', tip: 'tip out', lift: 'be lifted off' }[way];
  const verdict = margin >= HOLD_SAFETY ? 'Holds' : margin >= 1 ? 'Holds barely' : 'Does not hold';
  return `${verdict}: ${who} ${way === 'lift' ? 'pulls' : 'pushes'} hardest, ${newton(force)}; the work would ${does} at ${newton(may)}, ${formatNumber(margin, 1)} times that.`;
}

/** What somebody sets on a thing that holds, in a line: "fixed jaw at the back, grips 4 mm". Features by their names. */
export function holdingText(
  { kind, params }: Holding,
  features: { id: string; name: string }[],
  unit: LengthUnit,
): string {
  const found = holdingOf(kind);
  if (!found) return '';
  return Object.entries(parametersOf(found.Params))
    .filter(([, info]) => info.group !== SIZES && (!info.matters || info.matters(params as never)))
    .map(([key, info]) => {
      const named = info.features && features.find((f) => f.id === params[key])?.name;
      return `${info.label.toLowerCase()} ${named ?? parameterText(info, params[key], unit)}`;
    })
    .join(', ');
}
