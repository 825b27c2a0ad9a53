export { HoldStage as default } from '../../../src/features/hold/HoldStage';
