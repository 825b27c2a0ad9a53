import { Worst, bodiesInMetal, contactFindings, contactShares, gripFindings, worstMoments } from '../judge/grip';
import { loadFindings } from '../judge/load';
import { Contact } from '../holding/holding';
import { HeldBy, strengthOf } from '../holding/held';
import { joinPrograms } from './joined';
import { bendLimit } from '../cutting/limits';
import { HandInProgram, gripsIn, handIn, handMinutes, pauseMinutes } from './by-hand';
import { handOf } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import { SetupPlan, addedOf, controllerOf, planSetup, postSetup } from './pipeline';
import { continuousShare } from '../machine/machine';
import { holderLength } from '../shop/holder';
import { diameterOffsetOf, isBeam } from '../shop/tool';
import { Allowed, Wanted } from '../stock/height/wanted';
import { Judged, judge, lookCloser, walls } from '../stock/height/judged';
import { energyOf } from '../judge/energy';
import { Wear, wearOf } from '../judge/wear';
import { beyondMachine } from '../judge/beyond-machine';
import { Allowance, gouges, leftovers, shortfalls } from '../judge/shape';
import { Finding, finding } from '../quantity/finding';
import { Motions } from '../path/motions';
import { ReadOptions, ReadProgram, readProgram } from '../program/read/reader';
import { Clock, wholeTime } from '../simulate/clock';
import { Piece } from '../stock/height/height-stock';
import { Prover } from '../simulate/prover';
import { CloserLook } from '../simulate/closer';
import { Samples } from '../simulate/samples';
import { Windows } from '../simulate/windows';
import { calledTools } from '../program/read/remarks';
import { Probed, gridAround } from '../stock/height/probe';
import { otherTools } from '../judge/called';
import { differences } from '../judge/differs';
import { StepFigures, idleSteps, idleTools, stepsOf } from '../judge/steps';
import { Section } from '../program/write/step';
import { Grid, HeightField } from '../stock/height/field';
import { Job, Setup } from '../document/job';
import { cutIn } from './situation';
import type { RunFigures } from './cost';
import { wantedOf } from './wanted';
import { Ground, beforeOf, bodiesOf, groundOf } from './ground';
import { bodiesEverywhere, contactsEverywhere, pieceEverywhere, stockEverywhere, zerosOf } from './everywhere';
import { leavings } from './leavings';
import { tableMiddle } from './reach';
import { compensationsOf } from './setup-findings';

/** What the posted text really does. */
export interface Proof {
  findings: Finding[];
  clock: Clock;
  samples: Samples;
  /** cm³. */
  removed: number;
  /** By motion, mm³. */
  removedBy: Float32Array;
  field: HeightField;
  /** The same on any grid. */
  on: Piece['on'];
  /** Last motion that cut each cell, −1 for none. */
  owner: Int32Array;
  /** What the part wants, on the same grid, and the piece judged by it; undefined where there is no part yet. */
  allowed?: Allowed;
  judged?: Judged;
  /** Cells of what was looked at closer, mm. */
  finest: number;
  read: ReadProgram;
  /** By operation, where it is known which lines belong to which. */
  steps: StepFigures[];
  /** The worst moments for what holds the work, by operation; none where nothing is said to hold it. */
  grip: Worst[];
  /** What each tool wears in a run. */
  wear: Wear[];
  /** What a run takes from the mains, kWh. */
  energy: number;
}

/** Room the machine has above the stock when its spindle is at the top, in work coordinates. */
function homeHeight(job: Job, setup: Setup, zeroAboveTable: number): number {
  const longest = Math.max(0, ...job.tools.map((t) => t.stickOut + holderLength(t.holder)));
  return Math.max(setup.clearance + 10, job.machine.noseToTable - longest - zeroAboveTable);
}

/** What the diameter registers of the tools hold that the control compensates: their radius, or 0 for wear alone. */
function registersOf(job: Job, setup: Setup): ReadOptions['registers'] {
  return new Map(
    job.tools.flatMap((t) => {
      const compensated = compensationsOf(setup, t.id);
      const radius = compensated.has('radius') ? t.diameter / 2 : 0;
      return compensated.size ? [[t.number, { register: diameterOffsetOf(t), radius }] as const] : [];
    }),
  );
}

