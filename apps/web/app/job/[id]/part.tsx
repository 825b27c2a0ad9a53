export { PartStage as default } from '../../../src/features/part/PartStage';
