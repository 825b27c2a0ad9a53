import { useRouter } from 'expo-router';
import { ComponentProps, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button, Snackbar, TextInput } from 'react-native-paper';
import useSWR, { useSWRConfig } from 'swr';
import {
  Finding,
  JOBS_PER_PAGE,
  Job,
  JobPlace,
  JobQuestion,
  JobSummary,
  LengthUnit,
  UNNAMED,
  fileMissing,
  newJob,
  openJob,
} from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { bringFiles, keepFile } from '../../api/files';
import { KEYS } from '../../api/keys';
import { makeJob } from '../../api/outbox';
import { useWaiting } from '../../api/useWaiting';
import { engine } from '../../compute/engine';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Row } from '../../ui/Card';
import { Choices, UNITS, plainOptions } from '../../ui/Choices';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { pickFile } from '../../ui/files';
import { useSettled } from '../../ui/useSettled';
import { FindJobs } from './FindJobs';
import { JobCard } from './JobCard';
import { NotSent } from './NotSent';
import { placeOf } from './places';

function NewJobSheet({
  open,
  onClose,
  onCreate,
}: {
  open: boolean;
  onClose: () => void;
  onCreate: (job: Job) => void;
}) {
  const [name, setName] = useState('');
  const [unit, setUnit] = useState<LengthUnit>('mm');
  return (
    <Sheet title="New job" open={open} onClose={onClose}>
      <TextInput
        mode="outlined"
        label="Name"
        aria-label="Name"
        value={name}
        onChangeText={setName}
        autoFocus
        testID="new-job-name"
      />
      <Choices label="Unit" value={unit} onChange={setUnit} options={plainOptions(UNITS)} />
      <Txt kind="small" tone="quiet">
        Left empty, the job takes the name of the drawing it is given.
      </Txt>
      <Button mode="contained" onPress={() => onCreate(newJob(name.trim().slice(0, 120) || UNNAMED, unit))}>
        Create
      </Button>
    </Sheet>
  );
}

/** Nothing there: none at all, or none that is asked for. */
function None({ isAll, onNew, onAll }: { isAll: boolean; onNew: () => void; onAll: () => void }) {
  return isAll ? (
    <Empty title="No jobs yet">
      <Txt tone="quiet">Start one from a drawing or from shapes, or take in a job file.</Txt>
      <Button mode="contained" onPress={onNew}>
        New job
      </Button>
    </Empty>
  ) : (
    <Empty title="No such job">
      <Txt tone="quiet">Nothing here has all of that; try fewer words, or look in the archive and the bin.</Txt>
      <Button mode="outlined" onPress={onAll}>
        All jobs
      </Button>
    </Empty>
  );
}

function Pages({ page, total, onPage }: { page: number; total: number; onPage: (page: number) => void }) {
  const pages = Math.ceil(total / JOBS_PER_PAGE);
  return (
    <Row>
      <Button mode="outlined" disabled={page === 0} onPress={() => onPage(page - 1)}>
        Before
      </Button>
      <Txt live testID="pages">
        {page + 1} of {pages}, {total} jobs
      </Txt>
      <Button mode="outlined" disabled={page + 1 >= pages} onPress={() => onPage(page + 1)}>
        Next
      </Button>
    </Row>
  );
}

/** A question is sent once the finger rests so long, ms. */
const WHILE_TYPING = 200;

/** Cards that fill a screen: they are drawn first, the others as soon as there is time. */
const FIRST = 6;

interface CardsProps extends Omit<ComponentProps<typeof JobCard>, 'job'> {
  jobs: JobSummary[];
  place?: JobPlace;
}

function Cards({ jobs, place = 'list', onDone, onProblem }: CardsProps) {
  const wide = useWide();
  const waiting = useWaiting();
  const there = useMemo(() => jobs.filter((job) => placeOf(job, waiting) === place), [jobs, waiting, place]);
  const shown = useDeferredValue(there, there.slice(0, FIRST));
  return shown.map((job) => (
    <View key={job.id} style={wide ? { flexBasis: 330, flexGrow: 1, maxWidth: 480 } : { width: '100%' }}>
      <JobCard job={job} onDone={onDone} onProblem={onProblem} />
    </View>
  ));
}

