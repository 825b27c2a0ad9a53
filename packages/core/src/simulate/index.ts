/** What the apps, the command line and the tests may use of this floor. */
export { clock, type Clock, clockSettings, wholeTime } from './clock';
export { type Moment, Playback } from './playback';
export { type Measure, MEASURES, type Samples } from './samples';
