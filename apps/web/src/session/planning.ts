import { PlanStep, formatNumber } from '@tidypath/core';

/** What is being planned, in words. */
export function planningWords(step: PlanStep | undefined): string {
  if (!step) return 'Planning the paths';
  const { name, index, of, share } = step;
  const far = share ? `, ${formatNumber(share * 100, 0)} %` : '';
  return `Planning ${index + 1} of ${of}: ${name}${far}`;
}

/** How much of all planning is done, each operation alike. */
export const planningShare = (step: PlanStep | undefined) => (step ? (step.index + (step.share ?? 0)) / step.of : 0);
