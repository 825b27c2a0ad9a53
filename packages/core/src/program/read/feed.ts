import { Finding, finding } from '../../quantity/finding';
import { FeedMode } from './codes';

/** Feeds a turn that somebody could mean, mm; and waits, s. */
const TURN = { least: 0.0005, most: 8 };
const LONGEST_WAIT = 60;

/** What F says: mm a minute, mm a turn, or how often a minute a move would fit. */
export class Feed {
  /** mm/min, as it holds now. */
  value = 0;
  private mode: FeedMode = 'minute';
  /** F of this block where it is inverse time. */
  private inverse: number | undefined;
  /** Whether the mode was changed and no F given since. */
  private isStale = false;

  /** What F of an earlier block says only for that block is over. */
  nextBlock(): void {
    this.inverse = undefined;
  }

  /** An F means something else from here on. */
  switchTo(mode: FeedMode): void {
    this.isStale ||= mode !== this.mode && mode !== 'inverse' && this.value > 0;
    this.mode = mode;
  }

  /**
   * Takes an F.
   * @param scale mm of the program's unit
   * @returns what is wrong with it
   */
  set(f: number, scale: number, rpm: number): Finding | undefined {
    this.isStale = false;
    if (this.mode === 'inverse') this.inverse = f;
    else this.value = f * scale * (this.mode === 'turn' ? rpm : 1);
    return f <= 0 ? finding('feed-zero', { feed: f }) : undefined;
  }

  /** Whether nobody could mean it at this speed. */
  odd(rpm: number): Finding | undefined {
    const turn = rpm > 0 ? this.value / rpm : NaN;
    if (this.mode === 'inverse' || !(turn > 0) || (turn >= TURN.least && turn <= TURN.most)) return undefined;
    return finding('feed-odd', { feed: this.value, turn });
  }

  /** What speaks against cutting at it, before a cut. */
  fault(): Finding | undefined {
    if (this.mode === 'inverse') return undefined;
    if (this.value <= 0) return finding('no-feed', {});
    return this.isStale ? finding('feed-mode-alone', { inTurns: this.mode === 'turn' }) : undefined;
  }

  /** The feed of a cut of this length, mm, where it is told by the time it takes; and what speaks against that. */
  over(length: number): Finding | undefined {
    if (this.mode !== 'inverse') return undefined;
    if (this.inverse === undefined) return finding('no-feed-in-inverse-time', {});
    this.value = length * this.inverse;
    return undefined;
  }
}

/** A wait that nobody could mean. */
export const oddWait = (seconds: number): Finding | undefined =>
  seconds > LONGEST_WAIT ? finding('wait-odd', { seconds, most: LONGEST_WAIT }) : undefined;
