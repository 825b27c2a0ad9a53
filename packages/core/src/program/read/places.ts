import { Finding, finding } from '../../quantity/finding';
import { Axes, Frame } from './frame';
import { Word } from './words';
import { maths } from '../../quantity/maths';

/** Where the tool is and how places are written: unit, increments, offsets, turned and polar places. Lengths mm. */
export class Places {
  x = NaN;
  y = NaN;
  absolute = true;
  /** Name of the work offset that holds; empty until one is named. */
  offset = '';
  private readonly frame = new Frame();
  /** Radius and angle, degrees, last given while places are written as such. */
  private polar: { radius: number; angle: number } | undefined;

  /**
   * @param z height at which the tool stands at first
   * @param scale mm of the unit that is written
   * @param offsets zeros of work offsets from the work's own zero
   */
  constructor(
    public z: number,
    public scale: number,
    private readonly offsets: Map<string, Axes> | undefined,
  ) {}

  get here(): Axes {
    return { x: this.x, y: this.y, z: this.z };
  }

  set here({ x, y, z }: Axes) {
    [this.x, this.y, this.z] = [x, y, z];
  }

  toWork(place: Axes): Axes {
    return this.frame.toWork(place);
  }

  fromWork(place: Axes): Axes {
    return this.frame.fromWork(place);
  }

  /** How a height in the work is written. */
  heightOf(z: number): number {
    return this.fromWork({ x: 0, y: 0, z }).z;
  }

  /** A place along an axis as a block writes it. */
  axis(words: Word[], letter: string, now: number): number {
    const word = words.find((w) => w.letter === letter);
    if (!word) return now;
    return this.absolute ? word.value * this.scale : (Number.isNaN(now) ? 0 : now) + word.value * this.scale;
  }

  /** Where in the plane a block goes. */
  inPlane(words: Word[]): { x: number; y: number } {
    if (this.polar) return this.polarPlace(words, this.polar);
    return { x: this.axis(words, 'X', this.x), y: this.axis(words, 'Y', this.y) };
  }

  /** X as a radius and Y as an angle about the zero that is written. */
  private polarPlace(words: Word[], polar: { radius: number; angle: number }): { x: number; y: number } {
    const [radius, angle] = ['X', 'Y'].map((letter) => words.find((w) => w.letter === letter)?.value);
    if (radius === undefined && angle === undefined) return this.here;
    if (radius !== undefined) polar.radius = radius * this.scale + (this.absolute ? 0 : polar.radius);
    if (angle !== undefined) polar.angle = angle + (this.absolute ? 0 : polar.angle);
    const a = (polar.angle * Math.PI) / 180;
    return { x: polar.radius * maths.cos(a), y: polar.radius * maths.sin(a) };
  }

  /** Changes how what is written lies in the work; the machine stays where it is. */
  private reframe(change: () => void): void {
    const at = this.toWork(this.here);
    change();
    this.here = this.fromWork(at);
  }

  /** The first offset named is that of the work's zero, unless it is told where it lies. */
  takeOffset(code: number, words: Word[]): Finding | undefined {
    const p = words.find((w) => w.letter === 'P')?.value;
    const name = Number.isInteger(code) ? `G${code}` : `G${code} P${p ?? 1}`;
    const known = this.offsets?.get(name);
    const isUnknown = this.offset && this.offset !== name && !known;
    const fault = isUnknown ? finding('offset-unknown', { name, offset: this.offset }) : undefined;
    if (!this.offset || known) this.offset = name;
    this.reframe(() => (this.frame.offset = known ?? { x: 0, y: 0, z: 0 }));
    return fault;
  }

  /** Takes a code that shifts or turns what is written; whether it is one. */
  change(code: number, words: Word[], plane: number): boolean {
    const given = (letter: string, now: number) => {
      const word = words.find((w) => w.letter === letter);
      return word ? word.value * this.scale : now;
    };
    if (code === 52) this.reframe(() => (this.frame.local = { x: given('X', 0), y: given('Y', 0), z: given('Z', 0) }));
    else if (code === 92) this.shiftZero(given);
    else if (code === 92.1) this.reframe(() => (this.frame.shift = { x: 0, y: 0, z: 0 }));
    else if (code === 68) {
      if (plane !== 17) return false;
      const centre = { x: given('X', this.x), y: given('Y', this.y) };
      const angle = words.find((w) => w.letter === 'R')?.value ?? 0;
      this.reframe(() => this.frame.rotate(centre, angle));
    } else if (code === 69) this.reframe(() => this.frame.rotate({ x: 0, y: 0 }, 0));
    else if (code === 16 && plane === 17) this.polar = { radius: 0, angle: 0 };
    else if (code === 15) this.polar = undefined;
    else return false;
    return true;
  }

  /** G92 names the place where the machine stands. */
  private shiftZero(given: (letter: string, now: number) => number): void {
    const { x, y, z } = this.frame.shift;
    const by = (letter: string, now: number) => (Number.isNaN(now) ? 0 : now - given(letter, now));
    const moved = { x: x + by('X', this.x), y: y + by('Y', this.y), z: z + by('Z', this.z) };
    this.reframe(() => (this.frame.shift = moved));
  }
}
