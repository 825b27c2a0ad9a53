import { useMemo, useState } from 'react';
import { Button } from 'react-native-paper';
import {
  APPROACH,
  Height,
  Heights,
  PickedHeight,
  editOperation,
  heightPicture,
  heightText,
  kindOf,
  setupWith,
} from '@tidypath/core';
import { Choices } from '../../../ui/Choices';
import { LengthField } from '../../../ui/LengthField';
import { Txt } from '../../../ui/Txt';
import { HeightSection, sayDeep } from './HeightSection';
import type { EditorProps } from './types';

type Which = 'start' | 'end' | 'retract';
const WORDS: Record<Which, { label: string; left: string; leaves: string }> = {
  start: { label: 'begins', left: 'Begins where the stock stands', leaves: 'Where the stock stands' },
  end: { label: 'ends', left: 'Ends as its feature says', leaves: 'As its feature says' },
  retract: { label: 'goes aside', left: 'Goes aside clear of everything', leaves: 'Clear of everything' },
};
const REACHES = ['full diameter', 'tip'] as const;

/** Without what is not asked for; nothing where nothing is. */
function pruned(heights: Heights): Heights | undefined {
  const kept = Object.entries(heights).filter(([, v]) => v !== undefined);
  return kept.length ? Object.fromEntries(kept) : undefined;
}

/** Where an operation begins, ends and goes aside, picked in a section through part and stock. */
export function HeightsEditor({ job, operation, edit }: EditorProps) {
  const kind = kindOf(operation.kind)!;
  const { heights = {}, targets } = operation;
  const which: Which[] = [
    ...(kind.takesHeights ? (['start'] as const) : []),
    ...(kind.takesHeights === 'start and end' ? (['end'] as const) : []),
    'retract',
  ];
  const [picking, setPicking] = useState(which[0]);
  const setup = setupWith(job, operation);
  const picture = useMemo(() => heightPicture(job, setup, operation), [job, setup, operation]);
  const set = (more: Partial<Heights>, tag?: string) =>
    edit((j) => editOperation(j, operation.id, (o) => ({ ...o, heights: pruned({ ...o.heights, ...more }) })), tag);
  const now = heights[picking];
  const words = WORDS[picking];
  const nameOf = (id: string | undefined) => job.part.features.find((f) => f.id === id)?.name;
  const pick = (height: Height | undefined) => set({ [picking]: height });
  const isPicked = ({ height }: PickedHeight) => now?.at === height.at && now.feature === height.feature;
  const deep = picking === 'start' ? picture.start : picking === 'end' ? picture.end : undefined;
  const lies = now && now.at !== 'what is left' && deep !== undefined && sayDeep(deep, job.unit);
  return (
    <>
      <Choices<Which>
        label="Pick where it"
        value={picking}
        options={which.map((value) => ({ value, label: WORDS[value].label }))}
        onChange={setPicking}
      />
      <HeightSection
        picture={picture}
        unit={job.unit}
        label={`Where it ${words.label}`}
        names={({ height }) => heightText(height, nameOf(height.feature), job.unit)}
        isPicked={isPicked}
        onPick={({ height }) => pick({ ...height, offset: now?.offset ?? 0 })}
      />
      <Txt testID="height-said">
        {now ? `It ${words.label} at ${heightText(now, nameOf(now.feature), job.unit)}` : words.left}
        {lies ? `: ${lies}.` : '.'}
      </Txt>
      {now && (
        <LengthField
          testID="value-field"
          label="Above it, or below with a minus"
          value={now.offset}
          unit={job.unit}
          min={-1000}
          max={1000}
          step={job.unit === 'mm' ? 0.1 : 0.127}
          onChange={(offset) => set({ [picking]: { ...now, offset } }, `${operation.id}-${picking}`)}
        />
      )}
      {picking === 'start' && targets.length > 0 && now?.at !== 'what is left' && (
        <Button mode="outlined" onPress={() => pick({ at: 'what is left', offset: 0 })}>
          Where metal is left
        </Button>
      )}
      {now && (
        <Button mode="outlined" onPress={() => pick(undefined)}>
          {words.leaves}
        </Button>
      )}
      {kind.kind === 'drill' && picking === 'end' && (
        <Choices
          label="What reaches it"
          value={heights.reach ?? REACHES[0]}
          options={REACHES.map((value) => ({ value, label: `the ${value}` }))}
          onChange={(reach) => set({ reach: reach === REACHES[0] ? undefined : reach })}
        />
      )}
      {picking === 'retract' && (
        <LengthField
          testID="approach-field"
          label="Fed from so far above the metal"
          value={heights.approach ?? kind.approach ?? APPROACH}
          unit={job.unit}
          min={0.1}
          max={100}
          step={job.unit === 'mm' ? 0.5 : 0.635}
          onChange={(approach) => set({ approach }, `${operation.id}-approach`)}
        />
      )}
      {picking === 'retract' && now && (
        <Txt kind="small" tone="quiet">
          From one operation to the next it still goes clear of everything. Whether the way is free at this height is
          proved with the clamps as they stand.
        </Txt>
      )}
    </>
  );
}
