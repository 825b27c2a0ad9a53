import { fireEvent, screen, waitFor } from '@testing-library/react-native';
import { Lesson, LogRow, finding } from '@tidypath/core';
import { api } from '../../api/client';
import { show } from '../../../testing/show';
import { LogPage } from './LogPage';

const row = (more: Partial<LogRow>): LogRow => ({
  ...{ id: 'a'.repeat(32), kind: 'production', parts: 4, scrapped: 0, remark: '', releaseId: 'r', who: 'Lio' },
  ...{ at: '2026-03-02T08:00:00Z', jobId: 'j', jobName: 'Hub plate', setupName: 'Top', number: 2 },
  ...{ machineId: 'whimbrel', machine: 'Whimbrel', computed: 600 },
  facts: {
    ...{ dwell: 0, moves: 500, changes: 2, materialId: 's', material: 'Mild steel', names: { o1: 'Pocket 1' } },
    ...{ uses: [], cuts: [] },
  },
  ...more,
});
const asked = jest.spyOn(api, 'logRows');
jest
  .spyOn(api, 'notices')
  .mockResolvedValue([finding('log-edge-ends', { tool: 'End mill 6', share: 0.92 }, { tool: 't6' })]);
const LESSON: Lesson = {
  ...{ id: 'life t6 s', what: 'life', item: 't6', about: 'Edges of End mill 6 in Mild steel' },
  ...{ now: 'edges last as its card says', evidence: '3 edges: worn at 0.7, worn at 0.8, worn at 0.65' },
  ...{ proposed: 'edges last 0.81 of the life on its card', isSo: false },
};
const lessons = jest.spyOn(api, 'lessons').mockResolvedValue([LESSON]);
const learn = jest.spyOn(api, 'learn').mockResolvedValue(undefined);

test('entries with what was seen, named; what is worth a look; time as it really was', async () => {
  asked.mockResolvedValue({
    total: 2,
    rows: [
      row({ seconds: 660, seen: [{ operation: 'o1', finish: 'torn' }] }),
      row({ id: 'b'.repeat(32), seconds: 600 }),
    ],
  });
  await show(<LogPage />);
  expect(await screen.findByText('Pocket 1: finish torn')).toBeTruthy();
  expect(screen.getAllByText('Hub plate, Top, release 2')).toHaveLength(2);
  expect(screen.getByText('2 entries')).toBeTruthy();
  expect(await screen.findByText(/has used 92 % of its life/)).toBeTruthy();
  expect(screen.getByLabelText('2 runs took from 100 % to 110 % of their computed time')).toBeTruthy();
});

test('a lesson is taken over, and taken back', async () => {
  asked.mockResolvedValue({ total: 0, rows: [] });
  await show(<LogPage />);
  await fireEvent.press(await screen.findByTestId('life-take'));
  expect(learn).toHaveBeenLastCalledWith('life t6 s', 'take');
  const taken = { at: '2026-03-02T08:00:00Z', who: 'Lio', evidence: LESSON.evidence, before: LESSON.now };
  lessons.mockResolvedValue([{ ...LESSON, now: LESSON.proposed!, proposed: undefined, isSo: true, taken }]);
  await fireEvent.press(screen.getByTestId('life-take'));
  await fireEvent.press(await screen.findByTestId('life-undo'));
  expect(learn).toHaveBeenLastCalledWith('life t6 s', 'undo');
});

test('it is searched once the letters stand still; nothing found is said', async () => {
  asked.mockResolvedValue({ total: 0, rows: [] });
  await show(<LogPage />);
  expect(await screen.findByText('Nothing is logged yet')).toBeTruthy();
  await fireEvent.changeText(screen.getByLabelText('Search the log'), 'torn');
  await waitFor(() => expect(asked).toHaveBeenLastCalledWith({ text: 'torn' }, 0));
  expect(await screen.findByText('Nothing in the log is like that.')).toBeTruthy();
});
