/** The server plans and proves too: a few threads, a fair queue before them, one task for all who ask for the same. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { BenchStep, Proven, TaskStep } from '@tidypath/core';
import { SERVER } from '../places';
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
/** A thread that was told to stop is given so long, s. */
const GRACE = 2;

/** Where the build puts the worker; without it the pages compute alone. */
export const BUNDLE = join(SERVER, 'dist/compute.cjs');

export interface Limits {
  threads?: number;
  /** s */
  longest?: number;
  /** MB */
  memory?: number;
  waiting?: number;
  /** s */
  grace?: number;
}

/** What is asked: a setup of a job, with the files it names; the key is the same for all who ask for the same. */
export type Question = Pick<Ask, 'key' | 'job' | 'setupId' | 'files'>;
type Asked = Pick<Ask, 'what'> & Question;

/** Why there is no result, for people. */
export interface Failure {
  error: string;
}

/** One result under way, and all who wait for it. */
class Task {
  readonly hear = new Set<(step: TaskStep) => void>();
  readonly ended: Promise<Failure | undefined>;
  end!: (failure?: Failure) => void;
  isTooLong = false;
  /** What came of it, where it is for a release. */
  proven?: Proven;
  private readonly stop = new Int32Array(new SharedArrayBuffer(4));
  private readonly giveUp = new AbortController();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private hasBegun = false;
  private died: unknown;

  constructor(
    readonly question: Asked,
    readonly by: string,
    private readonly grace: number,
  ) {
    this.ended = new Promise((end) => (this.end = end));
  }

  tell(step: TaskStep): void {
    this.hear.forEach((hear) => hear(step));
  }

  /** Tells its thread to stop, and ends a thread that does not. */
  leave(): void {
    Atomics.store(this.stop, 0, 1);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.giveUp.abort(), 1000 * this.grace);
  }

  /** A thread ended before it was at anything: if it was meant for this, nobody else says so. */
  threadEnded(error: unknown): void {
    if (this.hasBegun) return;
    this.died = error;
    this.giveUp.abort();
  }

  /** @param longest s */
  async run(pool: Piscina, longest: number): Promise<Outcome> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', (said: BenchStep | { begun: true }) => {
      if (!('begun' in said)) return this.tell(said);
      this.hasBegun = true;
      this.timer = setTimeout(() => {
        this.isTooLong = true;
        this.leave();
      }, longest * 1000);
    });
    const asked: Ask = { ...this.question, port: port2, stop: this.stop };
    try {
      return (await pool.run(asked, { transferList: [port2], signal: this.giveUp.signal })) as Outcome;
    } catch (error) {
      throw this.died ?? error;
    } finally {
      clearTimeout(this.timer);
      port1.close();
    }
  }
}

export class Computing {
  private readonly limits: Required<Limits>;
  private readonly pool: Piscina;
  private readonly queue = new FairQueue<Task>();
  private readonly tasks = new Map<string, Task>();
  private readonly running = new Set<Task>();

  /** @param bundle file of the worker, as the build made it */
  constructor(
    bundle: string,
    private readonly results: Results,
    limits: Limits = {},
  ) {
    const threads = Math.max(1, availableParallelism() - 1);
    this.limits = { threads, longest: LONGEST, memory: MEMORY, waiting: MOST_WAITING, grace: GRACE, ...limits };
    this.pool = new Piscina({
      filename: bundle,
      minThreads: 0,
      maxThreads: this.limits.threads,
      idleTimeout: IDLE,
      resourceLimits: { maxOldGenerationSizeMb: this.limits.memory },
    });
    this.pool.on('error', (error) => this.running.forEach((task) => task.threadEnded(error)));
  }

  /**
   * Plans and proves what was asked, once for all who ask for it, and keeps the result.
   * @param by who asks: they take turns
   * @param hear how far it is
   * @param left ends with who asked; the last one stops the work
   * @returns why there is no result; undefined where there is one, or nobody waits
   */
  async make(question: Question, by: string, hear: (step: TaskStep) => void, left: AbortSignal) {
    const task = this.join({ ...question, what: 'result' }, by, hear, left);
    return task && ('error' in task ? task : task.ended);
  }

  /** Plans, posts and proves a setup for a release: nothing that was made before is taken for it. Undefined where nobody waits any more. */
  async prove(question: Question, by: string, hear: (step: TaskStep) => void, left: AbortSignal) {
    const asked: Asked = { ...question, key: `release ${question.key}`, what: 'release' };
    const task = this.join(asked, by, hear, left);
    if (!task || 'error' in task) return task;
    return (await task.ended) ?? task.proven;
  }

  /** The task of all who ask for the same; why there is none, or nothing where whoever asked has left. */
  private join(
    asked: Asked,
    by: string,
    hear: (step: TaskStep) => void,
    left: AbortSignal,
  ): Task | Failure | undefined {
    if (left.aborted) return undefined;
    const task = this.tasks.get(asked.key) ?? this.begin(new Task(asked, by, this.limits.grace));
    if (!task) return { error: 'Too many wait for the server' };
    task.hear.add(hear);
    left.addEventListener('abort', () => {
      task.hear.delete(hear);
      if (task.hear.size === 0) this.leave(task);
    });
    return task;
  }

  /** Puts it in the queue; undefined where that is full. */
  private begin(task: Task): Task | undefined {
    if (this.queue.size >= this.limits.waiting) return undefined;
    this.tasks.set(task.question.key, task);
    this.queue.push(task);
    // Whoever asked hears it too.
    queueMicrotask(() => {
      task.tell({ waiting: Math.max(0, this.queue.size + this.running.size - this.limits.threads) });
      this.next();
    });
    return task;
  }

  private next(): void {
    while (this.running.size < this.limits.threads) {
      const task = this.queue.shift();
      if (!task) return;
      this.running.add(task);
      void task
        .run(this.pool, this.limits.longest)
        .then(
          (outcome) => this.keep(task, outcome),
          (error) => this.failed(task, error),
        )
        .then((failure) => {
          this.running.delete(task);
          this.forget(task);
          task.end(failure);
          this.next();
        });
    }
  }

  /** Nobody waits any more. */
  private leave(task: Task): void {
    this.forget(task);
    if (this.queue.remove(task)) task.end();
    else task.leave();
  }

  private forget(task: Task): void {
    if (this.tasks.get(task.question.key) === task) this.tasks.delete(task.question.key);
  }

  private keep(task: Task, outcome: Outcome): Failure | undefined {
    if ('proven' in outcome) task.proven = outcome.proven;
    if ('made' in outcome) {
      this.results.keep(task.question.key, { maker: 'server', ...outcome });
      return undefined;
    }
    if ('refused' in outcome && outcome.refused === 'other version')
      return { error: 'The server runs another version of Tidy Path: it computes nothing for this page' };
    return task.isTooLong ? this.tooLong() : undefined;
  }

  private tooLong = (): Failure => ({ error: `The server gave it up: it took more than ${this.limits.longest} s` });

  private failed(task: Task, { code, name }: { code?: string; name: string }): Failure | undefined {
    if (task.isTooLong) return this.tooLong();
    if (name === 'AbortError') return undefined;
    if (code === 'ERR_WORKER_OUT_OF_MEMORY')
      return { error: `The server gave it up: it needed more than ${this.limits.memory} MB` };
    return { error: 'The server could not compute it' };
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
