import { Finding, finding } from '../quantity/finding';
import { Motions } from '../path/motions';
import { Section } from '../program/write/writer';
import { Samples } from '../simulate/samples';

/** What one operation did in the proof. */
export interface StepFigures {
  operationId: string;
  /** First motion of it. */
  motion: number;
  minutes: number;
  /** cm³. */
  removed: number;
  /** Greatest share of the spindle's power. */
  load: number;
}

/** Less than this is nothing, mm³. */
const NOTHING = 0.01;

/**
 * Time, metal and greatest load by operation, in program order.
 * @param seconds of every motion
 * @param removedBy mm³ of every motion
 */
export function stepsOf(
  sections: Section[],
  motions: Motions,
  seconds: Float64Array,
  removedBy: Float32Array,
  samples: Samples,
): StepFigures[] {
  const starts = [...sections].sort((a, b) => a.line - b.line);
  const steps = starts.map(({ operationId }): StepFigures => ({
    operationId,
    motion: -1,
    minutes: 0,
    removed: 0,
    load: 0,
  }));
  const stepOf = new Int32Array(motions.count).fill(-1);
  for (let i = 0, k = -1; i < motions.count; i++) {
    while (k + 1 < starts.length && motions.line[i] >= starts[k + 1].line) k++;
    stepOf[i] = k;
    if (k < 0) continue;
    if (steps[k].motion < 0) steps[k].motion = i;
    steps[k].minutes += seconds[i] / 60;
    steps[k].removed += removedBy[i] / 1000;
  }
  for (let i = 0; i < samples.count; i++) {
    const step = steps[stepOf[samples.motion[i]]];
    if (step && samples.load[i] > step.load) step.load = samples.load[i];
  }
  return steps;
}

/** Operations that took nothing away: what they were for had been cut before, or they run in the air. */
export function idleSteps(steps: StepFigures[], motions: Motions): Finding[] {
  return steps
    .filter((s) => s.removed * 1000 < NOTHING && s.motion >= 0)
    .map((s) =>
      finding('removed-nothing', {}, { operation: s.operationId, motion: s.motion, line: motions.line[s.motion] }),
    );
}
