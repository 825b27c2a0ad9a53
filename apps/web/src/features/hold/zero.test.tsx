import { fireEvent, screen } from '@testing-library/react-native';
import type { Job } from '@tidypath/core';
import { sampleJob, show } from '../../../testing/show';
import { saveFile } from '../../ui/files';
import { ZeroCard } from './ZeroCard';

const mockAsked: { job: Job } = { job: sampleJob() };
jest.mock('../../session/JobContext', () => ({
  useJob: () => ({ job: mockAsked.job, setup: mockAsked.job.setups[0] }),
}));
jest.mock('../../ui/files', () => ({ saveFile: jest.fn() }));

test('how a zero is found is told by hand; where machine and control have a probe there is a program for it', async () => {
  const { unmount } = await show(<ZeroCard set={() => undefined} />);
  await fireEvent.press(screen.getByText('How it is found'));
  expect(screen.getByText(/^X: the left face of the stock is X/)).toBeTruthy();
  expect(screen.queryByTestId('probe-program')).toBeNull();
  await unmount();
  mockAsked.job = { ...mockAsked.job, machine: { ...mockAsked.job.machine, probeBall: 6, probePocket: 9 } };
  await show(<ZeroCard set={() => undefined} />);
  await fireEvent.press(screen.getByText('How it is found'));
  await fireEvent.press(screen.getByTestId('probe-program'));
  expect(saveFile).toHaveBeenCalledWith('zero-setup-1.nc', expect.stringMatching(/^G31 X/m), 'text/plain');
});
