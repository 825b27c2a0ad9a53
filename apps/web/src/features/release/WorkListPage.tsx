import { useRouter } from 'expo-router';
import { Pressable, View } from 'react-native';
import useSWR from 'swr';
import { ReleaseRow, changedWords, formatTime } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Empty } from '../../ui/Empty';
import { Txt } from '../../ui/Txt';
import { STATE_TONE, madeText, releaseName, stateText } from './words';

/** What was released last of a setup: whether it may run, and what has to be loaded first. */
function One({ row }: { row: ReleaseRow }) {
  const router = useRouter();
  const changed = changedWords(row.against);
  return (
    <Pressable role="link" onPress={() => router.push(`/release/${row.id}`)} testID={`work-${row.id}`}>
      <Card>
        <Txt bold>
          {row.jobName}, {row.setupName} ›
        </Txt>
        <Txt tone={STATE_TONE[row.state.state]}>{stateText(row.state)}</Txt>
        <Txt kind="small" tone="quiet">
          {releaseName(row)}, {formatTime(row.seconds / 60)}; {madeText(row)}
        </Txt>
        {row.toLoad.length > 0 && <Txt kind="small">To load: {row.toLoad.join(', ')}</Txt>}
        {changed !== '' && (
          <Txt kind="small" tone="care">
            ◆ In the job {changed} changed since
          </Txt>
        )}
      </Card>
    </Pressable>
  );
}

/** What is released, machine by machine: ready to run, or waiting for somebody. */
export function WorkListPage() {
  const { data, error } = useSWR<ReleaseRow[], ApiError>(KEYS.workList, api.workList);
  const machines = [...new Set(data?.map((r) => r.machine))];
  return (
    <Page title="Work list">
      {error && <Txt tone="danger">▲ {error.message}</Txt>}
      {data?.length === 0 && (
        <Empty title="Nothing is released yet">
          <Txt tone="quiet">A program comes here from the Release page of its job.</Txt>
        </Empty>
      )}
      {machines.map((machine) => (
        <View key={machine} style={{ gap: SPACE.s }}>
          <Txt heading kind="large">
            {machine}
          </Txt>
          {data!
            .filter((r) => r.machine === machine)
            .map((row) => (
              <One key={row.id} row={row} />
            ))}
        </View>
      ))}
    </Page>
  );
}
