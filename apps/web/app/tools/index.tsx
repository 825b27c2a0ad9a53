export { ToolsPage as default } from '../../src/features/tools/ToolsPage';
