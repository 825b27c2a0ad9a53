import { useLocalSearchParams, useRouter } from 'expo-router';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Button } from 'react-native-paper';
import { strToU8, zipSync } from 'fflate';
import {
  Finding,
  Job,
  Lines,
  ProgramView,
  ReleaseRow,
  heldBack,
  joinPrograms,
  leftOut,
  numberedByPockets,
  preflight,
} from '@tidypath/core';
import { useJob, usePace } from '../../session/JobContext';
import { SetupBar } from '../../session/SetupBar';
import { StagePage } from '../../session/StagePage';
import { stopsOf } from '../../session/stages';
import { usePlayer } from '../../session/usePlayer';
import { useReleases } from '../../session/useReleases';
import { JobView } from '../../scene/JobView';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';
import { saveFile } from '../../ui/files';
import { ApprovalSwitch } from './ApprovalSwitch';
import { EditCard } from './EditCard';
import { KitCard } from './KitCard';
import { Listing } from './Listing';
import { OutputCard } from './OutputCard';
import { PreflightCard } from './PreflightCard';
import { Making, ReleaseBar } from './ReleaseBar';
import { ReleasesCard } from './ReleasesCard';
import { useReleasing } from './useReleasing';

function toolList(job: Job, programs: ProgramView[]) {
  return (
    JSON.stringify(
      { job: job.name, programs: programs.map((p) => ({ file: p.fileName, tools: p.tools })), tools: job.tools },
      null,
      2,
    ) + '\n'
  );
}

/** Keeps the programs on this device as they stand; no release. */
function download(job: Job, programs: ProgramView[]): void {
  if (programs.length === 1) return saveFile(programs[0].fileName, programs[0].text, 'text/plain');
  const files = Object.fromEntries([
    ...programs.map((p) => [p.fileName, strToU8(p.text)]),
    ['tools.json', strToU8(toolList(job, programs))],
  ]);
  saveFile('programs.zip', zipSync(files), 'application/zip');
}

/** What the page knows of the programs of this setup, and of the proof of the posted text itself, made on this device. */
function usePrograms() {
  const { job, setup, computed } = useJob();
  const { plan, proof, proofFresh, provedText, maker, makeHere } = computed;
  const isForeign = maker === 'page';
  // What a page elsewhere made nobody here can stand for.
  useEffect(() => {
    if (isForeign) makeHere();
  }, [isForeign, makeHere]);
  const programs = useMemo(() => plan?.programs ?? [], [plan]);
  const posted = useMemo(() => (programs.length ? joinPrograms(programs).text : ''), [programs]);
  const edited = proofFresh && provedText !== undefined && provedText !== posted;
  const own = proofFresh && !isForeign && !edited && programs.length > 0 ? proof : undefined;
  const checks = useMemo(() => (plan && own ? preflight(job, setup, plan, own) : []), [job, setup, plan, own]);
  const text = useDeferredValue(proof ? (provedText ?? posted) : posted);
  return { programs, edited, isForeign, own, checks, text };
}

/** The release that is of this very state, the newest. */
const currentOf = (rows: ReleaseRow[]): ReleaseRow | undefined =>
  rows.find(({ against }) => against.same && against.changed.length === 0);

