/** Which register makes a size smaller, and which way. */
import type { Job, Setup } from '../document/job';
import type { Operation } from '../document/operation';
import { kindOf } from '../operation/registry';
import { LengthUnit, formatThin } from '../quantity/units';
import { SizeToMeasure, featureOf, makersOf } from '../release/sizes';
import { Tool, diameterOffsetOf, lengthOffsetOf } from '../shop/tool';

/** Where a size is made. */
interface Made {
  operation: Operation;
  tool: Tool;
}

/** The operation that leaves a size as it is, and its tool. */
export function makerOf({ tools }: Job, setup: Setup, size: Pick<SizeToMeasure, 'id'>): Made | undefined {
  const makers = makersOf(setup, size);
  const operation = makers[makers.length - 1];
  const tool = operation && tools.find((t) => t.id === operation.toolId);
  return tool && { operation, tool };
}

const signed = (mm: number, unit: LengthUnit) => `${mm > 0 ? '+' : '−'}${formatThin(Math.abs(mm), unit, 4)}`;

const stands = (job: Job, featureId: string): boolean =>
  ['outline', 'boss'].includes(job.part.features.find((f) => f.id === featureId)?.meaning ?? '');

/** What is done about a size. */
export interface Correction {
  text: string;
  /** Whether a register of the control does it. */
  isEntered: boolean;
}

/**
 * What to do so that a size gets smaller.
 * @param by mm, negative makes it larger
 */
export function correctionOf(job: Job, setup: Setup, size: SizeToMeasure, by: number): Correction {
  const { unit } = job;
  const made = makerOf(job, setup, size);
  if (!made) return { text: 'No operation of this setup makes it: look at what does', isEntered: false };
  const { tool, operation } = made;
  const of = `T${tool.number} ${tool.name}`;
  if (size.size === 'depth') {
    const text = `${signed(by, unit)} to the wear of length register ${lengthOffsetOf(tool)} (${of}): a longer tool cuts less deep`;
    return { text, isEntered: true };
  }
  if (!kindOf(operation.kind)?.compensates?.(operation.params)) {
    const change = `${formatThin(Math.abs(by), unit, 4)} ${by > 0 ? 'smaller' : 'larger'}`;
    const text = `The program does not compensate for ${of}: let “${operation.name}” leave its wear to the control, or make the size in the job ${change} and release it again`;
    return { text, isEntered: false };
  }
  // A cutter told to be larger keeps off the wall: what is open gets smaller, what stands gets larger.
  const wider = stands(job, featureOf(size)) ? -by : by;
  const text = `${signed(wider, unit)} to the wear of diameter register ${diameterOffsetOf(tool)} (${of}); half of it where the control counts radii`;
  return { text, isEntered: true };
}
