/** A program run on the simulated machine, with what somebody entered wrong. */
import { formatNumber, formatTime, seenText } from '@tidypath/core';
import {
  Entered,
  Loaded,
  Ran,
  load,
  measured,
  prepare,
  runThrough,
  seenOf,
  streamCsv,
  trulyEntered,
  workOf,
} from '@tidypath/controller';
import { UsageError, loadJob, numberOption, parse, pickSetup, print, readText, writeInto } from './files';

/** What somebody said to be off: "T4=-10", "X=12". */
function offs(text: unknown, name: string, key: RegExp): [string, number][] {
  if (text === undefined) return [];
  return String(text)
    .split(',')
    .map((one) => {
      const [what = '', by = ''] = one.split('=');
      const mm = Number(by);
      if (!key.test(what) || by.trim() === '' || !Number.isFinite(mm) || Math.abs(mm) > 500)
        throw new UsageError(`--${name} takes ${name === 'length' ? 'T4=-10' : 'X=12'}, mm, several with commas`);
      return [what.toUpperCase(), mm];
    });
}

/** Entered as it is, but for what was said to be off. */
function entered(loaded: Loaded, lengths: [string, number][], zero: [string, number][]): Entered {
  const truly = trulyEntered(loaded);
  const axes = Object.fromEntries(zero.map(([axis, by]) => [axis.toLowerCase(), by]));
  const off = Object.fromEntries(lengths.map(([tool, by]) => [Number(tool.slice(1)), by]));
  for (const number of Object.keys(off))
    if (!(number in truly.lengths)) throw new UsageError(`The job has no T${number}`);
  const { x, y, z } = truly.zero;
  return {
    ...truly,
    lengths: Object.fromEntries(Object.entries(truly.lengths).map(([n, mm]) => [n, mm + (off[Number(n)] ?? 0)])),
    zero: { x: x + (axes.x ?? 0), y: y + (axes.y ?? 0), z: z + (axes.z ?? 0) },
  };
}

/** What a run was, in figures that scripts can compare. */
function figures(loaded: Loaded, { memory, events, cut }: Ran) {
  return {
    state: memory.state,
    alarm: memory.alarm,
    seconds: memory.ran,
    events,
    steps: memory.steps,
    tools: memory.fates,
    sizes: measured(loaded, cut, memory).map(({ size, mm }) => ({
      id: size.id,
      feature: size.feature,
      wanted: size.mm,
      mm,
    })),
    piece: prepare(loaded, cut).judged(),
  };
}

/** `run PROGRAM.nc --job JOB`: the simulated machine; 1 where it ends in an alarm. */
export function runCommand(args: string[]): number {
  const { positionals, values } = parse(args, {
    ...{ job: { type: 'string' }, setup: { type: 'string' }, seed: { type: 'string' }, cell: { type: 'string' } },
    ...{ length: { type: 'string' }, zero: { type: 'string' }, skip: { type: 'boolean' }, json: { type: 'boolean' } },
    out: { type: 'string' },
  });
  const text = readText(positionals[0], 'a program');
  const job = loadJob(values.job);
  if (!job) return 1;
  const setup = pickSetup(job, values.setup);
  const seed = numberOption(values.seed, 'seed', 0, 4294967295) ?? 1;
  const cell = numberOption(values.cell, 'cell', 0.01, 5);
  const lengths = offs(values.length, 'length', /^T\d+$/i);
  const zero = offs(values.zero, 'zero', /^[XYZ]$/i);
  const loaded = load(workOf(job, setup, text, { seed, cell, skips: values.skip ?? false }));
  const ran = runThrough(loaded, entered(loaded, lengths, zero));
  if (values.out) writeInto(values.out, 'stream.csv', streamCsv(ran.stream));
  const told = figures(loaded, ran);
  if (values.json) print(JSON.stringify(told, null, 2));
  else {
    print(`${job.machine.name}, seed ${seed}: ${told.state} after ${formatTime(told.seconds / 60)}`);
    for (const e of told.events) print(`${formatTime(e.at / 60)} line ${e.line}: ${e.text}`);
    for (const s of told.steps) {
      const name = setup.operations.find((o) => o.id === s.operationId)?.name ?? s.operationId;
      print(`${name}: ${seenText(seenOf(s))}`);
    }
    for (const s of told.sizes) print(`${s.feature}: ${formatNumber(s.mm, 3)} for ${formatNumber(s.wanted, 3)} mm`);
    for (const f of told.piece) print(`${f.level}: ${f.message}`);
  }
  return told.state !== 'done' ? 1 : 0;
}
