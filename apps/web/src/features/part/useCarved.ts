import useSWR from 'swr';
import { JobFile, Part, hashOf, putAtHand, sha256Of } from '@tidypath/core';
import { carved } from '../../compute/model';

/** A plate as a solid: its surface, at hand, and which feature made each of its faces. */
export interface Carved {
  surface: JobFile;
  made: (string | undefined)[];
}

async function carvedOf(part: Part): Promise<Carved> {
  const { surface, made } = await carved(part);
  putAtHand(surface);
  return { surface: { name: 'plate.ply', sha256: sha256Of(surface) }, made };
}

/** Carves a plate beside the page once it is asked for, and again whenever it changes; the last one stays until then. */
export function useCarved(part: Part, isAsked: boolean): { carved?: Carved; failed?: string } {
  const key = isAsked ? ['carved', hashOf([part.thickness, part.features])] : null;
  const { data, error } = useSWR(key, () => carvedOf(part), { keepPreviousData: true });
  return { carved: data, failed: error ? (error as Error).message : undefined };
}
