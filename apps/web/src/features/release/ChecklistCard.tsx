import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { CHECK_GROUPS, CheckGroup, CheckItem, KeptTick } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';
import { dayText } from './words';

const GROUP_WORDS: Record<CheckGroup, string> = {
  before: 'Before anything moves',
  machine: 'This machine',
  tools: 'Tools',
  'first run': 'The first run',
  accepted: 'What was accepted',
  stops: 'Hold here and compare, before each tool goes down first',
};

interface Props {
  items: CheckItem[];
  /** What was ticked, in order; the last one counts. */
  ticks: KeptTick[];
  onTick: (item: string, isSo: boolean) => void;
}

function Item({ item, last, onTick }: { item: CheckItem; last?: KeptTick } & Pick<Props, 'onTick'>) {
  const isNot = last && !last.isSo;
  return (
    <View>
      <Row>
        <View style={{ flex: 1, minWidth: 220 }}>
          <Tick label={item.text} on={!!last?.isSo} onPress={() => onTick(item.id, true)} />
        </View>
        <Button compact onPress={() => onTick(item.id, false)} accessibilityLabel={`Not so: ${item.text}`}>
          Not so
        </Button>
      </Row>
      {last && (
        <Txt kind="small" tone={isNot ? 'danger' : 'quiet'}>
          {isNot ? `▲ Not so: ${item.ifNot}.` : '✓'}{' '}
          {[last.who, last.at && dayText(last.at)].filter(Boolean).join(', ')}
        </Txt>
      )}
    </View>
  );
}

/** What is gone through at the machine, ticked with time and person. */
export function ChecklistCard({ items, ticks, onTick }: Props) {
  const last = new Map(ticks.map((t) => [t.item, t]));
  const done = items.filter((i) => last.get(i.id)?.isSo).length;
  return (
    <Card testID="checklist">
      <Txt heading bold>
        Prove-out: {done} of {items.length} seen to
      </Txt>
      {CHECK_GROUPS.filter((g) => items.some((i) => i.group === g)).map((group) => (
        <View key={group} style={{ gap: SPACE.xs }}>
          <Txt bold>{GROUP_WORDS[group]}</Txt>
          {items
            .filter((i) => i.group === group)
            .map((item) => (
              <Item key={item.id} item={item} last={last.get(item.id)} onTick={onTick} />
            ))}
        </View>
      ))}
    </Card>
  );
}
