/** What the apps, the command line and the tests may use of this floor. */
export { blankFindings, blanksOf, kitOf, type KitTool, runsForBatch } from './batch';
export { barText, batchText, blanksText, kitText, pullLines, wayText } from './batch-words';
export { Bench, type BenchStep, type BenchWork, type Proved } from './bench';
export { changesOf } from './changes';
export { type Cost, priceBreaks, type RunFigures } from './cost';
export { costLinesText, costSentences, costText, missingText } from './cost-words';
export { bodiesEverywhere, stockEverywhere } from './everywhere';
export { openJob, parseJob, readJob } from './documents';
export { asSeen, bodiesOf, boxOf, clampBeside, clampsBefore, gripsOf, groundOf } from './ground';
export { addHolding, facingGap, pressesOnFinished, stationPitch, withHolding } from './holds';
export { placeOfZero, type ZeroPlace, zeroPlaces } from './zero';
export { estimateMinutes, type Insight, insightOf, liftsOf, setupWith, type PathMinutes } from './insight';
export {
  controllerOf,
  coolantsOf,
  type KnownPlan,
  leftOut,
  type PlanCache,
  planFindings,
  planSetup,
  type PlanStep,
  postSetup,
  programOf,
  type SetupPlan,
} from './pipeline';
export { compensationsOf } from './setup-findings';
export { joinPrograms } from './joined';
export { leftBefore, ownText, type Proof, type ProofOptions, ProofRun, proveProgram, runFigures } from './prove';
export { zeroByHand, zeroProgram } from './probing';
export { isBetter, type Reach, reachOf, reachText } from './reach';
export { resultKey } from './results';
export { type Edit, type Returned, returned } from './returned';
export { type WriteAsk, written } from './written';
export { type HeightPicture, heightPicture, type PickedHeight } from './section';
