import { atHand, filesOf } from '@tidypath/core';
import type {
  Advised,
  Bar,
  Compared,
  ComparedAt,
  Comparison,
  Feature,
  ImportOptions,
  Imported,
  Job,
  LevelAsk,
  LevelledView,
  Made,
  Maker,
  PlannedPart,
  Probe,
  Program,
  Proposal,
  Returned,
  Tight,
  Told,
  Tool,
  WriteAsk,
} from '@tidypath/core';
import { onEvent } from '../api/events';
import { chosen } from './choice';
import { Elsewhere } from './elsewhere';
import { down } from '../api/flags';
import { Answer, NOBODY, Request } from './messages';

type Compute = Extract<Request, { type: 'compute' }>;
type Listener = (answer: Answer) => void;

/** The hash of all that computes, written into the page by the export; while it is worked on nothing is kept. */
const SOURCE = document.querySelector<HTMLMetaElement>('meta[name=source]')?.content;

/** The worker that plans and proves, started when first needed and kept. */
class Engine {
  private worker: Worker | undefined;
  private readonly listeners = new Set<Listener>();
  private readonly given = new Set<string>();
  private seq = 0;
  /** The question whose answer came from elsewhere, until the worker knows of it: its own may still be on the way. */
  private taken: number | undefined;
  /** What is awaited, in memory the worker sees while it computes; without it, a cancel is heard between operations. */
  private readonly awaited =
    typeof SharedArrayBuffer === 'undefined' ? undefined : new Int32Array(new SharedArrayBuffer(4));

  private readonly elsewhere = new Elsewhere({
    take: (...made) => this.take(...made),
    tell: (answer) => this.tell(answer),
    make: (request) => this.send(request),
  });

  private start(): Worker {
    if (this.worker) return this.worker;
    this.worker = new Worker(new URL('./job.worker.ts', import.meta.url));
    const start: Request = { type: 'start', source: SOURCE, awaited: this.awaited };
    this.worker.postMessage(start);
    this.worker.onmessage = (event: MessageEvent<Answer>) => this.heard(event.data);
    onEvent((event) => event.kind === 'result' && this.elsewhere.made(event.key));
    this.worker.onerror = (event) => this.tell({ type: 'failed', seq: this.seq, message: event.message });
    return this.worker;
  }

  /** Starts the worker before it is needed: whoever sees the list of jobs opens one. */
  warm(): void {
    this.start();
  }

  /** Whether the worker was started: one that was not takes its time to. */
  get isWarm(): boolean {
    return this.worker !== undefined;
  }

  private tell(answer: Answer): void {
    this.listeners.forEach((hear) => hear(answer));
  }

  private heard(answer: Answer): void {
    if (answer.type === 'key') return void this.elsewhere.keyed(answer.seq, answer.key);
    if (answer.type === 'took') this.taken = answer.seq === this.taken ? undefined : this.taken;
    if ('seq' in answer && answer.seq === this.taken) return;
    this.elsewhere.heard(answer);
    this.tell(answer);
  }

  /** What was made elsewhere is shown at once; the worker leaves what it is at and knows of it. */
  private take(seq: number, key: string, made: Made, maker: Maker): void {
    this.taken = seq;
    if (this.awaited) Atomics.compareExchange(this.awaited, 0, seq, NOBODY);
    this.start().postMessage({ type: 'taken', seq, key, made, maker } satisfies Request);
    this.tell({ type: 'planned', seq, plan: made.plan, maker });
    if (made.proof) this.tell({ type: 'proved', seq, proof: made.proof, maker });
  }

  /** Gives the worker what it computes from, each file once. */
  private handOver(worker: Worker, job: Job): void {
    for (const { sha256 } of filesOf(job)) {
      const bytes = atHand(sha256);
      if (!bytes || this.given.has(sha256)) continue;
      this.given.add(sha256);
      worker.postMessage({ type: 'file', bytes } satisfies Request);
    }
  }

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  nextSeq(): number {
    return ++this.seq;
  }

  /**
   * Sends a question and waits for the answer that is its own.
   * @param told what is planned at the moment
   */
  private ask<T>(
    request: Request & { seq: number },
    read: (answer: Answer) => T | undefined,
    told?: (name: string) => void,
  ): Promise<T> {
    return new Promise((resolve, reject) => {
      const stop = this.listen((answer) => {
        if (!('seq' in answer) || answer.seq !== request.seq) return;
        if (answer.type === 'planning') told?.(answer.step.name);
        const found = read(answer);
        if (found === undefined && answer.type !== 'failed') return;
        stop();
        if (found !== undefined) resolve(found);
        else reject(new Error(answer.type === 'failed' ? answer.message : 'The computation stopped'));
      });
      this.send(request);
    });
  }

