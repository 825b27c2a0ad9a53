import { MM_PER_INCH } from '../../quantity/units';
import { CHORD, Controller } from '../../shop/controller';
import { programmedPath } from '../read/compensation';
import { ARC_CW, Compensation, LINE, Path, RAPID, sweepOf } from '../../path/path';
import { WriteOptions } from './step';
import { maths } from '../../quantity/maths';

/** An arc shorter than this is written as a straight, so that rounding cannot turn it into a full circle, mm. */
const SHORTEST_ARC = 0.01;

/** Heights nearer than this are the same, mm. */
const LOWER = 1e-6;

/** A number as a control reads it: always with a decimal point, never "-0". */
export function numberText(value: number, digits: number): string {
  const fixed = value.toFixed(digits);
  const trimmed = fixed.includes('.') ? fixed.replace(/0+$/, '') : `${fixed}.`;
  return /^-0?\.?0*$/.test(trimmed) ? '0.' : trimmed;
}

/** Text without what a control's own memory would not hold. */
export const plainText = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]/g, '')
    .replace(/[()%;]/g, '');

/** A remark as a control reads it. */
export function remark({ comment: { open, close, upperCase } }: Controller, text: string): string {
  const plain = plainText(
    text.normalize('NFKD').replace(/[“”„]/g, '"').replace(/[’‘]/g, "'").replace(/[–—]/g, '-').replace(/°/g, ' DEG'),
  );
  return `${open}${upperCase ? plain.toUpperCase() : plain}${close}`;
}

/** Blocks of a program as they are written: what a control still knows is not said again. */
export class Blocks {
  readonly lines: string[] = [];
  /** Whether places are written as ways from where the tool stands. */
  incremental = false;
  private n = 0;
  private last: Record<string, string> = {};
  private at = { x: NaN, y: NaN, z: NaN };
  /** Register of the diameter of the tool in the spindle. */
  diameterOffset = 0;

  constructor(
    readonly controller: Controller,
    readonly options: WriteOptions,
  ) {}

  private get decimals() {
    return this.options.unit === 'mm' ? this.controller.decimals.mm : this.controller.decimals.inch;
  }

  private scaled(mm: number): number {
    return Number((this.options.unit === 'mm' ? mm : mm / MM_PER_INCH).toFixed(this.decimals));
  }

  length(mm: number): string {
    return numberText(this.scaled(mm), this.decimals);
  }

  feedText(mmPerMin: number): string {
    return numberText(this.options.unit === 'mm' ? mmPerMin : mmPerMin / MM_PER_INCH, this.controller.decimals.feed);
  }

  block(text: string): void {
    if (!this.options.lineNumbers || text.startsWith('%') || text.startsWith('O')) this.lines.push(text);
    else this.lines.push(`N${(this.n += this.controller.lineNumbers.step)} ${text}`);
  }

  comment(text: string): void {
    this.lines.push(remark(this.controller, text));
  }

  private word(letter: string, text: string): string {
    if (this.last[letter] === text) return '';
    this.last[letter] = text;
    return letter + text;
  }

  private placeWord(letter: string, to: number, from: number): string {
    if (!this.incremental) return this.word(letter, this.length(to));
    const way = numberText(this.scaled(to) - this.scaled(from), this.decimals);
    return Number(way) === 0 ? '' : letter + way;
  }

  join(words: string[]): void {
    const text = words.filter(Boolean).join(' ');
    if (text) this.block(text);
  }

  private compensationWord(to: Compensation): string {
    return to === 'off' ? 'G40' : `${to === 'left' ? 'G41' : 'G42'} D${this.diameterOffset}`;
  }

  move(code: string, x: number, y: number, z: number, tail: string[], switching = ''): void {
    const words = [
      this.placeWord('X', x, this.at.x),
      this.placeWord('Y', y, this.at.y),
      Number.isNaN(z) ? '' : this.placeWord('Z', z, this.at.z),
    ];
    if (words.every((w) => !w) && tail.every((w) => !w.startsWith('I'))) return;
    const g = this.last.G === code ? '' : code;
    this.last.G = code;
    this.join([g, switching, ...words, ...tail]);
    this.at = { x, y, z };
  }

