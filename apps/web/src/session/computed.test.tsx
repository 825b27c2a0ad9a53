import { act, renderHook } from '@testing-library/react-native';
import type { Job, PlanView, ProofView } from '@tidypath/core';
import type { Answer, Request } from '../compute/messages';
import { sampleJob } from '../../testing/show';
import { askAhead } from './ahead';
import { useComputed } from './useComputed';

const mockWorker = {
  sent: [] as Request[],
  listeners: new Set<(answer: Answer) => void>(),
  tell: (answer: Answer) => [...mockWorker.listeners].forEach((hear) => hear(answer)),
  seq: 0,
};
jest.mock('../compute/engine', () => ({
  engine: {
    isWarm: true,
    listen: (listener: (a: Answer) => void) => {
      mockWorker.listeners.add(listener);
      return () => mockWorker.listeners.delete(listener);
    },
    nextSeq: () => ++mockWorker.seq,
    send: (request: Request) => mockWorker.sent.push(request),
    compute: (ask: object) => mockWorker.sent.push({ type: 'compute', ...ask } as Request),
  },
}));

const plan = (programs: number): PlanView =>
  ({ programs: Array.from({ length: programs }, () => ({ text: 'G0\n', sections: [] })), findings: [] }) as never;
const proof = { findings: [] } as unknown as ProofView;

beforeEach(() => {
  jest.useFakeTimers();
  mockWorker.listeners.clear();
  mockWorker.sent = [];
});
afterEach(() => jest.useRealTimers());

/** The hook over a job, its first question sent. */
function asked() {
  const job = sampleJob();
  const { result, rerender } = renderHook(({ j }: { j: Job }) => useComputed(j, 's1'), { initialProps: { j: job } });
  act(() => void jest.advanceTimersByTime(500));
  const tell = (answer: Omit<Answer, 'seq'>) =>
    act(() => mockWorker.tell({ ...answer, seq: mockWorker.seq } as Answer));
  return { job, result, rerender, tell };
}

test('a job is planned and proved by itself, and again when it changes', () => {
  const { job, result, rerender, tell } = asked();
  expect(mockWorker.sent.map((r) => r.type)).toEqual(['compute']);
  tell({ type: 'planned', plan: plan(1) } as never);
  expect(result.current.computed).toMatchObject({ planFresh: true, proofFresh: false });
  tell({ type: 'proved', proof } as never);
  expect(result.current.computed).toMatchObject({ proofFresh: true, provedText: 'G0\n' });
  rerender({ j: { ...job, note: 'nothing a path depends on' } });
  expect(result.current.computed.proofFresh).toBe(true);
  rerender({ j: { ...job, boldness: 0.9 } });
  expect(result.current.computed).toMatchObject({ planFresh: false, proofFresh: false });
  act(() => void jest.advanceTimersByTime(500));
  expect(mockWorker.sent).toHaveLength(2);
});

test('a change taken back counts as proved only where nothing newer was asked meanwhile', () => {
  const { job, result, rerender, tell } = asked();
  tell({ type: 'planned', plan: plan(1) } as never);
  tell({ type: 'proved', proof } as never);
  const back = (after: number) => {
    rerender({ j: { ...job, boldness: 0.9 } });
    act(() => void jest.advanceTimersByTime(after));
    rerender({ j: job });
    const { proofFresh } = result.current.computed;
    act(() => void jest.advanceTimersByTime(500));
    return { proofFresh, asked: mockWorker.sent.length };
  };
  expect(back(50)).toEqual({ proofFresh: true, asked: 1 });
  expect(back(500)).toEqual({ proofFresh: false, asked: 3 });
  tell({ type: 'planned', plan: plan(1) } as never);
  tell({ type: 'proved', proof } as never);
  expect(result.current.computed.proofFresh).toBe(true);
});

test('it is told who made it, and what a page elsewhere made is made here when asked', () => {
  const { result, tell } = asked();
  tell({ type: 'planned', plan: plan(1), maker: 'server' } as never);
  tell({ type: 'proved', proof, maker: 'page' } as never);
  expect(result.current.computed).toMatchObject({ maker: 'page', proofFresh: true });
  act(() => result.current.computed.makeHere());
  expect(mockWorker.sent.at(-1)).toMatchObject({ type: 'compute', by: 'device alone' });
  tell({ type: 'planned', plan: plan(1) } as never);
  tell({ type: 'proved', proof } as never);
  expect(result.current.computed).toMatchObject({ maker: undefined, proofFresh: true });
});

