import { ParameterInfo } from './parameter';
import { LengthUnit, formatFeed, formatLength, formatNumber } from './units';

/** A value of an operation as people read it, in the unit of the job: "0.5 mm", "2.5°", "80 %", "on". */
export function parameterText(info: ParameterInfo, given: unknown, unit: LengthUnit): string {
  const value = given ?? info.absent;
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value !== 'number') return info.words?.[String(value)] ?? String(value);
  switch (info.unit) {
    case 'length':
      return formatLength(value, unit);
    case 'feed':
      return formatFeed(value, unit);
    case 'angle':
      return `${formatNumber(value, 2)}°`;
    case 'share':
      return `${formatNumber(value * 100, 0)} %`;
    case 'force':
      return `${formatNumber(value, 2)} kN`;
    case 'seconds':
      return `${formatNumber(value, 1)} s`;
    case 'minutes':
      return `${formatNumber(value, 1)} min`;
    default:
      return formatNumber(value, 2);
  }
}