/** A zero is felt for so far inside its corner, mm. */
const AT_CORNER = 0.3;

/** Just below the sheet, mm. */
const UNDER = 0.01;

/** How the beam of a two-axis machine stands for a tool that goes up and down. */
function beamOf(job: Job, { low, high }: { low: number; high: number }): ReadOptions['beam'] {
  const tool = job.tools.find(isBeam);
  return controllerOf(job)?.beam && tool ? { tool: tool.number, low: low - UNDER, high } : undefined;
}

/** What the operations on each feature leave of it when all of them have run: the least that any that knows walls does. */
function allowancesOf({ operations }: Setup): Map<string, Allowance> {
  const asked = new Map<string, Allowance>();
  for (const { on, params, targets } of operations.filter((o) => 'wallAllowance' in o.params)) {
    const of = (name: string) => (typeof params[name] === 'number' ? params[name] : 0);
    const leaves = { wall: of('wallAllowance'), floor: of('floorAllowance') };
    for (const id of on ? targets : []) {
      const known = asked.get(id) ?? leaves;
      asked.set(id, { wall: Math.min(known.wall, leaves.wall), floor: Math.min(known.floor, leaves.floor) });
    }
  }
  for (const [id, { wall, floor }] of asked) if (wall <= 0 && floor <= 0) asked.delete(id);
  return asked;
}

/** What goes through and is cut in another setup alone. */
function leftToOthers({ part, setups }: Job, setup: Setup): ReadonlySet<string> {
  const cuts = (one: Setup, id: string) => one.operations.some((o) => o.on && o.targets.includes(id));
  const isOthers = (id: string) => !cuts(setup, id) && setups.some((s) => s.id !== setup.id && cuts(s, id));
  return new Set(part.features.flatMap((f) => (f.through && isOthers(f.id) ? [f.id] : [])));
}

/** How far down the tip goes in each motion, in the coordinates of the part, mm. */
const tipsOf = ({ z }: Motions, zero: number): Float32Array =>
  Float32Array.from(z, (to, i) => zero + Math.min(to, z[Math.max(0, i - 1)]));

/** What else a proof may know. */
export interface ProofOptions {
  /** Which lines belong to which operation. */
  sections?: Section[];
  /** What an earlier setup left. */
  left?: Piece;
  /** The program the job itself posts, where another one is proved. */
  own?: string;
  /** Asked now and then while reading: whether to leave it. */
  stopped?: () => boolean;
  /** What the setup works on, where it is made already. */
  ground?: Ground;
  /** Only to choose by: nothing is looked at closer than the grid shows it. */
  glance?: boolean;
  /** What the machine does in the place of the motions that were read: other lengths and zeros than are true, a start in the middle. */
  moved?: (read: Motions, homeZ: number) => Motions;
}

/** A proof under way: `advance` it until it is done, then `finish`. */
export class ProofRun {
  readonly prover: Prover;
  readonly read: ReadProgram;
  /** The job's own program, where it is another. */
  private readonly own?: ReadProgram;
  private readonly model;
  /** What the part wants; undefined where there is none yet. */
  private readonly wanted?: Wanted;
  private readonly windows: Windows;
  /** What the program says is done by hand. */
  private readonly hand: HandInProgram;
  private readonly minutesByHand: number;
  private readonly held: HeldBy[];
  /** What it presses on, in every station. */
  private readonly contacts: Contact[];
  /** What that holds stands in metal. */
  private readonly blocked: Finding[];
  private readonly zeroIsThere: boolean;
  private readonly zeroOn: Setup['zero']['on'];
  /** How much of what holds the work met metal at the start. */
  private readonly pressed: number[];
  /** Metal the operations of a feature were to leave. */
  private readonly asked: ReadonlyMap<string, Allowance>;
  /** Features whose metal another setup takes away. */
  private readonly others: ReadonlySet<string>;
  /** How far the tool of each operation may bend, mm. */
  private readonly bends = new Map<string, number>();
  /** The piece judged, once it has been cut. */
  private verdict?: { allowed: Allowed; judged: Judged };

