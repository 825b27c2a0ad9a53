import { act, fireEvent, screen, waitFor } from '@testing-library/react-native';
import { JobSummary, TOOLS } from '@tidypath/core';
import { show } from '../../../testing/show';
import { dropDraft, keepDraft } from '../../api/drafts';
import { Waiting, dropWrite, keepWrite } from '../../api/writes';
import { NotSent } from './NotSent';
import { placeOf } from './places';

const mockWaiting: Waiting[] = [
  { at: 1, write: { what: 'item', shelf: 'tools', version: 3, item: TOOLS[0] }, told: 'changed elsewhere too' },
  { at: 2, write: { what: 'bin', id: 'b', name: 'Ring', there: false } },
];
jest.mock('../../api/useWaiting', () => ({ useWaiting: () => mockWaiting }));
jest.mock('../../api/outbox', () => ({
  unsent: () => Promise.resolve([{ id: 'a', name: 'Plate', isNew: true }]),
}));
jest.mock('../../api/drafts');
jest.mock('../../api/writes', () => ({
  ...jest.requireActual<object>('../../api/writes'),
  dropWrite: jest.fn(),
  keepWrite: jest.fn(),
}));

test('what waits is told with its reason, and thrown away with a way back', async () => {
  const done = jest.fn<void, [string, () => Promise<void>]>();
  show(<NotSent onDone={done} />);
  await waitFor(() => expect(screen.getByTestId('not-sent')).toHaveTextContent(/Plate.*Made here/));
  expect(screen.getByTestId('not-sent')).toHaveTextContent(/Changed here; ▲ changed elsewhere too.*Ring.*Deleted here/);

  fireEvent.press(screen.getByLabelText('Throw away what is kept of Ring'));
  await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
  expect(dropWrite).toHaveBeenCalledWith(mockWaiting[1].write);
  await act(() => done.mock.lastCall![1]());
  expect(keepWrite).toHaveBeenCalledWith(mockWaiting[1].write, { at: 2, told: undefined });

  const draft = { version: 0, job: {} };
  jest.requireMock<{ draftOf: jest.Mock }>('../../api/drafts').draftOf.mockResolvedValue(draft);
  fireEvent.press(screen.getByLabelText('Throw away what is kept of Plate'));
  await waitFor(() => expect(done).toHaveBeenCalledTimes(2));
  expect(dropDraft).toHaveBeenCalledWith('a');
  await act(() => done.mock.lastCall![1]());
  expect(keepDraft).toHaveBeenCalledWith('a', draft);
});

test('a job stands where it will be once the server has heard what waits', () => {
  const job = { id: 'j', archived: false } as JobSummary;
  const put = (what: 'bin' | 'archive', there: boolean): Waiting => ({
    at: 0,
    write: { what, id: 'j', name: 'Job', there },
  });
  expect(placeOf(job, mockWaiting)).toBe('list');
  expect(placeOf(job, [put('archive', false)])).toBe('archive');
  expect(placeOf(job, [put('archive', false), put('bin', false)])).toBe('bin');
  expect(placeOf({ ...job, deletedAt: '2026-01-01' }, [put('bin', true)])).toBe('list');
});
