import { formatDistanceToNow } from 'date-fns/formatDistanceToNow';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button, IconButton, Snackbar, TextInput } from 'react-native-paper';
import Svg, { G, Path } from 'react-native-svg';
import useSWR, { useSWRConfig } from 'swr';
import { Finding, Job, LengthUnit, Thumbnail, UNNAMED, newJob, parseJob } from '@tidypath/core';
import type { JobSummary } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { usePalette, useWide } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { Choices, UNITS, plainOptions } from '../../ui/Choices';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { pickText, saveFile } from '../../ui/files';

const THUMB = { width: 96, height: 68 };

function Picture({ thumbnail }: { thumbnail: Thumbnail }) {
  const palette = usePalette();
  const { box } = thumbnail;
  const margin = Math.max(box.width, box.height) * 0.06;
  const scale = Math.max(box.width / THUMB.width, box.height / THUMB.height);
  return (
    <View aria-hidden style={{ backgroundColor: palette.background, borderRadius: 6 }}>
      <Svg
        width={THUMB.width}
        height={THUMB.height}
        viewBox={`${box.x - margin} ${-(box.y + box.height + margin)} ${box.width + 2 * margin} ${box.height + 2 * margin}`}
      >
        <G transform="scale(1,-1)">
          <Path
            d={thumbnail.outside}
            fill={palette.stock}
            fillOpacity={0.35}
            stroke={palette.part}
            strokeWidth={scale * 1.4}
          />
          <Path d={thumbnail.inside} fill="none" stroke={palette.part} strokeWidth={scale} />
        </G>
      </Svg>
    </View>
  );
}

const safe = (name: string) => name.replace(/[^A-Za-z0-9]+/g, '-').toLowerCase();

function JobCard({
  job,
  onDone,
  onProblem,
}: {
  job: JobSummary;
  onDone: (told: string, undo?: () => Promise<void>) => void;
  onProblem: (text: string) => void;
}) {
  const router = useRouter();
  const palette = usePalette();
  const attempt = (work: () => Promise<void>) => () => void work().catch((e: ApiError) => onProblem(e.message));
  const duplicate = attempt(async () => {
    await api.duplicate(job.id);
    onDone(`“${job.name}” copied`);
  });
  const remove = attempt(async () => {
    await api.remove(job.id);
    onDone(`“${job.name}” deleted`, () => api.restore(job.id));
  });
  const exportJob = attempt(async () => {
    const row = await api.job(job.id);
    saveFile(`${safe(job.name)}.tidypath.json`, JSON.stringify(row.job, null, 1) + '\n', 'application/json');
  });
  return (
    <Card style={{ padding: 0 }} testID={`job-${job.name}`}>
      <Pressable
        role="link"
        onPress={() => router.push(`/job/${job.id}/cut`)}
        style={{ flexDirection: 'row', gap: SPACE.m, padding: SPACE.m, paddingBottom: 0, alignItems: 'center' }}
      >
        <Picture thumbnail={job.thumbnail} />
        <View style={{ flex: 1, minWidth: 0 }}>
          <Txt kind="large" bold lines={2}>
            {job.name}
          </Txt>
          <Txt kind="small" tone="quiet">
            changed {formatDistanceToNow(new Date(job.updatedAt), { addSuffix: true })}
          </Txt>
        </View>
      </Pressable>
      <View style={{ flexDirection: 'row', justifyContent: 'flex-end' }}>
        <IconButton
          icon="content-copy"
          iconColor={palette.quiet}
          accessibilityLabel={`Duplicate ${job.name}`}
          onPress={duplicate}
        />
        <IconButton
          icon="download-outline"
          iconColor={palette.quiet}
          accessibilityLabel={`Export ${job.name}`}
          onPress={exportJob}
        />
        <IconButton
          icon="delete-outline"
          iconColor={palette.quiet}
          accessibilityLabel={`Delete ${job.name}`}
          onPress={remove}
        />
      </View>
    </Card>
  );
}

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

/** All jobs: open, make, copy, delete with a way back, take in and hand out as files. */
export function JobsPage() {
  const router = useRouter();
  const wide = useWide();
  const { mutate } = useSWRConfig();
  const { data: jobs, error } = useSWR(KEYS.jobs, api.jobs);
  const [naming, setNaming] = useState(false);
  const [told, setTold] = useState<{ text: string; undo?: () => Promise<void> }>();
  const [findings, setFindings] = useState<Finding[]>([]);

  const refresh = () => mutate(KEYS.jobs);
  const done = (text: string, undo?: () => Promise<void>) => {
    setTold({ text, undo });
    void refresh();
  };
  const create = async (job: Job) => {
    try {
      const row = await api.create(job);
      void refresh();
      router.push(`/job/${row.id}/part`);
    } catch (e) {
      setTold({ text: (e as ApiError).message });
    }
  };
  const importJob = async () => {
    const file = await pickText('.json');
    if (!file) return;
    const read = parseJob(file.text);
    setFindings(read.findings);
    if (!read.job) return;
    try {
      await api.create(read.job);
      done(`“${read.job.name}” taken in`);
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
            <Txt bold>The file was not taken in</Txt>
            {findings.slice(0, 8).map((f, i) => (
              <FindingCard key={i} finding={f} />
            ))}
          </View>
        )}
        {error && !jobs && <Txt tone="danger">▲ {(error as ApiError).message}. Trying again.</Txt>}
        {jobs?.length === 0 && (
          <Empty title="No jobs yet">
            <Txt tone="quiet">Start one from a drawing or from shapes, or take in a job file.</Txt>
            <Button mode="contained" onPress={() => setNaming(true)}>
              New job
            </Button>
          </Empty>
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
          {jobs?.map((job) => (
            <View key={job.id} style={wide ? { flexBasis: 330, flexGrow: 1, maxWidth: 480 } : { width: '100%' }}>
              <JobCard job={job} onDone={done} onProblem={(text) => setTold({ text })} />
            </View>
          ))}
        </View>
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
