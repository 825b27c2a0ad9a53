import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { LengthUnit, MEASURES, Measure, Operation, ProofView, runsCompared } from '@tidypath/core';
import { useJob } from '../../session/JobContext';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { MEASURE_INFO, highestOf } from './measures';
import { RibbonPair } from './RibbonPair';
import { LoadStretch, programOf, stepStretches } from './stretches';

interface Props {
  proof: ProofView;
  /** What the program is called. */
  name: string;
  operations: Operation[];
  measure: Measure;
  unit: LengthUnit;
}

/** Programs put aside to hold others against, the newest first; they stay while the page is open. */
let kept: LoadStretch[] = [];
let count = 0;
const MOST_KEPT = 4;

/** Two operations or programs, one above the other on the same scale. */
export function CompareCard({ proof, name, operations, measure, unit }: Props) {
  const { id = '' } = useLocalSearchParams<{ id: string }>();
  const { job, setup } = useJob();
  const [asides, setAsides] = useState(kept);
  const [chosen, setChosen] = useState<[string?, string?]>([]);
  const all = useMemo(
    () => [programOf('The whole program', proof, id, job, setup), ...asides, ...stepStretches(proof, operations)],
    [proof, asides, operations, id, job, setup],
  );
  const options = all.map((s, i) => ({ value: String(i), label: s.name }));
  const [one = '0', other = asides.length > 0 ? '1' : undefined] = chosen;
  const pair = [one, other].map((c) => (c === undefined ? undefined : all[Number(c)]));
  const keep = () => {
    const aside = programOf(`${name}, aside ${++count}`, proof, id, job, setup);
    kept = [aside, ...kept].slice(0, MOST_KEPT);
    setAsides(kept);
    setChosen(['0', '1']);
  };
  return (
    <Card testID="compare">
      <Txt heading>Compare</Txt>
      <Choices label="This" value={one} options={options} onChange={(v) => setChosen([v, other])} fold />
      <Choices label="With" value={other} options={options} onChange={(v) => setChosen([one, v])} fold />
      {pair[0] && pair[1] && <Pair pair={[pair[0], pair[1]]} measure={measure} unit={unit} />}
      <Button mode="outlined" onPress={keep} style={{ alignSelf: 'flex-start' }} testID="put-aside">
        Put this program aside
      </Button>
      <Txt kind="small" tone="quiet">
        Then change the job, or open another program, and hold both against each other here.
      </Txt>
    </Card>
  );
}

function Pair({ pair, measure, unit }: { pair: [LoadStretch, LoadStretch] } & Pick<Props, 'measure' | 'unit'>) {
  const { job } = useJob();
  const [one, other] = pair;
  // Only programs of one setup do the same work.
  const verdict =
    one.run && other.run && one !== other && one.run.of === other.run.of ? runsCompared(job, [one.run, other.run]) : [];
  return (
    <View style={{ gap: SPACE.s }} testID="compared">
      {verdict.map((line, i) => (
        <Txt key={line} bold={i === 0}>
          {line}
        </Txt>
      ))}
      <RibbonPair pair={pair} measure={measure} unit={unit} />
      {MEASURES.map((m) => (
        <Txt key={m} kind="small">
          {MEASURE_INFO[m].label} at most{' '}
          {pair.map((s) => MEASURE_INFO[m].text(highestOf(m, s.samples), unit)).join(' and ')}
        </Txt>
      ))}
    </View>
  );
}