  constructor(
    job: Job,
    setup: Setup,
    text: string,
    cell?: number,
    private readonly more: ProofOptions = {},
  ) {
    const ground = more.ground ?? groundOf(job, setup);
    this.asked = allowancesOf(ground.setup);
    this.others = leftToOthers(job, setup);
    for (const o of setup.operations) {
      const tool = job.tools.find((t) => t.id === o.toolId);
      const kind = kindOf(o.kind);
      if (tool && kind) this.bends.set(o.id, bendLimit(cutIn(job, setup, kind, tool, o)).most);
    }
    const { whole, stock, zero, fixtures, held } = ground;
    this.model = whole;
    const zeroAboveTable = setup.riser + zero.z - stock.bottom;
    const homeZ = homeHeight(job, setup, zeroAboveTable);
    const options: ReadOptions = {
      homeZ,
      unit: job.output.unit,
      registers: registersOf(job, setup),
      beam: beamOf(job, { low: stock.bottom - zero.z, high: stock.top + setup.clearance - zero.z }),
      leftHanded: new Set(job.tools.filter((t) => t.kind === 'tap' && t.leftHand).map((t) => t.number)),
      offsets: zerosOf(setup),
      bentRapids: job.machine.rapids === 'bent',
      control: controllerOf(job),
      stopped: more.stopped,
    };
    const read = readProgram(text, options);
    this.read = more.moved ? { ...read, motions: more.moved(read.motions, homeZ) } : read;
    if (whole.outline.length) {
      const added = addedOf(ground.job, ground.setup, whole);
      const rules = wantedOf(job, setup, ground, added, more.left);
      const upright = more.left?.upright && { ...more.left.upright, tips: tipsOf(this.read.motions, zero.z) };
      this.wanted = new Wanted(rules, -whole.thickness, added.freed, upright);
    }
    this.hand = handIn(text, setup, controllerOf(job));
    const isOwn = (more.sections ?? []).length > 0 || more.own !== undefined;
    this.minutesByHand = handMinutes(this.hand) + (isOwn ? pauseMinutes(setup) : 0);
    const { own } = more;
    if (own && own !== text) this.own = readProgram(own, options);
    this.prover = new Prover({
      motions: this.read.motions,
      tools: new Map(job.tools.map((t) => [t.number, t])),
      machine: job.machine,
      material: job.material,
      stock: stockEverywhere(setup, stock),
      left: pieceEverywhere(setup, stock, more.left, cell),
      zero,
      fixtures: bodiesEverywhere(setup, fixtures),
      grips: gripsIn(this.hand, this.read.motions, bodiesOf(held)).map(({ from, fixtures: boxes }) => ({
        from,
        fixtures: bodiesEverywhere(setup, boxes),
      })),
      zeroAboveTable,
      table: tableMiddle(ground),
      homeZ,
      cell,
    });
    this.held = held;
    this.contacts = contactsEverywhere(
      setup,
      held.flatMap((h) => h.placed.contacts),
    );
    this.pressed = contactShares(this.contacts, this.prover.stock);
    this.blocked = bodiesInMetal(bodiesEverywhere(setup, bodiesOf(held)), this.prover.stock, zero);
    this.zeroOn = setup.zero.on;
    this.zeroIsThere = this.isZeroThere(setup, ground);
    this.windows = new Windows(this.prover);
  }

  get done(): boolean {
    return this.prover.done && (this.prover.isCutShort || this.more.glance || this.windows.done);
  }

  /** Share of the work done, 0..1. */
  get progress(): number {
    const { prover, windows } = this;
    return windows.isFine ? prover.progress : (prover.progress + windows.progress) / 2;
  }

  /** Goes on by up to `most` motions, or by a window. */
  advance(most = Infinity): void {
    if (!this.prover.done) return this.prover.advance(most);
    const judged = this.judged();
    const window = this.windows.advance(most);
    if (window && judged) lookCloser(judged, window, this.wanted!.on(window.field));
  }

