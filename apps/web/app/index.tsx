export { JobsPage as default } from '../src/features/jobs/JobsPage';
