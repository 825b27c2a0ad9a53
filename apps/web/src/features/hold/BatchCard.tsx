import { Job, Setup, batchText, costSentences, priceBreaks, runFigures, wholeTime } from '@tidypath/core';
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
  const { energy = 0, scrap = 0 } = job.prices ?? {};
  const price = (more: NonNullable<Job['prices']>, tag: string) =>
    edit((j) => ({ ...j, prices: { ...j.prices, ...more } }), tag);
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
        <NumberField
          label="Energy, a kWh"
          value={energy}
          min={0}
          max={1000}
          testID="batch-energy"
          onChange={(e) => price({ energy: e || undefined }, 'energy')}
        />
        <NumberField
          label="Spoiled"
          suffix="%"
          value={Number((100 * scrap).toFixed(3))}
          min={0}
          max={90}
          testID="batch-scrap"
          onChange={(s) => price({ scrap: s / 100 || undefined }, 'scrap')}
        />
      </Fields>
      <Txt kind="small" testID="batch-said">
        {batchText(job, setup, run)}
      </Txt>
      {proof && proofFresh && (
        <Txt kind="small" testID="batch-cost">
          {job.setups.length > 1 ? 'Counting this setup alone. ' : ''}
          {costSentences(priceBreaks(job, new Map([[setup.id, runFigures(proof)]]), [setup]), job.batch).join('\n')}
        </Txt>
      )}
    </Card>
  );
}
