import { calledTools } from '../program/read/remarks';
import { Job } from '../document/job';
import { peaksOf } from '../judge/peaks';
import { MOVE, Motions } from '../path/motions';
import { Proved } from '../plan/bench';
import { handOf, isByHand } from '../operation/hand/by-hand';
import { PathMinutes, pathMinutes } from '../plan/insight';
import { SetupPlan, postSetup } from '../plan/pipeline';
import { Proof, ProofRun } from '../plan/prove';
import { Finding, worded } from '../quantity/finding';
import { Playback } from '../simulate/playback';
import { MEASURES } from '../simulate/samples';
import { NOTHING, regridded } from '../stock/height/field';
import { worstOn } from '../stock/height/judged';
import { worstPlaces } from '../stock/height/places';
import { runsOf } from './runs';
import type { LoadView, PlanView, ProofView, SurfaceView } from './terms';

/** Findings as a job tells them: in its own unit. */
export const inUnitOf = ({ unit }: Job, findings: Finding[]): Finding[] => findings.map((f) => worded(f, unit));

/** Minutes of one operation of a plan, a change to its tool included; of something by hand those it takes. */
function minutesOf({ ground, planned }: SetupPlan, index: number): PathMinutes {
  const { operation, plan } = planned[index];
  const hand = handOf(operation);
  if (hand) return { cut: 0, entry: 0, rapid: hand.minutes, feed: 1, entryFeed: 1 };
  const before = planned.slice(0, index).filter((p) => !isByHand(p.operation));
  const changesTool = operation.toolId !== before[before.length - 1]?.operation.toolId;
  return pathMinutes(plan.path, operation, ground.job.machine, changesTool);
}

/**
 * A plan as the page sees it, with the programs it is posted as.
 * @param mark said in the head of each program
 */
export function planView(plan: SetupPlan, mark?: string): PlanView {
  const { job, setup, zero, clearance } = plan.ground;
  const posted = postSetup(job, setup, plan, undefined, mark);
  const own = new Set([...plan.findings, ...plan.planned.flatMap((p) => p.plan.findings)]);
  return {
    planned: plan.planned.map(({ operation, key, plan: p }, i) => ({
      operationId: operation.id,
      key,
      path: p.path,
      findings: inUnitOf(job, p.findings),
      minutes: minutesOf(plan, i),
    })),
    findings: inUnitOf(job, [...plan.findings, ...posted.findings.filter((f) => !own.has(f))]),
    programs: posted.programs,
    zero,
    clearance,
  };
}

/** Heights of a picture, a copy, with empty cells brought down to the stock's underside. */
export const heightsOf = ({ field }: Playback, floor: number): Float32Array =>
  field.height.map((h) => (h <= NOTHING ? floor : h));

function surfaceOf({ picture, floor, run, proof }: Proved): SurfaceView {
  const { x0, y0, cell, nx, ny } = picture.field;
  const { top } = run.prover.input.stock;
  const off = proof.judged && worstOn(proof.judged, picture.field);
  return { x0, y0, cell, nx, ny, bottom: floor, top, height: heightsOf(picture, floor), off };
}

/** Cells a piece is looked at with: what goes over the network. */
const PIECE_CELLS = 40_000;

/** What a proof has cut so far, on a grid coarse enough to be sent. */
export function pieceView({ prover }: ProofRun): SurfaceView {
  const { field, input } = prover;
  const { bottom, top } = input.stock;
  const cell = Math.max(field.cell, Math.sqrt((field.nx * field.ny) / PIECE_CELLS) * field.cell);
  const { x0, y0, nx, ny, height } = regridded(field, cell, bottom);
  return { x0, y0, cell, nx, ny, bottom, top, height: height.map((h) => (h <= NOTHING ? bottom : h)) };
}

/** `samples` is a copy, which may be given away. */
export function loadView({ clock, samples: own }: Proof, motions: Motions): LoadView {
  const { cut, rapid, toolChange, dwell, total, hand } = clock;
  const samples = structuredClone(own);
  const peaks = Object.fromEntries(MEASURES.map((m) => [m, peaksOf(samples, motions, m)]));
  return { clock: { cut, rapid, toolChange, dwell, total, hand }, samples, peaks: peaks as LoadView['peaks'] };
}

/** Seconds at the end of every motion, and those at which tools are changed. */
function times({ seconds }: Proof['clock'], motions: Motions): Pick<ProofView, 'ends' | 'toolStarts'> {
  const ends = new Float32Array(motions.count);
  const toolStarts: number[] = [];
  let sum = 0;
  seconds.forEach((s, i) => {
    if (motions.type[i] === MOVE.toolChange) toolStarts.push(sum);
    ends[i] = sum += s;
  });
  return { ends, toolStarts };
}

/** A proof as the page sees it. */
export function proofView(proved: Proved): ProofView {
  const { proof, run, wanted } = proved;
  const { motions, zero } = run.prover.input;
  return {
    findings: inUnitOf(proved.job, proof.findings),
    ...loadView(proof, motions),
    steps: proof.steps,
    grip: proof.grip,
    wear: proof.wear,
    energy: proof.energy,
    called: calledTools(proof.read),
    removed: proof.removed,
    grid: {
      cell: proof.field.cell,
      finest: proof.finest,
      cells: proof.field.height.length,
      memory: run.prover.memory,
    },
    surface: surfaceOf(proved),
    allowed: structuredClone(wanted),
    places: proof.judged ? worstPlaces(proof.judged) : [],
    lines: motions.line.slice(),
    ...runsOf(proof.samples, motions, zero),
    ...times(proof.clock, motions),
  };
}
