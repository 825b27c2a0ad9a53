import { View } from 'react-native';
import { Feature, LeftAlone, asSeen, editOperation, kindOf, placesOf } from '@tidypath/core';
import { SPACE } from '../../../theme/theme';
import { Tick } from '../../../ui/Tick';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

/** More places than this are not offered one by one. */
const MANY = 60;

/** Which features of the part an operation works on, and which places of their patterns. */
export function TargetsEditor({ job, operation, edit }: EditorProps) {
  const works = kindOf(operation.kind)?.works ?? [];
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operation.id)) ?? job.setups[0];
  const offered = asSeen(job, setup).part.features.filter((f) => works.includes(f.meaning));
  const { leaves = [] } = operation;
  const change = (next: (o: typeof operation) => typeof operation) => edit((j) => editOperation(j, operation.id, next));
  const toggle = (f: Feature) =>
    change((o) => ({
      ...o,
      targets: o.targets.includes(f.id) ? o.targets.filter((t) => t !== f.id) : [...o.targets, f.id],
    }));
  const leftOf = (id: string) => leaves.find((l) => l.feature === id)?.places ?? [];
  const togglePlace = (id: string, place: number) => {
    const left = leftOf(id);
    const places = left.includes(place) ? left.filter((p) => p !== place) : [...left, place].sort((a, b) => a - b);
    const others = leaves.filter((l) => l.feature !== id);
    const next: LeftAlone[] = places.length ? [...others, { feature: id, places }] : others;
    change((o) => ({ ...o, leaves: next.length ? next : undefined }));
  };
  if (offered.length === 0)
    return (
      <Txt>The part has nothing of this kind. Give a feature the meaning {works.join(' or ')} on the Part stage.</Txt>
    );
  return (
    <>
      {offered.map((f) => {
        const on = operation.targets.includes(f.id);
        const places = on && f.pattern.type !== 'single' ? placesOf(f).length : 0;
        return (
          <View key={f.id}>
            <Tick label={f.name} on={on} onPress={() => toggle(f)} />
            {places > 1 && places <= MANY && (
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', paddingLeft: SPACE.xl, columnGap: SPACE.m }}>
                {Array.from({ length: places }, (_, i) => (
                  <Tick
                    key={i}
                    label={`place ${i + 1}`}
                    on={!leftOf(f.id).includes(i + 1)}
                    onPress={() => togglePlace(f.id, i + 1)}
                  />
                ))}
              </View>
            )}
          </View>
        );
      })}
    </>
  );
}
