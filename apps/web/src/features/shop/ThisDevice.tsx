import { useSyncExternalStore } from 'react';
import { View } from 'react-native';
import useSWR from 'swr';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Hand, choose, chosen } from '../../compute/choice';
import { canKeep, useCopy } from '../../shell/installed';
import { SPACE } from '../../theme/theme';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';

const HANDS = [
  { value: 'device', label: 'this device' },
  { value: 'server', label: 'the server' },
] as const;

/** Who plans and proves for this device. */
function Hands() {
  const choice = useSyncExternalStore(chosen.listen, chosen.now, chosen.now);
  return (
    <View style={{ gap: SPACE.xs }} testID="hands">
      <Choices<Hand>
        label="Paths and proofs are made by"
        value={choice?.hand}
        options={HANDS}
        onChange={(hand) => choose({ hand, isChosen: true })}
      />
      <Txt kind="small" tone="quiet">
        {!choice
          ? 'The first plan that takes a while decides: a device that needs over three times as long leaves it to the server.'
          : choice.isChosen
            ? 'Chosen here. Playing and probing always cut on this device.'
            : choice.hand === 'server'
              ? 'The server, because this device took over three times as long. Playing and probing cut on this device.'
              : 'This device is fast enough for it.'}
      </Txt>
    </View>
  );
}

/** What this device can do without the server, and what would change it. */
export function ThisDevice() {
  const { data: computes } = useSWR(KEYS.computes, api.computes);
  const isMade = useCopy();
  return (
    <View style={{ gap: SPACE.s }}>
      <Txt heading kind="large">
        This device
      </Txt>
      {canKeep() ? (
        <Txt kind="small" testID="world">
          {isMade
            ? '✓ It keeps the app, and what it saw last: both are there without the server. What is changed meanwhile is sent once it answers.'
            : '↻ A copy of the app is being made on this device: once it is there, the app opens without the server.'}
        </Txt>
      ) : (
        <Txt kind="small" tone="care" testID="world">
          ◆ It came over plain http, so this browser keeps no copy of the app. What is open goes on without the server
          and is sent later, but nothing can be opened until it answers, and what is sent can be read on the way. Start
          the server with a certificate this device trusts (TIDYPATH_CERT, TIDYPATH_KEY) to change that.
        </Txt>
      )}
      {computes && <Hands />}
    </View>
  );
}
