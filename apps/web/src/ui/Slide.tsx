import Slider from '@react-native-community/slider';
import { View } from 'react-native';
import { SIZE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface Props {
  label: string;
  /** 0 to 1. */
  value: number;
  /** What the value is called. */
  word: string;
  onChange: (value: number) => void;
}

const STEP = 0.05;

/** A value between two ends, by thumb or arrow keys, with its word. */
export function Slide({ label, value, word, onChange }: Props) {
  const palette = usePalette();
  return (
    <View>
      <Txt kind="small" tone="quiet">
        {label}:{' '}
        <Txt kind="small" bold>
          {word}
        </Txt>
      </Txt>
      <Slider
        style={{ height: SIZE.touch, width: '100%' }}
        value={value}
        minimumValue={0}
        maximumValue={1}
        step={STEP}
        minimumTrackTintColor={palette.accent}
        maximumTrackTintColor={palette.line}
        thumbTintColor={palette.accent}
        accessibilityLabel={`${label}: ${word}`}
        onValueChange={(v) => onChange(Math.round(v / STEP) * STEP)}
      />
    </View>
  );
}
