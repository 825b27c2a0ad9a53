import { ReactNode } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import {
  Feature,
  Finding,
  HOLDINGS,
  Holding,
  LengthUnit,
  ParameterInfo,
  SIZES,
  formatLength,
  parametersOf,
} from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { FindingCard } from '../../ui/FindingCard';
import { Fold } from '../../ui/Fold';
import { ParameterField } from '../../ui/ParameterField';
import { Txt } from '../../ui/Txt';

interface Props {
  holding: Holding;
  unit: LengthUnit;
  /** The part’s features as it lies. */
  features: Feature[];
  /** What is under the work, and how high. */
  under?: { what: string; height: number };
  findings: Finding[];
  /** What else can be done with it. */
  more?: ReactNode;
  onChange: (next: Holding) => void;
  onDelete: () => void;
}

/** One thing that holds the work: what changes from job to job, and its own sizes when asked for. */
export function ThingCard({ holding, unit, features, under, findings, more, onChange, onDelete }: Props) {
  const kind = HOLDINGS.find((k) => k.kind === holding.kind);
  if (!kind) return null;
  const shown = Object.entries(parametersOf(kind.Params)).filter(
    ([, i]) => !i.matters || i.matters(holding.params as never),
  );
  const field = ([key, info]: [string, ParameterInfo]) => (
    <ParameterField
      key={key}
      info={{ ...info, step: undefined }}
      value={holding.params[key]}
      unit={unit}
      testID={`hold-${holding.id}-${key}`}
      features={features.filter((f) => info.features?.includes(f.meaning)).map((f) => ({ value: f.id, label: f.name }))}
      onChange={(value) => onChange({ ...holding, params: { ...holding.params, [key]: value } })}
    />
  );
  const group = (of: (i: ParameterInfo) => boolean) => {
    const own = shown.filter(([, i]) => of(i));
    const numbers = own.filter(([, i]) => i.unit !== undefined);
    return (
      <>
        {own.filter(([, i]) => i.unit === undefined).map(field)}
        {numbers.length > 0 && <Fields>{numbers.map(field)}</Fields>}
      </>
    );
  };
  return (
    <Card testID={`holding-${holding.id}`}>
      <TextInput
        mode="outlined"
        dense
        label="Name"
        aria-label="Name of what holds"
        value={holding.name}
        onChangeText={(name) => name.trim() && onChange({ ...holding, name: name.slice(0, 80) })}
      />
      <Txt kind="small" tone="quiet">
        {kind.help}
      </Txt>
      {findings.map((f, i) => (
        <FindingCard key={i} finding={f} />
      ))}
      {group((i) => i.group !== SIZES)}
      {under && under.height > 0 && (
        <Txt kind="small">
          Under the work: {under.what}, {formatLength(under.height, unit)} high.
        </Txt>
      )}
      {more}
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', flexWrap: 'wrap' }}>
        <Fold label={SIZES}>{() => group((i) => i.group === SIZES)}</Fold>
        <Button compact onPress={onDelete}>
          Take it off
        </Button>
      </View>
    </Card>
  );
}
