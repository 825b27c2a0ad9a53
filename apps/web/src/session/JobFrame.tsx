import { Link, usePathname, useRouter } from 'expo-router';
import { ReactNode, memo, useEffect, useMemo, useState } from 'react';
import { Linking, Pressable, View } from 'react-native';
import { ActivityIndicator, Button, IconButton } from 'react-native-paper';
import useSWR, { useSWRConfig } from 'swr';
import { JobRow, STAGES, Stage, partModel } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { bringFiles } from '../api/files';
import { KEYS } from '../api/keys';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette, useWide } from '../theme/usePalette';
import { Empty } from '../ui/Empty';
import { FindingList } from '../ui/FindingList';
import { Icon } from '../ui/Icon';
import { Txt } from '../ui/Txt';
import { DetailsSheet } from './DetailsSheet';
import { Draft, draftOf } from '../api/drafts';
import { HistorySheet } from './HistorySheet';
import { askAhead } from './ahead';
import { JobProvider, useCalmJob } from './JobContext';
import { Others } from './Others';
import { STAGE_NAMES, stageStates } from './stages';
import { useRuns } from './useRuns';
import type { SaveState } from './useSaving';

const SAVE_WORDS: Record<SaveState, (why: string) => string> = {
  saved: () => 'saved',
  saving: () => 'saving',
  waiting: () => 'saving',
  offline: () => '▲ kept here, not sent: trying again',
  failing: (why) => `▲ kept here, not sent: ${why}`,
  refused: () => '▲ changed elsewhere',
  invalid: (why) => `▲ not saved: ${why}`,
  deleted: () => '▲ deleted elsewhere; kept here',
};

/** How the job stands with the server, and whether this device could keep what was not sent. */
function saveWords({ state, why, forgets }: ReturnType<typeof useCalmJob>['saving']): string {
  const words = SAVE_WORDS[state](why);
  return forgets && state !== 'saved' ? `${words.replace('kept here, ', '')}; this device cannot keep it` : words;
}

const StageStrip = memo(function StageStrip({ id }: { id: string }) {
  const palette = usePalette();
  const wide = useWide();
  const path = usePathname();
  const { job, setup, computed } = useCalmJob();
  const { runs } = useRuns(id, setup.id);
  const states = useMemo(() => stageStates(job, setup, computed, runs), [job, setup, computed, runs]);
  return (
    <View
      role="tablist"
      aria-label="Stages"
      style={{ flexDirection: 'row', paddingHorizontal: SPACE.xs, gap: wide ? SPACE.s : 0 }}
    >
      {STAGES.map((stage: Stage) => {
        const here = path.endsWith(`/${stage}`);
        const { mark, word } = states[stage];
        return (
          <Link key={stage} href={`/job/${id}/${stage}`} replace asChild>
            <Pressable
              role="tab"
              aria-selected={here}
              aria-label={`${STAGE_NAMES[stage]}, ${word}`}
              testID={`stage-${stage}`}
              style={{
                flex: wide ? undefined : 1,
                minWidth: wide ? 96 : 0,
                minHeight: SIZE.touch,
                alignItems: 'center',
                justifyContent: 'center',
                borderBottomWidth: 3,
                borderColor: here ? palette.accent : 'transparent',
              }}
            >
              <Txt bold={here} tone={here ? 'accent' : 'ink'} kind="small">
                {STAGE_NAMES[stage]}
              </Txt>
              <Txt kind="small" tone={mark.startsWith('▲') ? 'danger' : 'quiet'}>
                {mark}
                {wide ? ` ${word}` : ''}
              </Txt>
            </Pressable>
          </Link>
        );
      })}
    </View>
  );
});

/** Differences that are named at once. */
const MOST_LINES = 4;

/** Something happened to the job elsewhere: what, and the ways on. */
function Elsewhere({ told, lines = [], children }: { told: string; lines?: string[]; children: ReactNode }) {
  const palette = usePalette();
  return (
    <View role="alert" style={{ backgroundColor: palette.careSoft, padding: SPACE.m, gap: SPACE.s }}>
      <Txt>{told}</Txt>
      {lines.slice(0, MOST_LINES).map((line) => (
        <Txt key={line} kind="small">
          {line}
        </Txt>
      ))}
      {lines.length > MOST_LINES && <Txt kind="small">{`and ${lines.length - MOST_LINES} more`}</Txt>}
      <View style={{ flexDirection: 'row', gap: SPACE.s }}>{children}</View>
    </View>
  );
}

function Conflict() {
  const { saving, takeTheirs, keepMine } = useCalmJob();
  if (saving.state === 'deleted')
    return (
      <Elsewhere told="Somebody deleted this job meanwhile. It lies in the bin; what you have here is kept.">
        <Button mode="contained" onPress={() => void saving.bringBack()}>
          Bring it back
        </Button>
      </Elsewhere>
    );
  if (!saving.conflict) return null;
  return (
    <Elsewhere
      told="Somebody changed the same as you. Everything else is taken together, and both are in the history. Yours is:"
      lines={saving.conflict.about}
    >
      <Button mode="outlined" onPress={takeTheirs}>
        Take theirs
      </Button>
      <Button mode="contained" onPress={keepMine}>
        Go on with mine
      </Button>
    </Elsewhere>
  );
}

