import { Setup, batchText, wholeTime } from '@tidypath/core';
import { useJob } from '../../session/JobContext';
import { Card, Fields } from '../../ui/Card';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

/** How many parts are wanted, and what a batch of them takes in this setup. */
export function BatchCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup, edit, computed } = useJob();
  const { proof, proofFresh } = computed;
  const run = proof && proofFresh ? wholeTime(proof.clock) : undefined;
  const minutes = (label: string, key: 'setUpMinutes' | 'reloadMinutes') => (
    <NumberField
      label={label}
      suffix="min"
      value={setup[key] ?? 0}
      min={0}
      max={10000}
      onChange={(m) => set({ [key]: m }, key)}
    />
  );
  return (
    <Card testID="batch">
      <Txt heading kind="large">
        Batch
      </Txt>
      <Fields>
        <NumberField
          label="Parts wanted"
          value={job.batch ?? 1}
          whole
          min={1}
          max={1000000}
          testID="batch-parts"
          onChange={(batch) => edit((j) => ({ ...j, batch }), 'batch')}
        />
        {minutes('To set up', 'setUpMinutes')}
        {minutes('To reload', 'reloadMinutes')}
      </Fields>
      <Txt kind="small" testID="batch-said">
        {batchText(job, setup, run)}
      </Txt>
    </Card>
  );
}
