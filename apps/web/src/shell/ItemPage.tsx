import { useRouter } from 'expo-router';
import { ReactNode, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { SHELVES, ShelfName } from '@tidypath/core';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShelf } from '../api/useShelf';
import { Page } from './Page';
import { SPACE } from '../theme/theme';
import { Card, Row } from '../ui/Card';
import { Empty } from '../ui/Empty';
import { Txt } from '../ui/Txt';
import type { DraftState, useDraft } from './useDraft';

const STATE_WORDS: Record<DraftState, string> = {
  saved: 'saved',
  saving: 'saving …',
  'held back': '▲ not saved: correct the marked field',
  waits: '▲ kept here, not sent: trying again',
  failed: '▲ not saved',
};

interface Props {
  shelf: ShelfName;
  id: string;
  title: string | undefined;
  back: '/tools' | '/shop' | '/recipes';
  draft: Pick<ReturnType<typeof useDraft>, 'state' | 'told' | 'loading' | 'theirs' | 'takeTheirs' | 'keepMine'>;
  actions?: ReactNode;
  children: ReactNode;
}

/** The frame of one thing of the shop: its name, whether it is saved, who uses it, and putting it aside with a way back. */
export function ItemPage({ shelf, id, title, back, draft, actions, children }: Props) {
  const router = useRouter();
  const { remove, restore } = useShelf(shelf);
  const { data: jobs } = useSWR(KEYS.jobsUsing(shelf, id), () => api.jobsUsing(shelf, id));
  const [gone, setGone] = useState(false);
  const { one } = SHELVES[shelf];
  const home = (
    <Button compact onPress={() => router.push(back)} icon="chevron-left">
      All
    </Button>
  );
  if (title === undefined)
    return (
      <Page title={draft.loading ? '' : `No such ${one}`} actions={home}>
        {!draft.loading && !gone && (
          <Empty title={`There is no such ${one}`}>
            <Txt tone="quiet">{draft.told ?? 'It may have been deleted.'}</Txt>
          </Empty>
        )}
        {gone && (
          <Button mode="outlined" onPress={() => void restore(id).then(() => setGone(false))}>
            Bring it back
          </Button>
        )}
      </Page>
    );
  return (
    <Page
      title={title}
      actions={
        <Row>
          <Txt
            kind="small"
            tone={draft.state === 'saved' || draft.state === 'saving' ? 'quiet' : 'danger'}
            live
            testID="item-state"
          >
            {STATE_WORDS[draft.state]}
          </Txt>
          {home}
        </Row>
      }
    >
      {draft.told && <Txt tone="danger">▲ {draft.told}</Txt>}
      {draft.theirs !== undefined && (
        <Card>
          <Txt bold>◆ Somebody else changed this {one} meanwhile</Txt>
          <Row>
            <Button mode="outlined" onPress={draft.takeTheirs}>
              Take theirs
            </Button>
            <Button mode="outlined" onPress={draft.keepMine}>
              Keep mine
            </Button>
          </Row>
        </Card>
      )}
      {children}
      <Card>
        <Txt heading kind="large">
          Jobs that use it
        </Txt>
        {jobs?.length === 0 && <Txt tone="quiet">None yet.</Txt>}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
          {jobs?.map((j) => (
            <Button key={j.id} compact mode="outlined" onPress={() => router.push(`/job/${j.id}/cut`)}>
              {j.name}
            </Button>
          ))}
        </View>
        <Txt kind="small" tone="quiet">
          Jobs keep the copy they were made with; a job takes the new one when you choose it there again.
        </Txt>
      </Card>
      <Row>
        {actions}
        <Button
          mode="outlined"
          onPress={() => {
            setGone(true);
            void remove(id);
          }}
        >
          Delete
        </Button>
      </Row>
    </Page>
  );
}
