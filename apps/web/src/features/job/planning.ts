import type { PlanStep } from '@tidypath/core';

/** What is being planned, in words. */
export const planningWords = (step: PlanStep | undefined) =>
  step ? `Planning ${step.index + 1} of ${step.of}: ${step.name}` : 'Planning the paths';

export const planningShare = (step: PlanStep | undefined) => (step ? step.index / step.of : 0);
