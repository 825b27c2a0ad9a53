export { WorkListPage as default } from '../src/features/release/WorkListPage';
