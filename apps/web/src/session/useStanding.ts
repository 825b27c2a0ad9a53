import { useEffect, useMemo, useRef, useState } from 'react';
import { Job, Standing, joinPrograms } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { bring } from '../api/writes';
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

const RELEASE_WAITS = 'Released; the history hears of it once the server answers';

/** Tells the list of jobs how far this one is, and keeps what was released. */
export function useStanding(id: string, job: Job, setupId: string, computed: Own, { state, version }: Saving) {
  const told = useRef('');
  const standing = useMemo(() => standingOf(computed), [computed]);
  const key = state === 'saved' && standing ? JSON.stringify({ version, setupId, ...standing }) : '';
  useEffect(() => {
    if (!key || told.current === key) return;
    told.current = key;
    void api.stand(id, JSON.parse(key) as Standing).catch(() => undefined);
  }, [id, key]);

  const [released, setReleased] = useState<{ job: Job; setupId: string; told?: string }>();
  const isHere = released?.job === job && released.setupId === setupId;
  const waits = isHere && released.told === undefined && state === 'saved';
  useEffect(() => {
    if (!waits) return;
    bring({ what: 'release', id, name: job.name, version, setupId }).then(
      (said) =>
        setReleased({ job, setupId, told: said === 'waits' ? RELEASE_WAITS : 'Kept in the history as released' }),
      (error: ApiError) => setReleased({ job, setupId, told: `▲ Not noted as released: ${error.message}` }),
    );
  }, [waits, id, job, version, setupId]);
  const releaseTold = isHere ? released.told : undefined;
  return useMemo(() => ({ release: () => setReleased({ job, setupId }), releaseTold }), [job, setupId, releaseTold]);
}
