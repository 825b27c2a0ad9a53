import { care, note, stop } from '../quantity/finding';
import { formatNumber } from '../quantity/units';
import { FixtureBox, segmentMeetsBox } from '../geometry/space/box';
import { holderHeight, holderLength, holderSlabs, holderWidth } from '../shop/holder';
import { Tool, formOf, isAxial, isBeam, profileHeight } from '../shop/tool';
import { MOVE } from '../path/motions';
import type { Vec3 } from '../geometry/space/vec3';
import { HeightField, NOTHING } from '../stock/height/field';
import type { ProveInput } from './input';
import { Bite } from '../stock/height/sweep';
import { Told } from './told';

/** Contact thinner than this is grid error, mm. */
export const CONTACT = 0.02;

/** Feeds of a tap may differ from its pitch by this share. */
const OUT_OF_STEP = 0.005;

/** A drill stands on its whole rim where more than this share of it meets metal, even to this share of its diameter. */
const WHOLE = 0.85;
const EVEN = 0.3;
/** Points of the rim, as shares of the radius. */
const RIM = Array.from({ length: 16 }, (_, k) => [
  0.8 * Math.cos((k * Math.PI) / 8),
  0.8 * Math.sin((k * Math.PI) / 8),
]);

/** So many mm and seconds fed down through air are worth telling. */
const FAR = { drop: 10, seconds: 3 };

/** What a stretch is about to meet. */
export interface Before {
  /** How far metal stands above its end under an axis that does not cut there, mm. */
  under: number;
  /** Share of a drill's rim on metal, and of that which breaks out together. */
  rim: number;
  exit: number;
}

/** Share of the faces round a drill that are about as high as the highest. */
function evenShare(faces: number[], { diameter }: Tool): number {
  const lowest = Math.max(...faces) - EVEN * diameter;
  return faces.filter((h) => h >= lowest).length / faces.length;
}

/** What a stretch took away, and how far it went down, mm. */
export interface Stroke extends Bite {
  dropped: number;
}

/** Whether a tool ends in a ball. */
const isBall = (tool: Tool) => formOf(tool) === 'mill' && profileHeight(tool, tool.diameter / 4) > TIP * tool.diameter;
/** A ball has risen so much at half its radius, by its diameter. */
const TIP = 0.06;

const mm = (v: number) => `${formatNumber(v, 2)} mm`;

/** Finds what touches what it should not. */
export class Contacts {
  /** How far the motion under way has been fed down through air, mm, and whether it has met metal. */
  private air = { drop: 0, met: false };

  constructor(
    private readonly input: ProveInput,
    private readonly field: HeightField,
    readonly told = new Told(input.motions),
  ) {}

  /** A place as the program says it, in work coordinates. */
  private where({ x, y, z }: Vec3): string {
    const { zero } = this.input;
    return `X ${formatNumber(x - zero.x, 2)} Y ${formatNumber(y - zero.y, 2)} Z ${formatNumber(z - zero.z, 2)}`;
  }

  /** Checks that need only the ends of a motion: fixtures, travel, a tool nobody knows. */
  motion(i: number, from: Vec3, to: Vec3, tool: Tool | undefined): void {
    const { motions } = this.input;
    if (!tool) {
      if (this.told.has(i, 'tool')) return;
      this.told.tell(i, 'tool', 1, () =>
        stop(
          'unknown-tool',
          motions.tool[i] ? `The rack has no tool ${motions.tool[i]}` : 'It is not known which tool cuts here',
          'Say what tool it is, or add it to the job',
          {},
        ),
      );
      return;
    }
    this.air = { drop: 0, met: false };
    this.inStep(i, from, to, tool);
    for (const box of this.input.fixtures) this.fixture(i, from, to, tool, box);
    if (!isBeam(tool)) this.table(i, to, tool);
    this.travel(i, to, tool);
  }

  /** A tap that is fed other than its pitch times its speed tears the thread. */
  private inStep(i: number, from: Vec3, to: Vec3, tool: Tool): void {
    const { motions: m, stock } = this.input;
    if (formOf(tool) !== 'tap' || m.type[i] !== MOVE.line || Math.min(from.z, to.z) > stock.top) return;
    const wanted = m.rpm[i] * tool.pitch;
    if (Math.abs(m.feed[i] - wanted) <= OUT_OF_STEP * wanted) return;
    this.told.tell(i, 'tap', Math.abs(m.feed[i] - wanted), () =>
      stop(
        'tap-out-of-step',
        `${tool.name} is fed ${formatNumber(m.feed[i], 1)} mm/min; at ${formatNumber(m.rpm[i], 0)} rpm its pitch asks for ${formatNumber(wanted, 1)}`,
        'Feed it its pitch a turn',
        { at: to, tool: tool.id },
      ),
    );
  }

