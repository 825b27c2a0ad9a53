import { View } from 'react-native';
import { Switch } from 'react-native-paper';
import { Feature } from '@tidypath/core';
import { SPACE } from '../../../theme/theme';
import { LengthField } from '../../../ui/LengthField';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

/** How deep a feature goes: the part's own value, so that part and operation cannot disagree. */
export function DepthEditor({ job, edit, featureId }: Pick<EditorProps, 'job' | 'edit'> & { featureId: string }) {
  const feature = job.part.features.find((f) => f.id === featureId);
  if (!feature) return null;
  const set = (more: Partial<Feature>, tag: string) =>
    edit(
      (j) => ({
        ...j,
        part: { ...j.part, features: j.part.features.map((f) => (f.id === featureId ? { ...f, ...more } : f)) },
      }),
      tag,
    );
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.m }}>
        <Switch
          value={feature.through}
          onValueChange={(through) => set({ through }, '')}
          accessibilityLabel="Goes through"
        />
        <Txt>Goes through</Txt>
      </View>
      {!feature.through && (
        <LengthField
          autoFocus
          testID="value-field"
          label={`Depth of ${feature.name}`}
          value={feature.depth}
          unit={job.unit}
          min={0.001}
          max={2000}
          step={job.unit === 'mm' ? 0.5 : 0.635}
          help="down from the top of the part"
          onChange={(depth) => set({ depth }, `depth-${featureId}`)}
        />
      )}
      <Txt kind="small" tone="quiet">
        This changes the part: every operation on it follows.
      </Txt>
    </>
  );
}
