export { CalculatorPage as default } from '../../src/features/calculator/CalculatorPage';
