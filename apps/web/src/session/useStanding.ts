import { useEffect, useMemo, useRef } from 'react';
import { Standing, joinPrograms } from '@tidypath/core';
import { api } from '../api/client';
import { stopsOf } from './stages';
import type { Computed, useComputed } from './useComputed';
import type { useSaving } from './useSaving';

type Saving = Pick<ReturnType<typeof useSaving>, 'state' | 'version'>;
type Own = Pick<ReturnType<typeof useComputed>['computed'], 'other'> & Computed;

/** What is known of a setup once it is planned and its own program proved; nothing while that is worked out. */
function standingOf({ other, ...computed }: Own): Pick<Standing, 'stops' | 'seconds'> | undefined {
  const { plan, proof, planFresh, proofFresh, provedText } = computed;
  if (!plan || !planFresh || other || plan.planned.length === 0) return undefined;
  const stops = stopsOf(computed).length;
  if (plan.programs.length === 0) return { stops, seconds: 0 };
  const isOwn = proofFresh && provedText === joinPrograms(plan.programs).text;
  return isOwn ? { stops, seconds: proof?.ends.at(-1) ?? 0 } : undefined;
}

/** Tells the list of jobs how far this one is. */
export function useStanding(id: string, setupId: string, computed: Own, { state, version }: Saving): void {
  const told = useRef('');
  const standing = useMemo(() => standingOf(computed), [computed]);
  const key = state === 'saved' && standing ? JSON.stringify({ version, setupId, ...standing }) : '';
  useEffect(() => {
    if (!key || told.current === key) return;
    told.current = key;
    void api.stand(id, JSON.parse(key) as Standing).catch(() => undefined);
  }, [id, key]);
}
