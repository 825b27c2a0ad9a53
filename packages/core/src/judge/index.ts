/** What the apps, the command line and the tests may use of this floor. */
export type { Measured } from './measured';
export { LEVEL_DEFAULTS, type LevelAsk } from './level';
export { type Peak, peaksOf } from './peaks';
export { LOAD_LIMITS } from './load';
export type { StepFigures } from './steps';
