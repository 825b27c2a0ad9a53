import { Finding, note, stop } from '../quantity/finding';
import { formatNumber } from '../quantity/units';
import { FixtureBox, segmentMeetsBox } from '../geometry/box';
import { holderHeight, holderLength, holderSlabs, holderWidth } from '../shop/holder';
import { Tool, formOf, isAxial, isBeam } from '../shop/tool';
import { MOVE } from '../program/motions';
import { HeightField } from './field';
import type { ProveInput } from './input';
import { Bite } from './sweep';

interface P3 {
  x: number;
  y: number;
  z: number;
}

/** Contact thinner than this is grid error, mm. */
export const CONTACT = 0.02;

/** Feeds of a tap may differ from its pitch by this share. */
const OUT_OF_STEP = 0.005;

const mm = (v: number) => `${formatNumber(v, 2)} mm`;

/** Collects what touches what it should not; each fault is told once a tool, at its worst line, with how often it happened. */
export class Contacts {
  private readonly worst = new Map<string, { finding: Finding; by: number; times: number }>();
  private readonly unknown = new Set<number>();

  constructor(
    private readonly input: ProveInput,
    private readonly field: HeightField,
  ) {}

  findings(): Finding[] {
    return [...this.worst.values()]
      .map(({ finding, times }) =>
        times > 1 ? { ...finding, message: `${finding.message} (${times} moves)` } : finding,
      )
      .sort((a, b) => (a.place.line ?? 0) - (b.place.line ?? 0));
  }

  private told(motion: number, key: string, by: number, make: () => Finding): void {
    const id = `${key}:${this.input.motions.tool[motion]}`;
    const known = this.worst.get(id);
    if (known && this.lastMotion.get(id) !== motion) known.times++;
    this.lastMotion.set(id, motion);
    if (known && by <= known.by) return;
    const made = make();
    const line = this.input.motions.line[motion];
    const finding = {
      ...made,
      place: {
        ...made.place,
        line: known ? Math.min(known.finding.place.line ?? line, line) : line,
        motion: known ? known.finding.place.motion : motion,
      },
    };
    this.worst.set(id, { finding, by, times: known?.times ?? 1 });
  }

  /** A place as the program says it, in work coordinates. */
  private where({ x, y, z }: P3): string {
    const { zero } = this.input;
    return `X ${formatNumber(x - zero.x, 2)} Y ${formatNumber(y - zero.y, 2)} Z ${formatNumber(z - zero.z, 2)}`;
  }

  private readonly lastMotion = new Map<string, number>();

  /** Checks that need only the ends of a motion: fixtures, travel, a tool nobody knows. */
  motion(i: number, from: P3, to: P3, tool: Tool | undefined): void {
    const { motions } = this.input;
    if (!tool) {
      if (this.unknown.has(motions.tool[i])) return;
      this.unknown.add(motions.tool[i]);
      this.told(i, 'tool', 1, () =>
        stop(
          'unknown-tool',
          motions.tool[i] ? `The rack has no tool ${motions.tool[i]}` : 'It is not known which tool cuts here',
          'Say what tool it is, or add it to the job',
          {},
        ),
      );
      return;
    }
    this.inStep(i, from, to, tool);
    for (const box of this.input.fixtures) this.fixture(i, from, to, tool, box);
    this.travel(i, to, tool);
  }

  /** A tap that is fed other than its pitch times its speed tears the thread. */
  private inStep(i: number, from: P3, to: P3, tool: Tool): void {
    const { motions: m, stock } = this.input;
    if (formOf(tool) !== 'tap' || m.type[i] !== MOVE.line || Math.min(from.z, to.z) > stock.top) return;
    const wanted = m.rpm[i] * tool.pitch;
    if (Math.abs(m.feed[i] - wanted) <= OUT_OF_STEP * wanted) return;
    this.told(i, 'tap', Math.abs(m.feed[i] - wanted), () =>
      stop(
        'tap-out-of-step',
        `${tool.name} is fed ${formatNumber(m.feed[i], 1)} mm/min; at ${formatNumber(m.rpm[i], 0)} rpm its pitch asks for ${formatNumber(wanted, 1)}`,
        'Feed it its pitch a turn',
        { at: to, tool: tool.id },
      ),
    );
  }

