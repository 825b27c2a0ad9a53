import { Choices } from '../../../ui/Choices';
import { LengthField } from '../../../ui/LengthField';
import { Tick } from '../../../ui/Tick';
import { Txt } from '../../../ui/Txt';
import { Operation, WITHIN, asSeen, editOperation, instancesOf, setupWith } from '@tidypath/core';
import type { EditorProps } from './types';

const NONE = '';
const CUTTER = { inside: 'all of it inside', on: 'its middle inside', outside: 'it may stand just beyond' };

/** The line an operation stays within, and what it keeps away from. */
export function BoundsEditor({ job, operation, edit }: EditorProps) {
  const { within, keepAway = [] } = operation;
  const { part } = asSeen(job, setupWith(job, operation));
  const closed = part.features.filter((f) => !operation.targets.includes(f.id) && instancesOf(f).some((c) => c.closed));
  const set = (more: Partial<Operation>, tag?: string) =>
    edit((j) => editOperation(j, operation.id, (o) => ({ ...o, ...more })), tag);
  const setAway = (next: NonNullable<Operation['keepAway']>, tag?: string) =>
    set({ keepAway: next.length ? next : undefined }, tag);
  if (closed.length === 0)
    return <Txt>Draw a closed line on the Part stage first; it may be one that is ignored otherwise.</Txt>;
  return (
    <>
      <Choices
        label="It stays within"
        value={within?.feature ?? NONE}
        options={[{ value: NONE, label: 'nothing drawn' }, ...closed.map((f) => ({ value: f.id, label: f.name }))]}
        onChange={(feature) => set({ within: feature === NONE ? undefined : { cutter: 'inside', ...within, feature } })}
      />
      {within && (
        <Choices
          label="The cutter"
          value={within.cutter}
          options={WITHIN.map((value) => ({ value, label: CUTTER[value] }))}
          onChange={(cutter) => set({ within: { ...within, cutter } })}
        />
      )}
      <Txt kind="small" tone="quiet">
        It keeps away from
      </Txt>
      {closed.map((f) => {
        const at = keepAway.find((k) => k.feature === f.id);
        const others = keepAway.filter((k) => k.feature !== f.id);
        return (
          <Tick
            key={f.id}
            label={f.name}
            on={!!at}
            onPress={() => setAway(at ? others : [...others, { feature: f.id, by: 1 }])}
          />
        );
      })}
      {keepAway.map((k) => (
        <LengthField
          key={k.feature}
          label={`Around ${part.features.find((f) => f.id === k.feature)?.name ?? 'what is gone'}`}
          value={k.by}
          unit={job.unit}
          min={0}
          max={1000}
          step={job.unit === 'mm' ? 0.5 : 0.635}
          onChange={(by) =>
            setAway(
              keepAway.map((x) => (x.feature === k.feature ? { ...x, by } : x)),
              `${operation.id}-away-${k.feature}`,
            )
          }
          testID={`away-${k.feature}`}
        />
      ))}
    </>
  );
}
