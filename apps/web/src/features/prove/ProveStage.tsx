import { useCallback, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton, ProgressBar } from 'react-native-paper';
import { Finding, Lines, Measure, WrongPlace, formatNumber, finding, ProofView } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Empty } from '../../ui/Empty';
import { FindingCard, FindingLine } from '../../ui/FindingCard';
import { saveFile } from '../../ui/files';
import { Txt } from '../../ui/Txt';
import { useJob, usePace } from '../../session/JobContext';
import { planningShare, planningWords } from '../../session/planning';
import { SetupBar } from '../../session/SetupBar';
import { StagePage } from '../../session/StagePage';
import { JobView } from '../../scene/JobView';
import { EditedCard } from './EditedCard';
import { LoadRibbon } from './LoadRibbon';
import { OtherProgram } from './OtherProgram';
import { ProbeCard } from './ProbeCard';
import { ProofCards } from './ProofCards';
import { flagsOf, momentOf, operationAt } from './moments';
import { reportPage } from './report';
import { Transport } from './Transport';
import { usePlayer } from '../../session/usePlayer';
import { useProbe } from './useProbe';

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

/** How far the proof is, and a way to stop it. */
function Waiting() {
  const { computed } = useJob();
  const { progress, planning, waiting } = usePace();
  return (
    <Card>
      <Row>
        <Txt style={{ flex: 1 }} live>
          {waiting
            ? `Waiting for the server, ${waiting} before this`
            : progress === undefined
              ? planningWords(planning)
              : `Proving, ${formatNumber(progress * 100, 0)} %`}
        </Txt>
        <Button compact onPress={computed.cancel} testID="cancel-proof">
          Cancel
        </Button>
      </Row>
      <ProgressBar
        progress={progress ?? planningShare(planning)}
        indeterminate={progress === undefined && !planning}
        accessibilityLabel="Progress of the proof"
      />
    </Card>
  );
}

const MADE_BY = {
  server: 'Planned and proved by the server; in Shop that can be left to this device.',
  page: 'Planned and proved on another device, taken over as it is. Playing, probing and releasing make it anew here.',
};

/** Says that somebody else made what is shown. */
function MadeBy() {
  const { maker } = useJob().computed;
  return maker ? (
    <Txt kind="small" tone="quiet" testID="made-by">
      {MADE_BY[maker]}
    </Txt>
  ) : null;
}

/** Says that what is shown from before is cut once more, while it is. */
function CuttingAgain() {
  const { again } = usePace();
  if (again === undefined) return null;
  return (
    <Txt live kind="small">
      Proved before; cut again so that it can be played and probed, {formatNumber(again * 100, 0)} %
    </Txt>
  );
}

/** The posted text, read back and cut: stock coming off, load over time, everything that is wrong. */
export function ProveStage() {
  const { job, setup, computed } = useJob();
  const { proof, proofFresh, plan, planFresh, cancelled, provedText } = computed;
  const player = usePlayer(proof);
  const probing = useProbe(proof);
  const [against, setAgainst] = useState(false);
  const cameraRef = useRef<(() => Promise<Uint8Array | undefined>) | null>(null);
  /** The finding shown last, of which proof, and when it is. */
  const [picked, setPicked] = useState<{ of: ProofView; finding: Finding; time?: number }>();
  const chosen = picked?.of === proof ? picked : undefined;
  const [measure, setMeasure] = useState<Measure>('rate');
  const lines = useMemo(() => new Lines(provedText ?? ''), [provedText]);
  const { shown, time, total } = player;
  const moment = useMemo(() => {
    const tool = shown && job.tools.find((t) => t.number === shown.moment.tool);
    return shown && tool ? { at: shown.moment, tool, heights: shown.heights } : undefined;
  }, [shown, job.tools]);
  const marks = useMemo(() => {
    const at = chosen?.finding.place.at;
    return at ? [{ x: at.x, y: at.y, z: at.z ?? 0 }] : [];
  }, [chosen]);

  const fileName = computed.other?.name ?? plan?.programs[0]?.fileName ?? 'program.nc';
  const report = useCallback(async () => {
    const picture = await cameraRef.current?.();
    if (!proof || !plan) return;
    const page = reportPage({ job, setup, proof, program: fileName, zero: plan.zero, picture, date: new Date() });
    saveFile(`${fileName.replace(/\.\w+$/, '')}-proof.html`, page, 'text/html');
  }, [job, setup, proof, plan, fileName]);
  const savePicture = () =>
    void cameraRef.current?.().then((png) => png && saveFile(`${setup.name}.png`, png, 'image/png'));

  const { seek } = player;
  const [look, setLook] = useState(0);
  /** Shows a moment somebody asked for further down. */
  const show = useCallback(
    (t: number) => {
      setLook((n) => n + 1);
      seek(t);
    },
    [seek],
  );
  const go = useCallback(
    (finding: Finding) => {
      if (!proof) return;
      const at = momentOf(proof, finding);
      setPicked({ of: proof, finding, time: at });
      if (at !== undefined) show(at);
    },
    [proof, show],
  );
  const { tap } = probing;
  const showPlace = useCallback(
    (place: WrongPlace) => {
      setAgainst(true);
      show(total);
      tap(place);
    },
    [show, total, tap],
  );
  const flags = useMemo(() => flagsOf(proof), [proof]);

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
  const ribbon = proof && (
    <View style={{ gap: SPACE.xs }}>
      <LoadRibbon
        samples={proof.samples}
        unit={job.unit}
        measure={measure}
        total={total}
        time={time}
        flags={flags}
        onSeek={player.seek}
        onFlag={go}
      />
      <Transport proof={proof} player={player} measure={measure} unit={job.unit} lines={lines} />
      <MadeBy />
      <CuttingAgain />
      {chosen?.time === time && <FindingLine finding={chosen.finding} />}
    </View>
  );

  return (
    <StagePage
      view={
        <JobView
          stock="cut"
          moment={moment}
          heldAt={proof && operationAt(proof, shown ? shown.moment.motion : Infinity)}
          showPath={!shown && !against}
          marks={marks}
          against={against}
          pins={probing.pins}
          onTap={probing.tap}
          cameraRef={cameraRef}
          buttons={<ViewButtons against={against} onAgainst={setAgainst} onPicture={savePicture} />}
        />
      }
      under={ribbon}
      start={computed.other}
      look={look}
    >
      <SetupBar />
      {computed.other && <EditedCard text={computed.other.text} />}
      {waiting && <Waiting />}
      {cancelled && (
        <Card>
          <Txt>The proof was cancelled; what is shown is out of date.</Txt>
          <Button mode="contained" onPress={computed.run}>
            Prove again
          </Button>
        </Card>
      )}
      {planFresh && plan?.programs.length === 0 && !computed.other && (
        <FindingCard finding={finding('not-posted', {})} />
      )}
      {proof && plan && (
        <ProbeCard
          probing={probing}
          zero={plan.zero}
          lines={proof.lines}
          unit={job.unit}
          onMotion={(motion) => show(proof.ends[motion])}
        />
      )}
      {proof && (
        <ProofCards
          proof={proof}
          fileName={fileName}
          measure={measure}
          onMeasure={setMeasure}
          onFinding={go}
          onSeek={show}
          onPlace={showPlace}
          onReport={report}
        />
      )}
      <OtherProgram />
    </StagePage>
  );
}
