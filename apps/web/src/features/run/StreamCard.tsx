import { useMemo, useState } from 'react';
import { Linking } from 'react-native';
import { Button } from 'react-native-paper';
import Svg, { Line, Path } from 'react-native-svg';
import { Overlay, StreamFault, StreamRow, layOver, readStream } from '@tidypath/controller';
import { Operation, ProofView, formatNumber, formatTime } from '@tidypath/core';
import { api } from '../../api/client';
import { useJob } from '../../session/JobContext';
import { usePalette } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { pickText } from '../../ui/files';

const [WIDE, HIGH] = [320, 80];
/** Side of a mark. */
const MARK = 6;
const percent = (share: number) => `${formatNumber(100 * share, 0)} %`;

/** Both loads over the time of the program: what was said as a surface, what was measured as a line, differences marked below. */
function OverPicture({ over }: { over: Overlay }) {
  const palette = usePalette();
  const { total, predicted, measured, differences } = over;
  const told = measured.filter((m) => m > 0);
  const highest = Math.max(1, ...predicted, ...told);
  const wide = WIDE / predicted.length;
  const top = (share: number) => HIGH - MARK - ((HIGH - MARK) * share) / highest;
  const surface = predicted.map((v, k) => `L${k * wide} ${top(v)}L${(k + 1) * wide} ${top(v)}`).join('');
  const line = measured
    .map((v, k) => (Number.isNaN(v) ? '' : `${k > 0 && measured[k - 1] >= 0 ? 'L' : 'M'}${(k + 0.5) * wide} ${top(v)}`))
    .join('');
  const marks = differences.map(({ from, to }) => {
    const x = Math.min(WIDE - MARK, ((from + to) / 2 / total) * WIDE);
    return `M${x} ${HIGH}l${MARK / 2} ${-MARK}l${MARK / 2} ${MARK}Z`;
  });
  return (
    <Svg
      width="100%"
      height={HIGH}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      preserveAspectRatio="none"
      aria-label={`Load as measured over the load as computed: at most ${percent(Math.max(0, ...told))} for ${percent(Math.max(...predicted))}, ${differences.length} stretches differ`}
    >
      <Path d={`M0 ${top(0)}${surface}L${WIDE} ${top(0)}Z`} fill={palette.accentSoft} stroke={palette.accent} />
      <Line x1={0} x2={WIDE} y1={top(1)} y2={top(1)} stroke={palette.danger} strokeDasharray="4 3" />
      <Path d={line} fill="none" stroke={palette.ink} strokeWidth={1.5} />
      <Path d={marks.join('')} fill={palette.danger} />
    </Svg>
  );
}

/** Where both differ, in words: "line 120, Clear float pocket: 84 % for 52 % computed". */
function differenceTexts({ differences }: Overlay, proof: ProofView, operations: Operation[]): string[] {
  const nameAt = (motion: number) => {
    const step = proof.steps.filter((s) => s.motion >= 0 && s.motion <= motion).at(-1);
    return operations.find((o) => o.id === step?.operationId)?.name;
  };
  return differences.map(({ sample, predicted, measured }) => {
    const motion = proof.samples.motion[sample];
    const where = [`line ${proof.lines[motion]}`, nameAt(motion)].filter(Boolean).join(', ');
    return `${where}: ${percent(measured)} for ${percent(predicted)} computed`;
  });
}

/** What lies over the proof, in words. */
function overText({ seconds, computed, elsewhere }: Overlay): string {
  if (seconds === 0) return '▲ Nothing of it lies on the path of this program: another program, zero or offset';
  const beside = elsewhere > 1 ? `; ▲ ${formatNumber(elsewhere, 0)} s under load beside the path` : '';
  return `${formatTime(seconds / 60)} measured along the path, ${formatTime(computed / 60)} of it computed${beside}`;
}

/** What was measured while it ran, of this machine or of a real one, laid over the load that was computed. */
export function StreamCard({ run }: { run: string }) {
  const { computed, setup } = useJob();
  const { proof, plan } = computed;
  const [recording, setRecording] = useState<{ name: string; rows: StreamRow[] }>();
  const [failed, setFailed] = useState('');
  const zero = plan?.zero;
  const over = useMemo(
    () => (recording && proof && zero ? layOver(recording.rows, proof.samples, zero) : undefined),
    [recording, proof, zero],
  );
  const read = (name: string, text: string) => {
    setFailed('');
    try {
      setRecording({ name, rows: readStream(text) });
    } catch (fault) {
      if (!(fault instanceof StreamFault)) throw fault;
      setFailed(`${name}: ${fault.message}`);
    }
  };
  const open = async () => {
    const file = await pickText('.csv,text/csv');
    if (file) read(file.name, file.text);
  };
  const ofRun = () =>
    api.stream(run).then(
      (text) => read('This run', text),
      (error: Error) => setFailed(error.message),
    );
  return (
    <Card testID="stream">
      <Txt heading bold>
        Measured over computed
      </Txt>
      <Row>
        <Button mode="outlined" disabled={!proof} onPress={() => void ofRun()}>
          Lay this run over
        </Button>
        <Button compact disabled={!proof} onPress={() => void open()} testID="open-recording">
          A recording
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.streamOf(run))}>
          CSV
        </Button>
      </Row>
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
      {over && proof && (
        <>
          <OverPicture over={over} />
          <Txt kind="small" tone="quiet">
            Surface: computed; line: measured; dashed: all the spindle gives.
          </Txt>
          <Txt live testID="over-text">
            {recording!.name}: {overText(over)}.
          </Txt>
          {differenceTexts(over, proof, setup.operations).map((text, i) => (
            <Txt key={i} kind="small" tone="care">
              ◆ {text}
            </Txt>
          ))}
          {over.seconds > 0 && over.differences.length === 0 && <Txt>✓ Nowhere more than a little off.</Txt>}
        </>
      )}
    </Card>
  );
}
