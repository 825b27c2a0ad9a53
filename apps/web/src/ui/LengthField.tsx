import { LengthUnit, formatLength, lengthNumber, parseLength } from '@tidypath/core';
import { TypedField, TypedFieldProps } from './TypedField';

interface Props extends TypedFieldProps {
  /** mm. */
  value: number;
  unit: LengthUnit;
  onChange: (mm: number) => void;
  min?: number;
  max?: number;
  /** Step of the buttons, mm; none without it. */
  step?: number;
  /** mm that 100 % stands for. */
  shareOf?: number;
}

const plain = (mm: number, unit: LengthUnit) => lengthNumber(mm, unit).replace(/\u202f/g, '');

/** A length as people write it; what it was read as, or why it cannot be, stands below. The last good value is kept. */
export function LengthField({ value, unit, onChange, min, max, step, shareOf, ...rest }: Props) {
  const outOfRange = (mm: number): string | undefined => {
    if (min !== undefined && mm < min - 1e-9) return `at least ${formatLength(min, unit)}`;
    if (max !== undefined && mm > max + 1e-9) return `at most ${formatLength(max, unit)}`;
    return undefined;
  };
  const read = (text: string) => parseLength(text, unit, shareOf);
  const fault = (text: string) => {
    const found = read(text);
    return found.ok ? outOfRange(found.mm) : found.why;
  };
  const echo = (text: string) => {
    const found = read(text);
    return found.ok && text.trim() !== plain(found.mm, unit) ? `= ${formatLength(found.mm, unit)}` : undefined;
  };
  const take = (text: string) => {
    const found = read(text);
    if (found.ok && Math.abs(found.mm - value) > 1e-9) onChange(found.mm);
  };
  const stepBy = (sign: 1 | -1) => {
    const next = Math.round((value + sign * (step ?? 0)) * 1e6) / 1e6;
    if (outOfRange(next)) return undefined;
    onChange(next);
    return plain(next, unit);
  };
  return (
    <TypedField
      {...rest}
      shown={plain(value, unit)}
      suffix={unit === 'mm' ? 'mm' : 'in'}
      fault={fault}
      echo={echo}
      onText={take}
      onStep={step === undefined ? undefined : stepBy}
    />
  );
}
