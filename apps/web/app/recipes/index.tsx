export { RecipesPage as default } from '../../src/features/recipes/RecipesPage';