/** A moment for the list itself before what a job needs is made ready, ms. */
const SETTLED = 300;

/** Whoever sees the list opens a job next. */
function useWarm(isShown: boolean): void {
  useEffect(() => {
    if (!isShown) return;
    const timer = setTimeout(() => engine.warm(), SETTLED);
    return () => clearTimeout(timer);
  }, [isShown]);
}

/** All jobs: find, open, make, copy, archive, delete with a way back, take in and hand out as files. */
export function JobsPage() {
  const router = useRouter();
  const { mutate } = useSWRConfig();
  const [question, setQuestion] = useState<JobQuestion>({});
  const asked = useSettled(question, WHILE_TYPING);
  const { data, error } = useSWR(KEYS.jobList(asked), () => api.jobs(asked), { keepPreviousData: true });
  useWarm(data !== undefined);
  const [naming, setNaming] = useState(false);
  const [told, setTold] = useState<{ text: string; undo?: () => Promise<void> }>();
  const [{ taken, findings }, setImported] = useState<{ taken: boolean; findings: Finding[] }>({
    taken: false,
    findings: [],
  });

  const refresh = () => mutate((key) => Array.isArray(key) && key[0] === KEYS.jobList({})[0]);
  const isAll = Object.values(asked).every((v) => !v);
  const done = (text: string, undo?: () => Promise<void>) => {
    setTold({ text, undo });
    void refresh();
  };
  const create = async (job: Job) => {
    try {
      const id = await makeJob(job);
      void refresh();
      router.push(`/job/${id}/part`);
    } catch (e) {
      setTold({ text: (e as ApiError).message });
    }
  };
  const importJob = async () => {
    const file = await pickFile('.json,.zip');
    if (!file) return;
    const { job, files, findings: told } = openJob(new Uint8Array(await file.arrayBuffer()));
    setImported({ taken: false, findings: job ? [] : told });
    if (!job) return;
    try {
      for (const bytes of files ?? []) await keepFile('', bytes);
      const missing = await bringFiles(job);
      await makeJob(job);
      setImported({ taken: true, findings: [...told, ...missing.map(fileMissing)] });
      done(`“${job.name}” taken in`);
    } catch (e) {
      setTold({ text: (e as ApiError).message });
    }
  };

  return (
    <>
      <Page
        title="Jobs"
        actions={
          <>
            <Button onPress={() => router.push('/releases')}>Work list</Button>
            <Button mode="outlined" onPress={importJob}>
              Import
            </Button>
            <Button mode="contained" onPress={() => setNaming(true)}>
              New job
            </Button>
          </>
        }
      >
        {findings.length > 0 && (
          <View role="list" style={{ gap: SPACE.s }}>
            <Txt bold>{taken ? 'Taken in, with this to know' : 'The file was not taken in'}</Txt>
            {findings.slice(0, 8).map((f, i) => (
              <FindingCard key={i} finding={f} />
            ))}
          </View>
        )}
        {error && !data && <Txt tone="danger">▲ {(error as ApiError).message}. Trying again.</Txt>}
        <NotSent onDone={done} />
        <FindJobs question={question} onQuestion={setQuestion} />
        {data?.total === 0 && <None isAll={isAll} onNew={() => setNaming(true)} onAll={() => setQuestion({})} />}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
          {data && <Cards jobs={data.jobs} place={asked.place} onDone={done} onProblem={(text) => setTold({ text })} />}
        </View>
        {data && data.total > JOBS_PER_PAGE && (
          <Pages page={asked.page ?? 0} total={data.total} onPage={(page) => setQuestion({ ...question, page })} />
        )}
      </Page>
      <NewJobSheet open={naming} onClose={() => setNaming(false)} onCreate={create} />
      <Snackbar
        visible={!!told}
        onDismiss={() => setTold(undefined)}
        duration={7000}
        action={told?.undo && { label: 'Undo', onPress: () => void told.undo?.().then(refresh) }}
      >
        {told?.text}
      </Snackbar>
    </>
  );
}
