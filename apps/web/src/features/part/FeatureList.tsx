import { Pressable, View } from 'react-native';
import { Feature, LengthUnit } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';
import { MEANING_WORDS, featureWords } from './words';

function FeatureRow({
  feature,
  unit,
  here,
  onPress,
}: {
  feature: Feature;
  unit: 'mm' | 'inch';
  here: boolean;
  onPress: () => void;
}) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      testID={`feature-${feature.id}`}
      onPress={onPress}
      style={{
        minHeight: SIZE.touch,
        paddingVertical: SPACE.s,
        paddingHorizontal: SPACE.m,
        borderLeftWidth: 3,
        borderColor: here ? palette.accent : 'transparent',
        backgroundColor: palette.sheet,
      }}
    >
      <Txt bold>{feature.name}</Txt>
      <Txt kind="small" tone="quiet">
        {MEANING_WORDS[feature.meaning]} · {featureWords(feature, unit)}
        {feature.layer ? ` · layer ${feature.layer}` : ''}
      </Txt>
    </Pressable>
  );
}

interface Props {
  features: Feature[];
  unit: LengthUnit;
  selected?: string;
  onOpen: (id: string) => void;
}

/** The features of a part; the chosen one is marked. */
export function FeatureList({ features, unit, selected, onOpen }: Props) {
  const palette = usePalette();
  return (
    <View
      role="list"
      style={{
        borderRadius: SIZE.radius,
        overflow: 'hidden',
        borderWidth: features.length ? 1 : 0,
        borderColor: palette.line,
      }}
    >
      {features.map((f) => (
        <View role="listitem" key={f.id}>
          <FeatureRow feature={f} unit={unit} here={f.id === selected} onPress={() => onOpen(f.id)} />
        </View>
      ))}
    </View>
  );
}
