/** What the apps, the command line and the tests may use of this floor. */
export { type CheckGroup, type CheckItem, CHECK_GROUPS, checklistOf } from './checklist';
export { differenceOf } from './difference';
export { type Check, findingsOf, gravest, heldBack, preflight, toAccept, TOPIC_WORDS } from './preflight';
export { proven, released, summaryOf } from './proven';
export {
  type AgainstJob,
  type Answer,
  AnswerEntry,
  APPROVED_WORDS,
  changedWords,
  HandingOut,
  LOOKED_AT,
  isHandedOut,
  type KeptAnswer,
  type KeptTick,
  type ProofSummary,
  type Proven,
  ReleaseAsk,
  type ReleaseBody,
  type ReleaseRow,
  type ReleaseState,
  type ReleaseView,
  stateOf,
  stateWords,
  TickEntry,
} from './release';
export { acceptedKey, changedParts, isOfRelease, makingOf, MARK, type ReleasedProgram, rowOf, shortRoot } from './root';
export { sizesProgram } from './measuring';
export {
  CorrectionEntry,
  type KeptCorrection,
  type KeptSize,
  makersOf,
  SizeEntry,
  sizesToMeasure,
  type SizeToMeasure,
  sizeVerdict,
} from './sizes';
