import { useState } from 'react';
import { View } from 'react-native';
import { TextInput } from 'react-native-paper';
import {
  DrillSeries,
  SCREWS,
  formatLength,
  formingDrill,
  nearestDrill,
  parseThread,
  reamAllowance,
  tapDrill,
  tapPercent,
  threadMillInside,
  threadMillOutside,
  threadSizes,
} from '@tidypath/core';
import { Page } from '../../shell/Page';
import { SIZE, SPACE } from '../../theme/theme';
import { Card, Fields } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

const SETS: { value: string; label: string; series: DrillSeries[] }[] = [
  { value: 'metric', label: 'metric', series: ['metric'] },
  { value: 'inch', label: 'number, letter, fraction', series: ['number', 'letter', 'fraction'] },
];

function Line({ label, mm }: { label: string; mm: number }) {
  return (
    <View style={{ flexDirection: 'row', gap: SPACE.s }}>
      <Txt kind="small" tone="quiet" style={{ flex: 1 }}>
        {label}
      </Txt>
      <Txt mono>{formatLength(mm, 'mm')}</Txt>
      <Txt mono kind="small" tone="quiet" style={{ minWidth: 90, textAlign: 'right' }}>
        {formatLength(mm, 'inch')}
      </Txt>
    </View>
  );
}

/** Drill wanted, and the nearest one in the drawer. */
interface DrillProps {
  label: string;
  wanted: number;
  series: DrillSeries[];
  /** What comes of the stocked size. */
  leaves?: (diameter: number) => string;
}

function DrillLine({ label, wanted, series, leaves }: DrillProps) {
  const { drill, error } = nearestDrill(wanted, series);
  const off =
    Math.abs(error) < 0.0005 ? 'exactly' : `${formatLength(Math.abs(error), 'mm')} ${error > 0 ? 'over' : 'under'}`;
  return (
    <View>
      <Line label={label} mm={wanted} />
      <Txt kind="small">
        nearest:{' '}
        <Txt kind="small" bold>
          {drill.name}
        </Txt>
        , {off}
        {leaves && `: ${leaves(drill.diameter)}`}
      </Txt>
    </View>
  );
}

/** Threads by their names, drills by the nearest size: what is looked up elsewhere today. */
export function ThreadsPage() {
  const [name, setName] = useState('M6');
  const [cutting, setCutting] = useState(75);
  const [forming, setForming] = useState(65);
  const [set, setSet] = useState('metric');
  const [mill, setMill] = useState(4);
  const [hole, setHole] = useState(6);
  const read = parseThread(name);
  const { series } = SETS.find((s) => s.value === set)!;
  const sizes = read.ok ? threadSizes(read.thread) : undefined;
  const screw = SCREWS[name.trim().toUpperCase()];
  return (
    <Page title="Threads and drills">
      <Choices label="Drills in the drawer" value={set} onChange={setSet} options={SETS} />
      <Card style={{ maxWidth: SIZE.column }}>
        <TextInput
          mode="outlined"
          dense
          label="Thread"
          aria-label="Thread"
          testID="thread-name"
          value={name}
          onChangeText={setName}
          error={!read.ok}
        />
        {!read.ok && <Txt tone="danger">▲ {read.why}.</Txt>}
        {read.ok && sizes && (
          <>
            <Txt bold>
              {read.thread.name} · {read.thread.series}
            </Txt>
            <Line label="Major diameter" mm={sizes.major} />
            <Line label="Pitch" mm={sizes.pitch} />
            <Line label="Pitch diameter" mm={sizes.pitchDiameter} />
            <Line label="Minor, inside, least" mm={sizes.internalMinor} />
            <Line label="Minor, inside, most" mm={sizes.internalMinorMost} />
            <Line label="Minor, outside" mm={sizes.externalMinor} />
            <Fields>
              <NumberField
                label="Height, cutting tap"
                suffix="%"
                value={cutting}
                min={40}
                max={100}
                onChange={setCutting}
              />
              <NumberField
                label="Height, forming tap"
                suffix="%"
                value={forming}
                min={40}
                max={90}
                onChange={setForming}
              />
            </Fields>
            <DrillLine
              label="Drill for cutting"
              wanted={tapDrill(sizes.major, sizes.pitch, cutting)}
              series={series}
              leaves={(d) => `leaves ${Math.round(tapPercent(sizes.major, sizes.pitch, d))} % of the thread`}
            />
            <DrillLine
              label="Drill for forming"
              wanted={formingDrill(sizes.major, sizes.pitch, forming)}
              series={series}
            />
            <LengthField label="Thread mill" unit="mm" value={mill} min={0.5} max={200} onChange={setMill} />
            {mill < sizes.internalMinor ? (
              <>
                <Line label="Radius of its path, inside" mm={threadMillInside(sizes.major, mill).radius} />
                <Txt kind="small">
                  Feed at its centre: {Math.round(threadMillInside(sizes.major, mill).feedShare * 1000) / 10} % of the
                  feed at its edge.
                </Txt>
              </>
            ) : (
              <Txt kind="small" tone="care">
                ◆ A mill of {formatLength(mill, 'mm')} does not go into this thread.
              </Txt>
            )}
            <Line label="Radius of its path, outside" mm={threadMillOutside(sizes.externalMinor, mill).radius} />
            {screw && (
              <>
                <Line label="Free hole for the screw" mm={screw.clearance} />
                <Line label="Counterbore for a socket head" mm={screw.counterbore} />
                <Line label="Head height" mm={screw.headHeight} />
              </>
            )}
          </>
        )}
      </Card>
      <Card style={{ maxWidth: SIZE.column }}>
        <LengthField label="Hole wanted" unit="mm" value={hole} min={0.1} max={60} onChange={setHole} />
        <DrillLine label="Drill" wanted={hole} series={series} />
        <DrillLine label="Drill before a reamer" wanted={hole - reamAllowance(hole)} series={series} />
      </Card>
      <Txt kind="small" tone="quiet">
        ISO 965-1 class 6H, ASME B1.1 class 2B, ISO 228-1, ISO 273, ISO 4762 with DIN 974-1. The tap maker’s drill comes
        first.
      </Txt>
    </Page>
  );
}
