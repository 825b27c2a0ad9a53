/** Thrown where a budget is met, and caught where it was given: nobody outside ever sees it. */
class Met extends Error {}

/** Steps that a piece of work may take. What must end counts them: no clock decides, so the same input always ends alike. */
export class Budget {
  private left: number;

  /** @param most steps, a whole number above 0 */
  constructor(readonly most: number) {
    this.left = most;
  }

  /** Steps taken so far. */
  get spent(): number {
    return this.most - this.left;
  }

  /** Counts steps, and leaves the work at once where there are no more. */
  spend(steps = 1): void {
    if ((this.left -= steps) < 0) throw new Met();
  }
}

/**
 * Does work that spends a budget.
 * @param met what to come back with where it was met, usually a finding with its place
 */
export function withinBudget<T>(work: () => T, met: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof Met) return met();
    throw error;
  }
}
