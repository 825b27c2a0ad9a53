import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { Button, ProgressBar } from 'react-native-paper';
import {
  COMPARED_AT,
  Candidate,
  ComparedAt,
  Comparison,
  Job,
  MOST_CANDIDATES,
  Setup,
  canCompare,
  comparedIn,
  countedIn,
  leftOutBy,
  newComparison,
  takenAt,
  tidyRack,
  verdictText,
  withOffered,
} from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { useJob } from '../../session/JobContext';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Empty } from '../../ui/Empty';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';
import { Tick } from '../../ui/Tick';
import { AddWaySheet } from './AddWaySheet';
import { BatchCosts } from './BatchCosts';
import { Ribbons } from './Ribbons';
import { WayCard } from './WayCard';
import { WayTable } from './WayTable';
import { useCompared } from './useCompared';

/** Whether a comparison is of an operation, or of the whole route of a setup. */
const isOf = (id: string) => (c: Comparison) => (c.route ? c.setup === id : c.operations.includes(id));

const withComparison = (job: Job, comparison: Comparison): Job => {
  const others = (job.comparisons ?? []).filter((c) => c.id !== comparison.id);
  return { ...job, comparisons: [...others, comparison] };
};

/** Which other operations that clear the candidates stand in for as well. */
function Together({
  setup,
  of,
  comparison,
  onChange,
}: {
  setup: Setup;
  of: string;
  comparison: Comparison;
  onChange: (operations: string[]) => void;
}) {
  const others = setup.operations.filter((o) => o.id !== of && canCompare(o));
  if (others.length === 0) return null;
  const { operations } = comparison;
  const label = operations.length > 1 ? `Together with ${operations.length - 1} more` : 'Together with others';
  const turn = (id: string) =>
    onChange(operations.includes(id) ? operations.filter((o) => o !== id) : [...operations, id]);
  return (
    <Fold label={label} testID="together">
      {() =>
        others.map((o) => <Tick key={o.id} label={o.name} on={operations.includes(o.id)} onPress={() => turn(o.id)} />)
      }
    </Fold>
  );
}

/** On what terms ways are counted: whether somebody watches, and whether their walls stay as they are cut. */
function Terms({ comparison, onChange }: { comparison: Comparison; onChange: (next: Comparison) => void }) {
  const { unattended, smoothedLater } = comparison;
  return (
    <Row>
      <Tick
        label="Nobody watches it"
        on={!!unattended}
        onPress={() => onChange({ ...comparison, unattended: unattended ? undefined : true })}
      />
      <Tick
        label="Goes to the tumbler: coarser walls are allowed"
        on={!!smoothedLater}
        onPress={() => onChange({ ...comparison, smoothedLater: smoothedLater ? undefined : true })}
      />
    </Row>
  );
}

