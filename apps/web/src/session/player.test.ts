import { act, renderHook } from '@testing-library/react-native';
import type { Moment, ProofView } from '@tidypath/core';
import type { Answer, Request } from '../compute/messages';
import { usePlayer } from './usePlayer';

const mockWorker = { sent: [] as Request[], tell: (_: Answer) => {} };
jest.mock('../compute/engine', () => ({
  engine: {
    listen: (listener: (a: Answer) => void) => {
      mockWorker.tell = listener;
      return () => undefined;
    },
    nextSeq: () => 1,
    send: (request: Request) => mockWorker.sent.push(request),
  },
}));

test('no time passes while what is shown is cut again', () => {
  jest.useFakeTimers();
  const proof = { clock: { total: 10 } } as ProofView;
  const { result } = renderHook(() => usePlayer(proof));
  const tell = (answer: Answer) => act(() => mockWorker.tell(answer));
  const wait = (ms: number) => act(() => void jest.advanceTimersByTime(ms));
  act(() => result.current.play(1));
  tell({ type: 'again', seq: 1, share: 0 });
  wait(5000);
  expect(result.current.time).toBe(0);
  tell({ type: 'again', seq: 1 });
  tell({ type: 'moment', seq: 1, moment: {} as Moment, height: new Float32Array() });
  wait(1000);
  expect(result.current.time).toBeGreaterThan(20);
  expect(result.current.time).toBeLessThan(40);
  jest.useRealTimers();
});
