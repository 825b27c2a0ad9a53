import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Departing, Job, Setup, departingIn, formatFeed, formatNumber, takeSuggested } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { Actions } from '../ui/Actions';
import { Sheet } from '../ui/Sheet';
import { Tick } from '../ui/Tick';
import { Txt } from '../ui/Txt';
import { counted } from '../ui/counted';

const speedsText = ({ rpm, feed }: { rpm: number; feed: number }, unit: Job['unit']) =>
  `${formatNumber(rpm, 0)} rpm, ${formatFeed(feed, unit)}`;

interface Props {
  job: Job;
  setup: Setup;
  edit: (next: (job: Job) => Job) => void;
}

/** The operations of all setups whose speeds are not the suggested ones. */
export const departingOf = (job: Job): Departing[] => job.setups.flatMap((setup) => departingIn(job, setup));

/** Speeds that are not the suggested ones, before and after: all of them are taken, some, or none. */
export function SpeedsSheet({
  departing,
  job,
  edit,
  onClose,
}: Pick<Props, 'job' | 'edit'> & { departing: Departing[]; onClose: () => void }) {
  const [kept, setKept] = useState<string[]>([]);
  const taken = departing.filter(({ operation: { id } }) => !kept.includes(id));
  const toggle = (id: string) => setKept((k) => (k.includes(id) ? k.filter((x) => x !== id) : [...k, id]));
  const take = () => {
    edit((j) => taken.reduce((next, { operation }) => takeSuggested(next, operation.id), j));
    onClose();
  };
  return (
    <Sheet
      title="Speeds, before and after"
      open
      onClose={onClose}
      actions={
        <Actions
          leave="Keep them all"
          onLeave={onClose}
          take={
            taken.length === departing.length ? 'Take all the suggested' : `Take ${taken.length} of ${departing.length}`
          }
          onTake={take}
          disabled={taken.length === 0}
          testID="take-speeds"
        />
      }
    >
      <Txt kind="small" tone="quiet">
        Another material, machine, tool or holder changes what would be suggested; what you chose stays until you say
        so.
      </Txt>
      {departing.map(({ operation: o, suggested, departure }) => (
        <View key={o.id} testID={`speeds-${o.id}`}>
          <Tick label={o.name} on={!kept.includes(o.id)} onPress={() => toggle(o.id)} />
          <View style={{ paddingLeft: SPACE.xl }}>
            <Txt kind="small" mono>
              now {speedsText(o.speeds, job.unit)}
              {'\n'}then {speedsText(suggested, job.unit)}
            </Txt>
            <Txt kind="small" tone={departure.governs ? 'care' : 'quiet'}>
              {departure.governs ? '◆ ' : ''}Now {departure.brief}.
            </Txt>
          </View>
        </View>
      ))}
    </Sheet>
  );
}

/** A way to the speeds that are not the suggested ones, where there are any. */
export function DepartingSpeeds({ job, setup, edit }: Props) {
  const [open, setOpen] = useState(false);
  const departing = useMemo(() => departingIn(job, setup), [job, setup]);
  if (departing.length === 0) return null;
  return (
    <>
      <Button compact mode="outlined" onPress={() => setOpen(true)} testID="departing-speeds">
        {counted(departing.length, 'speed', 'speeds')} not as suggested
      </Button>
      {open && <SpeedsSheet departing={departing} job={job} edit={edit} onClose={() => setOpen(false)} />}
    </>
  );
}
