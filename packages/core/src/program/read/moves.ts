import { maths } from '../../quantity/maths';
import { sweepOf } from '../../path/path';
import { MOVE } from '../../path/motions';
import { ArcEnds, centreOf, chords } from './arcs';
import { bentWay } from './bent';
import { idleWord } from './block-check';
import { SETS_PLACES } from './codes';
import { FixedCycle } from './fixed-cycle';
import { Feed, oddWait } from './feed';
import { Places } from './places';
import { Told } from './told';
import { Tooling } from './tooling';
import { Track } from './track';
import { Word } from './words';

/** Holes that one block may ask for by L or K. */
const MOST_HOLES = 9999;

/** How the machine moves. */
export interface Ways {
  /** Height of machine zero in work coordinates, mm. */
  homeZ: number;
  /** Of a two-axis machine: the heights its beam stands for when on and off. */
  beam?: { low: number; high: number };
  /** Whether each axis runs at full speed until it is there. */
  bentRapids?: boolean;
}

/** What the words of a block move: straight, round, home, down a hole. */
export class Moves {
  plane = 17;
  /** G0 to G3. */
  mode = 0;
  cycle: FixedCycle | undefined;
  returnToInitial = true;

  constructor(
    private readonly told: Told,
    private readonly at: Places,
    private readonly feed: Feed,
    private readonly tooling: Tooling,
    private readonly track: Track,
    private readonly ways: Ways,
  ) {}

  take(g: number[], words: Word[]): void {
    if (g.includes(4)) return this.dwell(words);
    if (g.includes(28) || g.includes(30)) return this.home(words);
    if (g.includes(53)) return this.machineMove(words);
    if (words.some((w) => 'XYZIJKR'.includes(w.letter)) && !g.some((c) => SETS_PLACES.has(c))) this.motion(words);
  }

  /** A beam that is switched on stands for a tool that goes down, and up again when it goes out. */
  spindle(on: boolean): void {
    const { at, tooling } = this;
    const { beam } = this.ways;
    if (beam && on && !tooling.isOn) this.track.push(MOVE.line, at.x, at.y, (at.z = at.heightOf(beam.low)));
    tooling.isOn = on;
    if (beam && !on && at.z < at.heightOf(beam.high)) this.rapidTo(at.x, at.y, beam.high);
  }

  changeTool(byWord: boolean): void {
    this.tooling.change(byWord);
    this.track.stay(MOVE.toolChange);
  }

  private dwell(words: Word[]): void {
    const word = words.find((w) => w.letter === 'P' || w.letter === 'X');
    const seconds = !word ? 0 : word.letter === 'P' && !word.hasPoint ? word.value / 1000 : word.value;
    this.told.tell(oddWait(seconds), `wait:${this.told.line}`);
    this.track.stay(MOVE.dwell, seconds);
  }

  /** Home by way of the place that is written, in the axes that are named, else in all. */
  private home(words: Word[]): void {
    const { at } = this;
    const names = (letter: string) => words.some((w) => w.letter === letter);
    const [all, z] = [!['X', 'Y', 'Z'].some(names), names('Z')];
    if (!all) {
      const by = { ...at.inPlane(words), z: at.axis(words, 'Z', at.z) };
      if (!Object.is(by.x, at.x) || !Object.is(by.y, at.y) || by.z !== at.z) this.rapid(by.x, by.y, by.z);
      at.here = by;
    }
    if (all || z) this.rapidTo(at.x, at.y, this.ways.homeZ);
    else this.leaves('Home in X and Y');
  }

  private machineMove(words: Word[]): void {
    const { at, ways } = this;
    const z = words.find((w) => w.letter === 'Z');
    if (z) this.rapidTo(at.x, at.y, ways.homeZ + z.value * at.scale);
    else if (words.some((w) => 'XY'.includes(w.letter))) this.leaves('To a place of the machine in X and Y');
  }

  /** Where X and Y of the machine lie is not known here: below home something may be in the way. */
  private leaves(what: string): void {
    const { z } = this.at.toWork(this.at.here);
    if (this.ways.beam || z > this.ways.homeZ - 1e-6) return;
    this.told.report('way-unknown', { what, z }, `way:${this.told.line}`);
  }

  /** A rapid to a place as it is written, by the way the machine takes. */
  private rapid(x: number, y: number, z: number): void {
    const { at, track } = this;
    if (!this.ways.bentRapids || track.isCompensated) return track.push(MOVE.rapid, x, y, z);
    for (const place of bentWay(at.toWork(at.here), at.toWork({ x, y, z }))) {
      const by = at.fromWork(place);
      track.push(MOVE.rapid, by.x, by.y, by.z);
    }
  }

  /** @param z in the work */
  private rapidTo(x: number, y: number, z: number): void {
    this.at.z = this.at.heightOf(z);
    this.track.push(MOVE.rapid, x, y, this.at.z);
  }

  private motion(words: Word[]): void {
    if (this.tooling.waitsForHand) this.changeTool(false);
    const { x, y } = this.at.inPlane(words);
    if (this.cycle) return this.drill(this.cycle, words, x, y);
    this.told.tell(idleWord(words, this.mode > 1));
    this.track.takeGrain(words);
    const z = this.at.axis(words, 'Z', this.at.z);
    if (this.mode > 0) this.checkCut();
    if (this.mode <= 1) this.straight(x, y, z);
    else this.arc(words, x, y, z);
    this.at.here = { x, y, z };
  }

