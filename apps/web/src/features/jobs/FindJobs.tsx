import { useState } from 'react';
import { Pressable } from 'react-native';
import { Button, Searchbar } from 'react-native-paper';
import useSWR from 'swr';
import { JOB_STATES, JobOrder, JobPlace, JobQuestion } from '@tidypath/core';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { stateWords } from './JobCard';

const PLACES: { value: JobPlace; label: string }[] = [
  { value: 'list', label: 'At work' },
  { value: 'archive', label: 'Archive' },
  { value: 'bin', label: 'Bin' },
];
const ORDERS: { value: JobOrder; label: string }[] = [
  { value: 'changed', label: 'last changed' },
  { value: 'name', label: 'name' },
  { value: 'state', label: 'state' },
  { value: 'time', label: 'longest' },
];
const FILTERS = { state: 'State', material: 'Material', machine: 'Machine', tag: 'Tag' } as const;
type Filter = keyof typeof FILTERS;
const ALL = Object.keys(FILTERS) as Filter[];

interface Props {
  question: JobQuestion;
  onQuestion: (question: JobQuestion) => void;
}

/** A filter that is on; pressed, it is off. */
function On({ words, onPress }: { words: string; onPress: () => void }) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={`Any ${words}`}
      onPress={onPress}
      style={{
        minHeight: SIZE.touch,
        justifyContent: 'center',
        paddingHorizontal: SPACE.m,
        borderRadius: SIZE.radius,
        borderWidth: 1,
        borderColor: palette.accent,
        backgroundColor: palette.accentSoft,
      }}
    >
      <Txt>✕ {words}</Txt>
    </Pressable>
  );
}

/** What is looked for: words, where, and what jobs are told apart by. */
export function FindJobs({ question, onQuestion }: Props) {
  const [choosing, setChoosing] = useState(false);
  const { data: choices } = useSWR(choosing ? KEYS.jobChoices : null, api.jobChoices, { dedupingInterval: 0 });
  const ask = (more: JobQuestion) => onQuestion({ ...question, page: 0, ...more });
  const options: Record<Filter, { value: string; label: string }[]> = {
    state: JOB_STATES.map((value) => ({ value, label: stateWords[value] })),
    material: plainOptions(choices?.materials ?? []),
    machine: plainOptions(choices?.machines ?? []),
    tag: plainOptions(choices?.tags ?? []),
  };
  const place = question.place ?? 'list';
  return (
    <>
      <Searchbar
        icon="magnify"
        clearIcon="close"
        placeholder="Name, tag or customer’s number"
        accessibilityLabel="Search jobs"
        value={question.words ?? ''}
        onChangeText={(words) => ask({ words })}
      />
      <Row>
        <Button mode="outlined" icon="filter-variant" onPress={() => setChoosing(true)}>
          Filter and sort
        </Button>
        {place !== 'list' && (
          <On words={PLACES.find((p) => p.value === place)!.label} onPress={() => ask({ place: 'list' })} />
        )}
        {ALL.map((f) => question[f] && <On key={f} words={question[f]} onPress={() => ask({ [f]: undefined })} />)}
      </Row>
      <Sheet title="Filter and sort" open={choosing} onClose={() => setChoosing(false)}>
        <Choices label="Where" value={place} onChange={(value) => ask({ place: value })} options={PLACES} />
        <Choices label="By" value={question.order ?? 'changed'} onChange={(order) => ask({ order })} options={ORDERS} />
        {ALL.filter((f) => options[f].length > 0).map((f) => (
          <Choices
            key={f}
            label={FILTERS[f]}
            value={question[f] ?? ''}
            onChange={(value) => ask({ [f]: value || undefined })}
            options={[{ value: '', label: 'any' }, ...options[f]]}
          />
        ))}
        <Button mode="contained" onPress={() => setChoosing(false)}>
          Show them
        </Button>
      </Sheet>
    </>
  );
}
