import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { useSWRConfig } from 'swr';
import { Pressable } from 'react-native';
import { Button } from 'react-native-paper';
import { LengthUnit, RunRow, Vec3, formatThin } from '@tidypath/core';
import { Shown } from '../../api/client';
import { KEYS } from '../../api/keys';
import { JobView } from '../../scene/JobView';
import { useJob } from '../../session/JobContext';
import { SetupBar } from '../../session/SetupBar';
import { StagePage } from '../../session/StagePage';
import { usePlayer } from '../../session/usePlayer';
import { useReleases } from '../../session/useReleases';
import { useRuns } from '../../session/useRuns';
import { SIZE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';
import { BeginCard } from './BeginCard';
import { ControlCard } from './ControlCard';
import { CutCard } from './CutCard';
import { EntriesCard } from './EntriesCard';
import { EventsCard } from './EventsCard';
import { HoldBar } from './HoldBar';
import { Piece, PieceCard, heightAt, isOf } from './PieceCard';
import { SeenCard } from './SeenCard';
import { StreamCard } from './StreamCard';
import { TurnsCard } from './TurnsCard';
import { Running, useRun } from './useRun';
import { runText } from './words';

/** Earlier runs, to look at again. */
function RunsCard({ runs, onOpen }: { runs: RunRow[]; onOpen: (id: string) => void }) {
  if (runs.length === 0) return null;
  return (
    <Card testID="runs">
      <Fold label={runs.length === 1 ? 'One other run' : `${runs.length} other runs`}>
        {() =>
          runs.map((run) => (
            <Pressable
              key={run.id}
              role="button"
              onPress={() => onOpen(run.id)}
              style={{ minHeight: SIZE.touch, justifyContent: 'center' }}
            >
              <Txt>{runText(run)}</Txt>
            </Pressable>
          ))
        }
      </Fold>
    </Card>
  );
}

/** The picture of the piece at the line under way, as the proof of the job has it. */
function useMoment(shown: Shown | undefined) {
  const { job, computed } = useJob();
  const { proof } = computed;
  const player = usePlayer(proof);
  const { seek } = player;
  const line = shown?.view.line;
  useEffect(() => {
    const motion = line === undefined ? -1 : (proof?.lines.findIndex((l) => l >= line) ?? -1);
    if (proof && motion >= 0) seek(proof.ends[motion]);
  }, [proof, line, seek]);
  return useMemo(() => {
    const tool = player.shown && job.tools.find((t) => t.number === player.shown!.moment.tool);
    return player.shown && tool ? { at: player.shown.moment, tool, heights: player.shown.heights } : undefined;
  }, [player.shown, job.tools]);
}

interface PanelProps {
  id: string;
  running: Running;
  shown: Shown;
  piece?: Piece;
  touched?: string;
  onPiece: (piece: Piece) => void;
}

/** The machine that is switched on. */
function Panel({ id, running, shown, piece, touched, onPiece }: PanelProps) {
  const { job, setup } = useJob();
  const { view, pace, isPreparing } = shown;
  const { press, run } = running;
  return (
    <>
      <ControlCard view={view} unit={job.unit} isPreparing={isPreparing} />
      <CutCard view={view} tools={job.tools} />
      <TurnsCard view={view} pace={pace} press={press} onPace={running.setPace} onOnward={running.onward} />
      <EntriesCard view={view} unit={job.unit} offset={setup.workOffset} press={press} />
      {view.state !== 'running' && run && <SeenCard release={run.row.releaseId} steps={view.steps} />}
      <PieceCard run={id} ran={view.ran} unit={job.unit} press={press} {...{ piece, touched, onPiece }} />
      {view.state !== 'running' && view.steps.length > 0 && <StreamCard run={id} />}
      <EventsCard events={run?.events ?? []} />
    </>
  );
}

/** "X 40 Y 25: Z −7.01", in work coordinates; how high it stands where it was tapped. */
function touchedText({ surface }: Piece, { x, y }: { x: number; y: number }, zero: Vec3 | undefined, unit: LengthUnit) {
  const z = surface && heightAt(surface, x, y);
  if (z === undefined || !zero) return undefined;
  const n = (mm: number) => formatThin(mm, unit);
  return `X ${n(x - zero.x)} Y ${n(y - zero.y)}: Z ${n(z - zero.z)}`;
}

/** The run one looks for: the newest whose program is under way, else the newest. */
const foremost = (runs: RunRow[]) => runs.find(({ state }) => state !== 'ready' && state !== 'done') ?? runs[0];

/** A released program on the simulated machine: set up, proved out, run, looked at. */
export function RunStage() {
  const { id = '' } = useLocalSearchParams<{ id: string }>();
  const { job, setup, computed } = useJob();
  const router = useRouter();
  const { mutate } = useSWRConfig();
  const { releases } = useReleases(id);
  const { runs, canRun } = useRuns(id, setup.id);
  const [chosen, setChosen] = useState<{ of: string; run: string }>();
  const current = chosen?.of === setup.id ? chosen.run : foremost(runs)?.id;
  const running = useRun(current ?? '');
  const { shown, refused, press } = running;
  const moment = useMoment(shown);
  const [piece, setPiece] = useState<Piece>();
  // Measured, it is looked at as it is; before, as the proof has it at the line under way.
  const seen = current && shown && isOf(piece, current, shown.view.ran) ? piece : undefined;
  const marks = useMemo(() => seen?.findings.flatMap(({ place: { at } }) => (at ? [{ z: 0, ...at }] : [])), [seen]);
  const [tapped, setTapped] = useState<{ of: Piece; x: number; y: number }>();
  const touched =
    tapped && tapped.of === seen ? touchedText(tapped.of, tapped, computed.plan?.zero, job.unit) : undefined;
  const open = (run: string) => {
    setChosen({ of: setup.id, run });
    void mutate(KEYS.runs(id, setup.id));
  };
  return (
    <StagePage
      view={
        <JobView
          stock="cut"
          showPath={false}
          piece={seen?.surface}
          marks={marks}
          moment={seen ? undefined : moment}
          onTap={seen && ((at) => setTapped({ of: seen, x: at.x, y: at.y }))}
        />
      }
      start={current}
      action={
        current && shown ? (
          <HoldBar view={shown.view} isPreparing={shown.isPreparing} refused={refused} press={press} />
        ) : undefined
      }
    >
      <SetupBar />
      {current && shown && (
        <Panel key={current} id={current} {...{ running, shown, piece, touched, onPiece: setPiece }} />
      )}
      {current && !shown && <Txt live>↻ The machine is being switched on</Txt>}
      <Button
        compact
        style={{ alignSelf: 'flex-start' }}
        onPress={() => router.push(`/shop/machines/${job.machine.id}`)}
      >
        What the log says of {job.machine.name}
      </Button>
      <BeginCard releases={releases.filter((r) => r.setupId === setup.id)} canRun={canRun} onBegun={open} />
      <RunsCard runs={runs.filter((r) => r.id !== current)} onOpen={open} />
    </StagePage>
  );
}
