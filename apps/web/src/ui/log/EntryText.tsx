import { Image, View } from 'react-native';
import { KeptEntry, seenText } from '@tidypath/core';
import { api } from '../../api/client';
import { SIZE, SPACE } from '../../theme/theme';
import { Row } from '../Card';
import { Txt } from '../Txt';
import { dayText, madeText } from './words';

/** Side of a photo in a list. */
const THUMB = 96;

/** Photos in a row, as large as a thumb. */
export function Photos({ sources }: { sources: string[] }) {
  if (sources.length === 0) return null;
  return (
    <Row>
      {sources.map((uri, i) => (
        <Image
          key={uri}
          source={{ uri }}
          accessibilityLabel={`Photo ${i + 1}`}
          style={{ width: THUMB, height: THUMB, borderRadius: SIZE.radius }}
        />
      ))}
    </Row>
  );
}

interface Props {
  entry: KeptEntry;
  /** What it is about, where that is not said round it. */
  about?: string;
  /** How an operation is called. */
  nameOf: (operation: string) => string;
}

/** An entry of the log: what was made, when and by whom, what was seen. */
export function EntryText({ entry, about, nameOf }: Props) {
  const { at, who, remark, seen = [], photos = [] } = entry;
  const told = seen.filter((s) => seenText(s) !== '');
  return (
    <View style={{ gap: SPACE.xs }}>
      <Txt kind={about ? undefined : 'small'}>
        {[about, madeText(entry), [at && dayText(at), who].filter(Boolean).join(', '), remark]
          .filter(Boolean)
          .join(' · ')}
      </Txt>
      {told.map((s, i) => (
        <Txt key={i} kind="small" tone="quiet">
          {nameOf(s.operation)}: {seenText(s)}
        </Txt>
      ))}
      {/* One that waits here is not at the server yet. */}
      {at !== '' && <Photos sources={photos.map(api.photoOf)} />}
    </View>
  );
}
