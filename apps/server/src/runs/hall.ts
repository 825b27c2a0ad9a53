/** The hall: simulated machines that are switched on, each in a thread of its own. */
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Press } from '@tidypath/controller';
import { SERVER } from '../places';
import type { Begin, Pace, PieceSeen, Shown } from './operator';
import type { Asked } from './worker';

/** Where the build puts the machine; without it none is offered. */
export const MACHINE_BUNDLE = join(SERVER, 'dist/machine.cjs');

/** So many stand in it. */
const MOST = 4;

/** A machine that is switched on. */
export interface Stand {
  press(one: Press): Promise<string | undefined>;
  pace(pace: Pace): Promise<void>;
  onward(): Promise<void>;
  piece(): Promise<PieceSeen>;
  close(): Promise<void>;
}

/** Switches a machine on; `gone` hears that it ended by itself. */
export type SwitchOn = (begin: Begin, say: (shown: Shown) => void, gone: (why: string) => void) => Stand;

/** A thread as a machine. */
export const inThread =
  (bundle: string): SwitchOn =>
  (begin, say, gone) => {
    const thread = new Worker(bundle, { workerData: begin });
    const waiting = new Map<number, { done: (answer: never) => void; failed: (error: Error) => void }>();
    let count = 0;
    const end = (why: string) => {
      for (const { failed } of waiting.values()) failed(new Error(why));
      waiting.clear();
      gone(why);
    };
    thread.on('message', (told: { shown: Shown } | { n: number; answer: never }) => {
      if ('shown' in told) return say(told.shown);
      waiting.get(told.n)?.done(told.answer);
      waiting.delete(told.n);
    });
    thread.on('error', (error) => end(error.message));
    thread.on('exit', () => end('The machine was switched off'));
    type Question<T> = T extends { n: number } ? Omit<T, 'n'> : never;
    const ask = <T>(asked: Question<Asked>) =>
      new Promise<T>((done, failed) => {
        const n = count++;
        waiting.set(n, { done, failed });
        thread.postMessage({ n, ...asked });
      });
    return {
      press: (one) => ask({ ask: 'press', press: one }),
      pace: (pace) => ask({ ask: 'pace', pace }),
      onward: () => ask({ ask: 'onward' }),
      piece: () => ask({ ask: 'piece' }),
      close: async () => void (await thread.terminate()),
    };
  };

interface On {
  stand: Stand;
  said: { last?: Shown };
  used: number;
}

export class Hall {
  private readonly on = new Map<string, On>();

  constructor(
    private readonly switchOn: SwitchOn,
    private readonly now: () => number = () => Date.now(),
  ) {}

  /** What a machine shows; undefined where it is off. */
  shown = (id: string): Shown | undefined => this.on.get(id)?.said.last;

  /**
   * The machine of a run, switched on where it is not.
   * @returns undefined where all of them are in use
   */
  machine(id: string, begin: () => Begin, hear: (shown: Shown) => void): Stand | undefined {
    const known = this.on.get(id);
    if (known) {
      known.used = this.now();
      return known.stand;
    }
    this.makeRoom();
    if (this.on.size >= MOST) return undefined;
    const said: { last?: Shown } = {};
    const say = (shown: Shown) => {
      said.last = shown;
      hear(shown);
    };
    const stand = this.switchOn(begin(), say, () => this.on.delete(id));
    this.on.set(id, { stand, said, used: this.now() });
    return stand;
  }

  /** Where all are on, switches off the one that nobody used for longest; never one whose program is under way. */
  private makeRoom(): void {
    if (this.on.size < MOST) return;
    const free = [...this.on].filter(([, { said }]) => said.last && !said.last.memory.current);
    const [longest] = free.sort(([, a], [, b]) => a.used - b.used);
    if (!longest) return;
    this.on.delete(longest[0]);
    void longest[1].stand.close();
  }

  async close(): Promise<void> {
    const all = [...this.on.values()];
    this.on.clear();
    await Promise.all(all.map(({ stand }) => stand.close()));
  }
}
