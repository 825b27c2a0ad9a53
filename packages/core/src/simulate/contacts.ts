import { finding } from '../quantity/finding';
import { FixtureBox, segmentMeetsBox } from '../geometry/space/box';
import { holderHeight, holderLength, holderSlabs, holderWidth } from '../shop/holder';
import { travelOf } from '../machine/axes';
import { Tool, formOf, isAxial, isBeam, profileHeight } from '../shop/tool';
import { MOVE } from '../path/motions';
import type { Vec3 } from '../geometry/space/vec3';
import type { Stock } from '../stock/stock';
import type { Course } from './course';
import type { ProveInput } from './input';
import { Bite } from '../stock/height/sweep';
import { Told } from './told';
import { maths } from '../quantity/maths';

/** Where nothing stands. */
const NOTHING = -Infinity;

/** Contact thinner than this is grid error, mm. */
export const CONTACT = 0.02;

/** Metal this near beside a tool is what it stands in, mm. */
const BESIDE = 1;
/** Chords of arcs past fixtures, mm. */
const ROUND_FIXTURES = 0.1;

/** A thread mill with teeth over so many pitches is a comb; leads in and out are shorter than this, turns. */
const ROWS = 1.5;
const WHOLE_TURN = 0.9;
/** Its rise a turn may differ from its pitch by this share. */
const OUT_OF_PITCH = 0.02;

/** Feeds of a tap may differ from its pitch by this share. */
const OUT_OF_STEP = 0.005;

/** A drill stands on its whole rim where more than this share of it meets metal, even to this share of its diameter. */
const WHOLE = 0.85;
const EVEN = 0.3;
/** Points of the rim, as shares of the radius. */
const RIM = Array.from({ length: 16 }, (_, k) => [maths.cos((k * Math.PI) / 8), maths.sin((k * Math.PI) / 8)]);
/** A drill wanders where its rim lies uneven inside its edge; one that widens the mouth of a hole lies evenly outside it. */
const RIMS = { inside: 0.8, outside: 1.05 };

/** So many mm and seconds fed down through air are worth telling. */
const FAR = { drop: 10, seconds: 3 };

/** The part of a straight way that lies below a height; undefined where none does. */
function lowerPart(from: Vec3, to: Vec3, z: number): [Vec3, Vec3] | undefined {
  if (from.z >= z && to.z >= z) return undefined;
  if (from.z < z && to.z < z) return [from, to];
  const t = (z - from.z) / (to.z - from.z);
  const at = { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z };
  return from.z < z ? [from, at] : [at, to];
}

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

/** Finds what touches what it should not. */
export class Contacts {
  /** How far the motion under way has been fed down through air, mm, and whether it has met metal. */
  private air = { drop: 0, met: false };
  /** How far the tool has gone round and up about one centre. */
  private helix = { turns: 0, rise: 0 };

  constructor(
    private readonly input: ProveInput,
    private readonly stock: Stock,
    readonly told = new Told(input.motions),
  ) {}

  /** A place as the program says it, in work coordinates. */
  private work({ x, y, z }: Vec3): Vec3 {
    const { zero } = this.input;
    return { x: x - zero.x, y: y - zero.y, z: z - zero.z };
  }

  /** A change with the tool that was in the spindle down in the work, or low beside it. */
  change(i: number, at: Vec3, tool: Tool): void {
    if (isBeam(tool) || at.z >= this.input.stock.top - CONTACT) return;
    if (this.isDown(at, tool))
      this.told.tell(i, 'change', 1, () =>
        finding('change-in-metal', { tool: tool.name, near: this.work(at) }, { at, tool: tool.id }),
      );
    else this.told.tell(i, 'change', 0, () => finding('change-low', { tool: tool.name, near: this.work(at) }, { at }));
  }

  /** Whether metal stands beside the tool, higher than its tip. */
  private isDown(at: Vec3, tool: Tool): boolean {
    return this.over(at, tool.diameter / 2 + BESIDE + this.stock.grain, at.z + CONTACT) > 0;
  }

  /** What holds the work at a motion. */
  private holding(i: number) {
    const { fixtures, grips = [] } = this.input;
    return grips.filter((g) => g.from <= i).pop()?.fixtures ?? fixtures;
  }

