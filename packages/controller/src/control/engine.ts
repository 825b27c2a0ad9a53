/**
 * A simulated machine under its control. It is pure: whoever has it gives it the time and what is pressed; the same seed and the same
 * presses give the same run however finely time is given. It works sample by sample of the proof of what was entered, never by tick.
 */
import { MOVE, Tool, powerAt, sectionAt } from '@tidypath/core';
import { renewedBy } from '../behaviour/character';
import { Felt, Ratios, feel, sampledCut } from '../behaviour/cut';
import { ALARMS, Alarm, AlarmNumber } from './alarms';
import type { MachineEvent, StreamRow } from './events';
import type { Memory, StepSeen } from './memory';
import { ORIGIN, Place, endOf, mainAxis, placeOn } from './place';
import { freshStep, see } from './seen';
import type { Leg } from './tape';
import type { Loaded, Prepared } from './work';

/** Rows of a stream in a second. */
export const STREAM_RATE = 10;
/** More than this share of its power, for so many seconds, stalls the spindle. */
const STALL = { load: 1.2, seconds: 0.4 };
/** Smaller tools break without anybody hearing it, mm. */
const HEARD = 3;
/** Of the tape's tool changes: none yet, or one whose place has to be found again. */
export const NONE = -1;
export const CARRIED = -2;
/** Four full steps of a light machine's motor, mm; and how much may be lost before it is seen. */
const STEP = { lost: 0.1, seen: 1 };

/** What runs a program: it lets time pass, and knows where everything is. */
export class Engine {
  protected prepared: Prepared | undefined;
  /** Motion of the tape that runs, how far it is, and which of its samples comes next. */
  protected motion = 0;
  private share = 0;
  private sample = 0;
  /** Seconds of the whole program at full feed, once it was prepared. */
  whole: number | undefined;
  /** When it was there, s. */
  protected anchor = 0;
  private felt: Felt | undefined;
  protected overloaded = 0;
  /** Tool change of the tape that was seen to. */
  protected changed = NONE;
  /** Whether what is done from the next motion on is another than was prepared. */
  protected isOther = false;
  /** The next row of the stream. */
  private row = 0;
  private readonly happened: MachineEvent[] = [];
  private readonly rows: StreamRow[] = [];

  /** @param memory what it remembers; it goes on from there */
  constructor(
    readonly loaded: Loaded,
    readonly memory: Memory,
    private readonly isRecording = false,
  ) {}

  // What is asked of whoever has it.

  /** What has to be prepared before it goes on; undefined where nothing has. */
  get needs(): readonly Leg[] | undefined {
    const { state, past, current } = this.memory;
    return state === 'running' && !this.prepared && current ? [...past, current] : undefined;
  }

  /** Takes what was prepared from {@link needs}. */
  supply(prepared: Prepared): void {
    this.prepared = prepared;
    const { tape, seconds } = prepared;
    this.whole ??= seconds.reduce((sum, s) => sum + s, 0);
    const { from } = this.memory.current!;
    const begins = tape.source.lastIndexOf(from);
    let at = begins;
    while (at > 0 && tape.source[at - 1] === -1) at--;
    this.motion = begins < 0 ? tape.motions.count : at;
    this.share = 0;
    this.sample = prepared.firstSample[this.motion] ?? prepared.samples.count;
    this.anchor = this.memory.now;
    if (this.changed === CARRIED) this.changed = tape.motions.type.indexOf(MOVE.toolChange, this.motion);
  }

  /** What happened since it was asked last. */
  events(): MachineEvent[] {
    return this.happened.splice(0);
  }

  /** What was measured since it was asked last. */
  stream(): StreamRow[] {
    return this.rows.splice(0);
  }

  // Time.

  /** Lets time pass up to `to`, s since it was switched on, as far as it is prepared. */
  advance(to: number): void {
    const { memory } = this;
    while (memory.state === 'running' && this.prepared) {
      const next = this.next(this.prepared);
      if (!(next.time <= to)) break;
      this.record(next.time);
      const passed = next.time - this.anchor;
      memory.ran += passed;
      if (passed > 0) this.passed(passed);
      this.anchor = memory.now = next.time;
      next.reach();
    }
    if (memory.state === 'running' && !this.prepared) return;
    if (memory.state === 'running') this.record(to);
    // Who lets it run on to where it stops has no time to give it.
    if (Number.isFinite(to)) memory.now = Math.max(memory.now, to);
  }