  private fixture(i: number, from: Vec3, to: Vec3, tool: Tool, box: FixtureBox): void {
    const low = Math.min(from.z, to.z);
    const hits = (radius: number, bottom: number) =>
      bottom < box.maxZ - CONTACT && segmentMeetsBox(from, to, box, radius);
    const part = this.hitting(tool, low, hits);
    if (!part) return;
    this.told.tell(i, `fixture:${box.name}`, box.maxZ - low, () =>
      stop(
        'fixture-hit',
        `${part} hits “${box.name}” near ${this.where(to)}`,
        'Move the fixture, raise the clearance, or keep the operation away from it',
        { at: to },
      ),
    );
  }

  /** The part of a tool, its holder and the nose that hits first. */
  private hitting(tool: Tool, tip: number, hits: (radius: number, bottom: number) => boolean): string | undefined {
    if (hits(tool.diameter / 2, tip)) return tool.name;
    if (isBeam(tool)) return undefined;
    const nose = tip + tool.stickOut;
    if (holderSlabs(tool.holder).some((s) => hits(s.radius, nose + s.from))) return `the holder of ${tool.name}`;
    return hits(this.noseRadius, nose + holderLength(tool.holder)) ? `the spindle nose over ${tool.name}` : undefined;
  }

  /** 0 where the machine's is not known. */
  private get noseRadius(): number {
    return (this.input.machine.noseDiameter ?? 0) / 2;
  }

  /** Below the table there is nothing to cut. */
  private table(i: number, to: Vec3, tool: Tool): void {
    const under = this.input.zero.z - this.input.zeroAboveTable - to.z;
    if (under <= CONTACT) return;
    this.told.tell(i, 'table', under, () =>
      stop(
        'table-hit',
        `${tool.name} goes ${mm(under)} into the table near ${this.where(to)}`,
        'Raise the work, or cut less deep',
        { at: to, tool: tool.id },
      ),
    );
  }

