import { Machine, powerAt } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { kcOf } from './conditions';
import { Bend, CutInput, atPeak, chipRoomShare, cutState } from './cut';
import { n3 } from './working';
import { maths } from '../quantity/maths';

/** Share of the spindle's power a steady cut may take. */
export const POWER_SHARE = 0.8;
/** How far a cutter may bend, mm, where something is left for a finish, however much that is. */
const BEND = { least: 0.05, most: 0.2 };
/** Share of a tolerance that bending may take; never less than what a calculation can promise, mm. */
const OF_TOLERANCE = { share: 1 / 4, least: 0.005 };
/** A drawing's general tolerance where a job says nothing, mm to either side. */
export const GENERAL_TOLERANCE = 0.1;

/** How far a cutter may bend whose wall is the last: a quarter of what its size may vary by. @param tolerance from limit to limit, mm */
export const bendOfTolerance = (tolerance: number): Bend => ({
  most: Math.max(OF_TOLERANCE.least, tolerance * OF_TOLERANCE.share),
  why: `a quarter of the tolerance of ${n3(tolerance)} mm`,
});

/**
 * How far a cutter may bend, mm: as is said; else half of what it leaves for the finish, which takes the mark away again; else, where its
 * wall is the last, a quarter of the general tolerance. Workshop figures.
 */
export function bendLimit({ leaves = 0, bend }: Pick<CutInput, 'leaves' | 'bend'>): Bend {
  if (bend) return bend;
  if (leaves === 0) return bendOfTolerance(2 * GENERAL_TOLERANCE);
  return { most: Math.min(BEND.most, Math.max(BEND.least, leaves / 2)), why: 'half of what is left for the finish' };
}

/** Share of the slipping torque a grip may be asked for. */
export const GRIP_SHARE = 0.5;

/** How many times what acts the grip of the work is asked to stand. */
export const HOLD_SAFETY = 2;

export type LoadLimit = 'spindle power' | 'bending' | 'grip' | 'chip room' | 'hold of the work';

/** How far a cut's load is from each of its hard limits: 1 is at the limit. Taken where the bite is widest. */
export function loadShares(input: CutInput): Record<LoadLimit, number> {
  const s = cutState(atPeak(input));
  return {
    'spindle power': s.powerAvailable > 0 ? s.power / (s.powerAvailable * POWER_SHARE) : Infinity,
    bending: s.deflection / bendLimit(input).most,
    grip: s.grip / GRIP_SHARE,
    'chip room': chipRoomShare(input.tool, input.material, s.chipLoad, atPeak(input).ae),
    'hold of the work': input.hold ? s.force / input.hold : 0,
  };
}

/**
 * Feed each load limit allows at the cut's speed, mm/min. Power and force grow with feed^(1 − mc), because the specific force
 * falls with chip thickness; so the limit is met in one step. Kienzle's power law.
 */
export function feedsAllowed(input: CutInput): Record<LoadLimit, number> {
  const shares = loadShares(input);
  const feed = (share: number) => (share > 0 ? input.feed * maths.pow(share, -1 / (1 - input.material.mc)) : Infinity);
  const room = shares['chip room'];
  return {
    'spindle power': feed(shares['spindle power']),
    bending: feed(shares.bending),
    grip: feed(shares.grip),
    'chip room': room > 0 ? input.feed / room : Infinity,
    'hold of the work': feed(shares['hold of the work']),
  };
}

/**
 * Feed straight down at which a mill takes that share of the spindle's power, mm/min: it removes its whole section, at a chip of
 * vf / (n·z). Kienzle's power law.
 */
export function plungeFeed(tool: Tool, material: Material, machine: Machine, rpm: number): number {
  const section = (Math.PI * maths.pow(tool.diameter, 2)) / 4;
  const power = POWER_SHARE * powerAt(machine, rpm) * 60e6;
  return maths.pow(
    power / (section * kcOf(tool, material) * maths.pow(rpm * tool.flutes, material.mc)),
    1 / (1 - material.mc),
  );
}
