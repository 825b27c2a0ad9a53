import { ReactNode, useEffect, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useSWRConfig } from 'swr';
import { api } from '../api/client';
import { onEvent } from '../api/events';
import { KEYS } from '../api/keys';
import { down } from '../api/flags';
import { sendUnsent } from '../api/outbox';
import { bringWaiting } from '../api/writes';
import { SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { useInstalled } from './installed';

/** Between two questions whether the server is back, ms. */
const PAUSE = 5000;

function Strip({ testID, children }: { testID: string; children: ReactNode }) {
  const palette = usePalette();
  return (
    <View
      role="status"
      testID={testID}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: SPACE.s,
        paddingHorizontal: SPACE.m,
        paddingVertical: SPACE.xs,
        backgroundColor: palette.careSoft,
      }}
    >
      {children}
    </View>
  );
}

/** Picks what SWR keeps by the first word of its key. */
const isOneOf =
  (...words: string[]) =>
  (key: unknown) =>
    words.includes(Array.isArray(key) ? (key[0] as string) : (key as string));

/** Lists are asked for anew when something in them changed elsewhere. */
function useNews(): void {
  const { mutate } = useSWRConfig();
  useEffect(
    () =>
      onEvent(({ kind }) => {
        if (kind === 'job' || kind === 'missed')
          void mutate(isOneOf('jobs', 'versions', 'releases', 'comments', KEYS.jobChoices));
        if (kind === 'runs' || kind === 'missed') void mutate(isOneOf('runs'));
        if (kind === 'releases') void mutate(isOneOf('releases', 'jobs'));
        if (kind === 'shelf' || kind === 'missed') void mutate(isOneOf('shelf', 'unread'));
      }),
    [mutate],
  );
}

/** Between two tries to send what lies here, ms. */
const TRY = 30_000;

/** What this device could not send is sent once it can be: at the start, when the server is back, and now and then. */
function useOutbox(): void {
  const { mutate } = useSWRConfig();
  useEffect(() => {
    const send = async () => {
      if (await bringWaiting()) void mutate(isOneOf('jobs', 'shelf'));
      await sendUnsent();
      void mutate(KEYS.unsent);
    };
    const begin = () => void send();
    begin();
    const timer = setInterval(begin, TRY);
    window.addEventListener('online', begin);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', begin);
    };
  }, [mutate]);
}

/** Below everything, where it moves nothing from under a finger: that the server does not answer, and that a newer version of the app waits. */
export function Line() {
  const isDown = useSyncExternalStore(down.listen, down.now, down.now);
  const takeOver = useInstalled();
  useNews();
  useOutbox();
  useEffect(() => {
    if (!isDown) return;
    const timer = setInterval(() => void api.health().catch(() => undefined), PAUSE);
    return () => {
      clearInterval(timer);
      // It is back: whoever waits for it sends and asks anew.
      window.dispatchEvent(new Event('online'));
    };
  }, [isDown]);
  return (
    <>
      {isDown && (
        <Strip testID="line-down">
          <Txt kind="small" style={{ flex: 1 }}>
            ◆ The server does not answer: you see what this device saw last. What you change is kept here and sent
            later.
          </Txt>
        </Strip>
      )}
      {takeOver && (
        <Strip testID="newer">
          <Txt kind="small" style={{ flex: 1 }}>
            A newer version of Tidy Path is here
          </Txt>
          <Button compact mode="outlined" onPress={takeOver}>
            Reload
          </Button>
        </Strip>
      )}
    </>
  );
}
