/** What the golden set holds: figures of the product on the demo jobs, on every kind of operation and on foreign files. */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  Job,
  KINDS,
  MACHINES,
  MATERIALS,
  Piece,
  Playback,
  ProofOptions,
  ProofRun,
  ReadOptions,
  Setup,
  TOOLS,
  adviseTools,
  asSeen,
  importDrawing,
  joinPrograms,
  leftBefore,
  newJob,
  parseJob,
  peaksOf,
  planSetup,
  postSetup,
  probeAt,
  proposeRoute,
  readJob,
  readProgram,
  suggest,
  suggestBite,
  toolsToCsv,
  toolsToJson,
  worstPlaces,
  MEASURES,
  CONTROLLERS,
} from '@tidypath/core';
import { jobForKind } from '../../packages/core/testing/every-kind';
import { withStock } from '../../packages/core/testing/jobs';
import { plate, tool } from '../../packages/core/testing/parts';
import { digest } from './digest';

const here = (name: string) => readFileSync(join(__dirname, name), 'utf8');
const root = join(__dirname, '../..');

/** Grid of the proofs and of what is played, mm. */
const CELL = 0.2;
const PLAYED = 0.5;
/** Foreign programs are many and short. */
const FOREIGN = 0.5;
const SUGGESTIONS = 200;
const MOMENTS = [0.1, 0.3, 0.5, 0.7, 1];

const pieceOf = ({ field }: Piece) => digest(field);

/** The piece and a probe at its middle at moments of a proof. */
function played(run: ProofRun, seconds: Float64Array): unknown[] {
  const { input } = run.prover;
  const player = new Playback(input, seconds, PLAYED);
  const total = seconds.reduce((a, b) => a + b, 0);
  const allowed = run.allowedOn(player.field);
  const { x0, y0, cell, nx, ny } = player.field;
  return MOMENTS.map((share) => {
    const moment = player.seek(share === 1 ? Infinity : share * total);
    const { field, owner } = player;
    const probe = probeAt(
      { field, owner, allowed, floor: input.stock.bottom },
      x0 + (nx * cell) / 3,
      y0 + (ny * cell) / 3,
    );
    return {
      line: moment.line,
      moment: digest(moment),
      field: digest(field),
      owner: digest(owner),
      probe: digest(probe),
    };
  });
}

function proved(job: Job, setup: Setup, text: string, cell: number, more: ProofOptions = {}): object {
  const run = new ProofRun(job, setup, text, cell, more);
  while (!run.done) run.advance();
  const proof = run.finish();
  const { motions } = proof.read;
  return {
    read: digest({ ...proof.read, findings: undefined }),
    findings: proof.findings,
    clock: digest(proof.clock),
    minutes: proof.clock.total,
    samples: digest(proof.samples),
    peaks: digest(MEASURES.map((m) => peaksOf(proof.samples, motions, m))),
    removed: proof.removed,
    removedBy: digest(proof.removedBy),
    field: digest(proof.field),
    owner: digest(proof.owner),
    allowed: digest(proof.allowed),
    judged: digest(proof.judged),
    places: digest(proof.judged && worstPlaces(proof.judged)),
    finest: proof.finest,
    steps: digest(proof.steps),
    around: digest(run.around(10, 10)),
    played: played(run, proof.clock.seconds),
  };
}

/** A job planned, posted, read back and proved, setup by setup. */
function whole(job: Job): object {
  return job.setups.map((setup) => {
    const plan = planSetup(job, setup);
    const { programs, findings } = postSetup(job, setup, plan);
    const { text, sections } = joinPrograms(programs);
    const made = { planned: plan.planned.length, findings, text: digest(text), lines: text.split('\n').length };
    if (programs.length === 0) return made;
    const { left, findings: before } = leftBefore(job, setup, CELL);
    const piece = left && pieceOf(left);
    return { ...made, before, left: piece, proof: proved(job, setup, text, CELL, { left, sections }) };
  });
}

const demos = () =>
  readdirSync(join(root, 'demo/jobs'))
    .filter((f) => f.endsWith('.json'))
    .sort()
    .map((f) => parseJob(readFileSync(join(root, 'demo/jobs', f), 'utf8')).job!);

