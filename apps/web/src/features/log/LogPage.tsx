import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { LogQuestion, LogRow, formatNumber } from '@tidypath/core';
import { ApiError, LogPage as Found, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Page } from '../../shell/Page';
import { SIZE, SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Empty } from '../../ui/Empty';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';
import { EntryText } from '../../ui/log/EntryText';
import { LessonsCard } from '../../ui/log/LessonsCard';
import { PointsFigure } from '../../ui/log/PointsFigure';
import { useSettled } from '../../ui/useSettled';
import { FindEntries } from './FindEntries';

/** Entries on a page of the server. */
const PAGE = 50;
/** Letters are looked for once they stand still, ms. */
const STILL = 250;

/** What the log tells by itself. */
function NoticesCard() {
  const { data } = useSWR(KEYS.notices, api.notices);
  const router = useRouter();
  if (!data || data.length === 0) return null;
  return (
    <Card testID="notices">
      <Txt heading kind="large">
        Worth a look
      </Txt>
      <FindingList
        findings={data}
        goTo={(f) => (f.place.tool ? () => router.push(`/tools/${f.place.tool}`) : undefined)}
        goLabel="The tool"
      />
    </Card>
  );
}

/** How long runs took against what was computed, in their order. */
function TimeChart({ rows }: { rows: LogRow[] }) {
  const timed = rows.filter((r) => r.seconds !== undefined && r.computed > 0).reverse();
  if (timed.length < 2) return null;
  const shares = timed.map((r) => (100 * r.seconds!) / r.computed);
  const text = (v: number) => `${formatNumber(v, 0)} %`;
  return (
    <Card>
      <PointsFigure
        title="Real time, of what was computed"
        summary={`${timed.length} runs took from ${text(Math.min(...shares))} to ${text(Math.max(...shares))} of their computed time`}
        values={shares}
        text={text}
        along={`${timed.length} timed runs of those below`}
        levels={[{ value: 100, name: 'as computed', look: 'aim' }]}
      />
    </Card>
  );
}

function EntryCard({ row }: { row: LogRow }) {
  const router = useRouter();
  return (
    <Card>
      <Pressable
        role="link"
        onPress={() => router.push(`/release/${row.releaseId}`)}
        style={{ minHeight: SIZE.touch, justifyContent: 'center' }}
      >
        <Txt bold tone="accent">
          {row.jobName}, {row.setupName}, release {row.number}
        </Txt>
      </Pressable>
      <EntryText
        entry={row}
        about={`${row.machine}${row.facts.material ? `, ${row.facts.material}` : ''}`}
        nameOf={(id) => row.facts.names[id] ?? 'An operation'}
      />
    </Card>
  );
}

/** The log of the shop: what ran, what was seen, and what it teaches. */
export function LogPage() {
  const wide = useWide();
  const [{ question, page }, setAsked] = useState<{ question: LogQuestion; page: number }>({ question: {}, page: 0 });
  const settled = useSettled(question, STILL);
  const { data, error } = useSWR<Found, ApiError>(KEYS.logRows(settled, page), () => api.logRows(settled, page), {
    keepPreviousData: true,
  });
  const isAll = Object.values(question).every((v) => !v);
  const turn = (by: number) => setAsked({ question, page: page + by });
  return (
    <Page title="Log">
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: SPACE.l, alignItems: 'flex-start' }}>
        <View style={{ flex: wide ? 3 : undefined, width: wide ? undefined : '100%', gap: SPACE.m }}>
          <FindEntries question={question} onQuestion={(q) => setAsked({ question: q, page: 0 })} />
          {error && <Txt tone="danger">▲ {error.message}</Txt>}
          {data && (
            <Txt kind="small" tone="quiet" live testID="log-count">
              {counted(data.total, 'entry', 'entries')}
            </Txt>
          )}
          {data?.total === 0 &&
            (isAll ? (
              <Empty title="Nothing is logged yet">
                <Txt tone="quiet">
                  Parts are logged on the page of their release, with two taps; runs of the simulated machine log
                  themselves.
                </Txt>
              </Empty>
            ) : (
              <Txt>Nothing in the log is like that.</Txt>
            ))}
          {data?.rows.map((row) => (
            <EntryCard key={row.id} row={row} />
          ))}
          {data && data.total > PAGE && (
            <Row>
              <Button disabled={page === 0} onPress={() => turn(-1)}>
                Later ones
              </Button>
              <Button disabled={(page + 1) * PAGE >= data.total} onPress={() => turn(1)}>
                Earlier ones
              </Button>
            </Row>
          )}
        </View>
        <View style={{ flex: wide ? 2 : undefined, width: wide ? undefined : '100%', gap: SPACE.m }}>
          <NoticesCard />
          <LessonsCard title="What it teaches" />
          {data && <TimeChart rows={data.rows} />}
        </View>
      </View>
    </Page>
  );
}