  /** The piece as it is, judged on the grid of the proof until it was looked at closer. */
  private judged(): Judged | undefined {
    if (this.verdict || !this.wanted) return this.verdict?.judged;
    const { field, stock } = this.prover;
    const allowed = this.wanted.findLoose(field).on(field);
    this.verdict = { allowed, judged: judge(field, stock.owner, allowed) };
    if (!this.windows.isFine) this.windows.want(walls(field, allowed));
    return this.verdict.judged;
  }

  /** The piece as the motions so far leave it. */
  get piece(): Piece {
    const { upright } = this.prover.input.left ?? {};
    return { field: this.prover.field, on: (grid) => this.windows.on(grid).field, upright };
  }

  /** What the part wants of a piece on a grid; undefined where there is no part yet. */
  allowedOn(grid: Grid): Allowed | undefined {
    return this.wanted?.on(grid);
  }

  /** What lies round a point of the piece, closer than the grid of the proof shows it. */
  around(x: number, y: number): Probed {
    const { field, owner } = this.windows.on(gridAround(x, y));
    return { field, owner, allowed: this.wanted?.on(field), floor: this.prover.input.stock.bottom };
  }

  /** What the cut does to spindle, tool and grip. */
  private load(samples: Samples): Finding[] {
    const { motions, tools, material, machine } = this.prover.input;
    const look = new CloserLook(this.prover, this.windows, samples);
    return loadFindings({
      samples,
      motions,
      tools,
      material,
      sections: this.more.sections ?? [],
      continuous: continuousShare(machine),
      bendOf: (id) => this.bends.get(id),
      cell: this.prover.stock.grain,
      closer: this.more.glance ? undefined : (sample, reach) => look.at(sample, reach),
    });
  }

  /** Steps with the time of those done by hand. */
  private withHands(steps: StepFigures[]): StepFigures[] {
    const minutes = new Map(this.hand.steps.map(({ operation: o }) => [o.id, handOf(o)?.minutes ?? 0]));
    return steps.map((s) => ({ ...s, minutes: s.minutes + (minutes.get(s.operationId) ?? 0) }));
  }

  /** Steps, or tools of a program from elsewhere, that did nothing. */
  private idle(steps: StepFigures[]): Finding[] {
    const { prover, read } = this;
    const byHand = new Set(this.hand.steps.map(({ operation }) => operation.id));
    if (steps.length > 0)
      return idleSteps(
        steps.filter((s) => !byHand.has(s.operationId)),
        read.motions,
      );
    if (prover.isCutShort) return [];
    return idleTools(read.motions, prover.removedBy, (tool) => prover.input.tools.has(tool));
  }

  /** Whether there is metal at the corner the zero was set on. */
  private isZeroThere(setup: Setup, { stock, zero }: Ground): boolean {
    const { on, point, height } = setup.zero;
    if (setup.stock.shape !== 'as left' || point === 'centre' || (on !== 'stock' && on !== 'part')) return true;
    const inset = AT_CORNER + 2 * this.prover.stock.grain;
    const inwards = (way: boolean) => (way ? inset : -inset);
    const faces = this.prover.stock.facesAt(
      zero.x + inwards(point.endsWith('left')),
      zero.y + inwards(point.startsWith('front')),
    );
    const z = height === 'top' ? zero.z - inset : Math.max(zero.z, stock.bottom) + inset;
    return faces.some((top, i) => i % 2 === 0 && top >= z && faces[i + 1] <= z);
  }

  /** Whether the grip holds, and what is left of what it presses on. */
  private grip(samples: Samples): { worst: Worst[]; findings: Finding[] } {
    const { prover, held, read, contacts } = this;
    const pressed = contactFindings(contacts, this.pressed, contactShares(contacts, prover.stock));
    const strength = strengthOf(held);
    if (!strength) return { worst: [], findings: pressed };
    const input = {
      strength,
      samples,
      motions: read.motions,
      tools: prover.input.tools,
      sections: this.more.sections ?? [],
    };
    const worst = worstMoments(input);
    return { worst, findings: [...pressed, ...gripFindings(worst, input)] };
  }

