export { CutStage as default } from '../../../src/features/cut/CutStage';
