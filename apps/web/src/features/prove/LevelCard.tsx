import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  LEVEL_DEFAULTS,
  LengthUnit,
  Measure,
  formatNumber,
  formatTime,
  hasStop,
  LevelledView,
  LoadView,
  ProofView,
} from '@tidypath/core';
import { engine } from '../../compute/engine';
import { useReleases } from '../../session/useReleases';
import { SPACE } from '../../theme/theme';
import { Card, Fields } from '../../ui/Card';
import { FindingCard } from '../../ui/FindingCard';
import { saveFile } from '../../ui/files';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { RibbonPair } from './RibbonPair';
import { MEASURE_INFO, highestOf } from './measures';
import { wholeOf } from './stretches';

interface Props {
  proof: ProofView;
  measure: Measure;
  unit: LengthUnit;
  fileName: string;
}

const MEASURED: Measure[] = ['chip', 'load', 'force'];

/** Feeds rewritten so that the chip stays as thick, shown before and after, saved as another program. */
export function LevelCard({ proof, measure, unit, fileName }: Props) {
  const [ask, setAsk] = useState(LEVEL_DEFAULTS);
  const [made, setMade] = useState<{ of: ProofView; after: LevelledView }>();
  const after = made?.of === proof ? made.after : undefined;
  const [busy, setBusy] = useState(false);
  const level = () => {
    setBusy(true);
    engine
      .level(ask)
      .then((levelled) => setMade({ of: proof, after: levelled }))
      .catch(() => setMade(undefined))
      .finally(() => setBusy(false));
  };
  const change = (more: Partial<typeof ask>) => {
    setAsk({ ...ask, ...more });
    setMade(undefined);
  };
  return (
    <Card testID="level">
      <Txt heading>Level the feed</Txt>
      <Txt>
        Faster where the cut is light, slower where it is heavy, so that the chip stays as thick as it usually is. Only
        feeds change, and the program above stays as it is.
      </Txt>
      <Fields>
        <NumberField
          label="Chip"
          suffix="%"
          value={Math.round(ask.chip * 100)}
          min={30}
          max={200}
          onChange={(v) => change({ chip: v / 100 })}
        />
        <NumberField
          label="Spindle, most"
          suffix="%"
          value={Math.round(ask.power * 100)}
          min={10}
          max={100}
          onChange={(v) => change({ power: v / 100 })}
        />
      </Fields>
      <Button mode="outlined" onPress={level} loading={busy} disabled={busy} testID="level-try">
        {after ? 'Level again' : 'Show what it would do'}
      </Button>
      {after && <Outcome before={proof} after={after} measure={measure} unit={unit} fileName={fileName} />}
    </Card>
  );
}

function Outcome({
  before,
  after,
  measure,
  unit,
  fileName,
}: { before: LoadView; after: LevelledView } & Omit<Props, 'proof'>) {
  const { id = '' } = useLocalSearchParams<{ id: string }>();
  const { needsApproval } = useReleases(id);
  const change = (after.clock.total / before.clock.total - 1) * 100;
  return (
    <View style={{ gap: SPACE.s }} testID="level-outcome">
      <Txt bold>
        {formatTime(before.clock.total)} becomes {formatTime(after.clock.total)} ({change > 0 ? '+' : '−'}
        {formatNumber(Math.abs(change), 1)} %), {after.changed} feeds changed
      </Txt>
      {MEASURED.map((m) => (
        <Txt key={m} kind="small">
          {MEASURE_INFO[m].label} at most {MEASURE_INFO[m].text(highestOf(m, before.samples), unit)}, then{' '}
          {MEASURE_INFO[m].text(highestOf(m, after.samples), unit)}
        </Txt>
      ))}
      <RibbonPair pair={[wholeOf('As it is', before), wholeOf('Levelled', after)]} measure={measure} unit={unit} />
      {after.findings.map((f, i) => (
        <FindingCard key={i} finding={f} />
      ))}
      {needsApproval ? (
        <Txt kind="small" tone="quiet">
          Programs of this job are handed out by release alone; set the feeds in its operations.
        </Txt>
      ) : (
        <Button
          mode="contained"
          style={{ alignSelf: 'flex-start' }}
          disabled={hasStop(after.findings) || after.changed === 0}
          onPress={() => saveFile(fileName.replace(/(\.\w+)?$/, '-level$1'), after.text, 'text/plain')}
          testID="level-save"
        >
          Save as another program
        </Button>
      )}
    </View>
  );
}
