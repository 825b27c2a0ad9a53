import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import {
  Feature,
  LengthUnit,
  formatLength,
  likelyThreads,
  nearestDrill,
  parseThread,
  tapDrill,
  threadSizes,
} from '@tidypath/core';
import { useState } from 'react';
import { Txt } from '../../ui/Txt';

/** Height of a cutting tap's thread that is strong enough nearly everywhere, percent. */
const HEIGHT = 75;

interface Props {
  feature: Feature;
  unit: LengthUnit;
  onChange: (more: Partial<Feature>) => void;
}

/** The thread of a hole or round boss by its name; for a hole what drill it wants, and the hole made to fit. */
export function ThreadField({ feature, unit, onChange }: Props) {
  const [text, setText] = useState(feature.thread ?? '');
  const read = text.trim() ? parseThread(text) : undefined;
  const take = (next: string) => {
    setText(next);
    const found = next.trim() ? parseThread(next) : undefined;
    if (!next.trim()) onChange({ thread: undefined });
    else if (found?.ok) onChange({ thread: found.thread.name });
  };
  const sizes = read?.ok ? threadSizes(read.thread) : undefined;
  const drill =
    sizes &&
    nearestDrill(
      tapDrill(sizes.major, sizes.pitch, HEIGHT),
      unit === 'mm' ? ['metric'] : ['number', 'letter', 'fraction'],
    ).drill;
  const isHole = feature.meaning === 'hole';
  const round = feature.shape.type === 'round' ? feature.shape : undefined;
  const likely = isHole && round && !text.trim() ? likelyThreads(round.diameter, unit) : [];
  return (
    <View>
      <TextInput
        mode="outlined"
        dense
        label="Thread"
        aria-label="Thread"
        placeholder="none, or M5, 1/4-20, G1/4"
        testID="feature-thread"
        value={text}
        onChangeText={take}
        error={read && !read.ok}
      />
      {likely.length > 0 && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
          <Txt kind="small" tone="quiet">
            As wide as the hole of
          </Txt>
          {likely.map(({ name }) => (
            <Button compact key={name} onPress={() => take(name)} testID={`thread-${name}`}>
              {name}
            </Button>
          ))}
        </View>
      )}
      {read && !read.ok && (
        <Txt kind="small" tone="danger">
          ▲ {read.why}.
        </Txt>
      )}
      {sizes && isHole && drill && (
        <Txt kind="small" tone="quiet">
          Hole {formatLength(sizes.internalMinor, unit)} to {formatLength(sizes.internalMinorMost, unit)}; drill{' '}
          {drill.name} for a cutting tap.
        </Txt>
      )}
      {sizes && round && !isHole && Math.abs(round.diameter - sizes.major) > 0.001 && (
        <Button
          compact
          style={{ alignSelf: 'flex-start' }}
          onPress={() => onChange({ shape: { ...round, diameter: sizes.major } })}
        >
          Make the boss {formatLength(sizes.major, unit)}
        </Button>
      )}
      {isHole && drill && round && Math.abs(round.diameter - drill.diameter) > 0.001 && (
        <Button
          compact
          style={{ alignSelf: 'flex-start' }}
          onPress={() => onChange({ shape: { ...round, diameter: Math.round(drill.diameter * 1e4) / 1e4 } })}
        >
          Make the hole {drill.name}
        </Button>
      )}
    </View>
  );
}
