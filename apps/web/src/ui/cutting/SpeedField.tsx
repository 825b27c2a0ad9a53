import { LengthUnit, Turning, Typed, feedForms, formatNumber, parseFeed, parseSpeed, speedForms } from '@tidypath/core';
import { TypedField, TypedFieldProps } from '../TypedField';

interface Props extends TypedFieldProps {
  /** rpm, or mm/min. */
  value: number;
  onChange: (value: number) => void;
  min: number;
  max: number;
  /** What turns; decides what is meant by a surface speed or a feed a tooth. */
  turning: Turning;
  unit: LengthUnit;
  /** What 0 stands for, where it may be. */
  none?: string;
}

const plain = (v: number) => String(Math.round(v * 1e4) / 1e4);

/** A value that may be typed in several forms; the others stand below it. */
function FormField(
  props: Props & {
    suffix: string;
    step: number;
    /** What stands in the field, in its own unit: so much of the stored one. */
    scale: number;
    read: (text: string) => Typed;
    forms: (value: number) => string;
    said: (value: number) => string;
  },
) {
  const { value, onChange, min, max, step, scale, read, forms, said } = props;
  const fault = (text: string) => {
    const typed = read(text);
    if (!typed.ok) return typed.why;
    if (typed.value < min * (1 - 1e-9)) return `at least ${said(min)}`;
    return typed.value > max * (1 + 1e-9) ? `at most ${said(max)}` : undefined;
  };
  const stepBy = (sign: 1 | -1) => {
    const next = Math.min(max, Math.max(min, value + sign * step * scale));
    onChange(next);
    return plain(next / scale);
  };
  return (
    <TypedField
      label={props.label}
      autoFocus={props.autoFocus}
      testID={props.testID}
      suffix={props.suffix}
      shown={plain(value / scale)}
      fault={fault}
      echo={(text) => {
        const typed = read(text);
        if (!typed.ok) return undefined;
        return typed.value === 0 ? props.none : forms(typed.value);
      }}
      onText={(text) => {
        const typed = read(text);
        if (typed.ok && Math.abs(typed.value - value) > 1e-9) onChange(typed.value);
      }}
      onStep={stepBy}
    />
  );
}

/** A spindle speed, typed as rpm, m/min or ft/min. */
export const SpeedField = (props: Props) => (
  <FormField
    {...props}
    suffix="rpm"
    step={100}
    scale={1}
    read={(text) => parseSpeed(text, props.turning.diameter)}
    forms={(rpm) => speedForms({ ...props.turning, rpm }, props.unit)}
    said={(rpm) => `${formatNumber(rpm, 0)} rpm`}
  />
);

/** A feed, typed a minute, a turn or a tooth. */
export const FeedField = (props: Props) => (
  <FormField
    {...props}
    suffix={props.unit === 'inch' ? 'in/min' : 'mm/min'}
    step={10}
    scale={props.unit === 'inch' ? 25.4 : 1}
    read={(text) => parseFeed(text, props.unit, props.turning)}
    forms={(feed) => feedForms(feed, props.turning, props.unit)}
    said={(feed) => feedForms(feed, { ...props.turning, rpm: 0 }, props.unit)}
  />
);
