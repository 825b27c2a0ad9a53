/** What the apps, the command line and the tests may use of this floor. */
export { barWays } from './bars';
export { type Candidate, type Comparison, MOST_CANDIDATES } from './comparison';
export { Copies, COPY_ORDERS } from './copies';
export {
  addSetup,
  editOperation,
  neverSeen,
  upText,
  withController,
  withInstead,
  withoutSetup,
  withSetup,
} from './edit';
export { fileMissing, filesOf, missingFiles } from './files';
export { gripsText } from './grips';
export { Holding } from './holding';
export { Height, type Heights, heightText } from './heights';
export { Fixture, FORMAT_VERSION, Job, LIES, Setup } from './job';
export { mergeJobs, type Side } from './merge';
export { UNNAMED, newJob } from './new';
export {
  type Feeds,
  type KeepAway,
  type LeftAlone,
  Operation,
  type Pause,
  type Stretch,
  type Within,
  WITHIN,
} from './operation';
export { jobText, packJob } from './package';
export { readStored } from './read';
export { offsetsOf, Stations } from './stations';
export { STOCK_AXES, stockSize, withStockSize } from './stock';
export {
  JOB_ORDERS,
  JOB_PLACES,
  JOB_STATES,
  JOBS_PER_PAGE,
  type JobOrder,
  type JobPlace,
  type JobQuestion,
  type JobRow,
  type JobState,
  type JobSummary,
  type JobVersion,
  Place,
  type SaveResult,
  type ShopEvent,
  type Stage,
  STAGES,
  Standing,
} from './stored';
export { CommentEntry, type KeptComment } from './comment';
