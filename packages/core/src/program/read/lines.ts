/** What a line asks of the order in which lines are read; 'program' is the head of one. */
export type Flow = 'on' | 'end' | 'return' | 'program' | { call: number; times: number };

/** A call that cannot be followed, and why. */
export type FlowFault = 'missing' | 'deep' | 'long';

/** Who is told what is wrong with the order of lines. */
export interface FlowFaults {
  /** A call that cannot be followed; reading goes on behind it. */
  cannotFollow(why: FlowFault, call: number): void;
  /** The text is over before the program is. */
  withoutEnd(): void;
  /** A program that nobody called runs into another's head, or into the end of a subprogram. */
  runsInto(line: number): void;
}

const DEEPEST = 8;
/** So many lines of subprograms, counted as often as they run, and nobody waits for the end. */
const MOST_CALLED = 1_000_000;

/** Lines of a text in the order in which a control runs them: subprograms (M98 to M99) included. */
export class Lines {
  private found: number[] | undefined;
  private subprograms: Map<number, number> | undefined;

  constructor(private readonly text: string) {}

  /** Where each line starts, looked for when first asked: long programs are held by many who never ask. */
  private get starts(): number[] {
    if (this.found) return this.found;
    const { text } = this;
    const found = [0];
    for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) found.push(at + 1);
    return (this.found = found);
  }

  get count(): number {
    return this.starts.length;
  }

  /** @param index from 0 */
  at(index: number): string {
    const end = index + 1 < this.starts.length ? this.starts[index + 1] - 1 : this.text.length;
    return this.text.slice(this.starts[index], end);
  }

  private lineOf(subprogram: number): number | undefined {
    if (!this.subprograms) {
      this.subprograms = new Map();
      for (const m of this.text.matchAll(/^[ \t]*(?:N\d+[ \t]*)?[O:](\d+)/gim)) {
        let [low, high] = [0, this.starts.length - 1];
        while (low < high) {
          const middle = (low + high + 1) >> 1;
          if (this.starts[middle] <= m.index) low = middle;
          else high = middle - 1;
        }
        if (!this.subprograms.has(Number(m[1]))) this.subprograms.set(Number(m[1]), low);
      }
    }
    return this.subprograms.get(subprogram);
  }

  /**
   * Runs through the lines.
   * @param read reads a line, numbered from 1, and says what comes next
   * @param stopped asked now and then whether to leave it
   */
  run(read: (line: string, number: number) => Flow, faults: FlowFaults, stopped?: () => boolean): void {
    const calls: { back: number; start: number; left: number }[] = [];
    let next = 0;
    let called = 0;
    let begun = false;
    for (let n = 0; next < this.count; n++) {
      if (n % 4096 === 0 && stopped?.()) return;
      if (calls.length > 0 && ++called > MOST_CALLED) return faults.cannotFollow('long', 0);
      const flow = read(this.at(next), next + 1);
      next++;
      if (flow === 'on') continue;
      if (flow === 'end') return;
      if (flow === 'program') {
        if (begun && calls[calls.length - 1]?.start !== next - 1) faults.runsInto(next);
        begun = true;
        continue;
      }
      if (flow === 'return') {
        const call = calls[calls.length - 1];
        if (!call) return faults.runsInto(next);
        if (--call.left > 0) next = call.start;
        else next = calls.pop()!.back;
        continue;
      }
      const start = this.lineOf(flow.call);
      if (start === undefined) faults.cannotFollow('missing', flow.call);
      else if (calls.length >= DEEPEST) faults.cannotFollow('deep', flow.call);
      else if (flow.times > 0) {
        calls.push({ back: next, start, left: flow.times });
        next = start;
      }
    }
    faults.withoutEnd();
  }
}
