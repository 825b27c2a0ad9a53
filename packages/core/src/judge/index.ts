/** What the apps, the command line and the tests may use of this floor. */
export type { Measured } from './measured';
export { LEVEL_DEFAULTS, type LevelAsk } from './level';
export { type Peak, peaksOf } from './peaks';
export type { StepFigures } from './steps';
