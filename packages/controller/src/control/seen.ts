/** What is seen, heard and measured of an operation while it runs. */
import type { Felt } from '../behaviour/cut';
import type { StepSeen } from './memory';

/** Seconds in cut that count for the wall that is left. */
const LATE = 10;

/** An operation of which nothing was seen yet. */
export const freshStep = (operationId: string, tool: number): StepSeen => ({
  ...{ operationId, tool, seconds: 0, load: 0, vibration: 0, heat: 0, chattered: 0 },
  ...{ shapes: {}, inCut: 0, lateForce: 0 },
});

/** Adds what is felt for so many seconds to what was seen of an operation. */
export function see(step: StepSeen, tool: number, felt: Felt, seconds: number): void {
  step.tool = tool;
  if (felt.load > 0) {
    step.inCut += seconds;
    step.lateForce += (felt.force - step.lateForce) * Math.min(1, seconds / Math.min(LATE, step.inCut));
  }
  step.load = Math.max(step.load, felt.load);
  if (felt.chatter) {
    step.chattered += seconds;
    if (felt.vibration > step.vibration) step.chatter = felt.chatter;
  }
  step.vibration = Math.max(step.vibration, felt.vibration);
  if (felt.heat !== undefined && felt.heat > step.heat) [step.heat, step.colour] = [felt.heat, felt.colour];
  if (felt.chip) step.shapes[felt.chip.shape] = (step.shapes[felt.chip.shape] ?? 0) + seconds;
}
