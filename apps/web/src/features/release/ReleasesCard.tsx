import { useRouter } from 'expo-router';
import { View } from 'react-native';
import useSWR from 'swr';
import { ReleaseRow } from '@tidypath/core';
import { api } from '../../api/client';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';
import { ReleaseActions } from './ReleaseActions';
import { STATE_TONE, madeText, releaseName, stateText } from './words';

function One({ row }: { row: ReleaseRow }) {
  const router = useRouter();
  return (
    <View style={{ gap: SPACE.xs }} testID={`release-${row.number}`}>
      <Txt bold>{releaseName(row)}</Txt>
      <Txt kind="small" tone="quiet">
        {madeText(row)}
      </Txt>
      <Txt tone={STATE_TONE[row.state.state]}>{stateText(row.state)}</Txt>
      <ReleaseActions row={row} onOpen={() => router.push(`/release/${row.id}`)} />
    </View>
  );
}

/** What the newest release changed against an earlier one, looked up when it is asked for. */
function Changed({ from, to }: { from: ReleaseRow; to: ReleaseRow }) {
  const { data } = useSWR(['releases', 'between', from.id, to.id], () => api.between(from.id, to.id));
  return data?.lines.map((line, i) => (
    <Txt key={i} kind="small">
      {line}
    </Txt>
  ));
}

/** The releases of a setup, the newest first; the earlier ones fold away. */
export function ReleasesCard({ rows }: { rows: ReleaseRow[] }) {
  if (rows.length === 0) return null;
  const [first, ...earlier] = rows;
  return (
    <Card testID="releases">
      <Txt heading bold>
        Released
      </Txt>
      <One row={first} />
      {earlier.length > 0 && (
        <Fold label={earlier.length === 1 ? 'One earlier' : `${earlier.length} earlier`}>
          {() =>
            earlier.map((row) => (
              <View key={row.id}>
                <One row={row} />
                <Fold label={`What release ${first.number} changed`}>{() => <Changed from={row} to={first} />}</Fold>
              </View>
            ))
          }
        </Fold>
      )}
    </Card>
  );
}
