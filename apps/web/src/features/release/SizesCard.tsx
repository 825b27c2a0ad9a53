import { useState } from 'react';
import { Linking, View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  ENOUGH_VALUES,
  Job,
  KeptCorrection,
  KeptEntry,
  KeptSize,
  LengthUnit,
  OffsetAdvice,
  ReleaseView,
  Setup,
  SizeToMeasure,
  adviseOffset,
  chartOf,
  correctionOf,
  formatThin,
  limitsText,
  makerOf,
  sizeVerdict,
  sizedParts,
  sizesProgram,
  sizesToMeasure,
  standing,
} from '@tidypath/core';
import { api } from '../../api/client';
import { freshKey } from '../../api/fresh';
import { useWaiting } from '../../api/useWaiting';
import { Write, bring } from '../../api/writes';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { LengthField } from '../../ui/LengthField';
import { saveFile } from '../../ui/files';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { PointsFigure } from '../../ui/log/PointsFigure';
import { releaseName } from './words';

const WAITS = { who: 'waits here to be sent', at: '' };

/** Sizes and corrections of a release that stand, as the server has them, and those that wait here. */
function useSizes({ id, sizes, corrections }: ReleaseView): { sizes: KeptSize[]; corrections: KeptCorrection[] } {
  const writes = useWaiting().map(({ write }) => write);
  const sized = writes.flatMap((w) => (w.what === 'size' && w.id === id ? [{ ...w.entry, ...WAITS }] : []));
  const corrected = writes.flatMap((w) => (w.what === 'correction' && w.id === id ? [{ ...w.entry, ...WAITS }] : []));
  return { sizes: standing([...sizes, ...sized]), corrections: [...corrections, ...corrected] };
}

/** A size part after part, against what is wanted and what the process does. */
function SizeChart({ size, sizes, unit }: { size: SizeToMeasure; sizes: KeptSize[]; unit: LengthUnit }) {
  const { mm, limits, feature, size: of } = size;
  // Of one that was measured twice the second look counts.
  const last = sizes.filter((s, i) => !sizes.slice(i + 1).some((t) => t.part === s.part));
  const values = last.map((s) => s.measured);
  const chart = values.length >= ENOUGH_VALUES ? chartOf(values) : undefined;
  const text = (v: number) => formatThin(v, unit, 4);
  const signals = chart?.signals ?? [];
  const told = signals.map(({ at, why }) => `part ${last[at].part}: ${why}`).join('; ');
  return (
    <>
      <PointsFigure
        title={`${feature}, ${of}, part after part`}
        summary={`${values.length} parts from ${text(Math.min(...values))} to ${text(Math.max(...values))}, limits ${text(mm + limits.lower)} and ${text(mm + limits.upper)}. ${told}`}
        values={values}
        text={text}
        along={`part ${last[0].part} to ${last[last.length - 1].part}`}
        marked={signals.map((s) => s.at)}
        levels={[
          { value: mm + limits.upper, name: 'limits of the drawing', look: 'limit' },
          { value: mm + limits.lower, name: 'limits of the drawing', look: 'limit' },
          ...(chart
            ? ([
                { value: chart.upper, name: 'limits of the process', look: 'process' },
                { value: chart.lower, name: 'limits of the process', look: 'process' },
              ] as const)
            : []),
        ]}
      />
      {told !== '' && <Txt tone="care">◆ No chance: {told}</Txt>}
    </>
  );
}

interface AdviceProps {
  job: Job;
  setup: Setup;
  size: SizeToMeasure;
  advice: OffsetAdvice;
  onCorrect: (by: number) => void;
}

/** What to do about a size, and why. */
function Advice({ job, setup, size, advice, onCorrect }: AdviceProps) {
  if (advice.do === 'leave')
    return (
      <Txt kind="small" tone="quiet" testID="offset-advice">
        Leave the offset: {advice.why}.
      </Txt>
    );
  if (advice.do === 'measure again')
    return (
      <Txt tone="care" testID="offset-advice">
        ◆ Measure the same part again: {advice.why}.
      </Txt>
    );
  const { text, isEntered } = correctionOf(job, setup, size, advice.by);
  return (
    <Row>
      <View style={{ flex: 1, minWidth: 220 }}>
        <Txt tone="care" testID="offset-advice">
          ◆ {text}. Because {advice.why}.
        </Txt>
      </View>
      {isEntered && (
        <Button compact mode="outlined" onPress={() => onCorrect(advice.by)}>
          It is entered
        </Button>
      )}
    </Row>
  );
}

interface SizeProps extends Omit<AdviceProps, 'advice'> {
  part: number;
  /** Those that stand, as they were measured. */
  sizes: KeptSize[];
  /** When its tool came with a new edge or was corrected. */
  fresh: string[];
  onMeasured: (mm: number, replaces?: string) => void;
}

