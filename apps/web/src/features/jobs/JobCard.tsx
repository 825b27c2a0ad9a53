import { formatDistanceToNow } from 'date-fns/formatDistanceToNow';
import { useRouter } from 'expo-router';
import { Pressable, View } from 'react-native';
import { IconButton } from 'react-native-paper';
import Svg, { G, Path } from 'react-native-svg';
import { JobSummary, JobState, Thumbnail, filesOf, formatTime, jobText, packJob } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { bringFiles } from '../../api/files';
import { bring } from '../../api/writes';
import { SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { IconName } from '../../ui/Icon';
import { saveFile } from '../../ui/files';

const THUMB = { width: 96, height: 68 };

function Picture({ thumbnail }: { thumbnail: Thumbnail }) {
  const palette = usePalette();
  const { box } = thumbnail;
  const margin = Math.max(box.width, box.height) * 0.06;
  const scale = Math.max(box.width / THUMB.width, box.height / THUMB.height);
  return (
    <View aria-hidden style={{ backgroundColor: palette.background, borderRadius: 6, alignSelf: 'flex-start' }}>
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

type Stage = 'part' | 'cut' | 'prove' | 'release';
/** How far a job is, in a shape and a few words, and where it goes on. */
const STATES: Record<JobState, { words: (job: JobSummary) => string; next: string; stage: Stage }> = {
  empty: { words: () => '– no operations yet', next: 'draw it, then plan it', stage: 'part' },
  'not proved': { words: () => '○ not proved', next: 'prove it', stage: 'prove' },
  'out of date': { words: () => '↻ changed since it was proved', next: 'prove it again', stage: 'prove' },
  'to cure': { words: ({ stops }) => `▲ ${stops} to cure`, next: 'cure what stops it', stage: 'cut' },
  proved: { words: () => '✓ proved', next: 'release it', stage: 'release' },
  released: { words: () => '✓ released', next: 'run it', stage: 'release' },
};
export const stateWords: Record<JobState, string> = {
  empty: 'no operations',
  'not proved': 'not proved',
  'out of date': 'out of date',
  'to cure': 'to cure',
  proved: 'proved',
  released: 'released',
};

const safe = (name: string) => name.replace(/[^A-Za-z0-9]+/g, '-').toLowerCase();
const ago = (at: string) => formatDistanceToNow(new Date(at), { addSuffix: true });

interface Props {
  job: JobSummary;
  onDone: (told: string, undo?: () => Promise<void>) => void;
  onProblem: (text: string) => void;
}

interface Action {
  icon: IconName;
  verb: string;
  act: () => Promise<void>;
}

/** What can be done with a job from the list; each can be undone. */
function actionsOf({ id, name, archived, deletedAt }: JobSummary, onDone: Props['onDone']): Action[] {
  const put = async (what: 'bin' | 'archive', there: boolean) => void (await bring({ what, id, name, there }));
  const bringBack = () => put('bin', true);
  if (deletedAt)
    return [{ icon: 'restore', verb: 'Bring back', act: () => bringBack().then(() => onDone(`“${name}” is back`)) }];
  const archive = async (away: boolean) => {
    await put('archive', !away);
    onDone(`“${name}” ${away ? 'archived' : 'back in the list'}`, () => put('archive', away));
  };
  return [
    { icon: 'content-copy', verb: 'Duplicate', act: () => api.duplicate(id).then(() => onDone(`“${name}” copied`)) },
    {
      icon: 'download-outline',
      verb: 'Export',
      act: async () => {
        const { job } = await api.job(id);
        await bringFiles(job);
        if (filesOf(job).length > 0) saveFile(`${safe(name)}.tidypath.zip`, packJob(job), 'application/zip');
        else saveFile(`${safe(name)}.tidypath.json`, jobText(job), 'application/json');
      },
    },
    archived
      ? { icon: 'archive-arrow-up-outline', verb: 'Take out of the archive', act: () => archive(false) }
      : { icon: 'archive-arrow-down-outline', verb: 'Archive', act: () => archive(true) },
    {
      icon: 'delete-outline',
      verb: 'Delete',
      act: () => put('bin', false).then(() => onDone(`“${name}” deleted`, bringBack)),
    },
  ];
}

/** One job: picture, state, time, machine, and what to do next. */
export function JobCard({ job, onDone, onProblem }: Props) {
  const router = useRouter();
  const palette = usePalette();
  const state = STATES[job.state];
  const tone = job.state === 'to cure' ? 'danger' : job.state === 'out of date' ? 'care' : 'ink';
  return (
    <Card style={{ padding: 0, gap: 0, flex: 1 }} testID={`job-${job.name}`}>
      <Pressable
        role="link"
        onPress={() => router.push(`/job/${job.id}/${state.stage}`)}
        style={{ flexDirection: 'row', gap: SPACE.m, padding: SPACE.m, paddingBottom: 0, flexGrow: 1 }}
      >
        <Picture thumbnail={job.thumbnail} />
        <View style={{ flex: 1, minWidth: 0 }}>
          <Txt kind="large" bold lines={2}>
            {job.name}
          </Txt>
          <Txt kind="small" tone={tone}>
            {state.words(job)}
            {job.seconds > 0 ? ` · ${formatTime(job.seconds / 60)}` : ''} · next: {state.next}
          </Txt>
          <Txt kind="small" tone="quiet" lines={2}>
            {[job.customerNumber, job.material, job.machine].filter(Boolean).join(' · ')}
          </Txt>
          {job.tags.length > 0 && (
            <Txt kind="small" tone="quiet" lines={1}>
              {job.tags.map((t) => `#${t}`).join(' ')}
            </Txt>
          )}
          <Txt kind="small" tone="quiet" lines={1}>
            {job.deletedAt ? `deleted ${ago(job.deletedAt)}` : `changed ${ago(job.updatedAt)}`}
          </Txt>
        </View>
      </Pressable>
      <View style={{ flexDirection: 'row', justifyContent: 'flex-end' }}>
        {actionsOf(job, onDone).map(({ icon, verb, act }) => (
          <IconButton
            key={verb}
            icon={icon}
            iconColor={palette.quiet}
            accessibilityLabel={`${verb} ${job.name}`}
            onPress={() => void act().catch((e: ApiError) => onProblem(e.message))}
          />
        ))}
      </View>
    </Card>
  );
}
