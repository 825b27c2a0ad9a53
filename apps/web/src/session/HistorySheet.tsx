import { format } from 'date-fns/format';
import { formatDistanceToNow } from 'date-fns/formatDistanceToNow';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { Linking, Pressable, View } from 'react-native';
import { ActivityIndicator, Button } from 'react-native-paper';
import useSWR from 'swr';
import { Job, JobVersion, changesOf } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { bringFiles } from '../api/files';
import { KEYS } from '../api/keys';
import { makeJob } from '../api/outbox';
import { SIZE } from '../theme/theme';
import { Card, Row } from '../ui/Card';
import { FindingList } from '../ui/FindingList';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { useCalmJob } from './JobContext';

const KIND_WORDS: Record<JobVersion['kind'], string> = {
  saved: '',
  released: ' ✓ released',
  refused: ' ▲ came too late, not taken',
};
/** Differences that are spelt out. */
const MOST = 12;

/** What is different now, a line each. */
function Changes({ then, now }: { then: Job; now: Job }) {
  const changes = useMemo(() => changesOf(then, now), [then, now]);
  if (changes.length === 0) return <Txt tone="quiet">As the job stands now.</Txt>;
  return (
    <View role="list" aria-label="What is different now" style={{ gap: 2 }}>
      <Txt kind="small" tone="quiet">
        Now, instead of then:
      </Txt>
      {changes.slice(0, MOST).map((c) => (
        <Txt key={c} kind="small">
          {c}
        </Txt>
      ))}
      {changes.length > MOST && (
        <Txt kind="small" tone="quiet">
          and {changes.length - MOST} more
        </Txt>
      )}
    </View>
  );
}

/** A state of the past with its files. */
async function stateThen(id: string, versionId: string): Promise<{ job: Job }> {
  const then = await api.version(id, versionId);
  await bringFiles(then.job);
  return then;
}

interface OpenedProps {
  id: string;
  version: JobVersion;
  now: Job;
  onBack: (job: Job) => void;
}

/** One state of the past: what has changed since, and the ways back to it. */
function Opened({ id, version, now, onBack }: OpenedProps) {
  const router = useRouter();
  const [problem, setProblem] = useState<string>();
  const { data, error } = useSWR(KEYS.version(id, version.id), () => stateThen(id, version.id), {
    shouldRetryOnError: false,
  });
  if (error) {
    const { message, findings } = error as ApiError;
    return (
      <>
        <Txt tone="danger">▲ {message}</Txt>
        <FindingList findings={findings ?? []} goTo={() => undefined} goLabel="" />
        <Button mode="outlined" onPress={() => void Linking.openURL(api.versionDocument(id, version.id))}>
          Take it away as stored
        </Button>
      </>
    );
  }
  if (!data) return <ActivityIndicator accessibilityLabel="Reading it" />;
  const asCopy = async () => {
    const name = `${data.job.name}, ${format(new Date(version.at), 'd MMM HH:mm')}`.slice(0, 120);
    try {
      router.push(`/job/${await makeJob({ ...data.job, name })}/cut`);
    } catch (e) {
      setProblem((e as ApiError).message);
    }
  };
  return (
    <>
      <Changes then={data.job} now={now} />
      {problem && <Txt tone="danger">▲ {problem}</Txt>}
      <Row>
        <Button mode="contained" onPress={() => onBack(data.job)}>
          Bring it back
        </Button>
        <Button mode="outlined" onPress={() => void asCopy()}>
          Open as a job of its own
        </Button>
      </Row>
    </>
  );
}

interface Props {
  id: string;
  /** How the job is saved, whole: the header may have no room for it. */
  words: string;
  open: boolean;
  onClose: () => void;
}

/** Every state of the job that was kept, with who and when; compared, opened, brought back. */
export function HistorySheet({ id, words, open, onClose }: Props) {
  const { data, error } = useSWR(open ? KEYS.versions(id) : null, () => api.versions(id), { dedupingInterval: 0 });
  const { job, edit } = useCalmJob();
  const [chosen, setChosen] = useState('');
  const bringBack = (then: Job) => {
    edit(() => then);
    onClose();
  };
  return (
    <Sheet title="History" open={open} onClose={onClose}>
      {words.startsWith('▲') && <Txt tone="danger">{words}</Txt>}
      <Txt kind="small" tone="quiet">
        What one device saves within ten minutes is one entry. Fifty are kept, then one a day for 90 days, and every
        released one. Bringing one back can be undone.
      </Txt>
      {error && <Txt tone="danger">▲ {(error as ApiError).message}</Txt>}
      {data?.map((v) => (
        <Card key={v.id} testID="history-entry">
          <Pressable
            role="button"
            aria-expanded={chosen === v.id}
            onPress={() => setChosen(chosen === v.id ? '' : v.id)}
            style={{ minHeight: SIZE.touch, justifyContent: 'center' }}
          >
            <Txt bold>
              {format(new Date(v.at), 'd MMM yyyy HH:mm')}
              {KIND_WORDS[v.kind]}
            </Txt>
            <Txt kind="small" tone="quiet">
              {v.who || 'on this machine'}, {formatDistanceToNow(new Date(v.at), { addSuffix: true })}
            </Txt>
          </Pressable>
          {chosen === v.id && <Opened id={id} version={v} now={job} onBack={bringBack} />}
        </Card>
      ))}
    </Sheet>
  );
}
