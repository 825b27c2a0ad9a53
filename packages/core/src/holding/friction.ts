import { Strength } from './holding';
import { formatNumber } from '../quantity/units';

const kN = (n: number) => `${formatNumber(n / 1000, 2)} kN`;

/**
 * What jaws come to that press with a force from two sides: both rub, 2·μ·F; tipping is resisted by the jaws' force over their depth and by
 * their friction over their length, F·g/2 + ⅔·μ·F·w. Own simplification of friction pairs at the jaws.
 * @param force of the vise, N
 * @param grip how deep they hold, mm
 * @param wide the larger of how far they are open and how long they hold, mm
 * @param top Z of their tops
 */
export function jawStrength(force: number, friction: number, grip: number, wide: number, top: number): Strength {
  const slip = 2 * friction * force;
  const tip = (force * grip) / 2 + (2 / 3) * friction * force * wide;
  return {
    slip,
    lift: slip,
    tip,
    about: top - grip / 2,
    working: [
      `Slips at 2·μ·F = 2·${formatNumber(friction, 2)}·${kN(force)} = ${kN(slip)}`,
      `Tips at F·g/2 + ⅔·μ·F·w = ${formatNumber(tip / 1000, 1)} N·m, g ${formatNumber(grip, 1)} mm, w ${formatNumber(wide, 1)} mm`,
    ],
  };
}

/**
 * What clamps come to that press the work down: above and below each rubs, 2·μ·N; it tips over its edge against all of them at half its width.
 * @param force all of them together, N
 * @param wide the lesser of the sizes it stands on, mm
 * @param bottom Z it stands on
 */
export function downStrength(force: number, friction: number, wide: number, bottom: number): Strength {
  const slip = 2 * friction * force;
  const tip = (force * wide) / 2;
  return {
    slip,
    lift: force,
    tip,
    about: bottom,
    working: [
      `Slips at 2·μ·N = 2·${formatNumber(friction, 2)}·${kN(force)} = ${kN(slip)}`,
      `Tips at N·w/2 = ${formatNumber(tip / 1000, 1)} N·m, w ${formatNumber(wide, 1)} mm; lifts at ${kN(force)}`,
    ],
  };
}