test('how far it is changes without anything else seeming new', () => {
  const { result, tell } = asked();
  const before = result.current.computed;
  tell({ type: 'planning', step: { name: 'Clear', index: 0, of: 2, share: 0.4 } } as never);
  expect(result.current.pace.planning?.share).toBe(0.4);
  expect(result.current.computed).toBe(before);
  tell({ type: 'planned', plan: plan(1) } as never);
  expect(result.current.pace).toEqual({ progress: 0 });
  const planned = result.current.computed;
  for (const share of [0.1, 0.5, 0.9]) {
    tell({ type: 'progress', share } as never);
    expect(result.current.pace).toEqual({ progress: share });
    expect(result.current.computed).toBe(planned);
  }
  tell({ type: 'proved', proof } as never);
  expect(result.current.pace).toEqual({});
});

test('a plan without a program is not proved; a cancel is kept until it is asked again', () => {
  const { result, tell } = asked();
  tell({ type: 'planned', plan: plan(0) } as never);
  expect(result.current.pace).toEqual({});
  tell({ type: 'cancelled' } as never);
  expect(result.current.computed.cancelled).toBe(true);
  act(() => result.current.computed.run());
  expect(result.current.computed.cancelled).toBe(false);
});

test('answers to an older question, and those for somebody else, change nothing', () => {
  const { result } = asked();
  const before = result.current;
  act(() => mockWorker.tell({ type: 'proved', seq: mockWorker.seq - 1, proof }));
  act(() => mockWorker.tell({ type: 'probed', seq: mockWorker.seq, probe: null }));
  expect(result.current.computed).toBe(before.computed);
});

test('a program from elsewhere is proved in the place of the job’s own, and given back', async () => {
  const { result, tell } = asked();
  tell({ type: 'planned', plan: plan(1) } as never);
  await act(async () => {
    void result.current.computed.proveOther({ name: 'a.nc', text: 'G1\n' });
    await jest.advanceTimersByTimeAsync(100);
  });
  act(() => void jest.advanceTimersByTime(500));
  expect(mockWorker.sent.at(-1)).toMatchObject({ type: 'compute', instead: 'G1\n' });
  tell({ type: 'proved', proof } as never);
  expect(result.current.computed).toMatchObject({ proofFresh: true, provedText: 'G1\n' });
  act(() => result.current.computed.backToOwn());
  expect(result.current.computed).toMatchObject({ proofFresh: false, other: undefined });
});

/** A job that is asked about ahead of its page; whether it is known yet what was kept of it. */
function ahead() {
  const job = sampleJob();
  const known = jest.fn();
  void askAhead(job).then(known);
  const tell = (answer: Omit<Answer, 'seq'>) => mockWorker.tell({ ...answer, seq: mockWorker.seq } as Answer);
  const isKnown = async () => {
    await Promise.resolve();
    return known.mock.calls.length > 0;
  };
  return { job, tell, isKnown };
}

test('what was asked ahead is there when the page is first drawn, and not asked again', async () => {
  const { job, tell, isKnown } = ahead();
  tell({ type: 'planned', plan: plan(1) } as never);
  expect(await isKnown()).toBe(false);
  tell({ type: 'proved', proof } as never);
  expect(await isKnown()).toBe(true);
  const drawn: boolean[] = [];
  renderHook(() => drawn.push(useComputed(job, 's1').computed.proofFresh));
  act(() => void jest.advanceTimersByTime(500));
  expect(drawn[0]).toBe(true);
  expect(mockWorker.sent).toHaveLength(1);
});

test('where nothing is kept the page does not wait, and hears the rest', async () => {
  const { job, tell, isKnown } = ahead();
  tell({ type: 'key', key: 'k' } as never);
  expect(await isKnown()).toBe(true);
  tell({ type: 'planning', step: { name: 'Clear', index: 0, of: 2 } } as never);
  const { result } = renderHook(() => useComputed(job, 's1'));
  expect(result.current.pace.planning?.name).toBe('Clear');
  act(() => tell({ type: 'planned', plan: plan(1) } as never));
  expect(result.current.computed.planFresh).toBe(true);
  expect(mockWorker.sent).toHaveLength(1);
});

test('what came while the page was being drawn is heard too; a plan without a program is all there is', async () => {
  const { job, tell, isKnown } = ahead();
  let isFirst = true;
  const { result } = renderHook(() => {
    const found = useComputed(job, 's1');
    if (isFirst) tell({ type: 'planned', plan: plan(0) } as never);
    isFirst = false;
    return found;
  });
  expect(result.current.computed.planFresh).toBe(true);
  expect(await isKnown()).toBe(true);
});

test('a page that has something else, a draft of it, asks itself', () => {
  const { job, tell } = ahead();
  tell({ type: 'planned', plan: plan(1) } as never);
  const { result } = renderHook(() => useComputed({ ...job, boldness: 0.9 }, 's1'));
  expect(result.current.computed.planFresh).toBe(false);
  act(() => void jest.advanceTimersByTime(500));
  expect(mockWorker.sent).toHaveLength(2);
});
