import { Button } from 'react-native-paper';
import { editOperation } from '@tidypath/core';
import { LengthField } from '../../../ui/LengthField';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

/** How far the tool may bend: by what it leaves or by the tolerance, or as somebody sets it. */
export function BendEditor({ job, operation, insight, edit }: EditorProps) {
  const set = (bend: number | undefined) =>
    edit((j) => editOperation(j, operation.id, (o) => ({ ...o, bend })), `${operation.id}-bend`);
  if (!insight) return null;
  const { most, why } = insight.bend;
  return (
    <>
      <LengthField
        autoFocus
        testID="value-field"
        label="Bends at most"
        value={most}
        unit={job.unit}
        min={0.001}
        max={2}
        help={why}
        onChange={set}
      />
      <Txt kind="small" tone="quiet">
        Suggested feeds keep within it, and the proof tells where it is passed.
      </Txt>
      {operation.bend !== undefined && (
        <Button compact mode="outlined" onPress={() => set(undefined)} style={{ alignSelf: 'flex-start' }}>
          By what it leaves, or the tolerance
        </Button>
      )}
    </>
  );
}
