import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Lift, LengthUnit, formatFeed, formatNumber } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Fold } from '../Fold';
import { Txt } from '../Txt';

interface Props {
  /** Worked out only when asked for. */
  find: () => Lift[];
  unit: LengthUnit;
  onTake: (lift: Lift) => void;
}

function Found({ find, unit, onTake }: Props) {
  const lifts = find();
  if (lifts.length === 0)
    return (
      <Txt kind="small" tone="quiet">
        Nothing in the shop makes this cut faster: it is the material’s own range that limits it, or the machine.
      </Txt>
    );
  return lifts.map((l) => (
    <View key={l.what} style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
      <View style={{ flex: 1, minWidth: 0 }}>
        <Txt kind="small" bold>
          {l.what}
        </Txt>
        <Txt kind="small" tone="quiet">
          {formatNumber(l.suggestion.rpm, 0)} rpm, {formatFeed(l.suggestion.feed, unit)}:{' '}
          {Number.isFinite(l.gain)
            ? `${formatNumber((l.gain - 1) * 100, 0)} % more metal a minute`
            : 'makes it possible'}
        </Txt>
      </View>
      <Button compact mode="outlined" onPress={() => onTake(l)} accessibilityLabel={`Take: ${l.what}`}>
        Take
      </Button>
    </View>
  ));
}

/** What would let the cut run faster, each worked out as a cut of its own. */
export const Lifts = (props: Props) => <Fold label="What would lift it?">{() => <Found {...props} />}</Fold>;
