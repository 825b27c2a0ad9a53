import { View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Finding, Level } from '@tidypath/core';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

/** Each level has a word and a shape of its own; colour only helps. */
export const LEVEL_MARK: Record<Level, string> = { stop: '▲', care: '◆', note: '○' };

const TONE: Record<Level, 'danger' | 'care' | 'quiet'> = { stop: 'danger', care: 'care', note: 'quiet' };

interface Props {
  finding: Finding;
  /** Goes to the value or place that causes it. */
  onGo?: () => void;
  goLabel?: string;
}

/** What is wrong, where, and what to do, with a way there. */
export function FindingCard({ finding, onGo, goLabel = 'Go there' }: Props) {
  const palette = usePalette();
  const { level, message, remedy, place } = finding;
  const tone = TONE[level];
  const back = level === 'stop' ? palette.dangerSoft : level === 'care' ? palette.careSoft : palette.sunken;
  return (
    <View
      role="listitem"
      testID={`finding-${finding.code}`}
      style={{ backgroundColor: back, borderRadius: SIZE.radius, padding: SPACE.m, gap: SPACE.xs }}
    >
      <Txt tone={tone} bold kind="small">
        {LEVEL_MARK[level]} {level}
        {place.line ? ` · line ${place.line}` : ''}
      </Txt>
      <Txt>{message}</Txt>
      <Txt kind="small">{remedy}.</Txt>
      {onGo && (
        <Button
          compact
          mode="text"
          textColor={palette.ink}
          onPress={onGo}
          style={{ alignSelf: 'flex-start', marginLeft: -SPACE.s }}
        >
          {goLabel}
        </Button>
      )}
    </View>
  );
}

/** What is wrong, in one line. */
export function FindingLine({ finding: { level, message } }: { finding: Finding }) {
  return (
    <Txt kind="small" tone={TONE[level]} live testID="finding-line">
      {LEVEL_MARK[level]} {message}
    </Txt>
  );
}
