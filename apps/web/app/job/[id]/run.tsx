export { RunStage as default } from '../../../src/features/run/RunStage';