  private checkCut(): void {
    this.told.tell(this.feed.fault(), 'feed');
    this.tooling.checkCut();
    if (!this.at.offset) this.told.report('no-offset', {});
    if (this.tooling.tool === 0) this.told.report('no-tool', {});
  }

  /** The feed of a cut of this length where it is told by the time it takes. */
  private timed(length: number): void {
    if (this.mode > 0) this.told.tell(this.feed.over(length), `inverse:${this.told.line}`);
  }

  private straight(x: number, y: number, z: number): void {
    const { at } = this;
    if (Number.isNaN(at.x) && !Number.isNaN(x)) at.x = x;
    if (Number.isNaN(at.y) && !Number.isNaN(y)) at.y = y;
    this.timed(maths.hypot(x - at.x, y - at.y, z - at.z));
    if (this.mode === 0) this.rapid(x, y, z);
    else this.track.push(MOVE.line, x, y, z);
  }

  /** Centre of an arc from I, J, K or R in the plane's own axes, or a finding. */
  private centre(words: Word[], ends: ArcEnds, letters: [string, string]): [number, number] | undefined {
    const given = ([...letters, 'R'] as const).map((letter) => words.find((w) => w.letter === letter)?.value);
    const [i, j, r] = given.map((value) => value && value * this.at.scale);
    const found = centreOf(ends, { i, j, r }, this.mode === 2);
    if (Array.isArray(found)) return found;
    this.told.tell(found, `arc:${this.told.line}`);
    return undefined;
  }

  private arc(words: Word[], x: number, y: number, z: number): void {
    const { at } = this;
    if ([at.x, at.y, x, y].some(Number.isNaN)) {
      this.told.report('no-start', {}, `arc:${this.told.line}`);
      return;
    }
    if (this.plane !== 17) return this.verticalArc(words, x, y, z);
    const c = this.centre(words, [at.x, at.y, x, y], ['I', 'J']);
    if (!c) return;
    const r = maths.hypot(at.x - c[0], at.y - c[1]);
    this.timed(maths.hypot(r * sweepOf(this.mode, at.x, at.y, x, y, c[0], c[1]), z - at.z));
    this.track.push(this.mode === 2 ? MOVE.arcCw : MOVE.arcCcw, x, y, z, c[0], c[1]);
  }

  /** Arcs in the XZ and YZ planes become chords within a micrometre. */
  private verticalArc(words: Word[], x: number, y: number, z: number): void {
    const { at, track } = this;
    const zx = this.plane === 18;
    const [u0, v0, u1, v1] = zx ? [at.z, at.x, z, x] : [at.y, at.z, y, z];
    const c = this.centre(words, [u0, v0, u1, v1], zx ? ['K', 'I'] : ['J', 'K']);
    if (!c) return;
    const along = zx ? y - at.y : x - at.x;
    const sweep = sweepOf(this.mode, u0, v0, u1, v1, c[0], c[1]);
    this.timed(maths.hypot(maths.hypot(u0 - c[0], v0 - c[1]) * sweep, along));
    for (const [u, v, share] of chords([u0, v0, u1, v1], c, sweep)) {
      if (zx) track.push(MOVE.line, v, at.y + along * share, u);
      else track.push(MOVE.line, at.x + along * share, u, v);
    }
  }

  private drill(cycle: FixedCycle, words: Word[], x: number, y: number): void {
    const { at, told } = this;
    cycle.take(words, at.absolute, at.scale);
    if (!cycle.isWhole) {
      told.report('cycle-incomplete', {}, `cycle:${told.line}`);
      return;
    }
    told.tell(cycle.fault, `cycle:${cycle.z}:${cycle.r}`);
    const times = Math.floor(words.find((w) => 'LK'.includes(w.letter))?.value ?? 1);
    if (times < 1) return;
    if (times > MOST_HOLES) told.report('cycle-too-often', { times, most: MOST_HOLES }, `often:${told.line}`);
    this.checkCut();
    const [dx, dy] = at.absolute ? [0, 0] : [x - at.x, y - at.y];
    for (let n = 0; n < Math.min(times, MOST_HOLES); n++) this.hole(cycle, x + n * dx, y + n * dy);
  }

  private hole(cycle: FixedCycle, x: number, y: number): void {
    const { at, track } = this;
    const hop = Math.max(this.returnToInitial ? cycle.initial : cycle.r, cycle.r);
    const path = cycle.hole(x, y, at.z, hop, this.feed.value);
    for (let i = 0; i < path.count; i++) {
      const [toX, toY, toZ] = [path.x[i], path.y[i], path.z[i]];
      if (path.kind[i] === 0) this.rapid(toX, toY, toZ);
      else track.push(MOVE.line, toX, toY, toZ);
      [at.x, at.y, at.z] = [toX, toY, toZ];
      if (path.kind[i] !== 0 && path.z[i] === cycle.z && cycle.p > 0)
        track.push(MOVE.dwell, x, y, cycle.z, 0, 0, cycle.p);
    }
    [at.x, at.y, at.z] = [x, y, hop];
  }
}
