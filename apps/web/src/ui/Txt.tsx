import { ReactNode } from 'react';
import { StyleProp, Text as NativeText, TextStyle } from 'react-native';
import { FONT, TYPE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';

interface Props {
  children: ReactNode;
  kind?: 'body' | 'small' | 'large' | 'title';
  tone?: 'ink' | 'quiet' | 'danger' | 'care' | 'accent';
  bold?: boolean;
  mono?: boolean;
  heading?: boolean;
  live?: boolean;
  lines?: number;
  /** What is read out in its place. */
  label?: string;
  style?: StyleProp<TextStyle>;
  testID?: string;
}

/** All text: the reading face for words, the tabular one for numbers. */
export function Txt({
  children,
  kind = 'body',
  tone = 'ink',
  bold,
  mono,
  heading,
  live,
  lines,
  label,
  style,
  testID,
}: Props) {
  const palette = usePalette();
  const family = mono ? FONT.mono : bold || heading || kind === 'title' ? FONT.bold : FONT.text;
  return (
    <NativeText
      testID={testID}
      numberOfLines={lines}
      aria-label={label}
      role={heading ? 'heading' : undefined}
      aria-live={live ? 'polite' : undefined}
      style={[{ color: palette[tone], fontFamily: family, fontSize: TYPE[kind], lineHeight: TYPE[kind] * 1.4 }, style]}
    >
      {children}
    </NativeText>
  );
}