const Header = memo(function Header({ id }: { id: string }) {
  const palette = usePalette();
  const router = useRouter();
  const { job, saving, undo, redo, canUndo, canRedo } = useCalmJob();
  const words = saveWords(saving);
  const [sheet, setSheet] = useState<'details' | 'history'>();
  const close = () => setSheet(undefined);
  return (
    <View role="banner" style={{ backgroundColor: palette.sheet, borderBottomWidth: 1, borderColor: palette.line }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <IconButton icon="chevron-left" accessibilityLabel="Back to jobs" onPress={() => router.push('/')} />
        <Pressable
          role="button"
          aria-label={`About ${job.name}`}
          onPress={() => setSheet('details')}
          style={{ flex: 1, minWidth: 0, minHeight: SIZE.touch, justifyContent: 'center' }}
        >
          <Txt heading lines={1} kind="large">
            {job.name}
          </Txt>
        </Pressable>
        <Pressable
          role="button"
          aria-label={`History, ${words}`}
          testID="history"
          onPress={() => setSheet('history')}
          style={{
            minHeight: SIZE.touch,
            flexShrink: 1,
            flexDirection: 'row',
            alignItems: 'center',
            gap: SPACE.xs,
            paddingHorizontal: SPACE.xs,
          }}
        >
          <Icon name="history" size={18} color={palette.quiet} />
          <Txt
            kind="small"
            tone={words.startsWith('▲') ? 'danger' : 'quiet'}
            live
            lines={2}
            testID="save-state"
            style={{ flexShrink: 1 }}
          >
            {words}
          </Txt>
        </Pressable>
        <IconButton icon="undo" disabled={!canUndo} accessibilityLabel="Undo" onPress={undo} />
        <IconButton icon="redo" disabled={!canRedo} accessibilityLabel="Redo" onPress={redo} />
      </View>
      <StageStrip id={id} />
      <DetailsSheet open={sheet === 'details'} onClose={close} />
      <HistorySheet id={id} words={words} open={sheet === 'history'} onClose={close} />
    </View>
  );
});

const NOT_OPENED: Record<number, string> = { 404: 'This job is gone', 410: 'This job was deleted' };

/** Why a job does not open: it is gone, nobody answers, or what is stored cannot be read, which can be taken away as it is. */
function NotOpened({ id, error }: { id: string; error: Error }) {
  const router = useRouter();
  const { mutate } = useSWRConfig();
  // Nothing the server said: the page itself is at fault, and says so.
  if (!(error instanceof ApiError)) throw error;
  const { status, findings } = error;
  return (
    <Empty title={NOT_OPENED[status] ?? 'The job cannot be opened'}>
      <Txt tone="quiet">{error.message}</Txt>
      {findings.length > 0 && (
        <>
          <FindingList findings={findings} goTo={() => undefined} goLabel="" />
          <Button mode="outlined" onPress={() => void Linking.openURL(api.documentOf(id))}>
            Take it away as stored
          </Button>
        </>
      )}
      {status === 410 && (
        <Button mode="outlined" onPress={() => void api.restore(id).then(() => mutate(KEYS.job(id)))}>
          Bring it back
        </Button>
      )}
      <Button mode="contained" onPress={() => router.push('/')}>
        To the jobs
      </Button>
    </Empty>
  );
}

/** A job with its files, those that are nowhere are named by its plan; and with what is kept of it, where its page does not stand yet. */
async function opening(id: string, isFirst: boolean): Promise<JobRow> {
  const row = await api.job(id);
  await bringFiles(row.job);
  if (!isFirst) return row;
  const known = askAhead(row.job);
  // The page needs it next, and is idle meanwhile.
  partModel(row.job.part);
  await known;
  return row;
}

/** A job the server knows nothing of yet. */
const madeHere = (id: string, draft?: Draft): JobRow | undefined =>
  draft?.version === 0 ? { id, version: 0, updatedAt: new Date().toISOString(), job: draft.job } : undefined;

/** Loads a job and puts its header and stages around whatever stage is open. */
export function JobFrame({ id, children }: { id: string; children: ReactNode }) {
  // What was known of it before is only good enough where the server does not answer.
  const [opened, setOpened] = useState('');
  const answered = () => setOpened(id);
  const { data, error } = useSWR(KEYS.job(id), () => opening(id, opened !== id), {
    revalidateIfStale: true,
    revalidateOnReconnect: false,
    dedupingInterval: 0,
    onSuccess: answered,
    onError: answered,
  });
  const [draft, setDraft] = useState<{ of: string; draft?: Draft }>();
  useEffect(() => {
    let isWanted = true;
    const find = async () => {
      const found = await draftOf(id);
      if (found) await bringFiles(found.job).catch(() => undefined);
      if (isWanted) setDraft({ of: id, draft: found });
    };
    void find();
    return () => void (isWanted = false);
  }, [id]);
  const own = useMemo(() => madeHere(id, draft?.draft), [id, draft]);
  const row = data ?? (error ? own : undefined);
  if (error && !row && draft?.of === id) return <NotOpened id={id} error={error as Error} />;
  if (!row || opened !== id || draft?.of !== id)
    return <ActivityIndicator style={{ flex: 1 }} accessibilityLabel="Opening the job" />;
  return (
    <JobProvider key={id} id={id} row={row} draft={draft.draft}>
      <Header id={id} />
      {children}
      {/* Below the stage: what comes and goes by itself moves nothing from under a finger. */}
      <Others id={id} />
      <Conflict />
    </JobProvider>
  );
}
