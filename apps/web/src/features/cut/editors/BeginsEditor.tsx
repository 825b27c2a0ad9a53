import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Point, asSeen, editOperation, instancesOf, kindOf, pointAtShare, setupWith } from '@tidypath/core';
import { Fields, Row } from '../../../ui/Card';
import { Choices } from '../../../ui/Choices';
import { LengthField } from '../../../ui/LengthField';
import { Txt } from '../../../ui/Txt';
import { ContourPreview } from './ContourPreview';
import type { EditorProps } from './types';

/** Where laps begin: places that are picked on the lines, or typed. */
export function BeginsEditor({ job, operation, edit }: EditorProps) {
  const { begins = [] } = operation;
  const [chosen, setChosen] = useState(0);
  const moved = Math.min(chosen, begins.length - 1);
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const { preview } = kindOf(operation.kind) ?? {};
  const set = (next: Point[], tag?: string) =>
    edit((j) => editOperation(j, operation.id, (o) => ({ ...o, begins: next.length ? next : undefined })), tag);
  const lines = asSeen(job, setupWith(job, operation))
    .part.features.filter((f) => operation.targets.includes(f.id))
    .flatMap(instancesOf)
    .filter((c) => c.closed);
  /** The next line gets one of its own. */
  const add = () => {
    if (lines.length === 0) return;
    const { x, y } = pointAtShare(lines[begins.length % lines.length], 0);
    set([...begins, { x, y }]);
    setChosen(begins.length);
  };
  const place = (more: Partial<Point>) =>
    set(
      begins.map((p, i) => (i === moved ? { ...p, ...more } : p)),
      `${operation.id}-begins`,
    );
  const coordinate = (axis: 'x' | 'y') => (
    <LengthField
      label={`Start ${axis.toUpperCase()}`}
      value={begins[moved][axis]}
      unit={job.unit}
      onChange={(mm) => place({ [axis]: mm })}
      testID={`begin-${axis}`}
    />
  );
  return (
    <>
      <Txt>
        {begins.length
          ? 'Each lap begins at the place on it nearest to the nearest of these.'
          : 'Laps begin in the middle of their longest straight, or as its values say.'}
      </Txt>
      {begins.length > 1 && (
        <Choices
          label="The one to move"
          value={String(moved)}
          options={begins.map((_, i) => ({ value: String(i), label: `${i + 1}` }))}
          onChange={(i) => setChosen(Number(i))}
        />
      )}
      {begins.length > 0 && tool && preview && (
        <ContourPreview
          job={job}
          operation={operation}
          edit={edit}
          tool={tool}
          previewOf={preview.of}
          places={{ at: begins, moved, onPlace: ({ x, y }) => place({ x, y }) }}
        />
      )}
      {begins.length > 0 && (
        <Fields>
          {coordinate('x')}
          {coordinate('y')}
        </Fields>
      )}
      <Row>
        <Button mode="outlined" onPress={add} disabled={lines.length === 0} testID="begin-add">
          Add a start point
        </Button>
        {begins.length > 0 && (
          <Button mode="outlined" onPress={() => set(begins.filter((_, i) => i !== moved))} testID="begin-remove">
            Take it away
          </Button>
        )}
      </Row>
    </>
  );
}
