import { useState } from 'react';
import { useRouter } from 'expo-router';
import { Button } from 'react-native-paper';
import { ReleaseRow, isHandedOut, shortRoot } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { Card, Row } from '../../ui/Card';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

/** So many of a class can be told apart. */
const MACHINES = 9999;

interface Props {
  releases: ReleaseRow[];
  canRun: boolean;
  onBegun: (run: string) => void;
}

/** Puts the newest release that is handed out on a simulated machine. */
export function BeginCard({ releases, canRun, onBegun }: Props) {
  const router = useRouter();
  const [failed, setFailed] = useState('');
  const [busy, setBusy] = useState(false);
  const [seed, setSeed] = useState(() => 1 + Math.floor(Math.random() * MACHINES));
  const release = releases.find(({ state }) => isHandedOut(state));
  const begin = async () => {
    setBusy(true);
    setFailed('');
    try {
      onBegun(await api.beginRun(release!.id, seed));
    } catch (error) {
      setFailed((error as ApiError).message);
    }
    setBusy(false);
  };
  return (
    <Card testID="begin">
      <Txt heading bold>
        Practise on the simulated machine
      </Txt>
      <Txt tone="quiet">
        It runs what you enter, right or wrong, and behaves as a machine of this class may: how stiff it is, how hard
        the bar is and how each tool is set is its own, and only shows in the cut. It is a model: the real machine, its
        maker’s limits and your local safety rules decide.
      </Txt>
      {release ? (
        <Row>
          <Button
            mode="contained"
            loading={busy}
            disabled={busy || !canRun}
            testID="begin-run"
            onPress={() => void begin()}
          >
            Put release {release.number} · {shortRoot(release.root)} on it
          </Button>
          <Button compact onPress={() => router.push(`/release/${release.id}`)}>
            Its checklist
          </Button>
        </Row>
      ) : (
        <Txt>
          {releases.length > 0
            ? 'No release of this setup is handed out yet.'
            : 'Release the program first: only what was released runs.'}
        </Txt>
      )}
      {release && (
        <NumberField
          label="Machine number"
          help="The same number is the same machine again, with the same bar and the same tools."
          value={seed}
          onChange={setSeed}
          min={1}
          max={MACHINES}
          whole
        />
      )}
      {release && !canRun && <Txt tone="quiet">This server has no simulated machine.</Txt>}
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
    </Card>
  );
}
