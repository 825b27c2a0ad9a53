import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { ActivityIndicator, Button } from 'react-native-paper';
import useSWR from 'swr';
import { KeptTick, ReleaseView, TOPIC_WORDS, changedWords, checklistOf, formatTime, wholeTime } from '@tidypath/core';
import { heldPicture } from '@tidypath/sheets';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { useWaiting } from '../../api/useWaiting';
import { bring } from '../../api/writes';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { FindingList } from '../../ui/FindingList';
import { Fold } from '../../ui/Fold';
import { useComments } from '../../session/useComments';
import { ScenePicture } from '../../ui/ScenePicture';
import { Txt } from '../../ui/Txt';
import { ApprovalCard } from './ApprovalCard';
import { ChecklistCard } from './ChecklistCard';
import { LogCard } from './LogCard';
import { ReleaseActions } from './ReleaseActions';
import { SizesCard } from './SizesCard';
import { useLog } from './useLog';
import { STATE_TONE, madeText, releaseName, stateText } from './words';

function Summary({ view }: { view: ReleaseView }) {
  const router = useRouter();
  const { body, against } = view;
  const changed = changedWords(against);
  const [heaviest] = [...body.proof.steps].sort((a, b) => b.load - a.load);
  const name = body.job.setups.flatMap((s) => s.operations).find((o) => o.id === heaviest?.operationId)?.name;
  return (
    <Card testID="release-summary">
      <Txt kind="large" tone={STATE_TONE[view.state.state]} live testID="release-standing">
        {stateText(view.state)}
      </Txt>
      <Txt>
        {view.setupName} on {view.machine}: {formatTime(wholeTime(body.proof.clock))}
        {heaviest && name ? `, heaviest in “${name}” with ${Math.round(heaviest.load * 100)} % of the spindle` : ''}.
      </Txt>
      <Txt kind="small" tone="quiet">
        {madeText(view)}; {view.files.join(', ')}
      </Txt>
      {changed !== '' && <Txt tone="care">◆ In the job {changed} changed since.</Txt>}
      <ReleaseActions row={view} />
      <Button compact style={{ alignSelf: 'flex-start' }} onPress={() => router.push(`/job/${view.jobId}/release`)}>
        The job
      </Button>
    </Card>
  );
}

/** How the work is held, as on its sheet. */
function Held({ view: { body } }: { view: ReleaseView }) {
  const scene = useMemo(() => {
    const setup = body.job.setups.find((s) => s.id === body.setupId);
    return setup && heldPicture(body.job, setup);
  }, [body]);
  return (
    scene && (
      <Card>
        <Txt heading bold>
          How it is held
        </Txt>
        <ScenePicture scene={scene} told="The work as it is held, from three sides" />
      </Card>
    )
  );
}

/** What was asked and answered at the operations of its setup. */
function Asked({ view: { body, jobId } }: { view: ReleaseView }) {
  const comments = useComments(jobId);
  const operations = body.job.setups.find((s) => s.id === body.setupId)?.operations ?? [];
  const told = operations.flatMap(({ id, name }) =>
    comments.filter((c) => c.operation === id).map((c) => ({ ...c, name })),
  );
  if (told.length === 0) return null;
  return (
    <Card testID="asked">
      <Txt heading bold>
        Said at its operations
      </Txt>
      {told.map((c) => (
        <Txt key={c.id}>
          “{c.name}”, {c.who || 'somebody'}: {c.text}
        </Txt>
      ))}
    </Card>
  );
}

function Difference({ view: { difference } }: { view: ReleaseView }) {
  if (!difference) return null;
  return (
    <Card testID="difference">
      <Txt heading bold>
        Against release {difference.number}, approved before
      </Txt>
      {difference.lines.map((line, i) => (
        <Txt key={i}>{line}</Txt>
      ))}
    </Card>
  );
}

/** Findings of what is kept lead nowhere. */
const nowhere = () => undefined;

/** What was accepted, and everything else that was looked at. */
function Looked({ view: { body } }: { view: ReleaseView }) {
  const clean = body.checks.filter((c) => c.findings.length === 0);
  const notes = body.checks.flatMap((c) => c.findings.filter((f) => f.level === 'note'));
  return (
    <Card>
      <Txt heading bold>
        {body.accepted.length === 0 ? 'Nothing had to be accepted' : 'Accepted as it is'}
      </Txt>
      <FindingList findings={body.accepted} goTo={nowhere} goLabel="" />
      {notes.length > 0 && (
        <Fold label={`Notes: ${notes.length}`}>{() => <FindingList findings={notes} goTo={nowhere} goLabel="" />}</Fold>
      )}
      <Txt kind="small" tone="quiet">
        ✓ {clean.map((c) => TOPIC_WORDS[c.topic]).join(' · ')}
      </Txt>
    </Card>
  );
}

/** Ticks as the server has them, and those that wait here. */
function useTicks(view: ReleaseView): KeptTick[] {
  const waiting = useWaiting();
  return useMemo(
    () => [
      ...view.ticks,
      ...waiting.flatMap(({ write }) =>
        write.what === 'tick' && write.id === view.id
          ? [{ item: write.item, isSo: write.isSo, who: 'waits here to be sent', at: '' }]
          : [],
      ),
    ],
    [view, waiting],
  );
}

function Release({ view, again }: { view: ReleaseView; again: () => void }) {
  const wide = useWide();
  const ticks = useTicks(view);
  const { entries, again: logAgain } = useLog(view.id);
  const items = useMemo(() => {
    const { job, setupId, proof } = view.body;
    const setup = job.setups.find((s) => s.id === setupId)!;
    return checklistOf({ ...view.body, setup, called: proof.called.map((c) => c.number) });
  }, [view]);
  const tick = (item: string, isSo: boolean) =>
    void bring({ what: 'tick', id: view.id, name: releaseName(view), item, isSo }).then(again, again);
  return (
    <View style={{ flexDirection: wide ? 'row' : 'column', gap: SPACE.l, alignItems: 'flex-start' }}>
      <View style={{ flex: wide ? 1 : undefined, width: wide ? undefined : '100%', gap: SPACE.m }}>
        <Summary view={view} />
        <ApprovalCard view={view} onAnswered={again} />
        <Difference view={view} />
        <Asked view={view} />
        <Held view={view} />
        <SizesCard view={view} entries={entries} onMeasured={again} />
        <LogCard view={view} entries={entries} onLogged={logAgain} />
        <Looked view={view} />
      </View>
      <View style={{ flex: wide ? 1 : undefined, width: wide ? undefined : '100%' }}>
        <ChecklistCard items={items} ticks={ticks} onTick={tick} />
      </View>
    </View>
  );
}

/** A release: what it is, whether it may run, and what is gone through before and while it does. */
export function ReleasePage({ id }: { id: string }) {
  const { data, error, mutate } = useSWR<ReleaseView, ApiError>(KEYS.release(id), () => api.releaseOf(id));
  return (
    <Page title={data ? `${data.jobName}: ${releaseName(data)}` : 'Release'}>
      {data ? (
        <Release view={data} again={() => void mutate()} />
      ) : error ? (
        <Txt tone="danger">▲ {error.message}</Txt>
      ) : (
        <ActivityIndicator accessibilityLabel="Reading the release" />
      )}
    </Page>
  );
}