  /** Counts time for the operation under way. */
  private passed(seconds: number): void {
    const tool = this.prepared!.tape.motions.tool[this.motion];
    const step = this.step(tool);
    if (step) step.seconds += seconds;
  }

  private get ratios(): Ratios & { rapid: number } {
    const { feed, speed, rapid } = this.memory.overrides;
    return { feed: feed / 100, speed: speed / 100, rapid: rapid / 100 };
  }

  private seconds(p: Prepared): number {
    const { feed, rapid } = this.ratios;
    return p.paced(feed, rapid)[this.motion];
  }

  /** The next place where something happens, and what then does. */
  private next(p: Prepared): { time: number; reach: () => void } {
    const { motion, share } = this;
    const block = this.loaded.blocks[this.memory.block];
    if (!block) return { time: this.anchor, reach: () => this.finish() };
    const source = p.tape.source[motion];
    const isIn = motion < p.tape.motions.count && (source < 0 || source < block.to);
    if (!isIn) return { time: this.anchor, reach: () => this.endBlock() };
    if (this.asksFor(p) !== undefined) return { time: this.anchor, reach: () => this.askForTool(p) };
    const hasSample = this.sample < p.firstSample[motion + 1];
    const whole = p.seconds[motion];
    const at = hasSample && whole > 0 ? (p.samples.time[this.sample] - p.starts[motion]) / whole : 1;
    const to = Math.max(share, Math.min(1, at));
    const time = to > share ? this.anchor + (to - share) * this.seconds(p) : this.anchor;
    return { time, reach: hasSample ? () => this.reachSample(p, to) : () => this.endMotion(p) };
  }

  private endMotion(p: Prepared): void {
    const alarm = p.strikes.get(this.motion);
    if (alarm) return this.raise(alarm);
    const { type, tool } = p.tape.motions;
    if (type[this.motion] === MOVE.toolChange) this.tell('tool', `T${tool[this.motion]} is in the spindle`);
    this.motion++;
    this.share = 0;
    this.sample = p.firstSample[this.motion] ?? 0;
    if (p.firstSample[this.motion] === p.firstSample[this.motion + 1]) this.felt = undefined;
    const at = p.tape.source[this.motion] ?? -1;
    if (this.isOther && at >= 0) {
      this.isOther = false;
      this.split(at);
    }
  }

  private endBlock(): void {
    const { memory } = this;
    const { waits, line } = this.loaded.blocks[memory.block++];
    if (memory.block >= this.loaded.blocks.length) return this.finish();
    if (waits === 'always' || (waits && memory.switches.optionalStop)) {
      memory.state = 'waits';
      this.tell('waits', `The program waits at line ${line}`);
    } else if (memory.switches.singleBlock) {
      memory.state = 'block';
      this.tell('block', `After line ${line}`);
    }
  }

  private finish(): void {
    const { memory } = this;
    memory.state = 'done';
    this.endLeg();
    memory.block = 0;
    this.tell('done', 'The program is at its end');
  }

  // The cut.

  private reachSample(p: Prepared, to: number): void {
    const i = this.sample++;
    const { motions } = p.tape;
    const { machine, material, tools } = this.loaded.work.job;
    const seconds = (to - this.share) * this.seconds(p) || 0;
    this.share = to;
    const number = motions.tool[this.motion];
    const tool = tools.find((t) => t.number === number);
    const alarm = p.strikes.get(this.motion);
    if (alarm && p.samples.rate[i] > 0) return this.raise(alarm);
    if (!tool) return;
    const cut = sampledCut(p.samples, i, tool, motions.rpm[this.motion], motions.feed[this.motion]);
    const felt = feel(cut, this.ratios, material, this.loaded.character, (rpm) => powerAt(machine, rpm));
    this.felt = felt;
    const step = this.step(number);
    if (step) see(step, number, felt, seconds);
    this.overloaded = felt.load > STALL.load ? this.overloaded + seconds : 0;
    if (this.overloaded > STALL.seconds)
      return this.raise(this.alarm(21, `${Math.round(felt.load * 100)} % of its power`));
    this.strain(tool, felt, seconds);
    if (this.memory.state === 'running') this.pushed(p, felt, cut.feed * this.ratios.feed);
  }

  private step(tool: number): StepSeen | undefined {
    const { sections } = this.loaded.work;
    const operationId = sections[sectionAt(sections, this.line)]?.operationId;
    if (!operationId) return undefined;
    const { steps } = this.memory;
    const last = steps[steps.length - 1];
    if (last?.operationId === operationId) return last;
    const step = freshStep(operationId, tool);
    steps.push(step);
    return step;
  }

