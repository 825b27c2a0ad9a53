import { useState } from 'react';
import { Linking } from 'react-native';
import { Button } from 'react-native-paper';
import { ReleaseRow, isHandedOut } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { saveFile } from '../../ui/files';

/** Keeps the programs of a release as files; says why where they are not handed out. */
export function useHandOut(row: ReleaseRow): { take: () => void; send: () => void; told: string } {
  const [told, setTold] = useState('');
  const attempt = (work: () => Promise<string>) => () =>
    void work().then(setTold, (error: ApiError) => setTold(`▲ ${error.message}`));
  return {
    told,
    take: attempt(async () => {
      const bytes = await api.programs(row.id);
      if (row.files.length === 1) saveFile(row.files[0], bytes, 'text/plain');
      else saveFile(`release-${row.number}.zip`, bytes, 'application/zip');
      return '';
    }),
    send: attempt(async () => `Lies in ${(await api.sendToMachine(row.id)).folder} of the server’s data`),
  };
}

/** What is done with a release: its programs, its sheet, its place at the machine. */
export function ReleaseActions({ row, onOpen }: { row: ReleaseRow; onOpen?: () => void }) {
  const { take, send, told } = useHandOut(row);
  const isFree = isHandedOut(row.state);
  return (
    <>
      <Row>
        {isFree && (
          <Button compact mode="outlined" onPress={take} testID={`take-${row.number}`}>
            Download
          </Button>
        )}
        {isFree && (
          <Button compact mode="outlined" onPress={send}>
            To the machine
          </Button>
        )}
        <Button compact onPress={() => void Linking.openURL(api.paperOf(row.id, 'sheet.html'))}>
          Setup sheet
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.paperOf(row.id, 'sheet-A4.pdf'))}>
          PDF, A4
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.paperOf(row.id, 'sheet-Letter.pdf'))}>
          Letter
        </Button>
        {onOpen && (
          <Button compact onPress={onOpen} testID={`open-${row.number}`}>
            Checklist and approval
          </Button>
        )}
      </Row>
      {told !== '' && (
        <Txt kind="small" tone={told.startsWith('▲') ? 'danger' : 'quiet'} live>
          {told}
        </Txt>
      )}
    </>
  );
}
