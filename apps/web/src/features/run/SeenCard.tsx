import { useState } from 'react';
import useSWR from 'swr';
import { StepSeen, seenOf } from '@tidypath/controller';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { SeenRows } from '../../ui/log/SeenRows';

interface Props {
  /** Id of what ran: the job may have gone on since. */
  release: string;
  steps: StepSeen[];
}

/** What was seen of the operations that ran. */
export function SeenCard({ release, steps }: Props) {
  const { data } = useSWR(KEYS.release(release), () => api.releaseOf(release));
  const [at] = useState(() => new Date().toISOString());
  const setup = data?.body.job.setups.find((s) => s.id === data.setupId);
  if (!data || !setup || steps.length === 0) return null;
  return (
    <Card testID="seen">
      <Txt heading bold>
        Operation by operation
      </Txt>
      <SeenRows {...{ job: data.body.job, setup, root: data.root, at, seen: steps.map(seenOf) }} />
    </Card>
  );
}
