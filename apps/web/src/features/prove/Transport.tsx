import { useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton } from 'react-native-paper';
import { LengthUnit, Lines, Measure, formatTime, ProofView } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Txt } from '../../ui/Txt';
import { sampleAt } from '../../scene/segments';
import { MEASURE_INFO } from './measures';
import { STRIDES, Stride, stopFrom } from './stops';
import { SPEEDS, usePlayer } from '../../session/usePlayer';

interface Props {
  proof: ProofView;
  player: ReturnType<typeof usePlayer>;
  measure: Measure;
  unit: LengthUnit;
  /** The program's text. */
  lines: Lines;
}

const after = <T,>(list: readonly T[], value: T) => list[(list.indexOf(value) + 1) % list.length];
const MIRRORED = { transform: [{ scaleX: -1 }] };

/** Playing both ways at a speed, and going on by line, tool or step. */
export function Transport({ proof, player, measure, unit, lines }: Props) {
  const [stride, setStride] = useState<Stride>('line');
  const { time, total, shown, playing } = player;
  const sample = proof.samples.count > 0 ? sampleAt(proof.samples, time) : undefined;
  const go = (forwards: boolean) => {
    player.pause();
    player.seek(stopFrom(proof, stride, time, forwards));
  };
  const plays = (way: 1 | -1) => playing === way;
  return (
    <View style={{ gap: SPACE.xs }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <IconButton
          icon={plays(-1) ? 'pause' : 'play'}
          style={[{ margin: 0 }, !plays(-1) && MIRRORED]}
          accessibilityLabel={plays(-1) ? 'Pause going back' : 'Play backwards'}
          onPress={() => (plays(-1) ? player.pause() : player.play(-1))}
        />
        <IconButton
          icon={plays(1) ? 'pause' : 'play'}
          mode="contained"
          accessibilityLabel={plays(1) ? 'Pause' : 'Play'}
          onPress={() => (plays(1) ? player.pause() : player.play(1))}
        />
        <Button
          compact
          mode="outlined"
          onPress={() => player.setSpeed(after(SPEEDS, player.speed))}
          accessibilityLabel={`Speed ${player.speed} times`}
        >
          ×{player.speed}
        </Button>
        <Txt mono kind="small" lines={1} style={{ flex: 1, marginLeft: SPACE.s }}>
          {formatTime(time / 60)}/{formatTime(total / 60)}
        </Txt>
        {sample !== undefined && (
          <Txt mono kind="small">
            {measure !== 'engagement' && `${MEASURE_INFO.engagement.text(proof.samples.engagement[sample], unit)} `}
            {MEASURE_INFO[measure].text(proof.samples[measure][sample], unit)}
          </Txt>
        )}
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <IconButton
          icon="chevron-left"
          style={{ margin: 0 }}
          accessibilityLabel={`Back one ${stride}`}
          onPress={() => go(false)}
          testID="stride-back"
        />
        <Button
          compact
          mode="outlined"
          onPress={() => setStride(after(STRIDES, stride))}
          accessibilityLabel={`Goes by ${stride}`}
          testID="stride"
        >
          {stride}
        </Button>
        <IconButton
          icon="chevron-right"
          style={{ margin: 0 }}
          accessibilityLabel={`On one ${stride}`}
          onPress={() => go(true)}
          testID="stride-on"
        />
        <Txt mono kind="small" tone="quiet" lines={1} style={{ flex: 1 }} testID="line-now">
          {shown ? `line ${shown.moment.line}  ${lines.at(shown.moment.line - 1)}` : 'at the end'}
        </Txt>
      </View>
    </View>
  );
}
