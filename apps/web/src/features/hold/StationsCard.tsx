import { Button } from 'react-native-paper';
import { COPY_ORDERS, Setup, Stations, groundOf, offsetsOf, partModel, stationPitch } from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';

/** The same work in several vises, each with its own zero. */
export function StationsCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup } = useJob();
  const { stations } = setup;
  const change = (more: Partial<Stations>) => set({ stations: { ...stations!, ...more } }, 'stations');
  const begin = () => {
    const dx = stationPitch(job, groundOf(job, setup, partModel));
    set({ stations: { count: 2, dx, dy: 0, order: 'by tool' } });
  };
  if (!stations)
    return (
      <Button mode="outlined" testID="add-stations" onPress={begin}>
        In several vises at once
      </Button>
    );
  const offsets = offsetsOf(setup);
  const apart = (label: string, key: 'dx' | 'dy') => (
    <LengthField
      label={label}
      value={stations[key]}
      unit={job.unit}
      min={-5000}
      max={5000}
      onChange={(mm) => change({ [key]: mm })}
    />
  );
  return (
    <Card testID="stations">
      <Txt heading kind="large">
        In {stations.count} vises at once
      </Txt>
      <NumberField label="Vises" value={stations.count} whole min={2} max={6} onChange={(count) => change({ count })} />
      <Fields>
        {apart('From one to the next, X', 'dx')}
        {apart('From one to the next, Y', 'dy')}
      </Fields>
      <Choices
        label="Cut"
        value={stations.order}
        options={plainOptions(COPY_ORDERS)}
        onChange={(order) => change({ order })}
      />
      <Txt kind="small" tone="quiet">
        One program, a zero for each: {offsets.join(', ')}. How they stand to each other is for the proof; the zeros are
        taken at the machine. Between vises the tool goes up all the way.
      </Txt>
      <Button compact onPress={() => set({ stations: undefined })} style={{ alignSelf: 'flex-start' }}>
        In one vise alone
      </Button>
    </Card>
  );
}
