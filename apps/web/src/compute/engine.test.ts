import type { Made, Maker } from '@tidypath/core';
import type { Answer, Request } from './messages';

const mockPage: { take?: (seq: number, key: string, made: Made, maker: Maker) => void } = {};
jest.mock('./elsewhere', () => ({
  Elsewhere: class {
    constructor(page: typeof mockPage) {
      Object.assign(mockPage, page);
    }
    begin() {}
    heard() {}
    keyed() {}
    made() {}
  },
}));
jest.mock('../api/events', () => ({ onEvent: () => () => undefined }));
jest.mock('./choice', () => ({ chosen: { now: () => undefined } }));

const worker: { sent: Request[]; onmessage?: (e: { data: Answer }) => void } = { sent: [] };
globalThis.document = { querySelector: () => null } as never;
globalThis.Worker = class {
  constructor() {
    Object.defineProperty(this, 'onmessage', { set: (on) => (worker.onmessage = on) });
  }
  postMessage(request: Request) {
    worker.sent.push(request);
  }
} as never;

globalThis.URL = class {} as never;

test('an own proof still on the way when another was taken is not shown with the other one’s paths', () => {
  const { engine } = jest.requireActual<typeof import('./engine')>('./engine');
  const heard: string[] = [];
  engine.listen((a) => heard.push(`${a.type} ${'maker' in a ? (a.maker ?? 'own') : 'own'}`));
  const say = (answer: object) => worker.onmessage!({ data: answer as Answer });
  engine.compute({ seq: 1, job: { setups: [], part: { kind: 'plate' } } as never, setupId: 's1' });
  say({ type: 'planned', seq: 1, plan: {} });
  mockPage.take!(1, 'k', { plan: {}, proof: {} } as Made, 'server');
  say({ type: 'proved', seq: 1, proof: {} });
  say({ type: 'moment', seq: 7 });
  say({ type: 'took', seq: 1 });
  // Cut again here later on, it is of what was taken.
  say({ type: 'proved', seq: 1, proof: {} });
  expect(heard.filter((h) => !h.startsWith('took'))).toEqual([
    'planned own',
    'planned server',
    'proved server',
    'moment own',
    'proved own',
  ]);
  expect(worker.sent.map((r) => r.type)).toEqual(['start', 'compute', 'taken']);
});
