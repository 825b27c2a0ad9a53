import { Button } from 'react-native-paper';
import {
  formatLength,
  levelAcceleration,
  formatNumber,
  formatTime,
  formatVolume,
  Job,
  ProofView,
  wholeTime,
} from '@tidypath/core';
import { engine } from '../../compute/engine';
import { Card, Row } from '../../ui/Card';
import { saveFile } from '../../ui/files';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { gridText } from './measures';
import { TimeParts } from './TimeParts';

interface Props {
  proof: ProofView;
  onReport: () => void;
}

/** Said by hand it is no longer what the log says. */
const withExtraTime = (job: Job, extraTime: number): Job => ({
  ...job,
  machine: { ...job.machine, extraTime, extraTimeNote: undefined },
});

/** How long it takes and on what, what it removed, how finely that was computed, and keeping it. */
export function TimeCard({ proof, onReport }: Props) {
  const { job, setup, edit } = useJob();
  return (
    <Card>
      <Txt heading>Time {formatTime(wholeTime(proof.clock))}</Txt>
      <TimeParts
        parts={[
          { label: 'Cutting', minutes: proof.clock.cut },
          { label: 'Rapids', minutes: proof.clock.rapid },
          { label: 'Tool changes', minutes: proof.clock.toolChange },
          { label: 'Dwells', minutes: proof.clock.dwell },
          { label: 'By hand', minutes: proof.clock.hand ?? 0 },
        ]}
      />
      <Txt kind="small" testID="removed">
        {formatVolume(proof.removed * 1000, job.unit)} removed. Acceleration{' '}
        {formatLength(levelAcceleration(job.machine.axes), job.unit)}
        /s². Heights on a grid of {gridText(proof.grid, job.unit)}: {formatNumber(proof.grid.cells / 1e6, 2)} million
        cells, {formatNumber(proof.grid.memory / 1e6, 0)} MB.
      </Txt>
      <NumberField
        label="This machine’s moves take longer by"
        suffix="%"
        value={Math.round((job.machine.extraTime ?? 0) * 100)}
        min={-50}
        max={200}
        onChange={(v) => edit((j) => withExtraTime(j, v / 100), 'extra-time')}
        testID="extra-time"
      />
      {job.machine.extraTimeNote && (
        <Txt kind="small" tone="quiet">
          That and its tool change are {job.machine.extraTimeNote}.
        </Txt>
      )}
      <Row>
        <Button
          compact
          mode="outlined"
          onPress={() => void engine.stl().then((file) => saveFile(`${setup.name}.stl`, file, 'model/stl'))}
          testID="save-stl"
        >
          Save the stock as STL
        </Button>
        <Button compact mode="outlined" onPress={onReport} testID="save-report">
          Save a report
        </Button>
      </Row>
    </Card>
  );
}