  /** Checks of a whole motion: fixtures, travel, a spindle that stands, a tool nobody knows. */
  motion(i: number, course: Course, tool: Tool | undefined): void {
    const { from, to } = course;
    const { motions } = this.input;
    if (!tool) {
      if (this.told.has(i, 'tool')) return;
      this.told.tell(i, 'tool', 1, () => finding('unknown-tool', { tool: motions.tool[i] }));
      return;
    }
    this.air = { drop: 0, met: false };
    this.inStep(i, from, to, tool);
    this.pitch(i, course, tool);
    if (!isBeam(tool) && motions.rpm[i] === 0 && this.isDown(from, tool))
      this.told.tell(i, 'stands', 1, () =>
        finding('spindle-stops-down', { tool: tool.name, near: this.work(from) }, { at: from, tool: tool.id }),
      );
    for (const box of this.holding(i)) this.fixture(i, course, tool, box);
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
      finding(
        'tap-out-of-step',
        { tool: tool.name, feed: m.feed[i], rpm: m.rpm[i], wanted },
        { at: to, tool: tool.id },
      ),
    );
  }

  /** A comb of teeth cuts a thread only where it rises its pitch a turn; arcs about one centre are one helix. */
  private pitch(i: number, course: Course, tool: Tool): void {
    if (formOf(tool) !== 'thread' || tool.fluteLength < ROWS * tool.pitch) return;
    const { cx, cy } = this.input.motions;
    const goesOn = course.isArc && cx[i] === cx[i - 1] && cy[i] === cy[i - 1];
    this.helix.turns = (goesOn ? this.helix.turns : 0) + course.turns;
    this.helix.rise = (goesOn ? this.helix.rise : 0) + course.to.z - course.from.z;
    if (this.helix.turns < WHOLE_TURN) return;
    const rise = Math.abs(this.helix.rise) / this.helix.turns;
    if (Math.abs(rise - tool.pitch) <= OUT_OF_PITCH * tool.pitch) return;
    this.told.tell(i, 'pitch', Math.abs(rise - tool.pitch), () =>
      finding('thread-out-of-pitch', { tool: tool.name, rise, pitch: tool.pitch }, { at: course.to, tool: tool.id }),
    );
  }

  private fixture(i: number, course: Course, tool: Tool, box: FixtureBox): void {
    const pieces = course.chords(ROUND_FIXTURES);
    for (let k = 0; k < pieces; k++) {
      const [from, to] = [course.at(k / pieces), course.at((k + 1) / pieces)];
      const part = this.hitting(tool, from, to, box);
      if (!part) continue;
      this.told.tell(i, `fixture:${box.name}`, box.maxZ - Math.min(from.z, to.z), () =>
        finding('fixture-hit', { part, fixture: box.name, near: this.work(to) }, { at: to }),
      );
    }
  }

  /** The part of a tool, its holder and the nose that hits a box first on a straight way. */
  private hitting(tool: Tool, from: Vec3, to: Vec3, box: FixtureBox): string | undefined {
    const hits = (radius: number, above: number) => {
      const low = lowerPart(from, to, box.maxZ - CONTACT - above);
      return !!low && segmentMeetsBox(...low, box, radius);
    };
    if (hits(tool.diameter / 2, 0)) return tool.name;
    if (isBeam(tool)) return undefined;
    const nose = tool.stickOut;
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
      finding('table-hit', { tool: tool.name, by: under, near: this.work(to) }, { at: to, tool: tool.id }),
    );
  }

  private travel(i: number, to: Vec3, tool: Tool): void {
    const { machine, zero } = this.input;
    const xs = this.input.table ?? this.centre();
    const away = [
      { axis: 'X', over: Math.abs(to.x - xs.x) - travelOf(machine.axes.x) / 2 },
      { axis: 'Y', over: Math.abs(to.y - xs.y) - travelOf(machine.axes.y) / 2 },
    ];
    const nose = to.z - zero.z + this.input.zeroAboveTable + tool.stickOut + holderLength(tool.holder);
    const isHome = Math.abs(to.z - zero.z - (this.input.homeZ ?? NaN)) < CONTACT;
    const up = isHome ? 0 : nose - machine.noseToTable - CONTACT;
    if (!isBeam(tool))
      away.push({ axis: 'Z', over: Math.max(up, machine.noseToTable - travelOf(machine.axes.z) - nose) });
    for (const { axis, over } of away) {
      if (over <= 0) continue;
      this.told.tell(i, `travel:${axis}`, over, () =>
        finding(
          'beyond-travel',
          { axis, by: over, machine: machine.name, isUp: axis === 'Z' && over === up, isZ: axis === 'Z' },
          { at: to },
        ),
      );
    }
  }

  private centre(): { x: number; y: number } {
    const { minX, minY, maxX, maxY } = this.stock.bounds;
    return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
  }

  /** What a stretch is about to meet, looked at before it cuts. */
  before(i: number, tool: Tool, from: Vec3, to: Vec3): Before {
    const isFeed = this.input.motions.type[i] !== MOVE.rapid;
    const isDown = this.isPlunge(i);
    const asks = isDown ? !tool.centreCutting : isFeed && isBall(tool);
    const drills = isDown && isFeed && formOf(tool) === 'drill';
    return {
      under: asks ? this.faces(to.x, to.y)[0] - to.z : 0,
      rim: drills && !this.air.met ? this.entry(tool, to) : 1,
      exit: drills ? this.exit(tool, from, to) : 1,
    };
  }

  /** Top and underside of the topmost metal at a place. */
  private faces(x: number, y: number): [number, number] {
    const [top = NOTHING, low = NOTHING] = this.stock.facesAt(x, y);
    return [top, low];
  }

  /** Tops (0) or undersides (1) of the metal round the rim of a drill. */
  private rim({ diameter }: Tool, { x, y }: Vec3, face: 0 | 1, share = RIMS.inside): number[] {
    const r = (share * diameter) / 2;
    return RIM.map(([cos, sin]) => this.faces(x + cos * r, y + sin * r)[face]);
  }

  /** Share of the rim of a drill on metal as it enters. */
  private entry(tool: Tool, to: Vec3): number {
    const inside = evenShare(this.rim(tool, to, 0), tool);
    const isOpen = this.faces(to.x, to.y)[0] < to.z;
    return isOpen ? Math.max(inside, evenShare(this.rim(tool, to, 0, RIMS.outside), tool)) : inside;
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
      finding('fed-through-air', { tool: tool.name, drop, near: this.work(at), seconds }, { at, tool: tool.id }),
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
        finding(
          'drill-leaves-over-edge',
          { tool: tool.name, near: this.work(at), percent: exit * 100 },
          { at, tool: tool.id },
        ),
      );
    }
    if (bite.volume > 0 && rim < WHOLE) {
      this.told.tell(i, 'rim', 1 - rim, () =>
        finding('drill-over-edge', { tool: tool.name, percent: rim * 100, near: this.work(at) }, { at, tool: tool.id }),
      );
    }
    this.touch(i, tool, at, bite.depth);
    if (bite.depth > tool.fluteLength + CONTACT) {
      this.told.tell(i, 'flutes', bite.depth, () =>
        finding(
          'too-deep-for-flutes',
          { tool: tool.name, depth: bite.depth, fluteLength: tool.fluteLength },
          { at, tool: tool.id },
        ),
      );
    }
    if (under > CONTACT && bite.depth > CONTACT && !this.isPlunge(i)) {
      this.told.tell(i, 'tip', under, () => finding('tip-drags', { tool: tool.name }, { at, tool: tool.id }));
    } else if (under > CONTACT && bite.depth > CONTACT) {
      this.told.tell(i, 'plunge', bite.depth, () =>
        finding('cannot-plunge', { tool: tool.name }, { at, tool: tool.id }),
      );
    }
    if (bite.volume > 0 && at.z < stock.bottom - CONTACT) {
      this.told.tell(i, 'below', stock.bottom - at.z, () =>
        finding('below-stock', { tool: tool.name, by: stock.bottom - at.z }, { at, tool: tool.id }),
      );
    }
  }

  /**
   * What only touches: metal under a rapid, or beside shank, holder and nose.
   * @param depth of what was just cut there, mm
   */
  touch(i: number, tool: Tool, at: Vec3, depth: number): void {
    if (depth > CONTACT && this.input.motions.type[i] === MOVE.rapid) {
      this.told.tell(i, 'rapid', depth, () => finding('rapid-through-stock', { depth, near: this.work(at) }, { at }));
    }
    if (!isBeam(tool)) this.beside(i, tool, at);
  }

  private isPlunge(i: number): boolean {
    const { motions: m } = this.input;
    const flat = maths.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1]);
    return m.z[i - 1] - m.z[i] > flat * 2;
  }

  /** Whether holder or shank is lower than metal beside the tool. */
  private beside(i: number, tool: Tool, at: Vec3): void {
    const holder = this.over(at, holderWidth(tool.holder) / 2, at.z + tool.stickOut, (r) =>
      holderHeight(tool.holder, r),
    );
    if (holder > 0) {
      this.told.tell(i, 'holder', holder, () =>
        finding(
          'holder-hit',
          { tool: tool.name, by: holder, near: this.work(at), least: tool.stickOut + holder + 1 },
          { at, tool: tool.id },
        ),
      );
    }
    const nose = this.over(at, this.noseRadius, at.z + tool.stickOut + holderLength(tool.holder));
    if (nose > 0) {
      this.told.tell(i, 'nose', nose, () =>
        finding('nose-hit', { tool: tool.name, by: nose, near: this.work(at) }, { at, tool: tool.id }),
      );
    }
    const drill = isAxial(tool);
    if (!drill && tool.shankDiameter <= tool.diameter) return;
    const reach = drill ? tool.diameter / 2 + 1.5 * this.stock.grain : tool.shankDiameter / 2;
    const above = this.over(at, reach, at.z + tool.fluteLength);
    if (above <= 0) return;
    if (drill) {
      this.told.tell(i, 'flutes', tool.fluteLength + above, () =>
        finding(
          'too-deep-for-flutes',
          { tool: tool.name, depth: tool.fluteLength + above, fluteLength: tool.fluteLength },
          { at, tool: tool.id },
        ),
      );
    } else {
      this.told.tell(i, 'shank', above, () =>
        finding('shank-rub', { tool: tool.name, by: above, near: this.work(at) }, { at, tool: tool.id }),
      );
    }
  }

  /** How far metal stands into a body round the tool's axis, mm. */
  private over(at: Vec3, radius: number, bottom: number, rise?: (r: number) => number): number {
    return bottom >= this.input.stock.top - CONTACT ? 0 : this.stock.into(at, radius, bottom, CONTACT, rise);
  }
}