  /** How well the piece is known that was set on another side. */
  private upright(): Finding[] {
    const { upright } = this.more.left ?? {};
    return upright ? [finding('set-upright', upright, { field: 'stock.shape' })] : [];
  }

  /** Judges what is left once everything has been cut. */
  finish(): Proof {
    const { prover, read, model } = this;
    const judged = this.judged();
    const { samples, findings, volume } = prover.result();
    const { seconds } = prover.clock;
    const { zero } = prover.input;
    const grip = this.grip(samples);
    const steps = this.withHands(stepsOf(this.more.sections ?? [], read.motions, seconds, prover.removedBy, samples));
    const shape = judged
      ? [
          ...gouges(judged, read.motions, zero),
          ...shortfalls(judged, zero),
          ...leftovers(judged, model, zero, this.asked).filter(({ place }) => !this.others.has(place.feature ?? '')),
        ]
      : [];
    return {
      findings: [
        ...this.upright(),
        ...this.blocked,
        ...(this.zeroIsThere ? [] : [finding('zero-on-nothing', { on: this.zeroOn }, { field: 'zero' })]),
        ...read.findings,
        ...this.hand.findings,
        ...otherTools(calledTools(read), [...prover.input.tools.values()]),
        ...(this.own ? differences(read, this.own, prover.input.tools) : []),
        ...findings,
        ...this.windows.findings(),
        ...beyondMachine(read.motions, prover.input.machine),
        ...this.load(samples),
        ...grip.findings,
        ...shape,
        ...this.idle(steps),
      ],
      clock: this.minutesByHand > 0 ? { ...prover.clock, hand: this.minutesByHand } : prover.clock,
      samples,
      removed: volume / 1000,
      removedBy: prover.removedBy,
      ...this.piece,
      owner: prover.stock.owner,
      ...this.verdict,
      finest: this.windows.cell,
      read,
      steps,
      grip: grip.worst,
      energy: energyOf(samples, read.motions, prover.input.machine, prover.clock.total),
      wear: wearOf(samples, read.motions, prover.input.tools, prover.input.material),
    };
  }
}

/**
 * Proves a program over a setup's stock in one go.
 * @param cell grid size, mm; chosen from the stock when left out
 */
export function proveProgram(job: Job, setup: Setup, text: string, cell?: number, more?: ProofOptions): Proof {
  const run = new ProofRun(job, setup, text, cell, more);
  while (!run.done) run.advance();
  return run.finish();
}

/** A proof as its run is reckoned with. */
export const runFigures = ({
  clock,
  wear,
  energy,
}: Pick<Proof, 'wear' | 'energy'> & { clock: Pick<Clock, 'total' | 'hand'> }): RunFigures => ({
  minutes: wholeTime(clock),
  wear,
  kWh: energy,
});

/** Told where a setup starts from one that cannot be proved. */
export const notKnown = (before: Setup): Finding =>
  finding('earlier-setup', { before: before.name }, { field: 'stock.shape' });

/** The program a job posts for a setup, as it runs from its first to its last tool; empty where there is none. */
export function ownText(job: Job, setup: Setup, plan: SetupPlan = planSetup(job, setup)): string {
  const { programs } = postSetup(job, setup, plan);
  return programs.length ? joinPrograms(programs).text : '';
}

/** What the setups before leave for a setup that starts from it: all of them planned, posted and proved. */
export function leftBefore(job: Job, setup: Setup, cell?: number): { left?: Piece; findings: Finding[] } {
  const before = beforeOf(job, setup);
  if (!before) return { findings: [] };
  const plan = planSetup(job, before);
  const { programs } = postSetup(job, before, plan);
  if (programs.length === 0) return { findings: [notKnown(before)] };
  const { left, findings } = leftBefore(job, before, cell);
  const run = new ProofRun(job, before, joinPrograms(programs).text, cell, { left, ground: plan.ground });
  run.prover.advance();
  return { left: leavings(job, plan.ground, setup, run.piece), findings };
}
