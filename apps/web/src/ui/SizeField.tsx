import { LengthUnit, Size, formatLength, parseSize, rangeText, sizeText } from '@tidypath/core';
import { TypedField, TypedFieldProps } from './TypedField';

interface Props extends TypedFieldProps {
  value: Size;
  unit: LengthUnit;
  onChange: (size: Size) => void;
  /** mm. */
  min?: number;
  max?: number;
}

/** A size as drawings give it, with limits or a fit where it has some; what it may measure, or why it cannot be, stands below. */
export function SizeField({ value, unit, onChange, min, max, ...rest }: Props) {
  const read = (text: string) => parseSize(text, unit);
  const outOfRange = (mm: number): string | undefined => {
    if (min !== undefined && mm < min - 1e-9) return `at least ${formatLength(min, unit)}`;
    if (max !== undefined && mm > max + 1e-9) return `at most ${formatLength(max, unit)}`;
    return undefined;
  };
  const fault = (text: string) => {
    const found = read(text);
    return found.ok ? outOfRange(found.mm) : found.why;
  };
  const echo = (text: string) => {
    const found = read(text);
    if (!found.ok) return undefined;
    if (found.limits) return rangeText(found, unit);
    return text.trim() !== sizeText(found, unit) ? `= ${formatLength(found.mm, unit)}` : undefined;
  };
  const take = (text: string) => {
    const found = read(text);
    if (!found.ok) return;
    const { mm, limits } = found;
    const isSame = Math.abs(mm - value.mm) <= 1e-9 && sizeText({ mm, limits }, unit) === sizeText(value, unit);
    if (!isSame) onChange({ mm, limits });
  };
  return (
    <TypedField
      {...rest}
      shown={sizeText(value, unit)}
      suffix={unit === 'mm' ? 'mm' : 'in'}
      fault={fault}
      echo={echo}
      onText={take}
    />
  );
}