  private fixture(i: number, from: P3, to: P3, tool: Tool, box: FixtureBox): void {
    const low = Math.min(from.z, to.z);
    const hits = (radius: number, bottom: number) =>
      bottom < box.maxZ - CONTACT && segmentMeetsBox(from, to, box, radius);
    const part = hits(tool.diameter / 2, low)
      ? tool.name
      : !isBeam(tool) && holderSlabs(tool.holder).some((s) => hits(s.radius, low + tool.stickOut + s.from))
        ? `the holder of ${tool.name}`
        : undefined;
    if (!part) return;
    this.told(i, `fixture:${box.name}`, box.maxZ - low, () =>
      stop(
        'fixture-hit',
        `${part} hits “${box.name}” near ${this.where(to)}`,
        'Move the fixture, raise the clearance, or keep the operation away from it',
        { at: to },
      ),
    );
  }

  private travel(i: number, to: P3, tool: Tool): void {
    const { machine, zero } = this.input;
    const xs = this.centre();
    const away = [
      { axis: 'X', over: Math.abs(to.x - xs.x) - machine.travel.x / 2 },
      { axis: 'Y', over: Math.abs(to.y - xs.y) - machine.travel.y / 2 },
    ];
    const nose = to.z - zero.z + this.input.zeroAboveTable + tool.stickOut + holderLength(tool.holder);
    if (isBeam(tool)) away.length = 2;
    else if (this.input.motions.type[i] !== MOVE.rapid || nose <= machine.noseToTable) {
      away.push({ axis: 'Z', over: machine.noseToTable - machine.travel.z - nose });
    }
    for (const { axis, over } of away) {
      if (over <= 0) continue;
      this.told(i, `travel:${axis}`, over, () =>
        stop(
          'beyond-travel',
          `${axis} goes ${mm(over)} beyond the travel of ${machine.name}, with the stock in the middle of the table`,
          axis === 'Z' ? 'Use a longer tool, or raise the work' : 'Turn the work, move it, or use a larger machine',
          { at: to },
        ),
      );
    }
  }

  private middle: { x: number; y: number } | undefined;

  private centre(): { x: number; y: number } {
    const f = this.field;
    return (this.middle ??= { x: f.x0 + (f.nx * f.cell) / 2, y: f.y0 + (f.ny * f.cell) / 2 });
  }

  /** How far metal stands above `z` under the axis of a tool that goes straight down and does not cut there, mm. */
  underAxis(i: number, tool: Tool, at: P3): number {
    if (tool.centreCutting || !this.isPlunge(i)) return 0;
    const { x0, y0, cell, nx, ny, height } = this.field;
    const [column, row] = [Math.floor((at.x - x0) / cell), Math.floor((at.y - y0) / cell)];
    return column >= 0 && row >= 0 && column < nx && row < ny ? height[row * nx + column] - at.z : 0;
  }

  /**
   * Checks of a stretch just cut.
   * @param under how far metal stood under its axis before, where it cannot cut there
   */
  stretch(i: number, tool: Tool, at: P3, bite: Bite, under: number): void {
    const { motions, stock } = this.input;
    if (bite.depth > CONTACT && motions.type[i] === MOVE.rapid) {
      this.told(i, 'rapid', bite.depth, () =>
        stop(
          'rapid-through-stock',
          `A rapid runs ${mm(bite.depth)} deep through metal near ${this.where(at)}`,
          'Retract higher before this move, or feed it',
          { at },
        ),
      );
    }
    if (bite.depth > tool.fluteLength + CONTACT) {
      this.told(i, 'flutes', bite.depth, () =>
        stop(
          'too-deep-for-flutes',
          `${tool.name} cuts ${mm(bite.depth)} deep; its flutes are ${mm(tool.fluteLength)} long`,
          'Cut in thinner layers, or take a tool with longer flutes',
          { at, tool: tool.id },
        ),
      );
    }
    if (under > CONTACT && bite.depth > CONTACT) {
      this.told(i, 'plunge', bite.depth, () =>
        stop(
          'cannot-plunge',
          `${tool.name} goes straight down into metal but does not cut to its centre`,
          'Enter by a helix or ramp, or choose a centre-cutting tool',
          { at, tool: tool.id },
        ),
      );
    }
    if (bite.volume > 0 && at.z < stock.bottom - CONTACT) {
      this.told(i, 'below', stock.bottom - at.z, () =>
        note(
          'below-stock',
          `${tool.name} goes ${mm(stock.bottom - at.z)} below the stock`,
          'Make sure there is nothing beneath it',
          { at, tool: tool.id },
        ),
      );
    }
    if (!isBeam(tool)) this.beside(i, tool, at);
  }

