import { Pressable, View } from 'react-native';
import { LEFT_WORDS, LengthUnit, Solid, formatArea, leftOf } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';

/** Faces that no feature makes, each with why; a tap lights it. */
export function LeftCard({ part, unit, onShow }: { part: Solid; unit: LengthUnit; onShow: (face: number) => void }) {
  const left = leftOf(part);
  if (left.length === 0) return null;
  return (
    <Card>
      <Txt bold>{counted(left.length, 'face is made by no feature', 'faces are made by no feature')}</Txt>
      <Txt kind="small" tone="quiet">
        The proof compares with the solid itself: metal that stands on them is told there.
      </Txt>
      <View role="list">
        {left.slice(0, 12).map(({ face, why, area }) => (
          <View role="listitem" key={face}>
            <Pressable
              role="button"
              onPress={() => onShow(face)}
              style={{ minHeight: SIZE.touch, justifyContent: 'center', paddingVertical: SPACE.xs }}
            >
              <Txt>
                {formatArea(area, unit)}, {LEFT_WORDS[why].is}
              </Txt>
            </Pressable>
          </View>
        ))}
      </View>
      {left.length > 12 && (
        <Txt kind="small" tone="quiet">
          and {left.length - 12} more
        </Txt>
      )}
    </Card>
  );
}
