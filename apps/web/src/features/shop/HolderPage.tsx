import { View } from 'react-native';
import { Button, IconButton } from 'react-native-paper';
import Svg, { Polygon } from 'react-native-svg';
import { Holder, holderLength, holderWidth, parametersOf, segmentStarts } from '@tidypath/core';
import { usePalette } from '../../theme/usePalette';
import { Card, Fields } from '../../ui/Card';
import { FieldFinding } from '../../ui/FieldFinding';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { ValueForm } from '../../ui/ValueForm';
import { ItemPage } from '../../shell/ItemPage';
import { useDraft } from '../../shell/useDraft';

const FIELDS = parametersOf(Holder);
const PICTURE = 150;
const MOST = 12;

function HolderDrawing({ holder }: { holder: Holder }) {
  const palette = usePalette();
  const [wide, tall] = [holderWidth(holder), holderLength(holder)];
  const scale = Math.max(wide, tall) / PICTURE;
  const starts = segmentStarts(holder);
  return (
    <Svg
      width={wide / scale + 4}
      height={tall / scale + 4}
      viewBox={`${-wide / 2 - 2 * scale} ${-tall - 2 * scale} ${wide + 4 * scale} ${tall + 4 * scale}`}
    >
      {holder.segments.map((s, i) => (
        <Polygon
          key={i}
          points={`${-s.lower / 2},${-starts[i]} ${s.lower / 2},${-starts[i]} ${s.upper / 2},${-starts[i] - s.length} ${-s.upper / 2},${-starts[i] - s.length}`}
          fill={palette.sunken}
          stroke={palette.ink}
          strokeWidth={scale * 1.2}
        />
      ))}
    </Svg>
  );
}

/** One holder: cylinders and cones from its nose upwards, grip and balance. */
export function HolderPage({ id }: { id: string }) {
  const draft = useDraft('holders', id);
  const { item: holder, findings, change } = draft;
  const set = (i: number, more: Partial<Holder['segments'][number]>) =>
    change({ segments: holder!.segments.map((s, k) => (k === i ? { ...s, ...more } : s)) });
  return (
    <ItemPage shelf="holders" id={id} title={holder?.name} back="/shop" draft={draft}>
      {holder && (
        <>
          <Card>
            <Txt heading kind="large">
              Outline
            </Txt>
            <View role="img" aria-label={`${holder.name}, drawn to scale`} style={{ alignItems: 'center' }}>
              <HolderDrawing holder={holder} />
            </View>
            <Txt kind="small" tone="quiet">
              Cylinders and cones, counted from the nose upwards.
            </Txt>
            {holder.segments.map((s, i) => (
              <View key={i} style={{ flexDirection: 'row', alignItems: 'center' }}>
                <View style={{ flex: 1 }}>
                  <Fields>
                    <LengthField
                      label={`${i + 1} lower ⌀`}
                      unit="mm"
                      value={s.lower}
                      min={1}
                      max={300}
                      onChange={(lower) => set(i, { lower })}
                    />
                    <LengthField
                      label={`${i + 1} upper ⌀`}
                      unit="mm"
                      value={s.upper}
                      min={1}
                      max={300}
                      onChange={(upper) => set(i, { upper })}
                    />
                    <LengthField
                      label={`${i + 1} length`}
                      unit="mm"
                      value={s.length}
                      min={0.5}
                      max={400}
                      onChange={(length) => set(i, { length })}
                    />
                  </Fields>
                </View>
                {holder.segments.length > 1 && (
                  <IconButton
                    icon="close"
                    accessibilityLabel={`Take off segment ${i + 1}`}
                    onPress={() => change({ segments: holder.segments.filter((_, k) => k !== i) })}
                  />
                )}
              </View>
            ))}
            {findings
              .filter((f) => f.place.field?.startsWith('segments'))
              .map((f) => (
                <FieldFinding key={f.place.field! + f.code} finding={f} />
              ))}
            {holder.segments.length < MOST && (
              <Button
                compact
                style={{ alignSelf: 'flex-start' }}
                onPress={() => {
                  const { upper } = holder.segments[holder.segments.length - 1];
                  change({ segments: [...holder.segments, { lower: upper, upper, length: 20 }] });
                }}
              >
                Add a segment
              </Button>
            )}
          </Card>
          <ValueForm item={holder} fields={FIELDS} unit="mm" findings={findings} onChange={change} />
          <Txt kind="small" tone="quiet">
            Grip and balance are workshop estimates until the holder’s own sheet replaces them. Never run a holder above
            the speed it is balanced for.
          </Txt>
        </>
      )}
    </ItemPage>
  );
}
