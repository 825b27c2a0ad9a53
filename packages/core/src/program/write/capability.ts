import { Finding, finding } from '../../quantity/finding';
import { Controller, CycleKind } from '../../shop/controller';
import { isBeam } from '../../shop/tool';
import { DrillCycle } from '../../operation/operation';
import { Step, WriteOptions } from './step';

const CANNED_ONLY: Partial<Record<CycleKind, string>> = {
  tap: 'turn a tap in step with the spindle',
  'tap-left': 'turn a left-hand tap in step with the spindle',
  bore: 'stop the spindle at the bottom of a hole',
};

/** Word of the control for a cycle; pecks that get shorter no control knows. */
export const wordFor = (controller: Controller, { kind, lessen }: DrillCycle) =>
  lessen > 0 ? undefined : controller.cycles[kind];

/** What the control lacks for this job, at the value that causes it. */
export function capabilityFindings(controller: Controller, steps: Step[], options: WriteOptions): Finding[] {
  const findings: Finding[] = [];
  const offsets = new Set([options.workOffset, ...steps.flatMap((s) => s.workOffset ?? [])]);
  for (const workOffset of offsets) {
    if (controller.workOffsets.includes(workOffset)) continue;
    const data = { controller: controller.name, workOffset, known: controller.workOffsets.join(', ') };
    findings.push(finding('no-work-offset', data, { field: 'workOffset' }));
  }
  if (options.subprograms && !controller.subprograms)
    findings.push(finding('no-subprograms', { controller: controller.name }, { field: 'output.subprograms' }));
  for (const step of steps) {
    const needed = step.cycle && !wordFor(controller, step.cycle) && CANNED_ONLY[step.cycle.kind];
    if (needed)
      findings.push(
        finding('no-cycle', { step: step.name, needed, controller: controller.name }, { operation: step.operationId }),
      );
    if (isBeam(step.tool) !== !!controller.beam)
      findings.push(
        finding(
          'other-machine',
          { controller: controller.name, isBeam: controller.beam !== undefined, step: step.name },
          { operation: step.operationId, field: 'controllerId' },
        ),
      );
    if (step.path.compensation.length > 0 && !controller.compensation)
      findings.push(
        finding(
          'no-compensation',
          { step: step.name, controller: controller.name },
          { operation: step.operationId, field: 'params.compensation' },
        ),
      );
    if (step.coolant !== 'off' && !controller.coolant[step.coolant]) {
      const known = Object.keys(controller.coolant).join(', ') || 'none';
      findings.push(
        finding(
          'no-coolant',
          { step: step.name, coolant: step.coolant, controller: controller.name, known },
          { operation: step.operationId, field: 'coolant' },
        ),
      );
    }
  }
  return findings;
}
