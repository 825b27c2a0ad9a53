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
};

/** How often something stands in the part; counts are totals. */
export function PatternFields({
  pattern,
  unit,
  onChange,
}: {
  pattern: Pattern;
  unit: LengthUnit;
  onChange: (p: Pattern) => void;
}) {
  const set = (more: Partial<Pattern>) => onChange({ ...pattern, ...more });
  const length = (label: string, key: 'dx' | 'dy' | 'centreX' | 'centreY') => (
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
        onChange={(type) => set({ type, count: Math.max(type === 'single' ? 1 : 2, pattern.count) })}
        options={(Object.keys(PATTERN_WORDS) as Pattern['type'][]).map((value) => ({
          value,
          label: PATTERN_WORDS[value],
        }))}
      />
      {pattern.type === 'line' && (
        <Fields>
          {count('In all')}
          {length('Step X', 'dx')}
          {length('Step Y', 'dy')}
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
          {length('Step X', 'dx')}
          {length('Step Y', 'dy')}
        </Fields>
      )}
      {pattern.type === 'circle' && (
        <Fields>
          {count('In all')}
          {length('Centre X', 'centreX')}
          {length('Centre Y', 'centreY')}
        </Fields>
      )}
    </View>
  );
}
