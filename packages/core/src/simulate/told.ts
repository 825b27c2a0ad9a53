import { Finding, timesOver } from '../quantity/finding';
import type { Motions } from '../path/motions';

interface Entry {
  finding: Finding;
  by: number;
  /** By so many motions; 0 where only a part of them was seen. */
  times: number;
  /** Motion that told it last. */
  last: number;
}

/** What had been told at some moment. */
export type ToldState = Map<string, Entry>;

const SOME = 0;

/** The worse of two, at the first line of both. */
function joined(a: Entry, b: Entry): Entry {
  const worse = a.by >= b.by ? a : b;
  const first = (a.finding.place.line ?? 0) <= (b.finding.place.line ?? 0) ? a : b;
  const { line, motion } = first.finding.place;
  return { ...worse, finding: { ...worse.finding, place: { ...worse.finding.place, line, motion } } };
}

/** What a program's motions do wrong: each fault once a tool, as it is at its worst, at its first line, with how often. */
export class Told {
  private readonly worst: ToldState = new Map();

  constructor(private readonly motions: Motions) {}

  private idOf = (motion: number, key: string) => `${key}:${this.motions.tool[motion]}`;

  has(motion: number, key: string): boolean {
    return this.worst.has(this.idOf(motion, key));
  }

  /**
   * Tells of a fault.
   * @param by how bad it is; only what is worse than before is put into words
   */
  tell(motion: number, key: string, by: number, make: () => Finding): void {
    const id = this.idOf(motion, key);
    const known = this.worst.get(id);
    if (known) {
      if (known.last !== motion) known.times++;
      known.last = motion;
      if (by <= known.by) return;
    }
    const made = make();
    const line = this.motions.line[motion];
    const { place } = known?.finding ?? made;
    const finding = {
      ...made,
      place: { ...made.place, line: Math.min(place.line ?? line, line), motion: place.motion ?? motion },
    };
    this.worst.set(id, { finding, by, times: known?.times ?? 1, last: motion });
  }

  /** Tells what another, who saw a part only, told and this one did not. */
  add(part: Told): void {
    part.worst.forEach((entry, id) => {
      const known = this.worst.get(id);
      if (!known) this.worst.set(id, { ...entry, times: SOME });
      else if (known.times === SOME) this.worst.set(id, { ...joined(known, entry), times: SOME });
    });
  }

  /** What was told so far is past: the same is told again. */
  forget(): void {
    this.worst.clear();
  }

  /** In the order of lines. */
  findings(): Finding[] {
    return [...this.worst.values()]
      .map(({ finding, times }) => (times > 1 ? timesOver(finding, times) : finding))
      .sort((a, b) => (a.place.line ?? 0) - (b.place.line ?? 0));
  }

  /** What has been told so far, to be taken up again. */
  state(): ToldState {
    return new Map([...this.worst].map(([id, entry]) => [id, { ...entry }]));
  }

  /** Goes on from what had been told. */
  takeUp(state: ToldState): void {
    state.forEach((entry, id) => this.worst.set(id, { ...entry }));
  }
}
