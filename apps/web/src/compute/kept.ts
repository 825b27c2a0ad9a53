/** Results this device keeps, so that nothing is computed twice. What is not there, not whole or cannot be read is computed again. */
import { clear, createStore, delMany, get, set, update } from 'idb-keyval';
import type { KnownPlan, Maker, PlanView, ProofView } from '@tidypath/core';

/** Most that is kept, bytes; the least used go first. One result may take a quarter of it. */
const MOST = 200_000_000;
const LARGEST = MOST / 4;

/** Size and last use of each result, beside them. */
const USES = 'uses';
type Uses = Record<string, { bytes: number; at: number }>;

interface Entry<T> {
  key: string;
  bytes: number;
  made: T;
}

let store: ReturnType<typeof createStore> | undefined;
const database = () => (store ??= createStore('tidypath-results', 'results'));

/** About what a value takes, bytes. */
export function bytesOf(value: unknown): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value === 'string') return 2 * value.length;
  if (typeof value !== 'object' || value === null) return 8;
  return Object.values(value).reduce<number>((sum, v) => sum + 16 + bytesOf(v), 0);
}

/** The results that have to go so that no more than may be is left. */
function tooMany(uses: Uses): string[] {
  let bytes = 0;
  return Object.entries(uses)
    .sort(([, a], [, b]) => b.at - a.at)
    .filter(([, use]) => (bytes += use.bytes) > MOST)
    .map(([key]) => key);
}

/** Keeps a result, a copy of it as it is now; where the device has no room for it all that is kept goes. */
async function keep(key: string, result: unknown): Promise<void> {
  const bytes = bytesOf(result);
  if (bytes > LARGEST) return;
  const made = structuredClone(result);
  try {
    await set(key, { key, bytes, made } satisfies Entry<unknown>, database());
    let going: string[] = [];
    await update<Uses>(
      USES,
      (old = {}) => {
        const uses = { ...old, [key]: { bytes, at: Date.now() } };
        going = tooMany(uses);
        return Object.fromEntries(Object.entries(uses).filter(([k]) => !going.includes(k)));
      },
      database(),
    );
    await delMany(going, database());
  } catch {
    await clear(database()).catch(() => undefined);
  }
}

/** A result as it was kept; undefined where it is not there, or not what was put there. */
async function kept<T>(key: string): Promise<T | undefined> {
  try {
    const entry = await get<Entry<T>>(key, database());
    if (entry?.key !== key || entry.bytes !== bytesOf(entry.made)) return undefined;
    // Nobody waits for it.
    update<Uses>(USES, (uses = {}) => ({ ...uses, [key]: { bytes: entry.bytes, at: Date.now() } }), database()).catch(
      () => undefined,
    );
    return entry.made;
  } catch {
    return undefined;
  }
}

/** Opens the store before it is asked. */
export const openKept = (): Promise<unknown> => get(USES, database()).catch(() => undefined);

const planKey = (key: string) => `plan ${key}`;
const proofKey = (key: string) => `proof ${key}`;

/** A result as the page shows it, and who made it where it was not this device. */
interface Kept<T> {
  view: T;
  maker?: Maker;
}
/** A plan with all that an edit of it goes on from. */
export type KeptPlan = Kept<PlanView> & { plans: KnownPlan[] };
export type KeptProof = Kept<ProofView>;

export const keepPlan = (key: string, plan: KeptPlan): Promise<void> => keep(planKey(key), plan);
export const keptPlan = (key: string): Promise<KeptPlan | undefined> => kept(planKey(key));
export const keepProof = (key: string, proof: KeptProof): Promise<void> => keep(proofKey(key), proof);
export const keptProof = (key: string): Promise<KeptProof | undefined> => kept(proofKey(key));
