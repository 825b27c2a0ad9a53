import { TextInput } from 'react-native-paper';
import { Pause, editOperation } from '@tidypath/core';
import { NumberField } from '../../../ui/NumberField';
import { Choices } from '../../../ui/Choices';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

type Stop = Pause['stop'] | 'none';
const STOPS: { value: Stop; label: string }[] = [
  { value: 'none', label: 'no stop' },
  { value: 'planned', label: 'always' },
  { value: 'optional', label: 'optional' },
  { value: 'tool change', label: 'to change the tool anew' },
  { value: 'remark', label: 'no stop, a remark' },
];
const STANDS =
  'the tool goes up, spindle and coolant go off, and the note is shown where the control shows remarks. Then speed, offsets and coolant are stated anew. Keep clear until the spindle stands still.';
const SAID: Record<Pause['stop'], string> = {
  planned: `M0: ${STANDS}`,
  optional: `M1, where the optional stop is switched on at the machine: ${STANDS}`,
  'tool change': `The same tool is called again, as after new edges: ${STANDS}`,
  remark: 'The program says so where the operation begins, and runs on.',
};
const NOTE = 'What is to be done then';
const NOTES: Partial<Record<Pause['stop'], string>> = { remark: 'What it says' };
/** Letters a note may have: more no control shows. */
const MOST = 80;

/** Where the program waits before the operation, and what whoever stands at the machine is told. */
export function PauseEditor({ operation, edit }: EditorProps) {
  const { before } = operation;
  const set = (next: Pause | undefined, tag?: string) =>
    edit((j) => editOperation(j, operation.id, (o) => ({ ...o, before: next })), tag);
  return (
    <>
      <Choices<Stop>
        label="The program stops before it"
        value={before?.stop ?? 'none'}
        options={STOPS}
        onChange={(stop) => set(stop === 'none' ? undefined : { note: '', ...before, stop })}
      />
      {before && (
        <>
          <TextInput
            mode="outlined"
            label={NOTES[before.stop] ?? NOTE}
            aria-label={NOTES[before.stop] ?? NOTE}
            value={before.note}
            maxLength={MOST}
            onChangeText={(note) => set({ ...before, note }, `${operation.id}-before`)}
            testID="value-field"
          />
          {before.stop !== 'remark' && (
            <NumberField
              label="Takes"
              suffix="min"
              value={before.minutes ?? 0}
              min={0}
              max={600}
              onChange={(minutes) => set({ ...before, minutes: minutes || undefined }, `${operation.id}-minutes`)}
              testID="stop-minutes"
            />
          )}
          <Txt kind="small" tone="quiet">
            {SAID[before.stop]}
          </Txt>
        </>
      )}
    </>
  );
}
