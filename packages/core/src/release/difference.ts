/** What tells two releases of the same work apart, in words first. */
import { diffLines } from 'diff';
import type { Job } from '../document/job';
import { changesOf } from '../plan/changes';
import { formatTime } from '../quantity/units';
import { wholeTime } from '../simulate/clock';
import type { ReleaseBody } from './release';
import { RELEASE_PARTS, ReleasedProgram } from './root';

/** A release with its programs. */
export interface Whole {
  body: Pick<ReleaseBody, 'job' | 'setupId' | 'parts' | 'proof' | 'accepted'>;
  programs: ReleasedProgram[];
}

/** Of a job what concerns one setup: nothing that is only compared or counted. */
const concerning = (
  { comparisons: _, prices: __, batch: ___, note: ____, tags: _____, ...job }: Job,
  setupId: string,
): Job => {
  const last = job.setups.findIndex((s) => s.id === setupId);
  return { ...job, note: '', setups: job.setups.slice(0, last + 1) };
};

/** Lines that stand in one program and not in the other, of how many. */
function linesText(was: ReleasedProgram | undefined, is: ReleasedProgram): string | undefined {
  if (!was) return `${is.fileName} is new`;
  const [a, b] = [was, is].map(({ text }) => text.replace(/release [0-9a-f]{8}/i, ''));
  if (a === b) return undefined;
  const changes = diffLines(a, b);
  const count = (kind: 'added' | 'removed') => changes.reduce((n, c) => n + (c[kind] ? (c.count ?? 0) : 0), 0);
  const all = b.split('\n').length - 1;
  return `${is.fileName}: ${Math.max(count('added'), count('removed'))} of ${all} lines are others`;
}

/**
 * What makes `after` another release than `before`, a line each; ends with what is the same. "“Clear”: feed 1900 mm/min instead of
 * 2130 mm/min", "vane.nc: 12 of 3 909 lines are others", "Everything else is the same".
 */
export function differenceOf(before: Whole, after: Whole): string[] {
  const { setupId } = after.body;
  const told = changesOf(concerning(before.body.job, setupId), concerning(after.body.job, setupId));
  const was = new Map(before.programs.map((p, i) => [i, p]));
  const lines = after.programs.flatMap((p, i) => linesText(was.get(i), p) ?? []);
  const gone = before.programs.slice(after.programs.length).map((p) => `${p.fileName} is gone`);
  const [a, b] = [before, after].map(({ body }) => formatTime(wholeTime(body.proof.clock)));
  const time = a === b ? [] : [`It takes ${b} instead of ${a}`];
  const parts = RELEASE_PARTS.filter((p) => before.body.parts[p] !== after.body.parts[p]);
  const accepted = parts.includes('findings') ? ['Something else was accepted'] : [];
  const all = [...told, ...lines, ...gone, ...time, ...accepted];
  if (all.length === 0) return ['Everything is the same, byte for byte'];
  return [
    ...all,
    lines.length + gone.length === 0 ? 'The programs are the same, byte for byte' : 'Everything else is the same',
  ];
}
