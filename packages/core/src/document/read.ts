import { Finding, finding } from '../quantity/finding';
import { checked, misshapen } from '../quantity/validate';
import { FORMAT_VERSION, Job } from './job';
import { ShelfName, ShopItems, readItem } from '../shop/shelves';
import { MIGRATIONS, carriedItem, itemFormat } from './migrations';

const MOST = 60;

/** What reading needs to know of a kind of operation: its name and the class that checks its values. */
export interface StoredKind {
  kind: string;
  Params: new () => object;
}

/** A job as it was read. */
export interface ReadJob {
  job?: Job;
  findings: Finding[];
  files?: Uint8Array[];
}

/** All that a job names by its kind. */
export interface StoredKinds {
  operations: StoredKind[];
  holdings: StoredKind[];
}

function holdingFindings(job: Job, kinds: StoredKind[]): Finding[] {
  return job.setups.flatMap((setup, s) =>
    (setup.holding ?? []).flatMap(({ kind, name, params }, h) => {
      const path = `setups.${s}.holding.${h}`;
      const known = kinds.find((k) => k.kind === kind);
      if (!known) return [finding('unknown-holding', { name, kind }, { field: `${path}.kind` })];
      return checked(known.Params, params, `${path}.params`);
    }),
  );
}

function paramFindings(job: Job, kinds: StoredKind[]): Finding[] {
  const listed = [
    ...job.setups.flatMap((setup, s) =>
      setup.operations.map((operation, o) => ({ operation, path: `setups.${s}.operations.${o}` })),
    ),
    ...(job.comparisons ?? []).flatMap(({ candidates }, c) =>
      candidates.flatMap(({ operations = [] }, k) =>
        operations.map((operation, o) => ({ operation, path: `comparisons.${c}.candidates.${k}.operations.${o}` })),
      ),
    ),
  ];
  return listed.flatMap(({ operation, path }) => {
    const kind = kinds.find((k) => k.kind === operation.kind);
    if (!kind)
      return [
        finding(
          'unknown-operation',
          { operation: operation.name, kind: operation.kind },
          { field: `${path}.kind`, operation: operation.id },
        ),
      ];
    return checked(kind.Params, operation.params, `${path}.params`).map((f) => ({
      ...f,
      place: { ...f.place, operation: operation.id },
    }));
  });
}

/** Things that are told apart by their id, and are not. */
function sameIds({ tools, part, setups, comparisons = [] }: Job): Finding[] {
  const lists: [string, { id: string }[]][] = [
    ['tools', tools],
    ['part.features', part.features],
    ['setups', setups],
    ['operations', setups.flatMap((s) => s.operations)],
    ['comparisons', comparisons],
    ...comparisons.map((c, i): [string, { id: string }[]] => [`comparisons.${i}.candidates`, c.candidates]),
    ...setups.map((s, i): [string, { id: string }[]] => [`setups.${i}.fixtures`, s.fixtures]),
    ...setups.map((s, i): [string, { id: string }[]] => [`setups.${i}.holding`, s.holding ?? []]),
  ];
  return lists.flatMap(([field, list]) => {
    const seen = new Set<string>();
    const twice = list.find(({ id }) => seen.has(id) || !seen.add(id));
    return twice ? [finding('id-twice', { field, id: twice.id }, { field })] : [];
  });
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function migrated(
  data: Record<string, unknown>,
  files: Uint8Array[],
): { data: Record<string, unknown> } | { finding: Finding } {
  const place = { field: 'formatVersion' };
  const version = data.formatVersion;
  if (typeof version !== 'number' || !Number.isInteger(version)) {
    return {
      finding: finding('no-version', {}, place),
    };
  }
  if (version > FORMAT_VERSION) {
    return {
      finding: finding('newer-version', { version, known: FORMAT_VERSION }, place),
    };
  }
  if (version === FORMAT_VERSION) return { data };
  let current = data;
  for (let v = version; v < FORMAT_VERSION; v++) {
    const step = MIGRATIONS[v];
    if (!step)
      return {
        finding: finding('old-version', { version }, place),
      };
    current = step(current, files);
  }
  return { data: current };
}

/**
 * Checks plain data as a job: format version (older ones are carried forward), every field, unknown fields refused by name,
 * and each operation's own values.
 * @param kinds every kind of operation and of holding there is
 * @returns the job when nothing stops it, all findings, and the files an older format held that stand beside it now
 */
export function readJob(value: unknown, kinds: StoredKinds): ReadJob {
  if (!isObject(value)) return { findings: [finding('not-a-job', {})] };
  const shape = misshapen(value);
  if (shape) return { findings: [shape] };
  const files: Uint8Array[] = [];
  const forward = migrated(value, files);
  if ('finding' in forward) return { findings: [forward.finding] };
  const findings = checked(Job, forward.data);
  if (findings.length === 0) findings.push(...sameIds(forward.data as unknown as Job));
  if (findings.length === 0) findings.push(...paramFindings(forward.data as unknown as Job, kinds.operations));
  if (findings.length === 0) findings.push(...holdingFindings(forward.data as unknown as Job, kinds.holdings));
  if (findings.length > 0) return { findings: findings.slice(0, MOST) };
  return { job: forward.data as unknown as Job, findings: [], ...(files.length > 0 ? { files } : {}) };
}

/** Reads a job file's text. */
export function parseJob(text: string, kinds: StoredKinds): ReadJob {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const at = /position (\d+)/.exec(String(error));
    const line = at ? text.slice(0, Number(at[1])).split('\n').length : 1;
    return {
      findings: [finding('not-json', { line }, { line })],
    };
  }
  return readJob(value, kinds);
}

/**
 * Reads something of a shelf as it was stored.
 * @param format what it was stored in; told by its shape where that is not known
 */
export function readStored<K extends ShelfName>(
  shelf: K,
  value: unknown,
  format?: number | null,
): { item?: ShopItems[K]; findings: Finding[] } {
  if (!isObject(value)) return readItem(shelf, value);
  return readItem(shelf, carriedItem(shelf, value, format ?? itemFormat(shelf, value)));
}