/** Foreign programs of the tests, each as read; those without options of their own are proved over a block too. */
function foreign(): object {
  const block = withStock(newJob('Block', 'mm'), { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 });
  const tools = [1, 4, 9, 12, 13, 16, 18].map(tool);
  const part = { kind: 'plate' as const, thickness: 25, features: [plate(100, 60)] };
  const job: Job = { ...block, machine: MACHINES[2], tools, part };
  const programs = JSON.parse(here('programs.json')) as { from: string; options: object; text: string }[];
  return programs.map(({ from, options, text: asWritten }) => {
    // What is too short to have an end is given one.
    const text = /\bM(2|30|99)\b/.test(asWritten) ? asWritten : `${asWritten}\nM30\n`;
    const { registers, offsets, coolant, ...rest } = options as Record<string, never>;
    const control = CONTROLLERS.find((c) => digest(Object.values(c.coolant)) === digest(coolant));
    const maps = { control, registers: registers && new Map(registers), offsets: offsets && new Map(offsets) };
    const read = readProgram(text, { ...rest, ...maps } as unknown as ReadOptions);
    const lines = asWritten.split('\n').length;
    const proof = from === 'faults' ? { proof: proved(job, job.setups[0], text, FOREIGN) } : {};
    return { from, findings: read.findings, read: digest({ ...read, lines, findings: undefined }), ...proof };
  });
}

const drawings = () =>
  [
    ...(JSON.parse(here('drawings.json')) as string[]),
    readFileSync(join(root, 'demo/drawings/vane-hub-plate.dxf'), 'utf8'),
  ].map((text) => {
    const { findings, gaps, unit, features } = importDrawing(text);
    return { findings, gaps: gaps.length, unit, features: digest(features) };
  });

/** A spread of tool, material and machine. */
function suggestions(): object {
  const all = TOOLS.flatMap((t) => MATERIALS.flatMap((m) => MACHINES.map((k) => [t, m, k] as const)));
  const step = all.length / SUGGESTIONS;
  return Array.from({ length: SUGGESTIONS }, (_, i) => {
    const [t, material, machine] = all[Math.floor(i * step)];
    const bite = suggestBite(t, material, machine);
    const { rpm, feed, entryFeed, limit, ...rest } = suggest({ tool: t, material, machine, ...bite });
    return [t.id, material.id, machine.id, rpm, feed, entryFeed, limit, digest({ bite, rest })].join(' ');
  });
}

/** Advice for every feature, and a route, of a job with its operations taken out. */
function advice(job: Job): object {
  const bare = { ...job, setups: job.setups.map((s) => ({ ...s, operations: [] })) };
  return job.setups.map((setup) => {
    const seen = asSeen(bare, setup);
    const routed = proposeRoute(bare, setup.id, TOOLS);
    const { operations } = routed.job.setups.find((s) => s.id === setup.id)!;
    return {
      advice: seen.part.features.map((f) => `${f.id} ${digest(adviseTools(seen, f.id, TOOLS))}`),
      route: operations.map((o) => `${o.name}, ${o.toolId}: ${o.reason}`),
      whole: digest(routed),
    };
  });
}

/** Job files and tool lists as read. */
function files(): object {
  const formats = join(root, 'packages/core/testing/formats');
  const old = readdirSync(formats).map((f) => JSON.parse(readFileSync(join(formats, f), 'utf8')) as object);
  const [demo] = demos();
  const wrong = { ...demo, boldness: 7, colour: 'red', setups: demo.setups.map((s) => ({ ...s, clearance: -1 })) };
  return {
    jobs: [...demos(), ...old, wrong, {}, { formatVersion: 99 }].map((value) => {
      const { job, findings } = readJob(value);
      return { job: digest(job), findings };
    }),
    csv: digest(toolsToCsv(TOOLS)),
    json: digest(toolsToJson(TOOLS)),
  };
}

/** Every part of the set by its name, made when asked. */
export const CASES: Record<string, () => object> = {
  ...Object.fromEntries(demos().map((job) => [`demo ${job.name}`, () => whole(job)])),
  ...Object.fromEntries(KINDS.map((kind) => [`kind ${kind.kind}`, () => whole(jobForKind(kind))])),
  ...Object.fromEntries(demos().map((job) => [`advice ${job.name}`, () => advice(job)])),
  foreign,
  drawings,
  suggestions,
  files,
};
