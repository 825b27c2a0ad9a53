/** A queue in which those who ask take turns: who asks for much holds nobody else up. */
export class FairQueue<T extends { by: string }> {
  /** What each waits for, whose turn is next first. */
  private readonly waiting = new Map<string, T[]>();

  get size(): number {
    return [...this.waiting.values()].reduce((sum, own) => sum + own.length, 0);
  }

  push(task: T): void {
    const own = this.waiting.get(task.by);
    if (own) own.push(task);
    else this.waiting.set(task.by, [task]);
  }

  shift(): T | undefined {
    const [turn] = this.waiting;
    if (!turn) return undefined;
    const [by, [first, ...rest]] = turn;
    this.waiting.delete(by);
    if (rest.length > 0) this.waiting.set(by, rest);
    return first;
  }

  /** Whether it still waited. */
  remove(task: T): boolean {
    const own = this.waiting.get(task.by);
    if (!own?.includes(task)) return false;
    const left = own.filter((t) => t !== task);
    if (left.length > 0) this.waiting.set(task.by, left);
    else this.waiting.delete(task.by);
    return true;
  }
}
