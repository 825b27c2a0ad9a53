import { Button } from 'react-native-paper';
import { COPY_ORDERS, Copies, Setup, bodyAs, facingGap } from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';

/** Many parts from one blank: how many, how far apart, in which order. */
export function CopiesCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup } = useJob();
  const { copies, up = 'top' } = setup;
  const { size } = bodyAs(job.part, up);
  const gap = facingGap(job, setup);
  const change = (more: Partial<Copies>) => set({ copies: { ...copies!, ...more } }, 'copies');
  if (!copies)
    return (
      <Button
        mode="outlined"
        testID="add-copies"
        onPress={() => set({ copies: { columns: 2, rows: 1, dx: size[0] + gap, dy: size[1] + gap, order: 'by tool' } })}
      >
        Several parts from one blank
      </Button>
    );
  const count = copies.columns * copies.rows;
  const number = (label: string, key: 'columns' | 'rows') => (
    <NumberField label={label} value={copies[key]} whole min={1} max={100} onChange={(n) => change({ [key]: n })} />
  );
  const pitch = (label: string, key: 'dx' | 'dy') => (
    <LengthField
      label={label}
      value={copies[key]}
      unit={job.unit}
      min={0.1}
      max={5000}
      onChange={(mm) => change({ [key]: mm })}
    />
  );
  return (
    <Card testID="copies">
      <Txt heading kind="large">
        {count} parts from one blank
      </Txt>
      <Fields>
        {number('Columns', 'columns')}
        {pitch('From one to the next, X', 'dx')}
      </Fields>
      <Fields>
        {number('Rows', 'rows')}
        {pitch('From one to the next, Y', 'dy')}
      </Fields>
      <Choices
        label="Cut"
        value={copies.order}
        options={plainOptions(COPY_ORDERS)}
        onChange={(order) => change({ order })}
      />
      <Txt kind="small" tone="quiet">
        The first of them goes on into the next setup. How much more the blank is than the part counts round all of
        them.
      </Txt>
      <Button compact onPress={() => set({ copies: undefined })} style={{ alignSelf: 'flex-start' }}>
        One part alone
      </Button>
    </Card>
  );
}
