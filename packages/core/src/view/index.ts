/** What the apps, the command line and the tests may use of this floor. */
export { type Made, type Maker, packMade, unpackMade } from './packed';
export { runsOf } from './runs';
export type {
  LevelledView,
  LoadView,
  PathRun,
  PlannedView,
  PlanView,
  ProgramView,
  ProofView,
  SurfaceView,
  TaskStep,
} from './terms';
export { heightsOf, inUnitOf, loadView, pieceView, planView, proofView } from './views';
