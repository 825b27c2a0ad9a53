import { useState } from 'react';
import { View } from 'react-native';
import { Button, Switch, TextInput } from 'react-native-paper';
import useSWR from 'swr';
import { HandingOut } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

/** How programs leave the shop's computers: approved or at once, and under which address sheets lead phones back here. */
export function HandingOutCard() {
  const { data, mutate } = useSWR(KEYS.handingOut, api.handingOut);
  const [address, setAddress] = useState<string>();
  const [failed, setFailed] = useState('');
  if (!data) return null;
  const set = (more: Partial<HandingOut>) =>
    void api.setHandingOut({ ...data, ...more }).then(
      () => {
        setFailed('');
        setAddress(undefined);
        void mutate();
      },
      (error: ApiError) => setFailed(error.message),
    );
  const typed = address ?? data.address;
  return (
    <View style={{ gap: SPACE.s }}>
      <Txt heading kind="large">
        Handing out programs
      </Txt>
      <Card testID="handing-out">
        <Row>
          <Switch
            value={data.needsApproval}
            onValueChange={(needsApproval) => set({ needsApproval })}
            accessibilityLabel="Programs need approval"
            testID="needs-approval"
          />
          <Txt style={{ flexShrink: 1 }}>
            Programs are handed out only after somebody who may approve has looked at them
          </Txt>
        </Row>
        <Txt kind="small" tone="quiet">
          Only an approver changes this. The server then plans, proves and keeps each program itself and hands out
          nothing else. It is no lock: text on a screen can still be typed, a file that was handed out can be edited
          (its head and its sheet carry the same eight digits: compare them), and who owns the server’s machine owns its
          data.
        </Txt>
        <TextInput
          mode="outlined"
          label="Address for phones, or none"
          aria-label="Address for phones"
          placeholder="http://192.168.1.20:4380"
          value={typed}
          onChangeText={setAddress}
          autoCapitalize="none"
        />
        {typed !== data.address && (
          <Button mode="outlined" style={{ alignSelf: 'flex-start' }} onPress={() => set({ address: typed.trim() })}>
            Keep the address
          </Button>
        )}
        <Txt kind="small" tone="quiet">
          With it a setup sheet has a code that leads a phone on the shop’s network to its release.
        </Txt>
        {failed !== '' && (
          <Txt tone="danger" live>
            ▲ {failed}
          </Txt>
        )}
      </Card>
    </View>
  );
}