/** The programs: looked over against the picture, edited and proved again, released, handed out. */
export function ReleaseStage() {
  const { id = '' } = useLocalSearchParams<{ id: string }>();
  const { job, setup, computed, saving, edit } = useJob();
  const router = useRouter();
  const { plan, proof } = computed;
  const { programs, edited, isForeign, own, checks, text } = usePrograms();
  const proving = usePace().progress !== undefined;
  const player = usePlayer(proof);
  const [look, setLook] = useState(0);
  const [accepted, setAccepted] = useState<string[]>([]);
  const { releases, needsApproval, known } = useReleases(id);
  const making = useReleasing(id, setup.id, saving.version);
  const rows = releases.filter((r) => r.setupId === setup.id);
  const lines = useMemo(() => new Lines(text.replace(/\n$/, '')), [text]);
  const faulty = useMemo(
    () => new Set(proof?.findings.flatMap((f) => (f.level === 'stop' && f.place.line ? [f.place.line] : []))),
    [proof],
  );
  const moment = useMemo(() => {
    const tool = player.shown && job.tools.find((t) => t.number === player.shown!.moment.tool);
    return player.shown && tool ? { at: player.shown.moment, tool, heights: player.shown.heights } : undefined;
  }, [player.shown, job.tools]);
  const stops = stopsOf(computed);
  const clear = own !== undefined && stops.length === 0;
  const open = clear ? heldBack(checks, accepted).open.length : 0;
  const current = currentOf(rows);
  const without = leftOut(setup);

  const toLine = (line: number) => {
    const motion = proof?.lines.findIndex((l) => l >= line) ?? -1;
    if (!proof || motion < 0) return;
    setLook((n) => n + 1);
    player.seek(proof.ends[motion]);
  };
  const goTo = ({ code, place: { line, operation, tool, field } }: Finding) => {
    if (code === 'beyond-pockets' && numberedByPockets(job) !== job)
      return { label: 'Number them by its pockets', go: () => edit(numberedByPockets) };
    if (line) return { label: 'Show the line', go: () => toLine(line) };
    if (operation || tool) return { label: 'Go to Cut', go: () => router.replace(`/job/${id}/cut`) };
    if (field) return { label: 'Go to Hold', go: () => router.replace(`/job/${id}/hold`) };
    return undefined;
  };
  const accept = (key: string) =>
    setAccepted((all) => (all.includes(key) ? all.filter((k) => k !== key) : [...all, key]));

  if (plan && programs.length === 0) {
    return (
      <Empty title="There is no program yet">
        <SetupBar />
        {stops.slice(0, 6).map((f, i) => (
          <FindingCard key={i} finding={f} />
        ))}
        {stops.length === 0 && <Txt tone="quiet">Add operations on the Cut stage.</Txt>}
        {stops.some((f) => f.place.field === 'programNumber') && <OutputCard />}
      </Empty>
    );
  }
  return (
    <StagePage
      view={<JobView stock="cut" moment={moment} />}
      look={look}
      action={
        <ReleaseBar
          {...{ clear, open, needsApproval, known, current, making }}
          saved={saving.state === 'saved'}
          count={programs.length}
          onRelease={() => making.release(accepted)}
          onDownload={() => download(job, programs)}
        />
      }
    >
      <SetupBar />
      {!clear && (
        <Txt tone={stops.length ? 'danger' : 'quiet'} live testID="release-state">
          {stops.length
            ? `▲ Not released: ${stops.length} to cure`
            : edited
              ? 'The proof is of an edited text; go back to the posted one to release it'
              : isForeign
                ? 'It was made on another device and is made anew here before it is released'
                : proving
                  ? 'Being proved'
                  : 'Waiting for the proof'}
        </Txt>
      )}
      {clear && (
        <Txt bold testID="release-state">
          ✓ Proved as posted; nothing stops it
        </Txt>
      )}
      {without.length > 0 && (
        <Txt tone="care" testID="left-out">
          ◆ Without what is switched off: {without.join(', ')}. The program says so in its head.
        </Txt>
      )}
      <Making {...making} />
      <ReleasesCard rows={rows} />
      {clear && !current ? (
        <PreflightCard checks={checks} accepted={accepted} onAccept={accept} goTo={goTo} />
      ) : (
        <FindingList
          findings={(proof?.findings ?? []).filter((f) => f.level === 'stop')}
          goTo={(f) => goTo(f)?.go}
          goLabel="Show the line"
        />
      )}
      <Listing lines={lines} now={player.shown?.moment.line} faulty={faulty} onLine={toLine} />
      <EditCard text={text} edited={edited} onProve={computed.proveText} onBack={computed.backToOwn} />
      {own && <KitCard proof={own} />}
      <OutputCard />
      <ApprovalSwitch jobId={id} on={needsApproval} />
      {!needsApproval && (
        <Button
          compact
          style={{ alignSelf: 'flex-start' }}
          onPress={() => saveFile('tools.json', toolList(job, programs), 'application/json')}
        >
          Tool list
        </Button>
      )}
      <Txt kind="small" tone="quiet">
        First run: check tool lengths and work offset, dry run above the part, single block, reduced rapids, a finger on
        feed hold. The figures are estimates; the machine maker’s limits and your local safety rules decide.
      </Txt>
    </StagePage>
  );
}
