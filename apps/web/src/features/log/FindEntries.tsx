import { useState } from 'react';
import { Linking } from 'react-native';
import { Button, Searchbar } from 'react-native-paper';
import { KeptEntry, LOGGED_KINDS, LogQuestion } from '@tidypath/core';
import { api } from '../../api/client';
import { useShelf } from '../../api/useShelf';
import { Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Sheet } from '../../ui/Sheet';

const KINDS: { value: KeptEntry['kind'] | ''; label: string }[] = [
  { value: '', label: 'any' },
  ...[...LOGGED_KINDS, 'simulated' as const].map((value) => ({ value, label: value })),
];
const PERIODS = [
  { value: '', label: 'ever', days: 0 },
  { value: 'week', label: 'the last week', days: 7 },
  { value: 'month', label: 'the last month', days: 30 },
  { value: 'year', label: 'the last year', days: 365 },
] as const;
type Period = (typeof PERIODS)[number]['value'];
const DAY = 24 * 3600_000;

interface Props {
  question: LogQuestion;
  onQuestion: (question: LogQuestion) => void;
}

/** What is looked for in the log, and taken elsewhere. */
export function FindEntries({ question, onQuestion }: Props) {
  const [choosing, setChoosing] = useState(false);
  const [period, setPeriod] = useState<Period>('');
  const { items: machines } = useShelf('machines');
  const ask = (more: LogQuestion) => onQuestion({ ...question, ...more });
  const since = (value: Period) => {
    setPeriod(value);
    const days = PERIODS.find((p) => p.value === value)!.days;
    ask({ since: days > 0 ? new Date(Date.now() - days * DAY).toISOString() : undefined });
  };
  const on = [question.kind, question.machine, question.since].filter(Boolean).length;
  return (
    <>
      <Searchbar
        icon="magnify"
        clearIcon="close"
        placeholder="Job, tool, material, remark, what was seen"
        accessibilityLabel="Search the log"
        value={question.text ?? ''}
        onChangeText={(text) => ask({ text })}
      />
      <Row>
        <Button mode="outlined" icon="filter-variant" onPress={() => setChoosing(true)}>
          {on > 0 ? `Filters: ${on}` : 'Filter'}
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.logFile('csv', question))}>
          CSV
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.logFile('json', question))}>
          JSON
        </Button>
      </Row>
      <Sheet title="Filter" open={choosing} onClose={() => setChoosing(false)}>
        <Choices
          label="Kind"
          value={question.kind ?? ''}
          options={KINDS}
          onChange={(kind) => ask({ kind: kind || undefined })}
        />
        <Choices
          label="Machine"
          value={question.machine ?? ''}
          options={[{ value: '', label: 'any' }, ...machines.map((m) => ({ value: m.id, label: m.name }))]}
          onChange={(machine) => ask({ machine: machine || undefined })}
        />
        <Choices label="Logged in" value={period} options={PERIODS} onChange={since} />
        <Button mode="contained" onPress={() => setChoosing(false)}>
          Show them
        </Button>
      </Sheet>
    </>
  );
}
