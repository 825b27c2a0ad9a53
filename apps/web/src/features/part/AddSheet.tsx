import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Meaning, Shape } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Row } from '../../ui/Card';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { MEANING_WORDS, SHAPE_WORDS } from './words';

/** Shapes with numbers a feature of this meaning can start from. */
function shapesFor(meaning: Meaning): Exclude<Shape['type'], 'chain'>[] {
  if (meaning === 'hole') return ['round'];
  const closed = ['rectangle', 'round', 'slot', 'polygon'] as const;
  return meaning === 'line' ? ['text', ...closed] : [...closed];
}

interface Props {
  open: boolean;
  onAdd: (type: Shape['type'], meaning: Meaning) => void;
  onClose: () => void;
}

/** Which shape is added, and what it means. */
export function AddSheet({ open, onAdd, onClose }: Props) {
  return (
    <Sheet title="Add a shape" open={open} onClose={onClose}>
      {(['outline', 'notch', 'pocket', 'boss', 'hole', 'line'] as const).map((meaning) => (
        <View key={meaning} style={{ gap: SPACE.xs }}>
          <Txt kind="small" tone="quiet">
            {MEANING_WORDS[meaning]}
          </Txt>
          <Row>
            {shapesFor(meaning).map((type) => (
              <Button
                key={type}
                mode="outlined"
                onPress={() => onAdd(type, meaning)}
                accessibilityLabel={`Add ${MEANING_WORDS[meaning]}, ${SHAPE_WORDS[type]}`}
              >
                {SHAPE_WORDS[type]}
              </Button>
            ))}
          </Row>
        </View>
      ))}
      <Txt kind="small" tone="quiet">
        A notch trims the outside all the way down; a pocket that reaches past it has a floor.
      </Txt>
    </Sheet>
  );
}
