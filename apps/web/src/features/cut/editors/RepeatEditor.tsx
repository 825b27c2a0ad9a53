import { MIRRORS, ONCE, Repeat, editOperation, repeated } from '@tidypath/core';
import { Choices, plainOptions } from '../../../ui/Choices';
import { LengthField } from '../../../ui/LengthField';
import { Txt } from '../../../ui/Txt';
import { PatternFields } from '../../../ui/PatternFields';
import type { EditorProps } from './types';

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
  const copies = targets.reduce((sum, f) => sum + repeated(f, repeat).length - 1, 0);
  return (
    <>
      <PatternFields pattern={repeat.pattern} unit={job.unit} onChange={(pattern) => set({ pattern })} />
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
