import { useState } from 'react';
import { Button, TextInput } from 'react-native-paper';
import {
  KeptEntry,
  LOGGED_KINDS,
  LogEntry,
  LoggedKind,
  MOST_PHOTOS,
  Material,
  SCRAP_CAUSES,
  Seen,
  Setup,
} from '@tidypath/core';
import { keepFile } from '../../api/files';
import { Fields, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Fold } from '../../ui/Fold';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';
import { pickFile } from '../../ui/files';
import { Photos } from '../../ui/log/EntryText';
import { photoOf } from '../../ui/log/photo';
import { SeenForm } from './SeenForm';

/** A photo that was taken now. */
interface Taken {
  sha256: string;
  /** Where the page has it. */
  url: string;
}

const fresh = (entry: KeptEntry | undefined, minutes: number) => ({
  kind: (entry && entry.kind !== 'simulated' ? entry.kind : 'production') as LoggedKind,
  parts: entry?.parts ?? 1,
  scrapped: entry?.scrapped ?? 0,
  cause: entry?.cause,
  isTimed: entry?.seconds !== undefined,
  minutes: entry?.seconds === undefined ? minutes : entry.seconds / 60,
  remark: entry?.remark ?? '',
  seen: entry?.seen ?? ([] as Seen[]),
  taken: [] as Taken[],
});

type Form = ReturnType<typeof fresh>;

/** What is logged, without what nobody said. */
function entryOf({ kind, parts, scrapped, cause, isTimed, minutes, remark, seen, taken }: Form, of?: KeptEntry) {
  const bad = Math.min(scrapped, parts);
  const photos = [...(of?.photos ?? []), ...taken.map((t) => t.sha256)].slice(0, MOST_PHOTOS);
  return {
    ...{ kind, parts, scrapped: bad, remark },
    ...(bad > 0 && cause && { cause }),
    ...(isTimed && { seconds: minutes * 60 }),
    ...(seen.length > 0 && { seen }),
    ...(photos.length > 0 && { photos }),
    ...(of && { replaces: of.id }),
  };
}

/** Takes photos, made small in the page before anything else. */
function PhotoTaker({ taken, onTaken }: { taken: Taken[]; onTaken: (one: Taken) => void }) {
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState('');
  const take = async () => {
    const file = await pickFile('image/*');
    if (!file) return;
    setBusy(true);
    setFailed('');
    try {
      const bytes = await photoOf(file);
      const { sha256 } = await keepFile('photo.jpg', bytes);
      onTaken({ sha256, url: URL.createObjectURL(new Blob([bytes as BlobPart], { type: 'image/jpeg' })) });
    } catch (error) {
      setFailed((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <>
      <Button
        mode="outlined"
        icon="camera-outline"
        loading={busy}
        disabled={busy || taken.length >= MOST_PHOTOS}
        style={{ alignSelf: 'flex-start' }}
        onPress={() => void take()}
      >
        Add a photo
      </Button>
      <Photos sources={taken.map((t) => t.url)} />
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
    </>
  );
}

interface Props {
  /** What it corrects. */
  of?: KeptEntry;
  setup: Setup;
  material: Material;
  /** Of one run, as computed. */
  minutes: number;
  onLog: (entry: Omit<LogEntry, 'id'>) => void;
}

/** Parts made: two taps where one part came out well; what was seen, where somebody looked. */
export function EntryForm({ of, setup, material, minutes: computed, onLog }: Props) {
  const [form, setForm] = useState(() => fresh(of, computed));
  const { kind, parts, scrapped, cause, isTimed, minutes, remark, seen, taken } = form;
  const set = (more: Partial<Form>) => setForm((now) => ({ ...now, ...more }));
  return (
    <>
      <Choices label="Kind" value={kind} options={plainOptions(LOGGED_KINDS)} onChange={(k) => set({ kind: k })} />
      <Fields>
        <NumberField label="Parts" value={parts} onChange={(v) => set({ parts: v })} min={0} max={1e5} step={1} whole />
        <NumberField
          label="Scrap"
          value={scrapped}
          onChange={(v) => set({ scrapped: v })}
          min={0}
          max={parts}
          step={1}
          whole
        />
      </Fields>
      {scrapped > 0 && (
        <Choices label="Why" value={cause} options={plainOptions(SCRAP_CAUSES)} onChange={(c) => set({ cause: c })} />
      )}
      <Tick label="Its time was looked at" on={isTimed} onPress={() => set({ isTimed: !isTimed })} />
      {isTimed && (
        <NumberField
          label="Minutes a run"
          help="From start to end of the program, without holds."
          value={minutes}
          onChange={(v) => set({ minutes: v })}
          min={0.01}
          max={10000}
        />
      )}
      <Fold label="What was seen, heard, changed" testID="seen-form">
        {() => (
          <>
            <SeenForm setup={setup} material={material} seen={seen} onSeen={(s) => set({ seen: s })} />
            <TextInput
              mode="outlined"
              dense
              multiline
              label="Remark"
              aria-label="Remark"
              value={remark}
              onChangeText={(text) => set({ remark: text.slice(0, 1000) })}
            />
            <PhotoTaker taken={taken} onTaken={(one) => setForm((now) => ({ ...now, taken: [...now.taken, one] }))} />
          </>
        )}
      </Fold>
      <Row>
        <Button mode="contained" testID="log-it" onPress={() => onLog(entryOf(form, of))}>
          {of ? 'Put it right' : 'Log it'}
        </Button>
      </Row>
    </>
  );
}
