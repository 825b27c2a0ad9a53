/** What the apps, the command line and the tests may use of this floor. */
export { biteWorking, suggestBite } from './bite';
export { boldnessWord, GRIPS, inRange, type WorkGrip } from './boldness';
export { adviseCoolant, kcOf } from './conditions';
export {
  bendingOf,
  bentShape,
  boldestChip,
  chipDiameter,
  chipRoomShare,
  cuttingDiameter,
  type CutInput,
  cutState,
  type CutState,
  thinnestChip,
} from './cut';
export { departure } from './departure';
export { edgeLife, lifeReference } from './edge-life';
export { suggestEntry, suggestFinish } from './entries';
export { type Gauge, gaugesOf, thin } from './gauges';
export { reamAllowance, SCREWS, suggestPeck } from './holes';
export { type Lift, lifts } from './lift';
export { GENERAL_TOLERANCE } from './limits';
export { scallopHeight, specificForce, stepoverForScallop } from './milling';
export { suggest } from './suggest';
export type { LimitStep, Situation, Suggestion } from './suggestion';
export {
  formingDrill,
  parseThread,
  tapDrill,
  tapPercent,
  threadMillInside,
  threadMillOutside,
  threadSizes,
  likelyThreads,
} from './threads';
export type { InputPlace, Working } from './working';
export { feedForms, parseFeed, parseSpeed, speedForms, type Turning, type Typed } from './typed';
