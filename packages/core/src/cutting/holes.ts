/** Relations of drilling; mm, rpm, mm/min, kW. */
import { maths } from '../quantity/maths';

/** Length of a drill's point, mm: D/2 / tan(point/2). `point` in degrees, 60 to 180. */
export const pointLength = (D: number, point: number) => D / 2 / maths.tan((point * Math.PI) / 360);

/** Drilling feed, mm/min: n·fn. */
export const drillFeed = (n: number, fn: number) => n * fn;

/** Drilling power, kW: fn·vc·D·kc/240e3. Textbook relation; fn mm a turn, vc m/min. */
export const drillPower = (fn: number, vc: number, D: number, kc: number) => (fn * vc * D * kc) / 240e3;

/** Height fallen per turn of a helix, mm: π·d·tan(angle); d the path's diameter, angle in radians. */
export const helixDrop = (pathDiameter: number, angle: number) => Math.PI * pathDiameter * maths.tan(angle);

/** Hole a screw passes freely, mm, medium fit (ISO 273), and the counterbore for a socket head: diameter and depth (DIN 974-1, ISO 4762). */
export const SCREWS: Record<string, { clearance: number; counterbore: number; headHeight: number }> = {
  M3: { clearance: 3.4, counterbore: 6.5, headHeight: 3 },
  M4: { clearance: 4.5, counterbore: 8, headHeight: 4 },
  M5: { clearance: 5.5, counterbore: 10, headHeight: 5 },
  M6: { clearance: 6.6, counterbore: 11, headHeight: 6 },
  M8: { clearance: 9, counterbore: 15, headHeight: 8 },
  M10: { clearance: 11, counterbore: 18, headHeight: 10 },
  M12: { clearance: 13.5, counterbore: 20, headHeight: 12 },
  M16: { clearance: 17.5, counterbore: 26, headHeight: 16 },
  M20: { clearance: 22, counterbore: 33, headHeight: 20 },
};

/** Metal a reamer should find, mm on the diameter: 0.1 up to 5 mm, 0.2 up to 20, 0.3 up to 50, else 0.5. General workshop rule. */
export const reamAllowance = (D: number) => (D <= 5 ? 0.1 : D <= 20 ? 0.2 : D <= 50 ? 0.3 : 0.5);

export type DrillMethod = 'straight' | 'chip-break' | 'peck';

/** How a drill should go down, and how deep a peck is. */
export interface Pecking {
  method: DrillMethod;
  /** mm; 0 for none. */
  peck: number;
  reason: string;
}

/** Diameters a drill goes down before its flutes have to come out of the hole. General workshop rule. */
export const deepestInOne = (longChips: boolean, throughCoolant: boolean) => (throughCoolant ? 12 : longChips ? 5 : 6);

/**
 * Pecks by depth ratio, material and coolant. Straight up to 4 diameters (3 where chips are long); chip-breaking pecks of a diameter up
 * to 6 (5); beyond that full retracts, the peck falling from a diameter towards half of one. Coolant through the drill clears the
 * chips: straight up to 12 diameters. General workshop rule.
 * @param depth of the hole from the surface, mm
 */
export function suggestPeck(D: number, depth: number, longChips: boolean, throughCoolant: boolean): Pecking {
  const ratio = depth / D;
  const early = longChips ? 1 : 0;
  const peck = (share: number) => Math.max(0.1, Math.round(D * share * 10) / 10);
  const deep = `${Math.round(ratio * 10) / 10} diameters deep`;
  const inOne = deepestInOne(longChips, throughCoolant);
  if (throughCoolant && ratio <= inOne)
    return { method: 'straight', peck: 0, reason: `${deep}, coolant through the drill carries the chips out` };
  if (ratio <= 4 - early) return { method: 'straight', peck: 0, reason: `${deep}: the chips come out by themselves` };
  if (ratio <= (throughCoolant ? 6 - early : inOne))
    return {
      method: 'chip-break',
      peck: peck(1),
      reason: `${deep}${longChips ? ' in a metal of long chips' : ''}: break them`,
    };
  return {
    method: 'peck',
    peck: peck(Math.max(0.5, 1 - (ratio - 6) * 0.1)),
    reason: `${deep}: the flutes pack, so bring the chips out`,
  };
}
