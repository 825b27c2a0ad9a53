import { ModelUnit, Part, Taken, sculptingOf } from '@tidypath/core';
import type { SculptedAnswer, ModelAnswer, ModelAsk } from './model-messages';

/** Sculpts a plate beside the page: its surface as a file, and which feature made each face. */
export function sculpted(part: Part): Promise<{ surface: Uint8Array; made: (string | undefined)[] }> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./model.worker.ts', import.meta.url));
    const end = () => worker.terminate();
    worker.onmessage = ({ data }: MessageEvent<SculptedAnswer>) => {
      end();
      if (data.type === 'sculpted') resolve(data);
      else reject(new Error(data.message));
    };
    worker.onerror = ({ message }) => (end(), reject(new Error(message)));
    const ask: ModelAsk = { type: 'sculpt', sculpting: sculptingOf(part), origin: window.location.origin };
    worker.postMessage(ask);
  });
}

/** A file of a solid that is being read beside the page. */
export class ModelReader {
  private worker: Worker | undefined;

  constructor(
    private readonly bytes: Uint8Array,
    private readonly hear: (answer: ModelAnswer) => void,
  ) {}

  private ask(ask: ModelAsk): void {
    this.worker?.postMessage(ask);
  }

  /** Reads it from the start, in a worker of its own. */
  read(unit?: ModelUnit): void {
    this.close();
    const worker = new Worker(new URL('./model.worker.ts', import.meta.url));
    this.worker = worker;
    worker.onmessage = (event: MessageEvent<ModelAnswer>) => this.hear(event.data);
    worker.onerror = (event) => this.hear({ type: 'failed', message: event.message });
    this.ask({ type: 'read', bytes: this.bytes, unit, origin: window.location.origin });
  }

  look(body: number): void {
    this.ask({ type: 'look', body });
  }

  /** @param name what the file is called */
  take(taken: Taken, name: string): void {
    this.ask({ type: 'take', taken, name });
  }

  /** Ends it, whatever it is at. */
  close(): void {
    this.worker?.terminate();
    this.worker = undefined;
  }
}
