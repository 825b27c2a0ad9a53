export { ComparePage as default } from '../../../src/features/compare/ComparePage';
