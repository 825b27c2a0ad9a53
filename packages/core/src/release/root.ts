/** What a release stands on, part by part: the root hash says in a few digits that nothing of it is another. */
import stringify from 'fast-json-stable-stringify';
import { sha256Of } from '../quantity/files';
import type { Finding } from '../quantity/finding';
import type { Job, Setup } from '../document/job';
import type { Tool } from '../shop/tool';
import { chainBefore } from '../plan/ground';

export const RELEASE_PARTS = ['findings', 'hold', 'machine', 'material', 'program', 'tools'] as const;
export type ReleasePart = (typeof RELEASE_PARTS)[number];

/** SHA-256 of each part. */
export type PartHashes = Record<ReleasePart, string>;

/** A program as it is handed out. */
export interface ReleasedProgram {
  fileName: string;
  text: string;
}

const bytesOf = (text: string) => new TextEncoder().encode(text);

/** SHA-256 of plain data as JSON with sorted keys, no spaces, and nothing for what is undefined; 64 hexadecimal digits. */
export const contentHash = (value: unknown): string => sha256Of(bytesOf(stringify(value)));

/** What people call a thing, what it costs and what is remarked of it: nothing that runs. */
const SAID = new Set([
  ...['name', 'reason', 'edgePrice', 'edges', 'hourlyRate', 'carousel', 'caution'],
  ...['extraTime', 'extraTimeNote', 'lasts', 'probeBall', 'probePocket'],
]);

/** Data without what is only said of it, at every depth; the values of operations stay whole, as their words are posted. */
function unsaid(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(unsaid);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, v]) => (SAID.has(key) ? [] : [[key, key === 'params' ? v : unsaid(v)]])),
  );
}

const MINUTES = { setUpMinutes: undefined, reloadMinutes: undefined };

/** How the work lies, is held and stands on the machine. */
const holdOf = ({ operations: _, programNumber: __, programTitle: ___, stock, ...setup }: Setup) =>
  unsaid({ ...setup, ...MINUTES, stock: { ...stock, bar: undefined } });

/** The tools whose pockets the operations of some setups call. */
const toolsOf = ({ tools }: Job, setups: Setup[]): Tool[] =>
  tools.filter(({ id }) => setups.some((s) => s.operations.some((o) => o.on && o.toolId === id)));

/** Said in the head of a released program; the zeros give way to the first digits of the root, which is made with them. */
export const MARK = 'Release 00000000';
const MARKED = /(release )[0-9a-f]{8}/i;

/** A program with other digits in its head; its length stays. */
const withDigits = ({ fileName, text }: ReleasedProgram, digits: string): ReleasedProgram => ({
  fileName,
  text: text.replace(MARKED, (_, word: string) => word + digits),
});

/** Digits of a root that are shown, and compared by eye. */
export const shortRoot = (root: string): string => root.slice(0, 8).toUpperCase();

/** Programs with the digits of their root where they were posted with zeros. */
export const marked = (programs: ReleasedProgram[], root: string): ReleasedProgram[] =>
  programs.map((p) => withDigits(p, shortRoot(root)));

/** Programs as one text to hash: each with its length before it, so that none runs into the next, and zeros for the digits in its head. */
const programBytes = (programs: ReleasedProgram[]): Uint8Array =>
  bytesOf(
    programs
      .map((p) => withDigits(p, '00000000').text)
      .map((text) => `${bytesOf(text).length}\n${text}`)
      .join(''),
  );

/** Of a finding that somebody accepted, what was accepted: not its words, nor the line it is at. */
export const acceptedKey = ({ code, data, place: { operation, feature, tool, field } }: Finding): string =>
  contentHash({ code, data, operation, feature, tool, field });

/** The parts a release has whatever its program is: what can be looked up in a job without planning it. */
export const partsOfJob = (job: Job, setup: Setup): Omit<PartHashes, 'findings' | 'program'> => ({
  hold: contentHash(holdOf(setup)),
  machine: contentHash(unsaid(job.machine)),
  material: contentHash(unsaid(job.material)),
  tools: contentHash(unsaid(toolsOf(job, [setup]))),
});

/**
 * The hashes of everything a release stands on.
 * @param programs as they are handed out
 * @param accepted findings that were looked at and taken as they are
 */
export const partsOf = (job: Job, setup: Setup, programs: ReleasedProgram[], accepted: Finding[]): PartHashes => ({
  ...partsOfJob(job, setup),
  findings: contentHash(accepted.map(acceptedKey).sort()),
  program: sha256Of(programBytes(programs)),
});

/** SHA-256 of the lines "name hash" of all parts, sorted by name; 64 hexadecimal digits. */
export const rootOf = (parts: PartHashes): string =>
  sha256Of(bytesOf([...RELEASE_PARTS].map((name) => `${name} ${parts[name]}\n`).join('')));

/** Whether these programs, the digits in their heads included, are those of a release. */
export const isOfRelease = (programs: ReleasedProgram[], parts: PartHashes, root: string): boolean =>
  rootOf(parts) === root &&
  sha256Of(programBytes(programs)) === parts.program &&
  marked(programs, root).every((p, i) => p.text === programs[i].text);

/**
 * Everything a setup's program is made from, without names, notes, prices, other setups that come later, or tools it does not use;
 * whatever leaves it the same leaves the program the same.
 */
export function makingOf(job: Job, setup: Setup): string {
  const setups = [...chainBefore(job, setup), setup];
  const { part, machine, material, controllerId, controller, output, tolerance } = job;
  return contentHash(
    unsaid({
      setups: setups.map((s) => ({ ...s, ...MINUTES, operations: s.operations.filter((o) => o.on) })),
      ...{ part, machine, material, controllerId, controller, output, tolerance },
      tools: toolsOf(job, setups),
    }),
  );
}

/** Names in a row: "a, b and c". */
export const rowOf = (words: string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;

/** Parts of a release that are others in the job now, in words as they are told. */
export function changedParts(was: PartHashes, job: Job, setup: Setup): ReleasePart[] {
  const now = partsOfJob(job, setup);
  return (Object.keys(now) as (keyof typeof now)[]).filter((name) => now[name] !== was[name]);
}
