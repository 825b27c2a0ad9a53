import { boundsOf } from '../geometry/plane/point';
import { Allowed } from '../stock/height/wanted';
import { LevelAsk, Levelled, levelFeed } from '../judge/level';
import { Probe, probeAt } from '../stock/height/probe';
import { missingFiles } from '../document/files';
import { Job, Setup } from '../document/job';
import { Waiting } from '../operation/operation';
import { Section } from '../program/write/step';
import { hashOf } from '../quantity/hash';
import { Piece } from '../stock/height/height-stock';
import { Moment, Playback } from '../simulate/playback';
import { cellFor, regridded } from '../stock/height/field';
import { stockStl } from '../stock/height/stl';
import { beforeOf } from './ground';
import { KnownPlan, PlanCache, PlanStep, SetupPlan, planSteps, postSetup } from './pipeline';
import { joinPrograms } from './joined';
import { leavings } from './leavings';
import { Proof, ProofOptions, ProofRun, notKnown, ownText } from './prove';

/** How far long work is: an operation about to be planned, or the share of a proof that is done. */
export type BenchStep = { planning: PlanStep } | { proving: number };

/** Work in steps: whoever asked looks at each, breathes in between, and leaves it when nobody waits any more. */
export type BenchWork<T> = Generator<BenchStep, T>;

/** What was proved last, and the picture of it. */
export interface Proved {
  job: Job;
  setup: Setup;
  text: string;
  more: ProofOptions;
  run: ProofRun;
  proof: Proof;
  /** The stock at any moment, on a grid coarse enough to follow a finger; at the end to begin with. */
  picture: Playback;
  /** What the part wants, on that grid; undefined where there is no part yet. */
  wanted?: Allowed;
  /** Underside of the stock. */
  floor: number;
}

/** Motions cut in one step. */
const SLICE = 50;
/** Cells of the picture: how many, and how fine at most, mm. */
const PICTURE_CELLS = 60_000;
const FINEST_PICTURE = 0.2;

/** What is known of a job now: its plans, what setups leave, what was proved last, and the stock as it is shown. */
export class Bench {
  private readonly plans: PlanCache = new Map();
  /** What the setup before left, by what it was made from. */
  private readonly leftBy = new Map<string, Piece>();
  private planned: { job: Job; setup: Setup; plan: SetupPlan } | undefined;
  private proved: Proved | undefined;

  get last(): Proved | undefined {
    return this.proved;
  }

  /** What was planned last, where it is of this setup of this very job. */
  planOf(job: Job, setup: Setup): SetupPlan | undefined {
    return this.planned?.job === job && this.planned.setup === setup ? this.planned.plan : undefined;
  }

  /** Takes plans that were made before, elsewhere or on another day. */
  know(plans: KnownPlan[]): void {
    for (const [key, plan] of plans) this.plans.set(key, plan);
  }

  /** Plans a setup, operation by operation. */
  *plan(job: Job, setup: Setup, waiting: Waiting = {}): BenchWork<SetupPlan> {
    const steps = planSteps(job, setup, this.plans, waiting);
    for (;;) {
      const { done, value } = steps.next();
      if (!done) yield { planning: value };
      else {
        this.planned = { job, setup, plan: value };
        return value;
      }
    }
  }

  /**
   * Proves a text over a setup's stock; goes on from where the last proof was still the same.
   * @returns what is then the last proof; undefined where reading was stopped
   */
  *prove(
    job: Job,
    setup: Setup,
    text: string,
    sections?: Section[],
    waiting: Waiting = {},
  ): BenchWork<Proved | undefined> {
    const left = yield* this.leftBefore(job, setup, waiting);
    const plan = this.planOf(job, setup);
    const own = plan && !sections ? ownText(job, setup, plan) : undefined;
    const more = { sections, left, ground: plan?.ground, own };
    const run = new ProofRun(job, setup, text, undefined, { ...more, stopped: waiting.stopped });
    if (waiting.stopped?.()) return undefined;
    if (this.proved) run.prover.follow(this.proved.run.prover);
    const proof = yield* cut(run);
    const before = beforeOf(job, setup);
    if (before && !left) proof.findings.unshift(notKnown(before));
    const { input } = run.prover;
    const cell = cellFor(boundsOf(input.stock.region.flat()), PICTURE_CELLS, FINEST_PICTURE);
    const picture = new Playback(input, proof.clock.seconds, cell);
    picture.seek(Infinity);
    const wanted = run.allowedOn(picture.field);
    this.proved = { job, setup, text, more, run, proof, picture, wanted, floor: input.stock.bottom };
    return this.proved;
  }

  /** What the setup before leaves, proved where that is not known yet; nothing where it has no program. */
  private *leftBefore(job: Job, setup: Setup, waiting: Waiting): BenchWork<Piece | undefined> {
    const before = beforeOf(job, setup);
    if (!before) return undefined;
    const index = job.setups.indexOf(before);
    const key = hashOf({
      ...job,
      note: '',
      unit: '',
      comparisons: undefined,
      setups: job.setups.slice(0, index + 1),
      up: setup.up,
      copies: setup.copies,
      missing: missingFiles(job),
    });
    const known = this.leftBy.get(key);
    if (known) return known;
    const plan = yield* this.plan(job, before, waiting);
    const { programs } = postSetup(job, before, plan);
    if (programs.length === 0) return undefined;
    const left = yield* this.leftBefore(job, before, waiting);
    const run = new ProofRun(job, before, joinPrograms(programs).text, undefined, { left, ground: plan.ground });
    yield* through(run.prover);
    const leaves = leavings(job, plan.ground, setup, run.piece);
    this.leftBy.clear();
    this.leftBy.set(key, leaves);
    return leaves;
  }

  /** Levels the feeds of what was proved last, and proves the outcome; undefined where nothing was proved, or something else meanwhile. */
  *level(ask: LevelAsk): BenchWork<{ levelled: Levelled; proof: Proof } | undefined> {
    const { proved } = this;
    if (!proved) return undefined;
    const { job, setup, text, more, run, proof } = proved;
    const { motions, tools, material, machine } = run.prover.input;
    const levelled = levelFeed({ text, motions, samples: proof.samples, tools, material, machine }, ask);
    const after = yield* cut(new ProofRun(job, setup, levelled.text, undefined, more));
    return this.proved?.text === text ? { levelled, proof: after } : undefined;
  }

  /** Brings the picture to a time, s; undefined where nothing was proved. */
  seek(time: number): Moment | undefined {
    return this.proved?.picture.seek(time);
  }

  /** What stands at a point of the piece as it is shown: finely at the end of the program, on the grid of the picture before. */
  probe(x: number, y: number): Probe | undefined {
    if (!this.proved) return undefined;
    const { picture, proof, run, wanted, floor } = this.proved;
    if (picture.isAtEnd) return probeAt({ ...proof, floor }, x, y, run.around(x, y));
    return probeAt({ field: picture.field, owner: picture.owner, allowed: wanted, floor }, x, y);
  }

  /** The stock as the last proof left it, as an STL file on the grid of the picture. */
  stl(): Uint8Array | undefined {
    if (!this.proved) return undefined;
    const { run, picture, floor } = this.proved;
    return stockStl(regridded(run.prover.field, picture.field.cell, floor), floor);
  }
}

/** Cuts to the end, a slice at a time. */
function* through(work: Pick<ProofRun, 'done' | 'progress' | 'advance'>): BenchWork<void> {
  while (!work.done) {
    work.advance(SLICE);
    yield { proving: work.progress };
  }
}

function* cut(run: ProofRun): BenchWork<Proof> {
  yield* through(run);
  return run.finish();
}
