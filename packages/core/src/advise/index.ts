/** What the apps, the command line and the tests may use of this floor. */
export {
  addOperation,
  changeParam,
  changeTool,
  type Departing,
  departingIn,
  duplicateOperation,
  isStale,
  numberedByPockets,
  proposedParams,
  refreshTool,
  splitFinish,
  splitsFinish,
  startingTargets,
  takeLift,
  takeSuggested,
  tidyRack,
  withCalledTool,
} from './edit';
export { withEntryHole } from './entry-hole';
export { isSize, makesThreads, readSize, sizedTools } from './sized-tool';
export { suggestOrder, toolChanges } from './route/order';
export { softJawsJob } from './soft-jaws';
export { proposeRoute } from './route/propose';
export { provenRoute } from './route/proven';
export type { Proposal } from './route/step';
export type { Advice, Advised } from './tools/common';
export { adviseTools, rankedFor } from './tools';
export { planPart, type PlannedPart } from './plan-part/plan';
export {
  COMPARED_AT,
  compare,
  type Compared,
  type ComparedAt,
  countedIn,
  leftOutBy,
  type Outcome,
  runsCompared,
  takenAt,
  wholeRun,
  type WholeRun,
} from './compare/compare';
export {
  canCompare,
  candidateFor,
  comparedIn,
  newComparison,
  waysFor,
  withOffered,
  withRoutesCompared,
} from './compare/candidates';
export { costInBatch, type Priced } from './compare/verdict';
export { verdictText } from './compare/words';