  /** What the cut asks of its tool: it wears, and may break. */
  private strain(tool: Tool, felt: Felt, seconds: number): void {
    const { fates } = this.memory;
    const fate = (fates[tool.number] ??= { worn: 0, asked: 0 });
    fate.worn += felt.wear * seconds;
    fate.asked += felt.hazard * seconds;
    if (fate.asked <= (this.loaded.character.tools.get(tool.number)?.breaksAt ?? Infinity)) return;
    fate.brokeAt = this.line;
    this.memory.spindle = { ...this.memory.spindle, [tool.number]: 0 };
    if (tool.diameter >= HEARD) return this.raise(this.alarm(22, tool.name));
    this.tell('broke', `${tool.name} breaks; nobody hears it`);
    this.isOther = true;
  }

  /** Whether the axis that moves can push as hard as the cut pushes back. */
  private pushed(p: Prepared, felt: Felt, feed: number): void {
    const { push, skips } = this.loaded.character;
    const can = skips === undefined ? push : push * Math.max(0, 1 - feed / 1000 / skips);
    if (felt.push <= can || this.isOther) return;
    const { axis, way } = mainAxis(p.tape.motions, this.motion);
    if (skips === undefined) return this.raise(this.alarm(31, axis.toUpperCase()));
    const { memory } = this;
    memory.lost = { ...memory.lost, [axis]: memory.lost[axis] - way * STEP.lost };
    if (Math.abs(memory.lost[axis]) > STEP.seen) return this.raise(this.alarm(31, axis.toUpperCase()));
    this.tell('skipped', `${axis.toUpperCase()} lost four steps; the control does not know`);
    this.isOther = true;
  }

  // Legs.

  /** What was done to the piece up to now. */
  get cut(): Leg[] {
    const { past, current } = this.memory;
    if (!current || !this.prepared) return past;
    const to = Math.min(this.nextOf(this.prepared), current.to);
    return to > current.from ? [...past, { ...current, to }] : past;
  }

  /** From the gauge line to the tip of a tool as it really stands, mm; undefined where there is none. */
  lengthOf(tool: number): number | undefined {
    const { character, work } = this.loaded;
    const first = character.tools.get(tool)?.length;
    return first === undefined ? undefined : first + renewedBy(work.seed, tool, this.memory.renewed?.[tool] ?? 0);
  }

  protected legFrom(from: number): Leg {
    const { entered, spindle, lost } = this.memory;
    const { character, motions, work } = this.loaded;
    const off = (n: number) => {
      const tool = work.job.tools.find((t) => t.number === n);
      const real = this.lengthOf(spindle[n] || n);
      return tool && real !== undefined ? [[n, (entered.lengths[n] ?? 0) - real]] : [];
    };
    const { x, y, z } = { ...character.zero, ...entered.zero };
    return {
      from,
      to: motions.count,
      zero: { x: x - character.zero.x, y: y - character.zero.y, z: z - character.zero.z },
      lengths: Object.fromEntries([...new Set(motions.tool)].flatMap(off)),
      ...{ spindle, lost, lift: entered.lift },
    };
  }

  /** Ends the leg under way before a motion of the program, and begins one there with what is so now. */
  protected split(at: number): void {
    const { memory } = this;
    if (memory.current && at > memory.current.from) memory.past.push({ ...memory.current, to: at });
    memory.current = this.legFrom(at);
    this.prepared = undefined;
  }

  /** Keeps what was cut, and has nothing under way. */
  protected endLeg(): void {
    this.memory.past = this.cut;
    this.memory.current = this.prepared = this.felt = undefined;
  }

  /** The first motion of the program that has not been run: one that is half run counts. */
  protected nextOf({ tape }: Prepared): number {
    const i = this.share >= 0.5 ? this.motion : this.motion - 1;
    for (let k = Math.min(i, tape.source.length - 1); k >= 0; k--) if (tape.source[k] >= 0) return tape.source[k] + 1;
    return 0;
  }

  // Tools.

  /** The tool a change by hand asks for; undefined where none does. */
  private asksFor({ tape }: Prepared): number | undefined {
    const { motion } = this;
    if (this.loaded.work.job.machine.toolPockets !== 1 || this.changed === motion || this.share > 0) return undefined;
    if (tape.motions.type[motion] !== MOVE.toolChange) return undefined;
    const source = tape.source[motion];
    return source >= 0 ? this.loaded.motions.tool[source] : tape.motions.tool[motion];
  }