/** One size: typed as it was measured, kept when that is said. */
function Size({ job, setup, size, part, sizes, fresh, onMeasured, onCorrect }: SizeProps) {
  const { unit } = job;
  const { mm, limits } = size;
  const last = sizes[sizes.length - 1];
  const [typed, setTyped] = useState(last?.measured ?? mm);
  const [isWrong, setWrong] = useState(false);
  const verdict = last && sizeVerdict(size, last.measured, unit);
  const chart = sizes.length >= ENOUGH_VALUES ? chartOf(sizes.map((s) => s.measured)) : undefined;
  const advice = adviseOffset(sizedParts(size, sizes, fresh), {
    half: (limits.upper - limits.lower) / 2,
    deviation: chart?.deviation,
  });
  const keep = () => {
    onMeasured(typed, isWrong ? last.id : undefined);
    setWrong(false);
  };
  const again = sizes.some((s) => s.part === part);
  return (
    <View style={{ gap: SPACE.xs }}>
      <Row>
        <LengthField
          label={`${size.feature}, ${size.size} ${limitsText(limits, unit)}`}
          value={typed}
          unit={unit}
          onChange={setTyped}
        />
        <Button compact mode="outlined" onPress={keep}>
          {isWrong ? 'Put it right' : again ? 'Measured again' : 'Measured'}
        </Button>
        {last && !isWrong && (
          <Button compact onPress={() => setWrong(true)}>
            Mistyped
          </Button>
        )}
      </Row>
      <Txt tone={verdict && !verdict.ok ? 'danger' : 'quiet'} live>
        {verdict ? `${verdict.ok ? '✓' : '▲'} Part ${last.part}: ${verdict.words}` : 'not measured yet'}
      </Txt>
      {last && <Advice job={job} setup={setup} size={size} advice={advice} onCorrect={onCorrect} />}
      {sizes.length > 1 && (
        <Fold label="Part after part">{() => <SizeChart size={size} sizes={sizes} unit={unit} />}</Fold>
      )}
    </View>
  );
}

/** Room for the number of a part. */
const PART_FIELD = 200;

/** The part that is measured: the last one, until all of it is. */
function partAtHand(wanted: SizeToMeasure[], sizes: KeptSize[]): number {
  const last = Math.max(1, ...sizes.map((s) => s.part));
  const isDone = wanted.every((w) => sizes.some((s) => s.size === w.id && s.part === last));
  return isDone ? last + 1 : last;
}

interface Props {
  view: ReleaseView;
  /** What was logged of it, that stands. */
  entries: KeptEntry[];
  onMeasured: () => void;
}

/** Sizes as they are measured, part after part, against their limits; what to enter at the control, and why not yet. */
export function SizesCard({ view, entries, onMeasured }: Props) {
  const { job, setupId } = view.body;
  const setup = job.setups.find((s) => s.id === setupId)!;
  const wanted = sizesToMeasure(job, setup);
  const program = sizesProgram(job, setup);
  const { sizes, corrections } = useSizes(view);
  const [chosen, setChosen] = useState<number>();
  const [failed, setFailed] = useState('');
  if (wanted.length === 0) return null;
  const part = chosen ?? partAtHand(wanted, sizes);
  const write = (one: Write) => {
    setFailed('');
    bring(one)
      .catch((error: Error) => setFailed(error.message))
      .finally(onMeasured);
  };
  const of = { id: view.id, name: `${view.jobName}, ${releaseName(view)}` };
  const freshOf = (size: SizeToMeasure) => {
    const made = makerOf(job, setup, size);
    const toolOf = (operation: string) => setup.operations.find((o) => o.id === operation)?.toolId;
    const edges = entries.filter((e) => e.seen?.some((s) => s.edge && toolOf(s.operation) === made?.tool.id));
    return [...corrections.filter((c) => c.size === size.id), ...edges].map((c) => c.at);
  };
  return (
    <Card testID="sizes">
      <Row>
        <Txt heading bold style={{ flex: 1 }}>
          Sizes
        </Txt>
        <View style={{ width: PART_FIELD }}>
          <NumberField label="Part" value={part} onChange={setChosen} min={1} max={1e6} step={1} whole />
        </View>
      </Row>
      {wanted.map((size) => (
        <Size
          key={size.id}
          {...{ job, setup, size, part }}
          sizes={sizes.filter((s) => s.size === size.id)}
          fresh={freshOf(size)}
          onMeasured={(measured, replaces) =>
            write({
              what: 'size',
              ...of,
              entry: { id: freshKey(), size: size.id, measured, part, ...(replaces && { replaces }) },
            })
          }
          onCorrect={(by) => write({ what: 'correction', ...of, entry: { id: freshKey(), size: size.id, by } })}
        />
      ))}
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
      <Row>
        <Button compact onPress={() => void Linking.openURL(api.paperOf(view.id, 'first-piece.html'))}>
          First-piece report
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.paperOf(view.id, 'first-piece-A4.pdf'))}>
          PDF, A4
        </Button>
        {program && (
          <Button compact onPress={() => saveFile(program.fileName, program.text, 'text/plain')}>
            Measuring program
          </Button>
        )}
      </Row>
    </Card>
  );
}
