/** A queue in which those who ask take turns: who asks for much holds nobody else up. */
import { PiscinaTask, TaskQueue, queueOptionsSymbol } from 'piscina';

interface Asked {
  /** Who asks. */
  by: string;
}

const byOf = (task: PiscinaTask): string => (task[queueOptionsSymbol] as Asked | null)?.by ?? '';

export class FairQueue implements TaskQueue {
  /** What each waits for, whose turn is next first. */
  private readonly waiting = new Map<string, PiscinaTask[]>();

  get size(): number {
    return [...this.waiting.values()].reduce((sum, own) => sum + own.length, 0);
  }

  push(task: PiscinaTask): void {
    const own = this.waiting.get(byOf(task));
    if (own) own.push(task);
    else this.waiting.set(byOf(task), [task]);
  }

  shift(): PiscinaTask | null {
    const [turn] = this.waiting;
    if (!turn) return null;
    const [by, [first, ...rest]] = turn;
    this.waiting.delete(by);
    if (rest.length > 0) this.waiting.set(by, rest);
    return first;
  }

  remove(task: PiscinaTask): void {
    const by = byOf(task);
    const left = (this.waiting.get(by) ?? []).filter((t) => t !== task);
    if (left.length > 0) this.waiting.set(by, left);
    else this.waiting.delete(by);
  }
}