  /** Which tools of a rack suit a feature, worked out beside the page. */
  advise(job: Job, featureId: string, rack: Tool[]): Promise<Advised> {
    return this.ask({ type: 'advise', seq: this.nextSeq(), job, featureId, rack }, (a) =>
      a.type === 'advised' ? a.advised : undefined,
    );
  }

  /** A route for a setup, worked out beside the page. */
  propose(job: Job, setupId: string, rack: Tool[]): Promise<Proposal> {
    return this.ask({ type: 'propose', seq: this.nextSeq(), job, setupId, rack }, (a) =>
      a.type === 'proposed' ? a.proposal : undefined,
    );
  }

  /**
   * A whole plan for a part, worked out beside the page; null where it was left.
   * @param told what is planned at the moment
   */
  planPart(job: Job, bars: Bar[], rack: Tool[], told: (name: string) => void): Promise<PlannedPart | null> {
    return this.ask(
      { type: 'plan part', seq: this.nextSeq(), job, bars, rack },
      (a) => (a.type === 'part planned' ? a.planned : undefined),
      told,
    );
  }

  /** Leaves the plan that is worked out. */
  leavePlan(): void {
    this.send({ type: 'leave plan' });
  }

  /**
   * Ways to do the same, each planned and proved beside the page; null where that was left.
   * @param told what is planned at the moment
   */
  compare(job: Job, comparison: Comparison, at: ComparedAt, told: (name: string) => void): Promise<Compared | null> {
    return this.ask(
      { type: 'compare', seq: this.nextSeq(), job, comparison, at },
      (a) => (a.type === 'compared' ? a.compared : undefined),
      told,
    );
  }

  /** Leaves the comparison that is worked out. */
  leaveCompare(): void {
    this.send({ type: 'leave compare' });
  }

  /** What was changed in a text that was made from one of a setup’s programs, found beside the page; null where it was not. */
  edits(job: Job, setupId: string, programs: Program[], zeroZ: number, text: string): Promise<Returned | null> {
    return this.ask({ type: 'edits', seq: this.nextSeq(), job, setupId, programs, zeroZ, text }, (a) =>
      a.type === 'edited' ? a.returned : undefined,
    );
  }

  /** What a drawing holds, read beside the page. */
  drawing(text: string, options: ImportOptions): Promise<Imported> {
    return this.ask({ type: 'drawing', seq: this.nextSeq(), text, options }, (a) =>
      a.type === 'drawn' ? a.imported : undefined,
    );
  }

  /** Where the part is hard on cutters. */
  tight(job: Job): Promise<Tight> {
    return this.ask({ type: 'tight', seq: this.nextSeq(), job }, (a) => (a.type === 'tightest' ? a.tight : undefined));
  }

  /** The feature a face of the part makes where somebody says so; null where it makes none. */
  madeBy(job: Job, face: number, told: Told): Promise<Feature | null> {
    return this.ask({ type: 'tell', seq: this.nextSeq(), job, face, told }, (a) =>
      a.type === 'told' ? a.feature : undefined,
    );
  }

  /** A file of the part or its stock; null where there is nothing to write. */
  write(job: Job, ask: WriteAsk): Promise<Uint8Array | null> {
    return this.ask({ type: 'write', seq: this.nextSeq(), job, ask }, (a) =>
      a.type === 'written' ? a.file : undefined,
    );
  }

  /** The program proved last with its feeds levelled, proved too. */
  level(ask: LevelAsk): Promise<LevelledView> {
    return this.ask({ type: 'level', seq: this.nextSeq(), ask }, (a) =>
      a.type === 'levelled' ? a.levelled : undefined,
    );
  }

  /** What stands at a point of the piece as it is shown; null beside it. */
  probe(x: number, y: number): Promise<Probe | null> {
    return this.ask({ type: 'probe', seq: this.nextSeq(), x, y }, (a) => (a.type === 'probed' ? a.probe : undefined));
  }

  /** The stock as the last proof left it, as a file. */
  stl(): Promise<Uint8Array> {
    return this.ask({ type: 'stl', seq: this.nextSeq() }, (a) => (a.type === 'stl' ? a.file : undefined));
  }

  /** Plans and proves, by whom was chosen. */
  compute(ask: Omit<Compute, 'type' | 'by'> & { by?: Compute['by'] }): void {
    const hand = chosen.now()?.hand === 'server' && !down.now() ? 'server' : 'device';
    const request: Compute = { type: 'compute', ...ask, by: ask.by ?? hand };
    this.elsewhere.begin(request);
    this.send(request);
  }

  send(request: Request): void {
    const worker = this.start();
    if ('job' in request) this.handOver(worker, request.job);
    if (request.type === 'cancel' || request.type === 'prove') this.elsewhere.begin();
    if (this.awaited && request.type === 'cancel') Atomics.store(this.awaited, 0, NOBODY);
    if (this.awaited && (request.type === 'compute' || request.type === 'prove'))
      Atomics.store(this.awaited, 0, request.seq);
    worker.postMessage(request);
  }
}

export const engine = new Engine();
