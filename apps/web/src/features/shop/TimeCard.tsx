import { format } from 'date-fns/format';
import { useState } from 'react';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { ENOUGH_RUNS, MachineTime, formatNumber } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';

/** "11 % more than computed, 15.7 s a tool change". */
const valuesText = ({ extraTime, toolChangeSeconds }: MachineTime['now']): string =>
  `moves ${formatNumber(Math.abs(100 * extraTime), 1)} % ${extraTime < 0 ? 'less' : 'more'} than computed, ${formatNumber(toolChangeSeconds, 1)} s a tool change`;

const isSame = (a: MachineTime['now'], b: MachineTime['now']) =>
  Math.abs(a.extraTime - b.extraTime) < 5e-4 && Math.abs(a.toolChangeSeconds - b.toolChangeSeconds) < 0.05;

/** What the log says of the time of a machine: taken over with a tap, taken back with a tap. */
export function TimeCard({ machine }: { machine: string }) {
  const { data, mutate } = useSWR(KEYS.machineTime(machine), () => api.machineTime(machine), {
    shouldRetryOnError: false,
  });
  const [failed, setFailed] = useState('');
  if (!data) return null;
  const { proposed, runs, outliers, simulated, now, taken } = data;
  const learn = (what: 'take' | 'undo') => {
    setFailed('');
    api.learn(machine, what).then(
      (next) => mutate(next, false),
      (error: ApiError) => setFailed(error.message),
    );
  };
  const from = `${counted(runs, 'run', 'runs')} of the ${simulated ? 'simulated machine' : 'machine'}${outliers > 0 ? `, ${outliers} of which fitted nothing` : ''}`;
  return (
    <Card testID="machine-time">
      <Txt heading kind="large">
        Its time, from the log
      </Txt>
      <Txt>Counted now: {valuesText(now)}.</Txt>
      {taken && (
        <Row>
          <Txt kind="small" tone="quiet" testID="time-taken">
            Taken over on {format(new Date(taken.at), 'd MMM yyyy, HH:mm')}
            {taken.who ? ` by ${taken.who}` : ''} from {counted(taken.runs, 'run', 'runs')}; before:{' '}
            {valuesText(taken.before)}.
          </Txt>
          <Button compact testID="time-undo" onPress={() => learn('undo')}>
            Take it back
          </Button>
        </Row>
      )}
      {!proposed && (
        <Txt tone="quiet">
          {runs === 0 ? 'Nothing is logged yet' : `From ${from}`}; from {ENOUGH_RUNS} timed runs on something is
          proposed.
        </Txt>
      )}
      {proposed && isSame(proposed, now) && <Txt>✓ As the log says, from {from}.</Txt>}
      {proposed && !isSame(proposed, now) && (
        <>
          <Txt testID="time-proposed">
            From {from}: {valuesText(proposed)}.
          </Txt>
          <Button mode="contained" testID="time-take" style={{ alignSelf: 'flex-start' }} onPress={() => learn('take')}>
            Take it over
          </Button>
        </>
      )}
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
    </Card>
  );
}
