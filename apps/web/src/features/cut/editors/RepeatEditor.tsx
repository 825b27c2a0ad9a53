import { MIRRORS, ONCE, Repeat, editOperation, placements, repeated } from '@tidypath/core';
import { Choices, plainOptions } from '../../../ui/Choices';
import { LengthField } from '../../../ui/LengthField';
import { Row } from '../../../ui/Card';
import { Tick } from '../../../ui/Tick';
import { Txt } from '../../../ui/Txt';
import { PatternFields } from '../../../ui/PatternFields';
import type { EditorProps } from './types';

/** More places than this are not offered one by one. */
const MANY = 60;

const isOnce = ({ pattern, mirror }: Repeat) => pattern.type === 'single' && mirror === 'none';

/** How often an operation is done: a pattern of its features, and a mirrored copy. */
export function RepeatEditor({ job, operation, edit }: EditorProps) {
  const repeat = operation.repeat ?? ONCE;
  const set = (more: Partial<Repeat>) => {
    const next = { ...repeat, ...more };
    edit(
      (j) => editOperation(j, operation.id, (o) => ({ ...o, repeat: isOnce(next) ? undefined : next })),
      `${operation.id}-repeat`,
    );
  };
  const targets = job.part.features.filter((f) => operation.targets.includes(f.id));
  const { pattern, without = [] } = repeat;
  const places = placements(pattern).length;
  const toggle = (place: number) => {
    const left = without.includes(place) ? without.filter((p) => p !== place) : [...without, place];
    set({ without: left.length ? left.sort((a, b) => a - b) : undefined });
  };
  const drawn = without.includes(1) ? 0 : 1;
  const copies = targets.reduce((sum, f) => sum + repeated(f, repeat).length - drawn, 0);
  return (
    <>
      <PatternFields
        pattern={pattern}
        without={['mirror']}
        unit={job.unit}
        onChange={(next) => set({ pattern: next, without: undefined })}
      />
      {places > 1 && places <= MANY && (
        <Row>
          {Array.from({ length: places }, (_, i) => (
            <Tick key={i} label={`place ${i + 1}`} on={!without.includes(i + 1)} onPress={() => toggle(i + 1)} />
          ))}
        </Row>
      )}
      <Choices
        label="Mirrored copy"
        value={repeat.mirror}
        options={plainOptions(MIRRORS)}
        onChange={(mirror) => set({ mirror })}
      />
      {repeat.mirror !== 'none' && (
        <LengthField
          label={repeat.mirror === 'left and right' ? 'Mirror at X' : 'Mirror at Y'}
          value={repeat.at}
          unit={job.unit}
          onChange={(at) => set({ at })}
        />
      )}
      <Txt kind="small" tone="quiet">
        {copies === 0 ? 'Done once.' : `${copies} ${copies === 1 ? 'copy' : 'copies'} beside what is drawn.`} A mirrored
        copy keeps the direction of the cut.
      </Txt>
    </>
  );
}
