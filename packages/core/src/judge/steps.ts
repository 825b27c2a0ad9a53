import { Finding, finding } from '../quantity/finding';
import { MOVE, Motions } from '../path/motions';
import { Section, sectionAt } from '../program/write/step';
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
  const ids = [...new Set(starts.map((s) => s.operationId))];
  const steps = ids.map((operationId): StepFigures => ({ operationId, motion: -1, minutes: 0, removed: 0, load: 0 }));
  const stepOfSection = starts.map((s) => ids.indexOf(s.operationId));
  const stepOf = new Int32Array(motions.count).fill(-1);
  for (let i = 0; i < motions.count; i++) {
    const k = stepOfSection[sectionAt(starts, motions.line[i])] ?? -1;
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

/**
 * Tools of a program from elsewhere that are changed in and never cut, or cut nothing but air.
 * @param isKnown whether it is known what a tool of a number cuts
 */
export function idleTools(m: Motions, removedBy: Float32Array, isKnown: (tool: number) => boolean): Finding[] {
  const found: Finding[] = [];
  let [change, firstFed, removed] = [-1, -1, 0];
  const judge = () => {
    if (change < 0 || removed >= NOTHING || !isKnown(m.tool[change])) return;
    const motion = firstFed < 0 ? change : firstFed;
    found.push(finding('tool-idle', { tool: m.tool[change], isFed: firstFed >= 0 }, { motion, line: m.line[motion] }));
  };
  for (let i = 0; i < m.count; i++) {
    if (m.type[i] === MOVE.toolChange) {
      judge();
      [change, firstFed, removed] = [i, -1, 0];
    }
    removed += removedBy[i];
    if (firstFed < 0 && m.type[i] !== MOVE.rapid && m.type[i] < MOVE.dwell) firstFed = i;
  }
  judge();
  return found;
}
