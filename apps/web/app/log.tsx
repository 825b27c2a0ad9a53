export { LogPage as default } from '../src/features/log/LogPage';