  private askForTool(p: Prepared): void {
    this.memory.asks = this.asksFor(p);
    this.memory.state = 'tool';
    this.tell('tool', `Put in T${this.memory.asks}`);
  }

  // Where it is.

  /** Stands still at this moment. */
  protected stand(): void {
    const p = this.prepared;
    if (!p) return;
    const { now } = this.memory;
    const seconds = this.seconds(p);
    if (seconds > 0 && Number.isFinite(seconds)) this.share = Math.min(1, this.share + (now - this.anchor) / seconds);
    const passed = now - this.anchor;
    this.memory.ran += passed;
    if (passed > 0) this.passed(passed);
    this.anchor = now;
  }

  /** How far the motion under way is now. */
  private shareAt(p: Prepared, time: number): number {
    if (this.memory.state !== 'running') return this.share;
    const seconds = this.seconds(p);
    return seconds > 0 && Number.isFinite(seconds)
      ? Math.min(1, this.share + (time - this.anchor) / seconds)
      : this.share;
  }

  /** Line of the program that runs, or is next. */
  get line(): number {
    const { blocks } = this.loaded;
    return blocks[Math.min(this.memory.block, blocks.length - 1)]?.line ?? 0;
  }

  /** The tip as the control believes it to be, and how far it has to go. */
  get at(): { place: Place; toGo: Place } | undefined {
    const p = this.prepared;
    if (!p || this.motion >= p.tape.motions.count) return undefined;
    const { motions } = p.tape;
    const place = placeOn(motions, this.motion, this.shareAt(p, this.memory.now));
    const end = endOf(motions, this.motion);
    // Before the first move along an axis nobody knows where it stands.
    if (Number.isNaN(place.x + place.y)) return undefined;
    const off = this.off(p);
    return {
      place: { x: place.x - off.x, y: place.y - off.y, z: place.z - off.z },
      toGo: { x: end.x - place.x, y: end.y - place.y, z: end.z - place.z },
    };
  }

  /** What the control does not know of where the tip is. */
  private off({ tape }: Prepared): Place {
    const source = tape.source[this.motion];
    if (source < 0) return ORIGIN;
    const [real, written] = [endOf(tape.motions, this.motion), endOf(this.loaded.motions, source)];
    const { lift } = this.memory.entered;
    return { x: real.x - written.x || 0, y: real.y - written.y || 0, z: (real.z - written.z || 0) - lift };
  }

  /** What is felt now; undefined while it stands. */
  get now(): Felt | undefined {
    return this.memory.state === 'running' ? this.felt : undefined;
  }

  /** The motion under way: tool, speed and feed as they are now. */
  get running(): { tool: number; rpm: number; feed: number; isRapid: boolean } | undefined {
    const p = this.prepared;
    if (!p || this.motion >= p.tape.motions.count) return undefined;
    const { motions } = p.tape;
    const { feed, speed } = this.ratios;
    const isRapid = motions.type[this.motion] === MOVE.rapid;
    return {
      tool: motions.tool[this.motion],
      rpm: motions.rpm[this.motion] * speed,
      feed: isRapid ? 0 : motions.feed[this.motion] * feed,
      isRapid,
    };
  }

  private record(to: number): void {
    const p = this.prepared;
    if (!this.isRecording || !p || this.motion >= p.tape.motions.count) return;
    const { ran } = this.memory;
    for (
      this.row = Math.max(this.row, Math.ceil(ran * STREAM_RATE));
      this.row / STREAM_RATE - ran < to - this.anchor;
      this.row++
    ) {
      const t = this.row / STREAM_RATE;
      const { x, y, z } = placeOn(p.tape.motions, this.motion, this.shareAt(p, this.anchor + t - ran));
      // Before it first moved nobody knows where it stands.
      if (Number.isNaN(x + y)) continue;
      const { load = 0, vibration = 0 } = this.felt ?? {};
      this.rows.push({ t, x, y, z, load: load * 100, vibration: vibration * 1000 });
    }
  }

  // Words.

  protected alarm(number: AlarmNumber, more: string): Alarm {
    return { number, ...ALARMS[number], line: this.line, more };
  }

  protected raise(alarm: Alarm): void {
    const { memory } = this;
    memory.state = 'alarm';
    memory.alarm = { ...alarm, line: this.line };
    this.tell('alarm', `${alarm.number} ${alarm.what}${alarm.more ? `: ${alarm.more}` : ''}`);
  }

  protected tell(what: MachineEvent['what'], text: string): void {
    this.happened.push({ at: this.memory.now, line: this.line, what, text });
  }
}
