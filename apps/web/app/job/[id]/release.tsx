export { ReleaseStage as default } from '../../../src/features/release/ReleaseStage';
