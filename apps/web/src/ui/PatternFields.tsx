import { useState } from 'react';
import { View } from 'react-native';
import { LengthUnit, Pattern } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { Fields } from './Card';
import { Choices } from './Choices';
import { LengthField } from './LengthField';
import { NumberField } from './NumberField';

export const PATTERN_WORDS: Record<Pattern['type'], string> = {
  single: 'once',
  line: 'in a line',
  grid: 'in a grid',
  circle: 'around a centre',
  mirror: 'as in a mirror',
};

const GIVEN = [
  { value: 'step', label: 'the step' },
  { value: 'total', label: 'the whole' },
] as const;

/** Which mirrors stand there, as the columns and rows they make. */
const MIRRORED = [
  { value: '2 1', label: 'left and right' },
  { value: '1 2', label: 'front and back' },
  { value: '2 2', label: 'both' },
] as const;

/** How often something stands in the part; counts are totals. */
export function PatternFields({
  pattern,
  without = [],
  unit,
  onChange,
}: {
  pattern: Pattern;
  /** Patterns that are not offered. */
  without?: Pattern['type'][];
  unit: LengthUnit;
  onChange: (p: Pattern) => void;
}) {
  const set = (more: Partial<Pattern>) => onChange({ ...pattern, ...more });
  const [by, setBy] = useState<(typeof GIVEN)[number]['value']>('step');
  /** A step, or all steps of `n` places together. */
  const step = (axis: 'X' | 'Y', key: 'dx' | 'dy', n: number) => {
    const steps = by === 'step' || n < 2 ? 1 : n - 1;
    const label = `${by === 'step' ? 'Step' : 'Over all'} ${axis}`;
    return (
      <LengthField
        key={label}
        label={label}
        value={pattern[key] * steps}
        unit={unit}
        onChange={(mm) => set({ [key]: mm / steps })}
      />
    );
  };
  const length = (label: string, key: 'centreX' | 'centreY') => (
    <LengthField label={label} value={pattern[key]} unit={unit} onChange={(mm) => set({ [key]: mm })} />
  );
  const count = (label: string) => (
    <NumberField
      label={label}
      value={pattern.count}
      min={1}
      max={500}
      whole
      step={1}
      onChange={(n) => set({ count: n })}
    />
  );
  return (
    <View style={{ gap: SPACE.s }}>
      <Choices
        label="How often"
        value={pattern.type}
        onChange={(type) =>
          set({
            type,
            ...(type === 'mirror'
              ? { count: 2, rows: 1 }
              : { count: Math.max(type === 'single' ? 1 : 2, pattern.count) }),
          })
        }
        options={(Object.keys(PATTERN_WORDS) as Pattern['type'][])
          .filter((t) => !without.includes(t))
          .map((value) => ({
            value,
            label: PATTERN_WORDS[value],
          }))}
      />
      {(pattern.type === 'line' || pattern.type === 'grid') && (
        <Choices label="Given by" value={by} options={GIVEN} onChange={setBy} />
      )}
      {pattern.type === 'line' && (
        <Fields>
          {count('In all')}
          {step('X', 'dx', pattern.count)}
          {step('Y', 'dy', pattern.count)}
        </Fields>
      )}
      {pattern.type === 'grid' && (
        <Fields>
          {count('Columns')}
          <NumberField
            label="Rows"
            value={pattern.rows}
            min={1}
            max={500}
            whole
            step={1}
            onChange={(rows) => set({ rows })}
          />
          {step('X', 'dx', pattern.count)}
          {step('Y', 'dy', pattern.rows)}
        </Fields>
      )}
      {pattern.type === 'circle' && (
        <Fields>
          {count('In all')}
          {length('Centre X', 'centreX')}
          {length('Centre Y', 'centreY')}
        </Fields>
      )}
      {pattern.type === 'mirror' && (
        <>
          <Choices
            label="Mirrored"
            value={MIRRORED.find(({ value }) => value === `${pattern.count} ${pattern.rows}`)?.value ?? '2 2'}
            options={MIRRORED}
            onChange={(value) => {
              const [count, rows] = value.split(' ').map(Number);
              set({ count, rows });
            }}
          />
          <Fields>
            {pattern.count > 1 && length('Mirror at X', 'centreX')}
            {pattern.rows > 1 && length('Mirror at Y', 'centreY')}
          </Fields>
        </>
      )}
    </View>
  );
}
