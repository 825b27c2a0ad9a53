import { useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton, ProgressBar } from 'react-native-paper';
import { Finding, Lines, Measure, formatNumber } from '@tidypath/core';
import type { ProofView } from '../../compute/messages';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { FindingList } from '../../ui/FindingList';
import { saveFile } from '../../ui/files';
import { Txt } from '../../ui/Txt';
import { useJob } from '../job/JobContext';
import { planningShare, planningWords } from '../job/planning';
import { SetupBar } from '../job/SetupBar';
import { StagePage } from '../job/StagePage';
import { JobView } from '../view/JobView';
import { CompareCard } from './CompareCard';
import { LevelCard } from './LevelCard';
import { LoadRibbon } from './LoadRibbon';
import { CalledTools, OtherProgram } from './OtherProgram';
import { PeaksCard } from './PeaksCard';
import { PlacesCard } from './PlacesCard';
import { ProbeCard } from './ProbeCard';
import { reportPage } from './report';
import { StepsCard } from './StepsCard';
import { TimeCard } from './TimeCard';
import { Transport } from './Transport';
import { usePlayer } from './usePlayer';
import { useProbe } from './useProbe';

const startOf = (proof: ProofView, motion: number) => (motion > 0 ? proof.ends[motion - 1] : 0);

/** A finding's moment in the program, by its motion or its line. */
function momentOf(proof: ProofView, f: Finding): number | undefined {
  if (f.place.motion !== undefined) return startOf(proof, f.place.motion);
  if (f.place.line === undefined) return undefined;
  const motion = proof.lines.findIndex((line) => line >= f.place.line!);
  return motion < 0 ? undefined : startOf(proof, motion);
}

const GRAVITY = { stop: 0, care: 1, note: 2 };
const gravestFirst = (findings: Finding[]) => [...findings].sort((a, b) => GRAVITY[a.level] - GRAVITY[b.level]);

function Verdict({ proof }: { proof: ProofView }) {
  const stops = proof.findings.filter((f) => f.level === 'stop').length;
  return (
    <Txt kind="large" bold tone={stops ? 'danger' : 'ink'} testID="verdict">
      {stops
        ? `▲ ${stops} ${stops === 1 ? 'thing stops' : 'things stop'} this program`
        : '✓ Nothing stops this program'}
    </Txt>
  );
}

interface ViewButtonsProps {
  against: boolean;
  onAgainst: (on: boolean) => void;
  onPicture: () => void;
}

/** What the picture shows, and keeping it. */
function ViewButtons({ against, onAgainst, onPicture }: ViewButtonsProps) {
  return (
    <>
      <Button
        compact
        mode={against ? 'contained-tonal' : 'text'}
        accessibilityLabel={`Against the part, ${against ? 'shown' : 'not shown'}`}
        onPress={() => onAgainst(!against)}
        testID="against"
      >
        against the part
      </Button>
      <IconButton
        icon="camera"
        size={18}
        style={{ margin: 0 }}
        accessibilityLabel="Save the picture"
        onPress={onPicture}
        testID="save-picture"
      />
    </>
  );
}

