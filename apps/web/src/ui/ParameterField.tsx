import { View } from 'react-native';
import { Switch, TextInput } from 'react-native-paper';
import { Finding, LengthUnit, ParameterInfo, ParameterUnit } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { Choices } from './Choices';
import { FieldFinding } from './FieldFinding';
import { LengthField } from './LengthField';
import { NumberField } from './NumberField';
import { Txt } from './Txt';

interface Props {
  info: ParameterInfo;
  value: unknown;
  unit: LengthUnit;
  onChange: (value: unknown) => void;
  /** mm that 100 % stands for. */
  shareOf?: number;
  /** Features of the part it may name. */
  features?: { value: string; label: string }[];
  autoFocus?: boolean;
  testID?: string;
  help?: boolean;
  finding?: Finding;
}

const SUFFIX: Partial<Record<ParameterUnit, string>> = {
  angle: '°',
  share: '×',
  percent: '%',
  rpm: 'rpm',
  speed: 'm/min',
  power: 'kW',
  torque: 'N·m',
  acceleration: 'mm/s²',
  pressure: 'N/mm²',
  force: 'kN',
  seconds: 's',
  minutes: 'min',
};

/** Steps of the + and - buttons in inch jobs fall on 0.005 in. */
const inchStep = (mm: number) => Math.max(0.0254, Math.round((mm / 25.4) * 200) * 0.127);

/** The right field for one described value: a length, a number with its unit, a choice, a switch, a few words. */
export function ParameterField({
  info,
  value: given,
  unit,
  onChange,
  shareOf,
  features,
  autoFocus,
  testID,
  help,
  finding,
}: Props) {
  const value = given ?? info.absent;
  const common = { label: info.label, autoFocus, testID, help: help ? info.help : undefined };
  const field = () => {
    if (info.choices)
      return (
        <Choices
          label={info.label}
          value={String(value)}
          options={info.choices.map((c) => ({ value: c, label: info.words?.[c] ?? c }))}
          onChange={onChange}
        />
      );
    if (info.features)
      return <Choices label={info.label} value={String(value)} options={features ?? []} onChange={onChange} />;
    if (typeof value === 'boolean')
      return (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.m }}>
          <Switch value={value} onValueChange={onChange} accessibilityLabel={info.label} />
          <Txt style={{ flexShrink: 1 }}>{info.label}</Txt>
        </View>
      );
    if (info.unit === undefined)
      return (
        <TextInput
          mode="outlined"
          dense
          multiline={(info.max ?? 0) > 120}
          label={info.label}
          aria-label={info.label}
          value={String(value ?? '')}
          testID={testID}
          onChangeText={(text) => onChange(text.slice(0, info.max))}
        />
      );
    if (info.unit === 'length')
      return (
        <LengthField
          {...common}
          value={Number(value)}
          unit={unit}
          min={info.min}
          max={info.max}
          step={unit === 'inch' && info.step ? inchStep(info.step) : info.step}
          shareOf={shareOf}
          onChange={onChange}
        />
      );
    const scale = info.unit === 'feed' && unit === 'inch' ? 25.4 : 1;
    return (
      <NumberField
        {...common}
        value={Number(value) / scale}
        min={(info.min ?? 0) / scale}
        max={(info.max ?? 1e9) / scale}
        step={info.step}
        whole={info.unit === 'count'}
        suffix={info.unit === 'feed' ? (scale === 1 ? 'mm/min' : 'in/min') : SUFFIX[info.unit]}
        onChange={(v) => onChange(v * scale)}
      />
    );
  };
  return (
    <View style={{ gap: SPACE.xs, minWidth: 0 }}>
      {field()}
      {finding && <FieldFinding finding={finding} />}
    </View>
  );
}
