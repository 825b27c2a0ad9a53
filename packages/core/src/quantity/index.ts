/** What the apps, the command line and the tests may use of this floor. */
export { type DrillSeries, nearestDrill } from './drill-sizes';
export { finding, type Finding, hasStop } from './finding';
export type { Level } from './findings/words';
export { hashOf, textKeySteps } from './hash';
export { parseLength } from './length';
export { limitsText, parseSize, rangeText, type Size, sizeText } from './size';
export { parameterText } from './parameter-text';
export { type ParameterInfo, parametersOf, type ParameterUnit } from './parameter';
export {
  degrees,
  formatFeed,
  formatThin,
  formatArea,
  formatVolume,
  formatLength,
  formatNumber,
  formatSurfaceSpeed,
  formatTime,
  lengthNumber,
  type LengthUnit,
} from './units';
export { misshapen, readAs } from './validate';
export { atHand, type JobFile, LARGEST_FILE, putAtHand, putAtHandAs, sha256InPieces, sha256Of } from './files';
export { freshId } from './ids';
export { maths } from './maths';
export { normalFrom, randomFrom } from './random';
