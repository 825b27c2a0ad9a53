/** What a run says of its cuts, kept with the recipes: good ones and bad ones, with their evidence. */
import type { Job, Setup } from '../document/job';
import type { Operation } from '../document/operation';
import { kindOf } from '../operation/registry';
import { cutIn } from '../plan/situation';
import { isAxial, isBeam } from '../shop/tool';
import type { Recipe } from '../shop/recipe';
import { Seen, isGoodCut, seenText } from './seen';

/** What was seen of a cut in a run, and where. */
export interface CutEvidence {
  /** Day, as it is told. */
  day: string;
  /** First digits of the release's root. */
  release: string;
  seen: Omit<Seen, 'operation'>;
}

/** One line of evidence: "✓ 1 Dec 2026, release 09DCC099: 47 % of the spindle, quiet, chips bright". */
export const evidenceText = ({ day, release, seen }: CutEvidence): string =>
  `${isGoodCut(seen) ? '✓' : '▲'} ${day}, release ${release}: ${seenText({ ...seen, seconds: undefined })}`;

/** The cut of an operation as a recipe without its note; undefined where it has no bite, as drills have none. */
export function recipeOf(
  job: Job,
  setup: Setup,
  operation: Operation,
): Omit<Recipe, 'id' | 'note' | 'keptAt'> | undefined {
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const kind = kindOf(operation.kind);
  if (!tool || !kind || isAxial(tool) || isBeam(tool)) return undefined;
  const {
    ae,
    ap,
    boldness = 0.5,
  } = cutIn(job, setup, kind, tool, operation) as { ae: number; ap: number; boldness?: number };
  if (!(ae > 0) || !(ap > 0)) return undefined;
  const { material, machine } = job;
  const { rpm, feed } = operation.speeds;
  return {
    name: `${tool.name} in ${material.name}`.slice(0, 120),
    tool,
    material,
    machine,
    ae,
    ap,
    rpm,
    feed,
    boldness,
  };
}

/** Cuts this near to each other, as a share, are the same. */
const NEAR = 0.05;
type Cut = Pick<Recipe, 'tool' | 'material' | 'machine' | 'ae' | 'ap' | 'rpm' | 'feed'>;

/** Whether two recipes are of the same cut. */
export const isSameCut = (a: Cut, b: Cut): boolean =>
  (['tool', 'material', 'machine'] as const).every((k) => a[k].id === b[k].id) &&
  (['ae', 'ap', 'rpm', 'feed'] as const).every((k) => Math.abs(a[k] / b[k] - 1) < NEAR);

/** Letters a note holds. */
const LONGEST = 1000;

/** A note with one more line of evidence, the newest first; the oldest give way. */
export function noted(note: string, line: string): string {
  const lines = [line, ...note.split('\n').filter((l) => l !== '' && l !== line)];
  while (lines.join('\n').length > LONGEST) lines.pop();
  return lines.join('\n');
}
