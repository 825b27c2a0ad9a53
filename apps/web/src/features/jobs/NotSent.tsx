import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { IconButton } from 'react-native-paper';
import useSWR, { useSWRConfig } from 'swr';
import type { ShelfName } from '@tidypath/core';
import { Draft, draftOf, dropDraft, keepDraft } from '../../api/drafts';
import { KEYS } from '../../api/keys';
import { Unsent, unsent } from '../../api/outbox';
import { useWaiting } from '../../api/useWaiting';
import { Waiting, Write, dropWrite, keepWrite, nameOf } from '../../api/writes';
import { SPACE } from '../../theme/theme';
import { LinkCard } from '../../ui/LinkCard';
import { Txt } from '../../ui/Txt';

/** Between two looks, ms. */
const LOOK = 10_000;

/** Where something of the shop is to be seen. */
const pageOf = (shelf: ShelfName, id: string) =>
  shelf === 'recipes' ? '/recipes' : shelf === 'tools' ? `/tools/${id}` : `/shop/${shelf}/${id}`;

/** What a write that waits did, and where it is to be seen. */
function aboutWrite(write: Write): { text: string; page: string } {
  switch (write.what) {
    case 'item':
      return {
        text: write.version === 0 ? 'Made here' : 'Changed here',
        page: pageOf(write.shelf, write.item.id),
      };
    case 'shelf':
      return { text: write.there ? 'Brought back here' : 'Deleted here', page: pageOf(write.shelf, write.id) };
    case 'bin':
      return { text: write.there ? 'Brought back here' : 'Deleted here', page: `/job/${write.id}/part` };
    case 'archive':
      return { text: write.there ? 'Taken out of the archive here' : 'Archived here', page: `/job/${write.id}/part` };
    case 'comment':
      return { text: 'Said here at an operation', page: `/job/${write.id}/cut` };
    case 'size':
      return { text: 'Measured here', page: `/release/${write.id}` };
    case 'correction':
      return { text: 'Entered at the control, said here', page: `/release/${write.id}` };
    case 'log':
      return { text: 'Logged here', page: `/release/${write.id}` };
    case 'tick':
      return { text: write.isSo ? 'Ticked here' : 'Told here that it is not so', page: `/release/${write.id}` };
  }
}

interface Line {
  key: string;
  title: string;
  text: string;
  page: string;
  /** Lets it go; what brings it back. */
  drop: () => Promise<() => Promise<void>>;
}

function lineOfWrite({ write, at, told }: Waiting): Line {
  const { text, page } = aboutWrite(write);
  const drop = () => {
    dropWrite(write);
    return Promise.resolve(() => Promise.resolve(void keepWrite(write, { at, told })));
  };
  return { key: `${write.what} ${page}`, title: nameOf(write), text: told ? `${text}; ▲ ${told}` : text, page, drop };
}

function lineOfJob({ id, name, isNew, told }: Unsent): Line {
  const drop = async () => {
    const draft = await draftOf(id);
    await dropDraft(id);
    return async () => void (draft && (await keepDraft(id, draft satisfies Draft)));
  };
  const text = isNew ? 'Made here' : 'Changed here';
  return { key: id, title: name, text: told ? `${text}; ▲ ${told}` : text, page: `/job/${id}/part`, drop };
}

/** What is kept here that the server has not got yet; each can be looked at, or thrown away with a way back. */
export function NotSent({ onDone }: { onDone: (told: string, undo: () => Promise<void>) => void }) {
  const router = useRouter();
  const { mutate } = useSWRConfig();
  const { data: jobs = [] } = useSWR(KEYS.unsent, unsent, { refreshInterval: LOOK });
  const lines = [...jobs.map(lineOfJob), ...useWaiting().map(lineOfWrite)];
  if (lines.length === 0) return null;
  const throwAway = async ({ title, drop }: Line) => {
    const back = await drop();
    void mutate(KEYS.unsent);
    onDone(`What was kept here of “${title}” is thrown away`, async () => {
      await back();
      void mutate(KEYS.unsent);
    });
  };
  return (
    <View style={{ gap: SPACE.s }} testID="not-sent">
      <Txt kind="small" tone="care">
        ◆ Kept on this device until the server has it; what somebody else changed too is asked about when it is opened
      </Txt>
      {lines.map((line) => (
        <View key={line.key} style={{ flexDirection: 'row', alignItems: 'center' }}>
          <View style={{ flex: 1 }}>
            <LinkCard title={line.title} text={line.text} onPress={() => router.push(line.page as never)} />
          </View>
          <IconButton
            icon="close"
            accessibilityLabel={`Throw away what is kept of ${line.title}`}
            onPress={() => void throwAway(line)}
          />
        </View>
      ))}
    </View>
  );
}
