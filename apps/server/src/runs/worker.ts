/** A simulated machine in a thread of its own. */
import { parentPort, workerData } from 'node:worker_threads';
import type { Press } from '@tidypath/controller';
import { Begin, Operator, Pace } from './operator';

/** What is asked of it; each is answered under its number. */
export type Asked = { n: number } & (
  { ask: 'press'; press: Press } | { ask: 'pace'; pace: Pace } | { ask: 'onward' } | { ask: 'piece' }
);

const port = parentPort!;
const operator = new Operator(workerData as Begin, (shown) => port.postMessage({ shown }));

function answer(asked: Asked): unknown {
  switch (asked.ask) {
    case 'press':
      return operator.press(asked.press);
    case 'pace':
      return operator.setPace(asked.pace);
    case 'onward':
      return operator.onward();
    case 'piece':
      return operator.piece();
  }
}

port.on('message', (asked: Asked) => port.postMessage({ n: asked.n, answer: answer(asked) }));
