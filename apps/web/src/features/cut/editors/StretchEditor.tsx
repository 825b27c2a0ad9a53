import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Point, Stretch, asSeen, editOperation, instancesOf, kindOf, pointAtShare, setupWith } from '@tidypath/core';
import { Row } from '../../../ui/Card';
import { Choices } from '../../../ui/Choices';
import { LengthField } from '../../../ui/LengthField';
import { Txt } from '../../../ui/Txt';
import { ContourPreview } from './ContourPreview';
import type { EditorProps } from './types';

/** The part of a closed line an operation runs along: from one place on it to another, picked in its picture. */
export function StretchEditor({ job, operation, edit }: EditorProps) {
  const { stretch } = operation;
  const [moved, setMoved] = useState<'from' | 'to'>('from');
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const { preview } = kindOf(operation.kind) ?? {};
  const set = (next: Stretch | undefined, tag?: string) =>
    edit((j) => editOperation(j, operation.id, (o) => ({ ...o, stretch: next })), tag);
  const begin = () => {
    const { part } = asSeen(job, setupWith(job, operation));
    const lines = part.features.filter((f) => operation.targets.includes(f.id)).flatMap(instancesOf);
    const line = lines.find((c) => c.closed);
    if (!line) return;
    const at = (share: number): Point => {
      const { x, y } = pointAtShare(line, share);
      return { x, y };
    };
    set({ from: at(0), to: at(0.5), before: 0, after: 0 });
  };
  if (!stretch)
    return (
      <>
        <Txt>It runs along all of its line.</Txt>
        <Button mode="outlined" onPress={begin} testID="stretch-begin">
          Along a part of it only
        </Button>
      </>
    );
  const place = (p: Point) => set({ ...stretch, [moved]: p }, `${operation.id}-stretch`);
  const end = (label: string, key: 'before' | 'after') => (
    <LengthField
      label={label}
      value={stretch[key]}
      unit={job.unit}
      min={-1000}
      max={1000}
      step={job.unit === 'mm' ? 1 : 1.27}
      onChange={(mm) => set({ ...stretch, [key]: mm }, `${operation.id}-${key}`)}
      testID={`stretch-${key}`}
    />
  );
  return (
    <>
      <Choices
        label="Tap the line to move"
        value={moved}
        options={[
          { value: 'from', label: 'where it begins' },
          { value: 'to', label: 'where it ends' },
        ]}
        onChange={setMoved}
      />
      {tool && preview && (
        <ContourPreview
          job={job}
          operation={operation}
          edit={edit}
          tool={tool}
          previewOf={preview.of}
          places={{ at: [stretch.from, stretch.to], moved: moved === 'from' ? 0 : 1, onPlace: place }}
        />
      )}
      {end('Longer at the beginning', 'before')}
      {end('Longer at the end', 'after')}
      <Txt kind="small" tone="quiet">
        Straight on past the place; a minus holds it back.
      </Txt>
      <Row>
        <Button
          mode="outlined"
          compact
          onPress={() => set({ from: stretch.to, to: stretch.from, before: stretch.after, after: stretch.before })}
        >
          The other part of it
        </Button>
        <Button mode="outlined" compact onPress={() => set(undefined)}>
          All of it
        </Button>
      </Row>
    </>
  );
}
