import { Setup } from '../document/job';
import { Operation } from '../document/operation';
import { FixtureBox } from '../geometry/space/box';
import { clampsAfter, handOf } from '../operation/hand/by-hand';
import { Motions } from '../path/motions';
import { remark } from '../program/write/blocks';
import { handRemark } from '../program/write/step';
import { Finding, finding } from '../quantity/finding';
import { Controller } from '../shop/controller';
import { boxOf } from './ground';

/** What of a setup's steps by hand a program holds. */
export interface HandInProgram {
  /** Each with the line it is told at, counted from 1. */
  steps: { operation: Operation; line: number }[];
  /** Where a grip it does not tell of is missed. */
  findings: Finding[];
}

/** Finds a setup's steps by hand in a program, its own or an edited one, by what is told there. */
export function handIn(text: string, setup: Setup, controller: Controller | undefined): HandInProgram {
  const asked = setup.operations.filter((o) => handOf(o));
  if (!controller || asked.length === 0) return { steps: [], findings: [] };
  const lines = text.split('\n').map((l) => l.trim());
  const steps: HandInProgram['steps'] = [];
  const findings: Finding[] = [];
  let from = 0;
  for (const operation of asked) {
    const at = lines.indexOf(remark(controller, handRemark(operation.name)), from);
    if (at >= 0) {
      steps.push({ operation, line: at + 1 });
      from = at + 1;
    } else if (clampsAfter(operation))
      findings.push(finding('grip-not-told', { operation: operation.name }, { operation: operation.id }));
  }
  return { steps, findings };
}

/** Where the work is gripped anew, and what is in the way from there: boxes as they stand then, and what holds it. */
export const gripsIn = (
  { steps }: HandInProgram,
  { line, count }: Motions,
  held: FixtureBox[],
): { from: number; fixtures: FixtureBox[] }[] =>
  steps.flatMap(({ operation, line: told }) => {
    const clamps = clampsAfter(operation);
    const from = line.findIndex((l) => l > told);
    return clamps ? [{ from: from < 0 ? count : from, fixtures: [...clamps.map(boxOf), ...held] }] : [];
  });

/** Minutes somebody works by hand while a program waits. */
export const handMinutes = ({ steps }: HandInProgram): number =>
  steps.reduce((sum, { operation }) => sum + (handOf(operation)?.minutes ?? 0), 0);

/** Minutes the stops before a setup's operations take. */
export const pauseMinutes = ({ operations }: Setup): number =>
  operations.reduce((sum, { on, before }) => sum + ((on && before?.stop !== 'remark' && before?.minutes) || 0), 0);