/** Ways to do one operation held against each other: which is best, how sure that is, and what each takes. */
export function ComparePage() {
  const { of = '' } = useLocalSearchParams<{ of: string }>();
  const { job, edit } = useJob();
  const { items: rack, loading } = useShelf('tools');
  const router = useRouter();
  const wide = useWide();
  const [at, setAt] = useState<ComparedAt>('each at its best');
  const [adding, setAdding] = useState(false);
  const setup = job.setups.find((s) => s.id === of || s.operations.some((o) => o.id === of));
  const comparison = job.comparisons?.find(isOf(of));
  const { compared: last, planning, failed, isLeft, leave, again } = useCompared(job, setup && comparison, at);
  useEffect(() => {
    // A whole route is held against one that was proposed.
    if (!setup || setup.id === of || comparison || loading) return;
    // Not within this turn: the page stands first.
    const later = setTimeout(
      () =>
        edit((j) =>
          j.comparisons?.some(isOf(of)) ? j : withComparison(j, withOffered(j, newComparison(j, setup, [of]), rack)),
        ),
      0,
    );
    return () => clearTimeout(later);
  }, [setup, comparison, loading, edit, of, rack]);

  if (!setup)
    return (
      <Empty title="This operation is gone">
        <Txt tone="quiet">Somebody took it out of the route.</Txt>
      </Empty>
    );
  if (!comparison && setup.id === of)
    return (
      <Empty title="Nothing to hold it against">
        <Txt tone="quiet">Ask for a route in Cut, and hold it against today’s from there.</Txt>
      </Empty>
    );
  if (!comparison)
    return (
      <Empty title="A moment">
        <Txt tone="quiet">Ways to do it are looked for …</Txt>
      </Empty>
    );
  const standIns = comparedIn(job, comparison);
  const { candidates, route } = comparison;
  const name = (id: string) => candidates.find((c) => c.id === id)?.name ?? id;
  // Figures at other speeds are not these.
  const compared = last?.at === at ? last : undefined;
  const outcomes = compared?.outcomes ?? [];
  const rate = job.machine.hourlyRate;
  const priced = countedIn(outcomes, comparison);
  const { batch = 1 } = job;
  const leftOut = new Map(outcomes.map((o) => [o.id, leftOutBy(o, comparison)]));
  // Other operations want other candidates.
  const together = (operations: string[]) =>
    edit((j) => withComparison(j, withOffered(j, { ...newComparison(j, setup, operations), id: comparison.id }, rack)));
  const change = (next: Candidate[]) => edit((j) => withComparison(j, { ...comparison, candidates: next }));
  const take = (candidate: Candidate) => {
    edit((j) => {
      const taken = takenAt(j, comparison, candidate, at);
      const others = (taken.job.comparisons ?? []).filter((c) => c.id !== comparison.id);
      return tidyRack({ ...taken.job, comparisons: others });
    });
    router.back();
  };
  const remove = ({ id }: Candidate) => change(candidates.filter((c) => c.id !== id));
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <ScrollView contentContainerStyle={{ padding: SPACE.l, gap: SPACE.m }}>
        <Txt heading kind="large">
          {route ? `Routes for “${setup.name}”` : `Ways to do ${standIns.map((o) => `“${o.name}”`).join(' and ')}`}
        </Txt>
        {!route && <Together setup={setup} of={of} comparison={comparison} onChange={together} />}
        <Terms comparison={comparison} onChange={(next) => edit((j) => withComparison(j, next))} />
        <Choices
          label="Speeds"
          value={at}
          options={plainOptions(COMPARED_AT.filter((a) => !(route && a === 'the same for all')))}
          onChange={setAt}
        />
        {planning && (
          <>
            <Txt live>Planning and proving {planning} …</Txt>
            <ProgressBar indeterminate />
            <Button compact onPress={leave} style={{ alignSelf: 'flex-start' }}>
              Leave it
            </Button>
          </>
        )}
        {isLeft && (
          <Button mode="outlined" onPress={again} style={{ alignSelf: 'flex-start' }}>
            Compare them
          </Button>
        )}
        {!!failed && <Txt tone="danger">▲ They could not be compared: {failed}</Txt>}
        {compared?.verdict && (
          <Card testID="verdict">
            {verdictText(compared.verdict, priced, rate, name, batch).map((line, i) => (
              <Txt key={line} bold={i === 0}>
                {line}
              </Txt>
            ))}
            {compared.missing.length > 0 && (
              <Txt kind="small" tone="quiet">
                Not counted, as it is not known: {compared.missing.join(', ')}.
              </Txt>
            )}
          </Card>
        )}
        {wide ? (
          <WayTable {...{ job, candidates, outcomes, leftOut }} onTake={take} onRemove={remove} />
        ) : (
          candidates.map((c) => (
            <WayCard
              key={c.id}
              job={job}
              name={c.name}
              outcome={outcomes.find((o) => o.id === c.id)}
              leftOut={leftOut.get(c.id)}
              isPresent={!c.operations}
              onTake={() => take(c)}
              onRemove={() => remove(c)}
            />
          ))
        )}
        <BatchCosts {...{ job, priced, name }} />
        {outcomes.length > 0 && <Ribbons outcomes={outcomes} name={name} />}
        <Txt kind="small" tone="quiet">
          Each way is planned, posted and proved as any program is. Times, lives of edges and forces are estimates: a
          draw is called where they decide.
        </Txt>
      </ScrollView>
      <View style={{ padding: SPACE.m }}>
        <Row>
          <Button mode="outlined" style={{ flex: 1 }} onPress={() => router.back()}>
            Back
          </Button>
          {!route && (
            <Button
              mode="contained"
              style={{ flex: 1 }}
              onPress={() => setAdding(true)}
              disabled={candidates.length >= MOST_CANDIDATES}
            >
              Another way
            </Button>
          )}
        </Row>
      </View>
      {adding && (
        <AddWaySheet
          job={job}
          comparison={comparison}
          onAdd={(c) => (change([...candidates, c]), setAdding(false))}
          onClose={() => setAdding(false)}
        />
      )}
    </View>
  );
}
