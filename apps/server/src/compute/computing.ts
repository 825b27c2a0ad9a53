/** The server plans and proves too: a few threads, a fair queue before them, one task for all who ask for the same. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { Piscina, queueOptionsSymbol } from 'piscina';
import type { BenchStep, Job, TaskStep } from '@tidypath/core';
import { FairQueue } from './fair';
import type { Results } from './results';
import type { Ask, Outcome } from './worker';

/** One task may take so long, s, and so much memory beside its columns of numbers, MB. */
const LONGEST = 600;
const MEMORY = 1500;
/** So many may wait. */
const MOST_WAITING = 100;
/** A thread nobody needed for so long ends, ms. */
const IDLE = 120_000;
/** A thread that was told to stop is given so long, ms. */
const GRACE = 2000;

/** Why there is no result, for people; nothing where nobody waited any more. */
export type Failure = { error: string };

export interface Limits {
  threads?: number;
  /** s */
  longest?: number;
  /** MB */
  memory?: number;
}

/** What is asked: a setup of a job, with the files it names. */
export type Question = Pick<Ask, 'key' | 'job' | 'setupId' | 'files'> & { job: Job };

interface Task {
  hear: Set<(step: TaskStep) => void>;
  ended: Promise<Failure | undefined>;
  leave: () => void;
}

export class Computing {
  private readonly pool: Piscina;
  private readonly tasks = new Map<string, Task>();

  /** @param bundle file of the worker, as the build made it */
  constructor(
    bundle: string,
    private readonly results: Results,
    private readonly limits: Limits = {},
  ) {
    this.pool = new Piscina({
      filename: bundle,
      minThreads: 0,
      maxThreads: limits.threads ?? Math.max(1, availableParallelism() - 1),
      maxQueue: MOST_WAITING,
      idleTimeout: IDLE,
      taskQueue: new FairQueue(),
      resourceLimits: { maxOldGenerationSizeMb: limits.memory ?? MEMORY },
    });
  }

  /**
   * Plans and proves what was asked, once for all who ask for it, and keeps the result.
   * @param by who asks: they take turns
   * @param hear how far it is
   * @param left ends with who asked; the last one stops the work
   * @returns why there is no result; undefined where there is one, or nobody waits
   */
  async make(question: Question, by: string, hear: (step: TaskStep) => void, left: AbortSignal) {
    const task = this.tasks.get(question.key) ?? this.begin(question, by);
    task.hear.add(hear);
    const leave = () => {
      task.hear.delete(hear);
      if (task.hear.size === 0) task.leave();
    };
    left.addEventListener('abort', leave, { once: true });
    if (left.aborted) leave();
    return task.ended;
  }

  private begin(question: Question, by: string): Task {
    const { key } = question;
    const hear: Task['hear'] = new Set();
    const tell = (step: TaskStep) => hear.forEach((h) => h(step));
    const stop = new Int32Array(new SharedArrayBuffer(4));
    const { port1, port2 } = new MessageChannel();
    const giveUp = new AbortController();
    let hasBegun = false;
    let limit: ReturnType<typeof setTimeout> | undefined;
    let isTooLong = false;
    port1.on('message', (said: BenchStep | { begun: true }) => {
      if (!('begun' in said)) return tell(said);
      hasBegun = true;
      limit = setTimeout(
        () => {
          isTooLong = true;
          leave();
        },
        (this.limits.longest ?? LONGEST) * 1000,
      );
    });
    const leave = () => {
      if (this.tasks.get(key) === task) this.tasks.delete(key);
      Atomics.store(stop, 0, 1);
      clearTimeout(limit);
      if (hasBegun) limit = setTimeout(() => giveUp.abort(), GRACE);
      else giveUp.abort();
    };
    const asked: Ask = { ...question, port: port2, stop };
    const work = this.pool.run(Object.assign(asked, { [queueOptionsSymbol]: { by } }), {
      transferList: [port2],
      signal: giveUp.signal,
    }) as Promise<Outcome>;
    const ended = work
      .then(
        (outcome) => this.keep(key, outcome, isTooLong),
        (error: { code?: string; name: string; message: string }) => this.failed(error, isTooLong),
      )
      .finally(() => {
        clearTimeout(limit);
        port1.close();
        if (this.tasks.get(key) === task) this.tasks.delete(key);
      });
    const task: Task = { hear, ended, leave };
    this.tasks.set(key, task);
    queueMicrotask(() => tell({ waiting: this.pool.queueSize }));
    return task;
  }

  private keep(key: string, outcome: Outcome, isTooLong: boolean): Failure | undefined {
    if ('made' in outcome) {
      this.results.keep(key, { maker: 'server', ...outcome });
      return undefined;
    }
    if (outcome.refused === 'other version')
      return { error: 'The server runs another version of Tidy Path: it computes nothing for this page' };
    return isTooLong ? this.tooLong() : undefined;
  }

  private tooLong = (): Failure => ({
    error: `The server gave it up: it took more than ${this.limits.longest ?? LONGEST} s`,
  });

  private failed({ code, name, message }: { code?: string; name: string; message: string }, isTooLong: boolean) {
    if (isTooLong) return this.tooLong();
    if (name === 'AbortError') return undefined;
    if (code === 'ERR_WORKER_OUT_OF_MEMORY')
      return { error: `The server gave it up: it needed more than ${this.limits.memory ?? MEMORY} MB` };
    return { error: /limit|queue/i.test(message) ? 'Too many wait for the server' : 'The server could not compute it' };
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}

/** Where the build puts the worker; without it the pages compute alone. */
export const BUNDLE = join(__dirname, '../../dist/compute.cjs');
