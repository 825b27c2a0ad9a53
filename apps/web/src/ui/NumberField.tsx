import { TypedField, TypedFieldProps } from './TypedField';

interface Props extends TypedFieldProps {
  value: number;
  onChange: (value: number) => void;
  min: number;
  max: number;
  step?: number;
  whole?: boolean;
  suffix?: string;
}

/** A value nobody has given yet is shown empty. */
const show = (v: number) => (!Number.isFinite(v) ? '' : String(Math.round(v * 1e4) / 1e4));
const read = (text: string) => Number(text.replace(',', '.').replace(/\s/g, ''));

/** A number with its range; a bad one says why and changes nothing. */
export function NumberField({ value, onChange, min, max, step, whole, ...rest }: Props) {
  const fault = (text: string): string | undefined => {
    const number = read(text);
    if (text.trim() === '' || !Number.isFinite(number)) return 'a number is needed here';
    if (whole && !Number.isInteger(number)) return 'a whole number is needed here';
    if (number < min) return `at least ${show(min)}`;
    if (number > max) return `at most ${show(max)}`;
    return undefined;
  };
  const stepBy = (sign: 1 | -1) => {
    const next = Math.min(max, Math.max(min, Math.round((value + sign * (step ?? 0)) * 1e6) / 1e6));
    onChange(next);
    return show(next);
  };
  return (
    <TypedField
      {...rest}
      shown={show(value)}
      fault={fault}
      onText={(text) => onChange(read(text))}
      onStep={step === undefined ? undefined : stepBy}
    />
  );
}
