import { ChangeEvent } from 'react';
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
  /** Places it can stand at. */
  steps?: number;
}

const STEPS = 20;

/** A value between two ends, by thumb or arrow keys, with its word. The browser’s own slider: keys and screen readers know it. */
export function Slide({ label, value, word, onChange, steps = STEPS }: Props) {
  const palette = usePalette();
  return (
    <View>
      <Txt kind="small" tone="quiet">
        {label}:{' '}
        <Txt kind="small" bold>
          {word}
        </Txt>
      </Txt>
      <input
        type="range"
        min={0}
        max={steps}
        step={1}
        value={Math.round(value * steps)}
        aria-label={label}
        aria-valuetext={word}
        data-testid="slide"
        onChange={(e: ChangeEvent<HTMLInputElement>) => onChange(Number(e.target.value) / steps)}
        style={{ width: '100%', height: SIZE.touch, margin: 0, accentColor: palette.accent }}
      />
    </View>
  );
}
