/** What others make of the question the worker is at: another device through the server, or the server itself. */
import type { Made, Maker, TaskStep } from '@tidypath/core';
import { Result, api } from '../api/client';
import { down } from '../api/flags';
import { choose, chosen } from './choice';
import type { Answer, Request } from './messages';

/** So much slower than the server a device may be before its work is handed over, and shortest task that tells, s. */
const SLOWER = 3;
const TELLING = 1;
/** What stands so long after it was proved is brought to the others, ms. */
const QUIET = 3000;

type Compute = Extract<Request, { type: 'compute' }>;

interface Question {
  request: Compute;
  /** What this device makes of it, while it does. */
  own: Partial<Made>;
  isDone: boolean;
  /** Whether the server is at it for this page. */
  isUnderWay: boolean;
  key?: string;
  left: AbortController;
}

interface Page {
  /** Shows what was made elsewhere. */
  take: (seq: number, key: string, made: Made, maker: Maker) => void;
  tell: (answer: Answer) => void;
  /** Has the worker make it after all. */
  make: (request: Compute) => void;
}

function answerOf(seq: number, step: TaskStep): Answer {
  if ('waiting' in step) return { type: 'waiting', seq, waiting: step.waiting };
  if ('planning' in step) return { type: 'planning', seq, step: step.planning };
  return { type: 'progress', seq, share: step.proving };
}

const rest = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

export class Elsewhere {
  private question: Question | undefined;

  constructor(private readonly page: Page) {}

  /** Something new is asked, or nothing any more: what was asked before is of no use. */
  begin(request?: Compute): void {
    this.question?.left.abort();
    this.question = undefined;
    if (request && request.instead === undefined)
      this.question = { request, own: {}, isDone: false, isUnderWay: false, left: new AbortController() };
  }

  /** The worker has nothing kept: others may. */
  async keyed(seq: number, key: string): Promise<void> {
    const asked = this.question;
    if (asked?.request.seq !== seq) return;
    asked.key = key;
    const { by } = asked.request;
    if (by === 'device alone') return;
    if (await this.look(asked)) return;
    if (by === 'server') await this.handOver(asked);
    else if (!chosen.now()) await this.findOut(asked);
  }

  /** Somebody made what has this key. */
  made(key: string): void {
    const asked = this.question;
    if (asked?.key === key && !asked.isDone && !asked.isUnderWay) void this.look(asked);
  }

  /** What the worker made itself. */
  heard(answer: Answer): void {
    const asked = this.question;
    if (!asked || !('seq' in answer) || answer.seq !== asked.request.seq) return;
    if (answer.type === 'planned') {
      asked.own.plan = answer.plan;
      if (answer.plan.programs.length === 0) asked.isDone = true;
    }
    if (answer.type !== 'proved') return;
    asked.own.proof = answer.proof;
    asked.isDone = true;
    if (answer.maker === undefined) void this.bring(asked);
  }

  /** Takes what others have made; whether they had. */
  private async look(asked: Question): Promise<boolean> {
    const found = await this.found(asked);
    if (!found || this.question !== asked) return false;
    if (!asked.isDone) this.take(asked, found);
    return true;
  }

  private async found({ key, left }: Question): Promise<Result | undefined> {
    if (down.now()) return undefined;
    return api.result(key!, left.signal).catch(() => undefined);
  }

  private take(asked: Question, { made, maker }: Result): void {
    asked.isDone = true;
    this.page.take(asked.request.seq, asked.key!, made, maker);
  }

  /** The server makes it; the worker where it cannot. */
  private async handOver(asked: Question): Promise<void> {
    const { seq } = asked.request;
    try {
      await this.byServer(asked, (step) => this.question === asked && this.page.tell(answerOf(seq, step)));
      if (await this.look(asked)) return;
    } catch {
      // Then this device does.
    }
    if (this.question !== asked || asked.isDone) return;
    asked.request = { ...asked.request, by: 'device alone' };
    this.page.make(asked.request);
  }

  private byServer(asked: Question, hear: (step: TaskStep) => void): Promise<void> {
    const { key, request, left } = asked;
    asked.isUnderWay = true;
    return api.make(key!, request.job, request.setupId, hear, left.signal);
  }

  /** The first time both make it: a device that takes too long leaves it to the server from then on. */
  private async findOut(asked: Question): Promise<void> {
    const begun = performance.now();
    const computes = await api.computes().catch(() => false);
    if (!computes) return;
    const found = await this.byServer(asked, () => undefined)
      .then(() => this.found(asked))
      .catch(() => undefined);
    if (!found || found.maker !== 'server' || found.seconds < TELLING) return;
    await rest(begun + SLOWER * found.seconds * 1000 - performance.now());
    if (this.question !== asked) return;
    choose({ hand: asked.isDone ? 'device' : 'server', isChosen: false });
    if (!asked.isDone) this.take(asked, found);
  }

  /** Brings what this device made to the others. */
  private async bring(asked: Question): Promise<void> {
    await rest(QUIET);
    const { key, own } = asked;
    if (this.question !== asked || !key || !own.plan || down.now()) return;
    await api.bringResult(key, own as Made).catch(() => undefined);
  }
}