  private arc(kind: number, x: number, y: number, z: number, cx: number, cy: number, feed: string): void {
    if (maths.hypot(x - cx, y - cy) < SHORTEST_ARC / 2) return;
    const sweep = sweepOf(kind, this.at.x, this.at.y, x, y, cx, cy);
    const radius = maths.hypot(x - cx, y - cy);
    if (Math.abs(sweep) * radius < SHORTEST_ARC) return this.move('G1', x, y, z, [feed]);
    const { arcs = 'all', chord = CHORD } = this.controller;
    if (arcs === 'none' || (arcs === 'level only' && Math.abs(z - this.at.z) > LOWER))
      return this.chords(sweep, { x, y, z, cx, cy }, chord, feed);
    const digits = this.decimals;
    const i = numberText(this.scaled(cx) - this.scaled(this.at.x), digits);
    const j = numberText(this.scaled(cy) - this.scaled(this.at.y), digits);
    this.move(kind === ARC_CW ? 'G2' : 'G3', x, y, z, [`I${i}`, `J${j}`, feed]);
  }

  /** An arc as short straights whose corners lie on it. */
  private chords(
    sweep: number,
    to: { x: number; y: number; z: number; cx: number; cy: number },
    off: number,
    feed: string,
  ) {
    const { at } = this;
    const radius = maths.hypot(at.x - to.cx, at.y - to.cy);
    const start = maths.atan2(at.y - to.cy, at.x - to.cx);
    const count = Math.max(1, Math.ceil(Math.abs(sweep) / (2 * maths.acos(Math.max(0, 1 - off / radius)))));
    for (let k = 1; k < count; k++) {
      const angle = start + (sweep * k) / count;
      const [x, y] = [to.cx + radius * maths.cos(angle), to.cy + radius * maths.sin(angle)];
      this.move('G1', x, y, at.z + ((to.z - at.z) * k) / count, k === 1 ? [feed] : []);
    }
    this.move('G1', to.x, to.y, to.z, count === 1 ? [feed] : []);
  }

  /** @param reached called with the height after every straight at feed */
  path(whole: Path, reached?: (z: number) => void): void {
    const path = programmedPath(whole);
    for (let i = 0; i < path.count; i++) {
      this.step(path, i, path.z[i]);
      if (path.kind[i] === LINE) reached?.(path.z[i]);
    }
  }

  /** One move of a path, ending at height `z`; NaN for machines without one. */
  step(path: Path, i: number, z: number): void {
    const [x, y] = [path.x[i], path.y[i]];
    if (path.kind[i] === RAPID) return this.move('G0', x, y, z, []);
    const feed = this.word('F', this.feedText(path.feed[i]));
    const switched = path.compensation.find((c) => c.move === i);
    if (path.kind[i] === LINE) this.move('G1', x, y, z, [feed], switched && this.compensationWord(switched.to));
    else this.arc(path.kind[i], x, y, z, path.cx[i], path.cy[i], feed);
    if (feed && !this.lines[this.lines.length - 1].includes(feed)) this.last.F = '';
  }

  /** At a rapid over a place, aside no lower than where all is free; from nowhere, or already that high, nothing happens. */
  over(x: number, y: number, z: number, free: number): void {
    const { at } = this;
    if (Number.isNaN(at.z) || (at.z > free - LOWER && z > free - LOWER)) return;
    this.move('G0', at.x, at.y, Math.max(at.z, free), []);
    this.move('G0', x, y, Math.max(at.z, free), []);
  }

  /** Straight up to where all is free, where it stands lower. */
  rise(free: number): void {
    const { x, y, z } = this.at;
    if (z < free - LOWER) this.move('G0', x, y, free, []);
  }

  /** Takes a place as known, so that its words are not written again. */
  stands(x: number, y: number, z: number): void {
    this.at = { x, y, z };
    Object.assign(this.last, { X: this.length(x), Y: this.length(y), Z: this.length(z) });
  }

  /** The same after a rapid, with nothing else known. */
  standsAfterRapid(x: number, y: number, z: number): void {
    this.last = { G: 'G0' };
    this.stands(x, y, z);
  }

  /** After anything that changes modal state, write every word again. */
  forget(): void {
    this.last = {};
  }
}
