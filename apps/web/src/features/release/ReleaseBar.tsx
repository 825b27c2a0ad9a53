import { Button, ProgressBar } from 'react-native-paper';
import { ReleaseRow, isHandedOut } from '@tidypath/core';
import { Row } from '../../ui/Card';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';
import { useHandOut } from './ReleaseActions';
import type { Releasing } from './useReleasing';

/** What is said of a release of this state that is not handed out. */
const HELD_WORDS: Record<ReleaseRow['state']['state'], string> = {
  released: '',
  approved: '',
  waiting: 'Waits for approval',
  refused: 'Refused',
  void: 'To be approved again',
};

/** Takes the programs of a release. */
function TakeButton({ row }: { row: ReleaseRow }) {
  const { take, told } = useHandOut(row);
  return (
    <Button mode="contained" style={{ flex: 1 }} onPress={take} testID="take-release">
      {told || `Download release ${row.number}`}
    </Button>
  );
}

interface ActionProps {
  /** Whether nothing stops the programs, and they are proved; and whether the job is saved as it is here. */
  clear: boolean;
  saved: boolean;
  /** How many programs there are. */
  count: number;
  /** How much has to be accepted first. */
  open: number;
  needsApproval: boolean;
  /** Whether that is known already. */
  known: boolean;
  /** The release of this state, where there is one. */
  current?: ReleaseRow;
  making: Releasing;
  onRelease: () => void;
  onDownload: () => void;
}

/** What is done next: kept on this device to try, released, or taken as released. */
export function ReleaseBar({
  clear,
  saved,
  count,
  open,
  needsApproval,
  known,
  current,
  making,
  onRelease,
  onDownload,
}: ActionProps) {
  const words = needsApproval && known ? 'Release for approval' : 'Release';
  return (
    <Row>
      {!(needsApproval && known) && (
        <Button mode="outlined" style={{ flex: 1 }} disabled={!clear || !known} onPress={onDownload} testID="download">
          {count > 1 ? `Download ${count} programs` : 'Download'}
        </Button>
      )}
      {current && isHandedOut(current.state) ? (
        <TakeButton row={current} />
      ) : (
        <Button
          mode="contained"
          style={{ flex: 1 }}
          disabled={!clear || !saved || open > 0 || making.at !== undefined || current !== undefined}
          onPress={onRelease}
          testID="release"
        >
          {current ? HELD_WORDS[current.state.state] : open > 0 ? `${words}: ${open} to accept` : words}
        </Button>
      )}
    </Row>
  );
}

/** How the release that is being made stands. */
export function Making({ at, failed, held, leave }: Releasing) {
  if (at)
    return (
      <>
        <Txt live testID="releasing">
          {at} …
        </Txt>
        <ProgressBar indeterminate />
        <Button compact onPress={leave} style={{ alignSelf: 'flex-start' }}>
          Leave it
        </Button>
      </>
    );
  return (
    <>
      {failed !== undefined && (
        <Txt tone="danger" live testID="release-failed">
          ▲ Not released: {failed}
        </Txt>
      )}
      {held && (
        <Txt tone="danger" live>
          ▲ Not released: the server found {held.stops.length + held.open.length} things that were not accepted here
        </Txt>
      )}
      {held && <FindingList findings={[...held.stops, ...held.open]} goTo={() => undefined} goLabel="" />}
    </>
  );
}
