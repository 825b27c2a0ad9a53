import type { Advised, Job, Tool } from '@tidypath/core';
import type { Answer, Request } from './messages';

type Listener = (answer: Answer) => void;

/** The worker that plans and proves, started when first needed and kept. */
class Engine {
  private worker: Worker | undefined;
  private readonly listeners = new Set<Listener>();
  private seq = 0;

  private start(): Worker {
    if (this.worker) return this.worker;
    this.worker = new Worker(new URL('./job.worker.ts', import.meta.url));
    this.worker.onmessage = (event: MessageEvent<Answer>) => this.listeners.forEach((tell) => tell(event.data));
    this.worker.onerror = (event) =>
      this.listeners.forEach((tell) => tell({ type: 'failed', seq: this.seq, message: event.message }));
    return this.worker;
  }

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  nextSeq(): number {
    return ++this.seq;
  }

  /** Which tools of a rack suit a feature, worked out beside the page. */
  advise(job: Job, featureId: string, rack: Tool[]): Promise<Advised> {
    const seq = this.nextSeq();
    return new Promise((resolve) => {
      const stop = this.listen((answer) => {
        if (answer.type !== 'advised' || answer.seq !== seq) return;
        stop();
        resolve(answer.advised);
      });
      this.send({ type: 'advise', seq, job, featureId, rack });
    });
  }

  send(request: Request): void {
    this.start().postMessage(request);
  }
}

export const engine = new Engine();