  private isPlunge(i: number): boolean {
    const { motions: m } = this.input;
    const flat = Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1]);
    return m.z[i - 1] - m.z[i] > flat * 2;
  }

  /** Whether holder or shank is lower than metal beside the tool. */
  private beside(i: number, tool: Tool, at: P3): void {
    const holder = this.over(at, holderWidth(tool.holder) / 2, at.z + tool.stickOut, (r) =>
      holderHeight(tool.holder, r),
    );
    if (holder > 0) {
      this.told(i, 'holder', holder, () =>
        stop(
          'holder-hit',
          `The holder of ${tool.name} runs ${mm(holder)} into metal near ${this.where(at)}`,
          `Let the tool stick out ${mm(tool.stickOut + holder + 1)} or more`,
          { at, tool: tool.id },
        ),
      );
    }
    const drill = isAxial(tool);
    if (!drill && tool.shankDiameter <= tool.diameter) return;
    const reach = drill ? tool.diameter / 2 + 1.5 * this.field.cell : tool.shankDiameter / 2;
    const above = this.over(at, reach, at.z + tool.fluteLength);
    if (above <= 0) return;
    if (drill) {
      this.told(i, 'flutes', tool.fluteLength + above, () =>
        stop(
          'too-deep-for-flutes',
          `${tool.name} is ${mm(tool.fluteLength + above)} deep; its flutes are ${mm(tool.fluteLength)} long, so the chips have no way out`,
          'Take a drill with longer flutes',
          { at, tool: tool.id },
        ),
      );
    } else {
      this.told(i, 'shank', above, () =>
        stop(
          'shank-rub',
          `The shank of ${tool.name} runs ${mm(above)} into metal near ${this.where(at)}`,
          'Take a tool with longer flutes or a thinner shank',
          { at, tool: tool.id },
        ),
      );
    }
  }

  /**
   * How far metal within `radius` of the tool's axis stands above `bottom`, mm; 0 where none does. `rise` is how much higher
   * the underside is at a distance from the axis.
   */
  private over(at: P3, radius: number, bottom: number, rise?: (r: number) => number): number {
    if (bottom >= this.input.stock.top - CONTACT) return 0;
    const { x0, y0, cell, nx, ny, height } = this.field;
    const column = (x: number) => (x - x0) / cell;
    const row = (y: number) => (y - y0) / cell;
    const step = radius > 8 * cell ? Math.max(1, Math.floor(radius / (24 * cell))) : 1;
    const [i0, i1] = [
      Math.max(0, Math.floor(column(at.x - radius))),
      Math.min(nx - 1, Math.ceil(column(at.x + radius))),
    ];
    const [j0, j1] = [Math.max(0, Math.floor(row(at.y - radius))), Math.min(ny - 1, Math.ceil(row(at.y + radius)))];
    let most = 0;
    for (let j = j0; j <= j1; j += step) {
      for (let i = i0; i <= i1; i += step) {
        const excess = height[j * nx + i] - bottom;
        if (excess <= Math.max(most, CONTACT)) continue;
        const r = Math.hypot(x0 + (i + 0.5) * cell - at.x, y0 + (j + 0.5) * cell - at.y);
        if (r >= radius) continue;
        const into = rise ? excess - rise(r) : excess;
        if (into > Math.max(most, CONTACT)) most = into;
      }
    }
    return most;
  }
}
