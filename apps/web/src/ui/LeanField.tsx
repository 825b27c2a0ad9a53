import { LEANS, Lean } from '@tidypath/core';
import { Choices } from './Choices';
import { NumberField } from './NumberField';

const LEVEL = 'level';
/** An angle to begin with, degrees. */
const START = 30;

interface Props {
  label: string;
  /** What it is called where nothing leans. */
  none: string;
  value: Lean | undefined;
  onChange: (lean: Lean | undefined, tag?: string) => void;
  /** Whether the other sides are shown only when asked for. */
  fold?: boolean;
}

/** To which side something leans, and by how much; or that it does not. */
export function LeanField({ label, none, value, onChange, fold }: Props) {
  return (
    <>
      <Choices<Lean['to'] | typeof LEVEL>
        label={label}
        fold={fold}
        value={value?.to ?? LEVEL}
        options={[{ value: LEVEL, label: none }, ...LEANS.map((to) => ({ value: to, label: `to the ${to}` }))]}
        onChange={(to) => onChange(to === LEVEL ? undefined : { to, degrees: value?.degrees ?? START })}
      />
      {value && (
        <NumberField
          label="By"
          suffix="°"
          value={value.degrees}
          min={0.05}
          max={60}
          testID="lean-degrees"
          onChange={(degrees) => onChange({ ...value, degrees }, 'lean')}
        />
      )}
    </>
  );
}
