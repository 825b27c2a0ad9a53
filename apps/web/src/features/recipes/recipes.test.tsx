import { screen } from '@testing-library/react-native';
import { show } from '../../../testing/show';
import { RecipesPage } from './RecipesPage';

test('no recipes yet: the first thing to do', () => {
  show(<RecipesPage />);
  expect(screen.getByText('Open the calculator')).toBeTruthy();
});