  private travel(i: number, to: Vec3, tool: Tool): void {
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
      this.told.tell(i, `travel:${axis}`, over, () =>
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

  /** What a stretch is about to meet, looked at before it cuts. */
  before(i: number, tool: Tool, from: Vec3, to: Vec3): Before {
    const isFeed = this.input.motions.type[i] !== MOVE.rapid;
    const isDown = this.isPlunge(i);
    const asks = isDown ? !tool.centreCutting : isFeed && isBall(tool);
    const drills = isDown && isFeed && formOf(tool) === 'drill';
    return {
      under: asks ? this.faces(to.x, to.y)[0] - to.z : 0,
      rim: drills && !this.air.met ? evenShare(this.rim(tool, to, 0), tool) : 1,
      exit: drills ? this.exit(tool, from, to) : 1,
    };
  }

  /** Top and underside of the topmost metal at a place. */
  private faces(x: number, y: number): [number, number] {
    const { x0, y0, cell, nx, ny, height, below } = this.field;
    const [column, row] = [Math.floor((x - x0) / cell), Math.floor((y - y0) / cell)];
    if (column < 0 || row < 0 || column >= nx || row >= ny) return [NOTHING, NOTHING];
    const i = row * nx + column;
    const bare = height[i] <= NOTHING ? NOTHING : this.input.stock.bottom;
    return [height[i], below ? below.low[i] : bare];
  }

  /** Tops (0) or undersides (1) of the metal round the rim of a drill. */
  private rim({ diameter }: Tool, { x, y }: Vec3, face: 0 | 1): number[] {
    return RIM.map(([cos, sin]) => this.faces(x + (cos * diameter) / 2, y + (sin * diameter) / 2)[face]);
  }

  /** Share of a drill's rim that breaks out together with the first of it, in the stretch in which that is; 1 in all others. */
  private exit(tool: Tool, from: Vec3, to: Vec3): number {
    const lows = this.rim(tool, to, 1);
    const first = Math.max(...lows);
    return from.z > first && to.z <= first ? evenShare(lows, tool) : 1;
  }

  /** Counts what a tool is fed down through air. */
  private throughAir(i: number, tool: Tool, at: Vec3, { volume, dropped }: Stroke): void {
    if (volume > 0) this.air.met = true;
    if (volume > 0 || dropped <= 0 || this.input.motions.type[i] === MOVE.rapid) return;
    this.air.drop += dropped;
    const { drop } = this.air;
    const seconds = (drop / this.input.motions.feed[i]) * 60;
    if (drop < FAR.drop || seconds < FAR.seconds) return;
    this.told.tell(i, 'air', seconds, () =>
      note(
        'fed-through-air',
        `${tool.name} is fed ${mm(drop)} down through air near ${this.where(at)}, ${formatNumber(seconds, 0)} s`,
        'Come down by a rapid to just above the metal',
        { at, tool: tool.id },
      ),
    );
  }

  /**
   * Checks of a stretch just cut.
   * @param before what it was about to meet
   */
  stretch(i: number, tool: Tool, at: Vec3, bite: Stroke, { under, rim, exit }: Before): void {
    const { stock } = this.input;
    this.throughAir(i, tool, at, bite);
    if (bite.volume > 0 && exit < WHOLE) {
      this.told.tell(i, 'exit', 1 - exit, () =>
        care(
          'drill-leaves-over-edge',
          `${tool.name} breaks out near ${this.where(at)} with only ${formatNumber(exit * 100, 0)} % of its rim at once: it will catch`,
          'Drill this hole before what lies below it is cut, or feed it out slowly',
          { at, tool: tool.id },
        ),
      );
    }
    if (bite.volume > 0 && rim < WHOLE) {
      this.told.tell(i, 'rim', 1 - rim, () =>
        care(
          'drill-over-edge',
          `${tool.name} enters with ${formatNumber(rim * 100, 0)} % of its rim on metal near ${this.where(at)}: it will wander`,
          'Mill a flat for it first, or move the hole',
          { at, tool: tool.id },
        ),
      );
    }
    this.touch(i, tool, at, bite.depth);
    if (bite.depth > tool.fluteLength + CONTACT) {
      this.told.tell(i, 'flutes', bite.depth, () =>
        stop(
          'too-deep-for-flutes',
          `${tool.name} stands ${mm(bite.depth)} deep in metal; its flutes are ${mm(tool.fluteLength)} long`,
          'Go less deep at once, or take a tool with longer flutes',
          { at, tool: tool.id },
        ),
      );
    }
    if (under > CONTACT && bite.depth > CONTACT && !this.isPlunge(i)) {
      this.told.tell(i, 'tip', under, () =>
        note(
          'tip-drags',
          `The tip of ${tool.name} drags through metal: at its centre the edge stands still`,
          'Leave less for it, tilt the work, or take a tool with a flat end for level floors',
          { at, tool: tool.id },
        ),
      );
    } else if (under > CONTACT && bite.depth > CONTACT) {
      this.told.tell(i, 'plunge', bite.depth, () =>
        stop(
          'cannot-plunge',
          `${tool.name} does not cut to its centre, so it cannot go straight down`,
          'Enter by a helix or a ramp, start in the open, or choose a centre-cutting tool',
          { at, tool: tool.id },
        ),
      );
    }
    if (bite.volume > 0 && at.z < stock.bottom - CONTACT) {
      this.told.tell(i, 'below', stock.bottom - at.z, () =>
        note(
          'below-stock',
          `${tool.name} goes ${mm(stock.bottom - at.z)} below the stock`,
          'Make sure there is nothing beneath it',
          { at, tool: tool.id },
        ),
      );
    }
  }

  /**
   * What only touches: metal under a rapid, or beside shank, holder and nose.
   * @param depth of what was just cut there, mm
   */
  touch(i: number, tool: Tool, at: Vec3, depth: number): void {
    if (depth > CONTACT && this.input.motions.type[i] === MOVE.rapid) {
      this.told.tell(i, 'rapid', depth, () =>
        stop(
          'rapid-through-stock',
          `A rapid runs ${mm(depth)} deep through metal near ${this.where(at)}`,
          'Retract higher before this move, or feed it',
          { at },
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
  private beside(i: number, tool: Tool, at: Vec3): void {
    const holder = this.over(at, holderWidth(tool.holder) / 2, at.z + tool.stickOut, (r) =>
      holderHeight(tool.holder, r),
    );
    if (holder > 0) {
      this.told.tell(i, 'holder', holder, () =>
        stop(
          'holder-hit',
          `The holder of ${tool.name} runs ${mm(holder)} into metal near ${this.where(at)}`,
          `Let the tool stick out ${mm(tool.stickOut + holder + 1)} or more`,
          { at, tool: tool.id },
        ),
      );
    }
    const nose = this.over(at, this.noseRadius, at.z + tool.stickOut + holderLength(tool.holder));
    if (nose > 0) {
      this.told.tell(i, 'nose', nose, () =>
        stop(
          'nose-hit',
          `The spindle nose over ${tool.name} runs ${mm(nose)} into metal near ${this.where(at)}`,
          'Let the tool stick out further, or take a longer holder',
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
      this.told.tell(i, 'flutes', tool.fluteLength + above, () =>
        stop(
          'too-deep-for-flutes',
          `${tool.name} stands ${mm(tool.fluteLength + above)} deep in metal; its flutes are ${mm(tool.fluteLength)} long`,
          'Go less deep at once, or take a tool with longer flutes',
          { at, tool: tool.id },
        ),
      );
    } else {
      this.told.tell(i, 'shank', above, () =>
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
  private over(at: Vec3, radius: number, bottom: number, rise?: (r: number) => number): number {
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
