import { Feature, asSeen, editOperation, kindOf } from '@tidypath/core';
import { Tick } from '../../../ui/Tick';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

/** Which features of the part an operation works on. */
export function TargetsEditor({ job, operation, edit }: EditorProps) {
  const works = kindOf(operation.kind)?.works ?? [];
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operation.id)) ?? job.setups[0];
  const offered = asSeen(job, setup).part.features.filter((f) => works.includes(f.meaning));
  const toggle = (f: Feature) =>
    edit((j) =>
      editOperation(j, operation.id, (o) => ({
        ...o,
        targets: o.targets.includes(f.id) ? o.targets.filter((t) => t !== f.id) : [...o.targets, f.id],
      })),
    );
  if (offered.length === 0)
    return (
      <Txt>The part has nothing of this kind. Give a feature the meaning {works.join(' or ')} on the Part stage.</Txt>
    );
  return (
    <>
      {offered.map((f) => (
        <Tick key={f.id} label={f.name} on={operation.targets.includes(f.id)} onPress={() => toggle(f)} />
      ))}
    </>
  );
}
