import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { HANDBOOK, SHOP_VALUE, formatNumber } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { Txt } from './Txt';

interface Props {
  /** What it started as, where that differs from what stands there. */
  start: unknown;
  onPutBack: (value: unknown) => void;
}

const said = (value: unknown): string =>
  typeof value === 'number'
    ? formatNumber(value, 3)
    : typeof value === 'object' && value !== null && 'from' in value
      ? `${said((value as { from: number }).from)} to ${said((value as unknown as { to: number }).to)}`
      : String(value);

/** Says that a number is the shop's own, and offers the one it started with. */
export function Origin({ start, onPutBack }: Props) {
  if (start === undefined) return null;
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: SPACE.xs }}>
      <Txt kind="small" tone="quiet">
        {SHOP_VALUE}.
      </Txt>
      <Button compact onPress={() => onPutBack(start)} accessibilityHint={HANDBOOK}>
        Back to {said(start)}
      </Button>
    </View>
  );
}