/** The posted text, read back and cut: stock coming off, load over time, everything that is wrong. */
export function ProveStage() {
  const { job, setup, computed } = useJob();
  const { proof, proofFresh, progress, plan, planFresh, cancelled, provedText } = computed;
  const player = usePlayer(proof);
  const probing = useProbe(proof);
  const [against, setAgainst] = useState(false);
  const cameraRef = useRef<(() => Promise<Uint8Array>) | null>(null);
  const [chosen, setChosen] = useState<Finding>();
  const [measure, setMeasure] = useState<Measure>('rate');
  const lines = useMemo(() => new Lines(provedText ?? ''), [provedText]);
  const { shown, time, total } = player;
  const moment = useMemo(() => {
    const tool = shown && job.tools.find((t) => t.number === shown.moment.tool);
    return shown && tool ? { at: shown.moment, tool, heights: shown.heights } : undefined;
  }, [shown, job.tools]);
  const marks = useMemo(() => {
    const at = chosen?.place.at;
    return at ? [{ x: at.x, y: at.y, z: at.z ?? 0 }] : [];
  }, [chosen]);

  const fileName = computed.other?.name ?? plan?.programs[0]?.fileName ?? 'program.nc';
  const report = async () => {
    const picture = await cameraRef.current?.();
    if (!proof || !plan || !picture) return;
    const page = reportPage({ job, setup, proof, program: fileName, zero: plan.zero, picture, date: new Date() });
    saveFile(`${fileName.replace(/\.\w+$/, '')}-proof.html`, page, 'text/html');
  };

  const go = (f: Finding) => {
    setChosen(f);
    const at = proof && momentOf(proof, f);
    if (at !== undefined) player.seek(at);
  };

  if (setup.operations.length === 0 && !computed.other) {
    return (
      <Empty title="Nothing to prove yet">
        <SetupBar />
        <Txt tone="quiet">Add operations on the Cut stage; the program is proved by itself.</Txt>
        <OtherProgram />
      </Empty>
    );
  }
  const waiting = !proofFresh && !cancelled && (plan?.programs.length !== 0 || !planFresh || !!computed.other);
  const flags = (proof?.findings ?? []).flatMap((finding) => {
    const at = momentOf(proof!, finding);
    return at === undefined ? [] : [{ time: at, finding }];
  });

  const ribbon = proof && (
    <View style={{ gap: SPACE.xs }}>
      <LoadRibbon
        samples={proof.samples}
        measure={measure}
        total={total}
        time={time}
        flags={flags}
        onSeek={player.seek}
        onFlag={go}
      />
      <Transport proof={proof} player={player} measure={measure} lines={lines} />
    </View>
  );

  return (
    <StagePage
      view={
        <JobView
          stock="cut"
          moment={moment}
          showPath={!shown && !against}
          marks={marks}
          against={against}
          pins={probing.pins}
          onTap={probing.tap}
          cameraRef={cameraRef}
          buttons={
            <ViewButtons
              against={against}
              onAgainst={setAgainst}
              onPicture={() =>
                void cameraRef.current?.().then((png) => saveFile(`${setup.name}.png`, png, 'image/png'))
              }
            />
          }
        />
      }
      under={ribbon}
    >
      <SetupBar />
      {waiting && (
        <Card>
          <Row>
            <Txt style={{ flex: 1 }} live>
              {progress === undefined
                ? planningWords(computed.planning)
                : `Proving, ${formatNumber(progress * 100, 0)} %`}
            </Txt>
            <Button compact onPress={computed.cancel}>
              Cancel
            </Button>
          </Row>
          <ProgressBar
            progress={progress ?? planningShare(computed.planning)}
            indeterminate={progress === undefined && !computed.planning}
            accessibilityLabel="Progress of the proof"
          />
        </Card>
      )}
      {cancelled && (
        <Card>
          <Txt>The proof was cancelled; what is shown is out of date.</Txt>
          <Button mode="contained" onPress={computed.run}>
            Prove again
          </Button>
        </Card>
      )}
      {planFresh && plan?.programs.length === 0 && !computed.other && (
        <FindingCard
          finding={{
            code: 'not-posted',
            level: 'stop',
            message: 'No program could be written',
            remedy: 'Cure what the Cut stage reports first',
            place: {},
          }}
        />
      )}
      {proof && plan && (
        <ProbeCard
          probing={probing}
          zero={plan.zero}
          lines={proof.lines}
          onMotion={(motion) => player.seek(proof.ends[motion])}
        />
      )}
      {proof && (
        <>
          <Verdict proof={proof} />
          <CalledTools called={proof.called} />
          <FindingList
            findings={gravestFirst(proof.findings)}
            goTo={(f) => (f.place.at || f.place.line ? () => go(f) : undefined)}
            goLabel="Show"
          />
          <TimeCard proof={proof} onReport={() => void report()} />
          {proof.allowed && plan && (
            <PlacesCard
              places={proof.places}
              zero={plan.zero}
              onPlace={(place) => {
                setAgainst(true);
                player.seek(total);
                probing.tap(place);
              }}
            />
          )}
          <PeaksCard
            measure={measure}
            onMeasure={setMeasure}
            peaks={proof.peaks[measure]}
            lines={proof.lines}
            onPeak={(peak) => player.seek(peak.time)}
          />
          <StepsCard
            steps={proof.steps}
            operations={setup.operations}
            onStep={(s) => player.seek(startOf(proof, s.motion))}
          />
          {proofFresh && <LevelCard proof={proof} measure={measure} fileName={fileName} />}
          {proofFresh && <CompareCard proof={proof} name={fileName} operations={setup.operations} measure={measure} />}
        </>
      )}
      <OtherProgram />
    </StagePage>
  );
}
