import { Budget, withinBudget } from '../quantity/budget';
import { radians } from '../quantity/units';
import { isAxial, isBeam } from '../shop/tool';
import { maths } from '../quantity/maths';
import { Course } from './course';
import { Prover } from './prover';
import { SampleList, Samples } from './samples';
import { Windows } from './windows';

/** So many cells lie across a bite at least, and along one of the proof’s, while none is smaller than the finest, mm, nor are they too many. */
const [ACROSS, FINER, FINEST, MOST_CELLS] = [32, 4, 0.008, 1_500_000];
/** Cells that are not so many times finer tell nothing new. */
const TELLING = 1.5;
/** A stretch that begins so far from where the one before ended is another cut, mm. */
const JUMP = 0.01;
/** What all looks of a proof may cost: cells, counted as often as a cutter passes them. */
const MOST_LOOKS = 4e8;

/** A place as it was measured once more. */
export interface Closer {
  samples: Samples;
  /** Of the grid, mm. */
  cell: number;
}

/** Measures places of a proved program once more, each on a grid fine enough for its bite. */
export class CloserLook {
  private readonly seen = new Map<number, Closer | undefined>();
  private readonly budget = new Budget(MOST_LOOKS);

  constructor(
    private readonly prover: Prover,
    private readonly windows: Windows,
    private readonly samples: Samples,
  ) {}

  /**
   * The samples round one of them.
   * @param reach how much of the path before and after it, mm
   * @returns undefined where a finer grid would tell nothing, or cost too much
   */
  at(sample: number, reach: number): Closer | undefined {
    if (!this.seen.has(sample)) {
      let found: Closer | undefined;
      withinBudget(
        () => void (found = this.look(sample, reach)),
        () => undefined,
      );
      this.seen.set(sample, found);
    }
    return this.seen.get(sample);
  }

  private look(sample: number, reach: number): Closer | undefined {
    const { prover, samples: s } = this;
    const { motions, tools, zero } = prover.input;
    const tool = tools.get(motions.tool[s.motion[sample]]);
    if (!tool || prover.isGathered || isAxial(tool) || isBeam(tool)) return undefined;
    const [first, last] = this.span(sample, reach);
    const radius = tool.diameter / 2;
    const { from } = Course.of(motions, s.motion[first], zero)!;
    const begin = this.stretchOf(first) > 0 ? { x: s.x[first - 1], y: s.y[first - 1] } : from;
    const [xs, ys] = [
      [begin.x, ...s.x.subarray(first, last + 1)],
      [begin.y, ...s.y.subarray(first, last + 1)],
    ];
    const [x0, y0] = [Math.min(...xs) - radius, Math.min(...ys) - radius];
    const [wide, high] = [Math.max(...xs) + radius - x0, Math.max(...ys) + radius - y0];
    const bite = radius * (1 - maths.cos(radians(Math.min(180, s.engagement[sample]))));
    const wanted = Math.min(bite / ACROSS, prover.stock.grain / FINER);
    const cell = Math.max(FINEST, wanted, Math.sqrt((wide * high) / MOST_CELLS));
    if (cell * TELLING > prover.stock.grain) return undefined;
    const grid = { x0, y0, cell, nx: Math.ceil(wide / cell), ny: Math.ceil(high / cell) };
    const stock = this.windows.before(s.motion[first], grid, this.budget);
    const list = new SampleList();
    for (let i = s.motion[first]; i <= s.motion[last]; i++) {
      const of = (k: number) => s.motion[k] === i;
      const begins = of(first) ? this.stretchOf(first) : 0;
      const ends = of(last) ? this.stretchOf(last) : Infinity;
      prover.again(i, stock, (stretch) => stretch >= begins && stretch <= ends, list);
    }
    return { samples: list.build(), cell };
  }

  /** The samples within so much path of one, as far as it goes on from place to place with the same tool. */
  private span(sample: number, reach: number): [number, number] {
    const { samples: s } = this;
    const { tool } = this.prover.input.motions;
    const away = (k: number) => maths.hypot(s.x[k] - s.x[k - 1], s.y[k] - s.y[k - 1], s.z[k] - s.z[k - 1]);
    const goesOn = (k: number) =>
      k > 0 && k < s.count && tool[s.motion[k]] === tool[s.motion[k - 1]] && away(k) <= s.length[k] + JUMP;
    let [first, last] = [sample, sample];
    for (let gone = s.length[sample]; gone < 2 * reach && goesOn(first);) gone += s.length[--first];
    for (let gone = 0; gone < reach && goesOn(last + 1);) gone += s.length[++last];
    return [first, last];
  }

  /** Which stretch of its motion a sample is. */
  private stretchOf(sample: number): number {
    const { motion } = this.samples;
    let first = sample;
    while (first > 0 && motion[first - 1] === motion[sample]) first--;
    return sample - first;
  }
}
