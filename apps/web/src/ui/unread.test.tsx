import { render, screen } from '@testing-library/react-native';
import { PaperProvider } from 'react-native-paper';
import { SWRConfig } from 'swr';
import { api } from '../api/client';
import { lightTheme } from '../theme/paper';
import { UnreadItems } from './UnreadItems';

jest.mock('../api/client', () => ({ api: { unread: jest.fn() } }));
const show = () =>
  render(
    <SWRConfig value={{ provider: () => new Map() }}>
      <PaperProvider theme={lightTheme}>
        <UnreadItems shelf="tools" />
      </PaperProvider>
    </SWRConfig>,
  );

test('what stands on a shelf and cannot be read is named, with why and what to do', async () => {
  const finding = { level: 'stop', code: 'bad-field', message: 'tool “t9”: diameter', remedy: 'Correct it', place: {} };
  jest.mocked(api.unread).mockResolvedValue([finding as never]);
  show();
  expect(await screen.findByText('tool “t9”: diameter')).toBeTruthy();
  expect(screen.getByText('Correct it.')).toBeTruthy();
});

test('where all can be read it says nothing', async () => {
  jest.mocked(api.unread).mockResolvedValue([]);
  show();
  expect(screen.queryByTestId('unread-tools')).toBeNull();
});
