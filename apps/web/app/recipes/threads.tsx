export { ThreadsPage as default } from '../../src/features/calculator/ThreadsPage';
