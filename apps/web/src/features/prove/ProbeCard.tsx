import { useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton } from 'react-native-paper';
import { LengthUnit, Probe, formatNumber, lengthNumber } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { LinkRow } from './LinkRow';
import { SectionFigure } from './SectionFigure';
import { offText } from './measures';
import type { Probing } from './useProbe';

interface Props {
  probing: Probing;
  /** Work zero, part coordinates. */
  zero: { x: number; y: number; z: number };
  /** Program line of every motion. */
  lines: Uint32Array;
  unit: LengthUnit;
  onMotion: (motion: number) => void;
}

/** In hundredths of a mm, or as inches are written. */
const placeText = (unit: LengthUnit) => (mm: number) => (unit === 'mm' ? formatNumber(mm, 2) : lengthNumber(mm, unit));

const heightText = ({ z, wanted, by, kind }: Probe, zero: number, unit: LengthUnit, mm = placeText(unit)) =>
  [
    z === undefined ? 'No metal here' : `Height Z ${mm(z - zero)}`,
    wanted === undefined
      ? undefined
      : `wanted Z ${mm(wanted - zero)}${kind ? `: ${offText(by, kind, unit)}` : ', as it should be'}`,
  ]
    .filter(Boolean)
    .join(', ');

/** What stands where the picture was tapped: height, walls, the line that cut it, sections, and the way to a second point. */
export function ProbeCard({ probing, zero, lines, unit, onMotion }: Props) {
  const { probe, from, measure, close } = probing;
  const [along, setAlong] = useState<'x' | 'y'>('x');
  if (!probe) return null;
  const [mm, name] = [placeText(unit), unit === 'mm' ? 'mm' : 'in'];
  const { x, y, z = zero.z, wall, motion } = probe;
  const start = from && { ...from, z: from.z ?? zero.z };
  return (
    <Card testID="probe">
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Txt heading style={{ flex: 1 }}>
          At X {mm(x - zero.x)} Y {mm(y - zero.y)}
        </Txt>
        <IconButton icon="close" accessibilityLabel="Close the probe" onPress={close} style={{ margin: 0 }} />
      </View>
      <Txt testID="probe-height">{heightText(probe, zero.z, unit)}</Txt>
      {wall !== undefined && (
        <Txt>
          Nearest wall {mm(wall)} {name} away
        </Txt>
      )}
      {start && (
        <Txt testID="probe-way">
          <Txt bold>
            {mm(Math.hypot(x - start.x, y - start.y, z - start.z))} {name}
          </Txt>{' '}
          from the first point:{' '}
          <Txt mono kind="small">{`X\u00a0${mm(x - start.x)} Y\u00a0${mm(y - start.y)} Z\u00a0${mm(z - start.z)}`}</Txt>
        </Txt>
      )}
      {motion >= 0 && (
        <LinkRow
          testID="probe-line"
          left="Cut last by"
          right={`line ${lines[motion]} ›`}
          onPress={() => onMotion(motion)}
        />
      )}
      <SectionFigure
        section={probe.sections.find((s) => s.along === along)!}
        zero={{ along: zero[along], z: zero.z }}
        at={{ along: probe[along], z }}
      />
      <Row style={{ gap: SPACE.m, alignItems: 'flex-end' }}>
        <Choices
          label="Section along"
          value={along}
          options={[
            { value: 'x', label: 'X' },
            { value: 'y', label: 'Y' },
          ]}
          onChange={setAlong}
        />
        <Button mode="outlined" onPress={measure} testID="probe-measure">
          {from ? 'Measure from here instead' : 'Measure from here'}
        </Button>
      </Row>
      {from && from === probing.probe && <Txt tone="quiet">Now tap a second point.</Txt>}
    </Card>
  );
}
