import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { KeptEntry, LogEntry, ReleaseView, formatNumber, wholeTime } from '@tidypath/core';
import { freshKey } from '../../api/fresh';
import { bring } from '../../api/writes';
import { Card, Row } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';
import { EntryText } from '../../ui/log/EntryText';
import { PointsFigure } from '../../ui/log/PointsFigure';
import { SeenRows } from '../../ui/log/SeenRows';
import { EntryForm } from './EntryForm';
import { releaseName } from './words';

/** Entries that are in sight, and that unfold at most. */
const SHOWN = 5;
const MOST = 100;

/** The heaviest load that was seen, entry after entry. */
function LoadChart({ entries }: { entries: KeptEntry[] }) {
  const loads = entries.flatMap(({ seen = [] }) => {
    const seenLoads = seen.flatMap((s) => s.load ?? []);
    return seenLoads.length > 0 ? [100 * Math.max(...seenLoads)] : [];
  });
  if (loads.length < 2) return null;
  const text = (v: number) => `${formatNumber(v, 0)} %`;
  return (
    <PointsFigure
      title="Heaviest load, run after run"
      summary={`From ${text(Math.min(...loads))} to ${text(Math.max(...loads))} of the spindle in ${loads.length} runs`}
      values={loads}
      text={text}
      along={`${loads.length} runs in which it was looked at`}
      levels={[{ value: 100, name: 'all that the spindle gives', look: 'limit' }]}
    />
  );
}

interface Props {
  view: ReleaseView;
  /** That stand. */
  entries: KeptEntry[];
  onLogged: () => void;
}

/** What was made of a release, written down at the machine; entries are corrected, never changed. */
export function LogCard({ view, entries, onLogged }: Props) {
  const [wrong, setWrong] = useState<KeptEntry>();
  const [failed, setFailed] = useState('');
  /** Logged here: the form begins anew, and never because somebody else has logged something. */
  const [count, setCount] = useState(0);
  const { job, setupId, proof } = view.body;
  const setup = job.setups.find((s) => s.id === setupId)!;
  const nameOf = (id: string) => setup.operations.find((o) => o.id === id)?.name ?? id;
  const log = async (entry: Omit<LogEntry, 'id'>) => {
    setFailed('');
    const name = `${view.jobName}, ${releaseName(view)}`;
    try {
      await bring({ what: 'log', id: view.id, name, entry: { id: freshKey(), ...entry } });
      setWrong(undefined);
      setCount((n) => n + 1);
    } catch (error) {
      setFailed((error as Error).message);
    }
    onLogged();
  };
  const newest = entries.filter((e) => e.kind !== 'simulated').reverse();
  const simulated = entries.filter((e) => e.kind === 'simulated');
  const one = (entry: KeptEntry) => (
    <Row key={entry.id}>
      <View style={{ flex: 1, minWidth: 200 }}>
        <EntryText entry={entry} nameOf={nameOf} />
        {entry.seen && entry.seen.length > 0 && entry.at !== '' && (
          <Fold label="Its cuts to the recipes">
            {() => <SeenRows {...{ job, setup, root: view.root, at: entry.at, seen: entry.seen! }} />}
          </Fold>
        )}
      </View>
      <Button compact onPress={() => setWrong(entry)}>
        Not so
      </Button>
    </Row>
  );
  return (
    <Card testID="log">
      <Txt heading bold>
        Log
      </Txt>
      <EntryForm
        key={wrong?.id ?? count}
        {...{ of: wrong, setup, material: job.material, minutes: wholeTime(proof.clock) }}
        onLog={(entry) => void log(entry)}
      />
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
      {newest.slice(0, SHOWN).map(one)}
      {newest.length > SHOWN && (
        <Fold label={`${newest.length - SHOWN} before`}>{() => newest.slice(SHOWN, MOST).map(one)}</Fold>
      )}
      {simulated.length > 0 && (
        <Fold label={counted(simulated.length, 'run on the simulated machine', 'runs on the simulated machine')}>
          {() => simulated.slice(-MOST).map((entry) => <EntryText key={entry.id} entry={entry} nameOf={nameOf} />)}
        </Fold>
      )}
      <LoadChart entries={entries} />
    </Card>
  );
}
