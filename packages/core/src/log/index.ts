/** What the apps, the command line and the tests may use of this floor. */
export { type Chart, chartOf, ENOUGH_VALUES } from './chart';
export {
  entryFault,
  type KeptEntry,
  LogEntry,
  LOGGED_KINDS,
  type LoggedKind,
  type LogRow,
  MOST_PHOTOS,
  SCRAP_CAUSES,
  standing,
} from './entry';
export { type Facts, factsOfRun } from './facts';
export {
  type Lesson,
  placeOf,
  type Teaching,
  teachingId,
  timeTeaching,
  toolTeachings,
  type TimeValues,
} from './lessons';
export { noticesOf } from './notices';
export { adviseOffset, type OffsetAdvice, sizedParts } from './offsets';
export { PHOTO, photoFault } from './photo';
export { isAsked, logCsv, logJson, LogQuestion } from './question';
export { evidenceText, isSameCut, noted, recipeOf } from './recipe';
export { correctionOf, makerOf } from './registers';
export type { RunEvent, RunKind, RunRow } from './run';
export {
  CHIP_COLOURS,
  CHIP_SHAPES,
  type ChipColour,
  type ChipShape,
  EDGE_ENDS,
  FINISHES,
  isGoodCut,
  Seen,
  seenText,
  SOUNDS,
} from './seen';
