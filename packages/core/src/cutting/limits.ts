import { Machine, powerAt } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { CutInput, atPeak, cutState } from './cut';

/** Share of the spindle's power a steady cut may take. */
export const POWER_SHARE = 0.8;
/** How far a cutter may bend, mm, where nothing is left for a finish; and at most, however much is left. */
const BEND = { least: 0.05, most: 0.2 };

/**
 * How far a cutter may bend, mm: half of what it leaves for the finish, which takes the mark away again; a twentieth of a millimetre
 * where its wall is the last, a quarter of the general tolerance. Workshop figures.
 * @param leaves metal left on the wall for a finish, mm
 */
export const bendLimit = (leaves = 0) => Math.min(BEND.most, Math.max(BEND.least, leaves / 2));

/** Share of the slipping torque a grip may be asked for. */
export const GRIP_SHARE = 0.5;

export type LoadLimit = 'spindle power' | 'bending' | 'grip';

/** How far a cut's load is from each of its hard limits: 1 is at the limit. Taken where the bite is widest. */
export function loadShares(input: CutInput): Record<LoadLimit, number> {
  const s = cutState(atPeak(input));
  return {
    'spindle power': s.powerAvailable > 0 ? s.power / (s.powerAvailable * POWER_SHARE) : Infinity,
    bending: s.deflection / bendLimit(input.leaves),
    grip: s.grip / GRIP_SHARE,
  };
}

/**
 * Feed each load limit allows at the cut's speed, mm/min. Power and force grow with feed^(1 − mc), because the specific force
 * falls with chip thickness; so the limit is met in one step. Kienzle's power law.
 */
export function feedsAllowed(input: CutInput): Record<LoadLimit, number> {
  const shares = loadShares(input);
  const feed = (share: number) => (share > 0 ? input.feed * share ** (-1 / (1 - input.material.mc)) : Infinity);
  return { 'spindle power': feed(shares['spindle power']), bending: feed(shares.bending), grip: feed(shares.grip) };
}

/**
 * Feed straight down at which a mill takes that share of the spindle's power, mm/min: it removes its whole section, at a chip of
 * vf / (n·z). Kienzle's power law.
 */
export function plungeFeed(tool: Tool, material: Material, machine: Machine, rpm: number): number {
  const section = (Math.PI * tool.diameter ** 2) / 4;
  const power = POWER_SHARE * powerAt(machine, rpm) * 60e6;
  return (power / (section * material.kc11 * (rpm * tool.flutes) ** material.mc)) ** (1 / (1 - material.mc));
}
