import { ReactNode, useEffect, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useSWRConfig } from 'swr';
import { api } from '../api/client';
import { onEvent } from '../api/events';
import { KEYS } from '../api/keys';
import { down } from '../api/flags';
import { sendUnsent } from '../api/outbox';
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

/** The lists of jobs are asked for anew when something in them changed elsewhere. */
function useNews(): void {
  const { mutate } = useSWRConfig();
  useEffect(
    () =>
      onEvent(({ kind }) => {
        if (kind !== 'job' && kind !== 'missed') return;
        void mutate((key) => Array.isArray(key) && (key[0] === 'jobs' || key[0] === 'versions'));
        void mutate(KEYS.jobChoices);
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
    const send = () => void sendUnsent().then(() => mutate(KEYS.unsent));
    send();
    const timer = setInterval(send, TRY);
    window.addEventListener('online', send);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', send);
    };
  }, [mutate]);
}

/** Above everything: that the server does not answer, and that a newer version of the app waits. */
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
            ◆ The server does not answer: you see what this device saw last. Jobs you change are kept here and sent
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
