/** What happened lately, told to every page that listens. */
import { randomBytes } from 'node:crypto';
import type { ShopEvent } from '@tidypath/core';

/** An event and the name a page gives to hear what came after it; none for what passes. */
export interface Told {
  id: string;
  event: ShopEvent;
}

/** So many are remembered for those who come back. */
const KEPT = 500;

export class Events {
  /** Numbers begin anew with each start, under another name. */
  private readonly begun = randomBytes(4).toString('hex');
  private count = 0;
  private readonly kept: Told[] = [];
  private readonly listeners = new Set<(told: Told) => void>();

  /** The name of what was told last. */
  get latest(): string {
    return `${this.begun}-${this.count}`;
  }

  tell(event: ShopEvent): void {
    this.count++;
    const told = { id: this.latest, event };
    this.kept.push(told);
    if (this.kept.length > KEPT) this.kept.shift();
    for (const listener of this.listeners) listener(told);
  }

  /** Tells those who listen now, and nobody later. */
  pass(event: ShopEvent): void {
    for (const listener of this.listeners) listener({ id: '', event });
  }

  /** What was told after `id`; undefined where that cannot be known any more. */
  after(id: string): Told[] | undefined {
    const [begun, n] = id.split('-');
    const missed = this.count - Number(n);
    if (begun !== this.begun || !(missed >= 0 && missed <= this.kept.length)) return undefined;
    return missed === 0 ? [] : this.kept.slice(-missed);
  }

  listen(listener: (told: Told) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }
}
