import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { KeptEntry, LOGGED_KINDS, LogEntry, LoggedKind, formatTime, standing } from '@tidypath/core';
import { api } from '../../api/client';
import { freshKey } from '../../api/fresh';
import { KEYS } from '../../api/keys';
import { useWaiting } from '../../api/useWaiting';
import { bring } from '../../api/writes';
import { Card, Fields, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Fold } from '../../ui/Fold';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';
import { dayText } from './words';

/** Entries as the server has them, and those that wait here; corrected ones are left out. */
function useLog(release: string) {
  const { data, mutate } = useSWR(KEYS.log(release), () => api.logOf(release));
  const waiting = useWaiting().flatMap(({ write }): KeptEntry[] =>
    write.what === 'log' && write.id === release
      ? [{ ...write.entry, releaseId: release, who: 'waits here to be sent', at: '' }]
      : [],
  );
  return { entries: standing([...(data ?? []), ...waiting]), again: () => void mutate() };
}

function entryText({ kind, parts, scrapped, seconds, at, who, remark }: KeptEntry): string {
  const made = `${counted(parts, 'part', 'parts')}${scrapped > 0 ? `, ▲ ${scrapped} scrapped` : ''}`;
  const time = seconds === undefined ? '' : `, ${formatTime(seconds / 60)} each`;
  return [`${kind}: ${made}${time}`, [at && dayText(at), who].filter(Boolean).join(', '), remark]
    .filter(Boolean)
    .join(' · ');
}

const fresh = (entry: KeptEntry | undefined, minutes: number) => ({
  kind: (entry && entry.kind !== 'simulated' ? entry.kind : 'production') as LoggedKind,
  parts: entry?.parts ?? 1,
  scrapped: entry?.scrapped ?? 0,
  isTimed: entry?.seconds !== undefined,
  minutes: entry?.seconds === undefined ? minutes : entry.seconds / 60,
});

interface FormProps {
  /** What it corrects. */
  of?: KeptEntry;
  /** Of one part, as computed. */
  minutes: number;
  onLog: (entry: Omit<LogEntry, 'id' | 'remark'>) => void;
}

/** Parts made: two taps where one part came out well. */
function EntryForm({ of, minutes: computed, onLog }: FormProps) {
  const [{ kind, parts, scrapped, isTimed, minutes }, setForm] = useState(() => fresh(of, computed));
  const set = (more: Partial<ReturnType<typeof fresh>>) => setForm((form) => ({ ...form, ...more }));
  const seconds = isTimed ? { seconds: minutes * 60 } : {};
  return (
    <>
      <Choices label="Kind" value={kind} options={plainOptions(LOGGED_KINDS)} onChange={(k) => set({ kind: k })} />
      <Fields>
        <NumberField
          label="Parts"
          value={parts}
          onChange={(v) => set({ parts: v })}
          min={0}
          max={100000}
          step={1}
          whole
        />
        <NumberField
          label="Scrapped"
          value={scrapped}
          onChange={(v) => set({ scrapped: v })}
          min={0}
          max={parts}
          step={1}
          whole
        />
      </Fields>
      <Tick label="Its time was looked at" on={isTimed} onPress={() => set({ isTimed: !isTimed })} />
      {isTimed && (
        <NumberField
          label="Minutes each"
          help="From start to end, without holds."
          value={minutes}
          onChange={(v) => set({ minutes: v })}
          min={0.01}
          max={10000}
        />
      )}
      <Button
        mode="contained"
        testID="log-it"
        style={{ alignSelf: 'flex-start' }}
        onPress={() =>
          onLog({ kind, parts, scrapped: Math.min(scrapped, parts), ...seconds, ...(of && { replaces: of.id }) })
        }
      >
        {of ? 'Put it right' : 'Log it'}
      </Button>
    </>
  );
}

/** Entries that are in sight, and that unfold at most. */
const SHOWN = 5;
const MOST = 100;

/** What was made of a release, written down at the machine; entries are corrected, never changed. */
export function LogCard({ release, name, minutes }: { release: string; name: string; minutes: number }) {
  const { entries, again } = useLog(release);
  const [wrong, setWrong] = useState<KeptEntry>();
  const [failed, setFailed] = useState('');
  const log = async (entry: Omit<LogEntry, 'id' | 'remark'>) => {
    setFailed('');
    try {
      await bring({ what: 'log', id: release, name, entry: { id: freshKey(), remark: '', ...entry } });
      setWrong(undefined);
    } catch (error) {
      setFailed((error as Error).message);
    }
    again();
  };
  const newest = entries.filter((e) => e.kind !== 'simulated').reverse();
  const simulated = entries.length - newest.length;
  const one = (entry: KeptEntry) => (
    <Row key={entry.id}>
      <View style={{ flex: 1, minWidth: 200 }}>
        <Txt kind="small">{entryText(entry)}</Txt>
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
      <EntryForm key={wrong?.id ?? newest.length} of={wrong} minutes={minutes} onLog={(entry) => void log(entry)} />
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
      {newest.slice(0, SHOWN).map(one)}
      {newest.length > SHOWN && (
        <Fold label={`${newest.length - SHOWN} before`}>{() => newest.slice(SHOWN, MOST).map(one)}</Fold>
      )}
      {simulated > 0 && (
        <Fold label={counted(simulated, 'run on the simulated machine', 'runs on the simulated machine')}>
          {() =>
            entries
              .filter((e) => e.kind === 'simulated')
              .slice(-MOST)
              .map((entry) => (
                <Txt key={entry.id} kind="small" tone="quiet">
                  {entryText(entry)}
                </Txt>
              ))
          }
        </Fold>
      )}
    </Card>
  );
}
