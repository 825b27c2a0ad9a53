import useSWR from 'swr';
import { JobFile, Part, hashOf, putAtHandAs } from '@tidypath/core';
import { keyOf } from '../../api/files';
import { sculpted } from '../../compute/model';
import { useSettled } from '../../ui/useSettled';

/** A plate as a solid: its surface, at hand, and which feature made each of its faces. */
export interface Sculpted {
  surface: JobFile;
  made: (string | undefined)[];
}

async function sculptedOf(part: Part): Promise<Sculpted> {
  const { surface, made } = await sculpted(part);
  return { surface: { name: 'plate.ply', sha256: putAtHandAs(await keyOf(surface), surface) }, made };
}

/** The same part is the same solid. */
const KEPT = {
  keepPreviousData: true,
  revalidateIfStale: false,
  revalidateOnFocus: false,
  revalidateOnReconnect: false,
};

/** Sculpts a plate beside the page once it is asked for, and again whenever it changes; the last one stays until then. */
export function useSculpted(part: Part, isAsked: boolean): { sculpted?: Sculpted; failed?: string } {
  // Not while a number is being typed.
  const settled = useSettled(part);
  const key = isAsked ? ['sculpted', hashOf([settled.thickness, settled.features])] : null;
  const { data, error } = useSWR(key, () => sculptedOf(settled), KEPT);
  return { sculpted: data, failed: error ? (error as Error).message : undefined };
}
