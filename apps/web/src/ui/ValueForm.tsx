import { Fragment } from 'react';
import { Finding, LengthUnit, ParameterInfo } from '@tidypath/core';
import { Card, Fields } from './Card';
import { ParameterField } from './ParameterField';
import { Txt } from './Txt';

interface Props<T extends object> {
  item: T;
  fields: Record<string, ParameterInfo>;
  unit: LengthUnit;
  findings: Finding[];
  onChange: (more: Partial<T>) => void;
  /** Said under a field: where its number comes from. */
  under?: (key: string) => React.ReactNode;
}

/** Every value of a described thing that matters as it is, under its headings. */
export function ValueForm<T extends object>({ item, fields, unit, findings, onChange, under }: Props<T>) {
  const shown = Object.entries(fields).filter(([, info]) => !info.matters || info.matters(item as never));
  const groups = [...new Set(shown.map(([, info]) => info.group ?? ''))];
  const field = ([key, info]: [string, ParameterInfo]) => (
    <Fragment key={key}>
      <ParameterField
        info={{ ...info, step: undefined }}
        value={item[key as keyof T]}
        unit={unit}
        testID={`field-${key}`}
        finding={findings.find((f) => f.place.field === key)}
        onChange={(value) => onChange({ [key]: value } as Partial<T>)}
      />
      {under?.(key)}
    </Fragment>
  );
  const numeric = ([, info]: [string, ParameterInfo]) => info.unit !== undefined;
  return (
    <>
      {groups.map((group) => {
        const own = shown.filter(([, info]) => (info.group ?? '') === group);
        return (
          <Card key={group}>
            {group !== '' && (
              <Txt heading kind="large">
                {group}
              </Txt>
            )}
            {own.filter((f) => !numeric(f)).map(field)}
            <Fields>
              {own.filter(numeric).map((f) => (
                <Fragment key={f[0]}>{field(f)}</Fragment>
              ))}
            </Fields>
          </Card>
        );
      })}
    </>
  );
}
