export { ProveStage as default } from '../../../src/features/prove/ProveStage';
