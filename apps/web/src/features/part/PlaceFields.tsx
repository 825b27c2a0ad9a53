import { useState } from 'react';
import { Feature, LengthUnit, Pattern, Point, isBeside } from '@tidypath/core';
import { Fields } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { PatternFields } from '../../ui/PatternFields';
import { Txt } from '../../ui/Txt';

const PLACED = [
  { value: 'first', label: 'its first' },
  { value: 'middle', label: 'its middle' },
] as const;

/** From the first of a row or a grid to its middle. */
function toMiddle({ type, count, rows, dx, dy }: Pattern): { x: number; y: number } {
  if (type === 'grid') return { x: ((count - 1) * dx) / 2, y: ((rows - 1) * dy) / 2 };
  return type === 'line' ? { x: ((count - 1) * dx) / 2, y: ((count - 1) * dy) / 2 } : { x: 0, y: 0 };
}

const isAbout = ({ type }: Pattern) => type === 'circle' || type === 'mirror';

/** Where a feature stands, and how often; a row or a grid by its first or by its middle. */
export function PlaceFields({
  feature,
  middle,
  unit,
  onChange,
}: {
  feature: Feature;
  /** Where copies go around, or mirrors stand, before something else is said. */
  middle: Point;
  unit: LengthUnit;
  onChange: (more: Partial<Feature>) => void;
}) {
  const { pattern, shape, x, y, turn } = feature;
  const [placed, setPlaced] = useState<(typeof PLACED)[number]['value']>('first');
  const isRow = pattern.type === 'line' || pattern.type === 'grid';
  const off = isRow && placed === 'middle' ? toMiddle(pattern) : { x: 0, y: 0 };
  const word = shape.type === 'chain' ? 'Move' : isRow && placed === 'middle' ? 'Middle' : 'Centre';
  /** A grid that is placed by its middle keeps it; what goes around or has mirrors does so about the middle first. */
  const repeat = (asked: Pattern) => {
    const next = isAbout(asked) && !isAbout(pattern) ? { ...asked, centreX: middle.x, centreY: middle.y } : asked;
    const now = isRow && placed === 'middle' ? toMiddle(next) : off;
    onChange({ pattern: next, x: x + off.x - now.x, y: y + off.y - now.y });
  };
  return (
    <>
      {isRow && shape.type !== 'chain' && (
        <Choices label="Placed by" value={placed} options={PLACED} onChange={setPlaced} />
      )}
      <Fields>
        <LengthField label={`${word} X`} value={x + off.x} unit={unit} onChange={(to) => onChange({ x: to - off.x })} />
        <LengthField label={`${word} Y`} value={y + off.y} unit={unit} onChange={(to) => onChange({ y: to - off.y })} />
        <NumberField
          label="Turned"
          value={turn}
          min={-360}
          max={360}
          suffix="°"
          onChange={(to) => onChange({ turn: to })}
        />
      </Fields>
      {isBeside(feature) && (
        <Txt kind="small" tone="quiet">
          X and Y count from the lower left corner of the {feature.side}, as you stand before it.
        </Txt>
      )}
      <PatternFields pattern={pattern} unit={unit} onChange={repeat} />
    </>
  );
}
