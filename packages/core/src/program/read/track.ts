import { Budget } from '../../quantity/budget';
import { finding } from '../../quantity/finding';
import { maths } from '../../quantity/maths';
import { MOVE, Motion, MotionList } from '../../path/motions';
import { compensated } from './compensation';
import { Feed } from './feed';
import { Places } from './places';
import { Told } from './told';
import { Tooling } from './tooling';
import { Word } from './words';

/** Places are written at least so finely, in the program's unit. */
const COARSEST = 0.01;
const MOST_DECIMALS = 6;

function decimalsOf(value: number): number {
  for (let n = 0; n < MOST_DECIMALS; n++)
    if (Math.abs(value * maths.pow(10, n) - Math.round(value * maths.pow(10, n))) < 1e-7) return n;
  return MOST_DECIMALS;
}

/** The last decimal of the places in a block. */
const finestStep = (words: Word[]) =>
  Math.min(...words.filter((w) => 'XYIJ'.includes(w.letter)).map((w) => maths.pow(10, -decimalsOf(w.value))));

/** Registers by tool number: a radius, mm, or 0 for wear alone. */
export type Registers = Map<number, { register: number; radius: number }>;

/** What the machine was made to do so far; the way of a compensated cutter is followed. */
export class Track {
  readonly motions = new MotionList();
  /** Moves since compensation was switched on: they can be followed only when it is known what comes after them. */
  private compensation:
    { hand: 1 | -1; radius: number; from: { x: number; y: number }; moves: Motion[]; grain: number } | undefined;
  private compensationEnds = false;

  constructor(
    private readonly told: Told,
    private readonly at: Places,
    private readonly feed: Feed,
    private readonly tooling: Tooling,
    private readonly budget: Budget,
    private readonly registers: Registers | undefined,
  ) {}

  get isCompensated(): boolean {
    return !!this.compensation;
  }

  /** A motion to a place as it is written. */
  push(type: number, x: number, y: number, z: number, cx = 0, cy = 0, seconds = 0): void {
    this.budget.spend();
    const { feed, tooling } = this;
    const work = this.at.toWork({ x, y, z });
    const centre = type === MOVE.arcCw || type === MOVE.arcCcw ? this.at.toWork({ x: cx, y: cy, z }) : { x: 0, y: 0 };
    const motion = {
      type,
      line: this.told.line,
      x: work.x,
      y: work.y,
      z: work.z,
      cx: centre.x,
      cy: centre.y,
      feed: type === MOVE.rapid ? 0 : feed.value,
      rpm: tooling.isOn ? tooling.rpm : 0,
      tool: tooling.tool,
      seconds,
    };
    if (!this.compensation) return this.motions.push(motion);
    this.compensation.moves.push(motion);
    if (this.compensationEnds) this.followCompensation();
  }

  /** Where the tool stands, again: for a change, a wait. */
  stay(type: number, seconds = 0): void {
    const { x, y, z } = this.at;
    this.push(type, x, y, z, 0, 0, seconds);
  }

  /** How finely a block places its points. */
  takeGrain(words: Word[]): void {
    const { compensation, at } = this;
    if (compensation) compensation.grain = Math.min(compensation.grain, at.scale * finestStep(words));
  }

  /** Switches compensation on where it is known what the register holds; wear alone follows the path as written. */
  compensates(code: number, words: Word[]): boolean {
    const register = words.find((w) => w.letter === 'D')?.value;
    const known = this.registers?.get(this.tooling.tool);
    if (!known || known.register !== register) return false;
    if (known.radius > 0)
      this.compensation = {
        hand: code === 41 ? 1 : -1,
        radius: known.radius,
        from: this.at.toWork(this.at.here),
        moves: [],
        grain: this.at.scale * COARSEST,
      };
    this.compensationEnds = false;
    return true;
  }

  /** Compensation is switched off with the next move. */
  endCompensation(): void {
    this.compensationEnds = this.isCompensated;
  }

  /** Works out the way the cutter takes once compensation is switched off again. */
  private followCompensation(): void {
    const { moves, from, radius, hand, grain } = this.compensation!;
    this.compensation = undefined;
    this.compensationEnds = false;
    const followed = compensated(moves, from, radius, hand, grain);
    for (const motion of followed.moves) this.motions.push(motion);
    if (!followed.fault) return;
    const { line } = followed.fault;
    this.told.findings.push(finding('compensation-does-not-fit', { radius }, { line }));
  }

  /** A program that ends with compensation on has been cut as far as it goes. */
  finish(): void {
    if (this.compensation?.moves.length) this.followCompensation();
  }
}
