import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  batchText,
  blankFindings,
  Edit,
  Finding,
  Job,
  MACHINES,
  MATERIALS,
  Proof,
  TOOLS,
  travelOf,
  formatNumber,
  formatThin,
  formatTime,
  formatVolume,
  hasStop,
  importDrawing,
  joinPrograms,
  type KitTool,
  kitOf,
  kitText,
  leftBefore,
  ownText,
  IMPORT_DEFAULTS,
  LengthUnit,
  newJob,
  planFindings,
  planSetup,
  postSetup,
  pullLines,
  proveProgram,
  readProgram,
  returned,
  runsForBatch,
  Setup,
  clock,
  clockSettings,
  suggest,
  COOLANTS,
  suggestBite,
  suggestFinish,
  GRIPS,
  HOLDERS,
  TOOL_KINDS,
  newTool,
  wholeTime,
} from '@tidypath/core';
import { UsageError, fromFile, loadJob, numberOption, oneOf, parse, pickSetup, readText, report, print } from './files';

const printJson = (value: unknown) => print(JSON.stringify(value, null, 2));

/** `check JOB.json`: every finding of every setup. */
export function check(args: string[]): number {
  const { positionals } = parse(args, {});
  const job = loadJob(positionals[0]);
  if (!job) return 1;
  const findings = job.setups.flatMap((setup) => [
    ...planFindings(planSetup(job, setup)),
    ...blankFindings(job, setup),
  ]);
  const failed = report(findings);
  print(findings.length ? `${findings.length} findings` : 'Nothing to report');
  return failed;
}

/** `post JOB.json --out DIR`: programs and tools.json. */
export function post(args: string[]): number {
  const { positionals, values } = parse(args, {
    setup: { type: 'string' },
    controller: { type: 'string' },
    out: { type: 'string' },
  });
  const job = loadJob(positionals[0]);
  if (!job) return 1;
  if (!values.out) throw new UsageError('Say where to put the programs: --out DIR');
  const setups = values.setup ? [pickSetup(job, values.setup)] : job.setups;
  const posted = setups.map((setup) => ({
    setup,
    ...postSetup(job, setup, planSetup(job, setup), values.controller ?? job.controllerId),
  }));
  const findings: Finding[] = posted.flatMap((p) => p.findings);
  const failed = report(findings);
  if (hasStop(findings)) return failed;
  mkdirSync(values.out, { recursive: true });
  for (const { programs } of posted) for (const p of programs) writeFileSync(join(values.out, p.fileName), p.text);
  writeFileSync(join(values.out, 'tools.json'), JSON.stringify(toolList(job, posted), null, 2) + '\n');
  for (const { programs } of posted)
    for (const p of programs)
      print(
        `${join(values.out, p.fileName)}: ${p.text.split('\n').length - 1} lines, ${p.tools.map((t) => `T${t}`).join(' ')}`,
      );
  return failed;
}

function toolList(job: Job, posted: { setup: { id: string }; programs: { fileName: string; tools: number[] }[] }[]) {
  return {
    job: job.name,
    programs: posted.flatMap(({ setup, programs }) =>
      programs.map((p) => ({ setup: setup.id, file: p.fileName, tools: p.tools })),
    ),
    tools: job.tools,
  };
}

/** What a proof says, in figures that scripts can compare. */
export function proofFigures(proof: Proof) {
  const { clock, samples } = proof;
  const peak = (values: Float32Array) => values.reduce((a, b) => Math.max(a, b), 0);
  return {
    minutes: {
      total: wholeTime(clock),
      cut: clock.cut,
      rapid: clock.rapid,
      toolChange: clock.toolChange,
      dwell: clock.dwell,
      byHand: clock.hand ?? 0,
    },
    removedCm3: proof.removed,
    cell: proof.field.cell,
    finestCell: proof.finest,
    lines: proof.read.lines,
    motions: proof.read.motions.count,
    peakEngagementDegrees: peak(samples.engagement),
    peakSpindleLoad: peak(samples.load),
    findings: proof.findings,
  };
}

/** `kit JOB`: what to pull, preset, load and unload for a batch, setup by setup, and how long it takes. */
export function kit(args: string[]): number {
  const { positionals, values } = parse(args, { setup: { type: 'string' }, json: { type: 'boolean' } });
  const job = loadJob(positionals[0]);
  if (!job) return 1;
  const setups = values.setup ? [pickSetup(job, values.setup)] : job.setups;
  const kits = setups.map((setup) => kitFor(job, setup));
  const findings = kits.flatMap((k) => k.findings);
  if (values.json) {
    const plain = ({ tool: { number, name }, ...more }: KitTool) => ({ number, name, ...more });
    printJson(kits.map(({ setup, tools, ...k }) => ({ setup: setup.id, ...k, tools: tools.map(plain) })));
    return Number(hasStop(findings));
  }
  for (const { setup, pull, tools, run } of kits) {
    print(`${setup.name}: ${batchText(job, setup, run)}`);
    for (const line of pull) print(`  ${line}`);
    for (const t of tools) print(`  T${t.tool.number} ${t.tool.name}: ${kitText(t, job.unit)}`);
  }
  return report(findings);
}

function kitFor(job: Job, setup: Setup) {
  const { programs, findings } = postSetup(job, setup, planSetup(job, setup));
  const own = programs.length ? joinPrograms(programs).text : '';
  const proof = own ? proveProgram(job, setup, own, undefined, { left: leftBefore(job, setup).left }) : undefined;
  const tools = programs.flatMap((p) => p.tools);
  return {
    setup,
    runs: runsForBatch(job, setup),
    run: proof && wholeTime(proof.clock),
    pull: pullLines(job, setup),
    tools: kitOf(job, setup, tools, proof?.wear ?? []),
    findings: [...blankFindings(job, setup), ...findings.filter((f) => f.level === 'stop')],
  };
}

/** `edits PROGRAM.nc --job JOB`: what was changed in a program that comes back, and the job with what it takes of it. */
export function edits(args: string[]): number {
  const { positionals, values } = parse(args, {
    job: { type: 'string' },
    setup: { type: 'string' },
    out: { type: 'string' },
    json: { type: 'boolean' },
  });
  const text = readText(positionals[0], 'the program');
  const job = loadJob(values.job);
  if (!job) return 1;
  const setup = pickSetup(job, values.setup);
  const plan = planSetup(job, setup);
  const { programs, findings } = postSetup(job, setup, plan);
  if (hasStop(findings)) return report(findings);
  const found = returned(job, setup, programs, plan.ground.zero.z, text);
  if (!found) throw new UsageError(`${positionals[0]} was not made from a program of “${setup.name}”`);
  if (values.out) writeFileSync(values.out, JSON.stringify(found.job, null, 2) + '\n');
  if (values.json) printJson(found.edits);
  else for (const e of found.edits) print(editText(e, setup));
  if (!values.json && found.edits.length === 0) print('Nothing was changed');
  return Number(found.edits.some((e) => !e.isTaken));
}

function editText({ operation: id, line, words, isTaken }: Edit, { operations }: Setup): string {
  const name = operations.find((o) => o.id === id)?.name ?? 'head and end';
  return `${isTaken ? 'taken' : 'left '} line ${line}, ${name}: ${words}`;
}

/** A program without a job: read and timed on the shop's first machine; there is no stock to cut. */
function readOnly(text: string, json: boolean | undefined): number {
  const [machine] = MACHINES;
  const { motions, findings, lines, tools } = readProgram(text, { homeZ: travelOf(machine.axes.z), unit: 'mm' });
  const minutes = clock(motions, clockSettings(machine)).total;
  if (json) printJson({ minutes: { total: minutes }, lines, motions: motions.count, tools, findings });
  else print(`time ${formatTime(minutes)} on ${machine.name}; without a job the program is read and timed, not cut`);
  return json ? Number(hasStop(findings)) : report(findings);
}

/** `prove PROGRAM.nc`: reads, cuts and judges any program. */
export function prove(args: string[]): number {
  const { positionals, values } = parse(args, {
    job: { type: 'string' },
    setup: { type: 'string' },
    cell: { type: 'string' },
    json: { type: 'boolean' },
  });
  const text = readText(positionals[0], 'a program');
  if (!values.job) return readOnly(text, values.json);
  const job = loadJob(values.job);
  if (!job) return 1;
  const setup = pickSetup(job, values.setup);
  const cell = numberOption(values.cell, 'cell', 0.01, 5);
  const { left, findings: before } = leftBefore(job, setup, cell);
  const proof = proveProgram(job, setup, text, cell, { left, own: ownText(job, setup) });
  proof.findings.unshift(...before);
  const figures = proofFigures(proof);
  if (values.json) {
    printJson(figures);
    return hasStop(proof.findings) ? 1 : 0;
  }
  print(
    `time ${formatTime(figures.minutes.total)} (cut ${formatTime(figures.minutes.cut)}, rapid ${formatTime(figures.minutes.rapid)}, tool changes ${formatTime(figures.minutes.toolChange)}, dwell ${formatTime(figures.minutes.dwell)})`,
  );
  print(
    `removed ${formatVolume(figures.removedCm3 * 1000, job.unit)} on a grid of ${formatThin(figures.cell, job.unit)}, ${formatThin(figures.finestCell, job.unit)} where it matters`,
  );
  print(
    `peaks: engaged ${figures.peakEngagementDegrees.toFixed(0)}°, spindle ${(figures.peakSpindleLoad * 100).toFixed(0)} %`,
  );
  return report(proof.findings);
}

function byId<T extends { id: string; name: string }>(list: T[], id: string | undefined, what: string): T {
  const found = list.find((item) => item.id === id);
  if (!found) throw new UsageError(`--${what} takes one of: ${list.map((i) => i.id).join(', ')}`);
  return found;
}

/** What a tool of a kind and a diameter is like where nothing else is said; as long as what is said of it needs. */
function toolDefaults(given: Record<string, unknown>) {
  const length = (key: string) => (typeof given[key] === 'number' ? (given[key] as number) : 0);
  const kind = oneOf(given.kind ?? 'flat', 'tool-file', TOOL_KINDS)!;
  const like = newTool(kind, length('diameter') || 10, TOOLS, HOLDERS);
  const least = Math.max(length('stickOut'), length('fluteLength')) + 30;
  return { ...like, overallLength: Math.max(like.overallLength, least) };
}

/** `suggest`: speed and feeds with the working. */
export function suggestCommand(args: string[]): number {
  const { values } = parse(args, {
    material: { type: 'string' },
    'material-file': { type: 'string' },
    tool: { type: 'string' },
    'tool-file': { type: 'string' },
    machine: { type: 'string' },
    'machine-file': { type: 'string' },
    purpose: { type: 'string' },
    grip: { type: 'string' },
    hardness: { type: 'string' },
    coolant: { type: 'string' },
    ae: { type: 'string' },
    ap: { type: 'string' },
    boldness: { type: 'string' },
    rpm: { type: 'string' },
    feed: { type: 'string' },
    json: { type: 'boolean' },
  });
  const purpose = oneOf(values.purpose, 'purpose', ['rough', 'finish'] as const);
  const grip = oneOf(values.grip, 'grip', GRIPS);
  const coolant = oneOf(values.coolant, 'coolant', COOLANTS);
  const atHand = numberOption(values.hardness, 'hardness', 5, 800);
  const toolFile = values['tool-file'];
  const tool = toolFile ? fromFile('tools', toolFile, toolDefaults) : byId(TOOLS, values.tool, 'tool');
  const listed = values['material-file']
    ? fromFile('materials', values['material-file'], () => MATERIALS[0])
    : byId(MATERIALS, values.material, 'material');
  const material = atHand ? { ...listed, atHand } : listed;
  const machine = values['machine-file']
    ? fromFile('machines', values['machine-file'], () => MACHINES[0])
    : byId(MACHINES, values.machine, 'machine');
  const start = suggestBite(tool, material, machine);
  const cut = {
    ae: numberOption(values.ae, 'ae', 0.001, 200) ?? start.ae,
    ap: numberOption(values.ap, 'ap', 0.001, 400) ?? start.ap,
  };
  const found = suggest({
    tool,
    material,
    machine,
    ...cut,
    boldness: numberOption(values.boldness, 'boldness', 0, 1),
    grip,
    coolant,
    leaves: purpose === 'rough' ? suggestFinish(tool).allowance : undefined,
    asked: { rpm: numberOption(values.rpm, 'rpm', 1, 200_000), feed: numberOption(values.feed, 'feed', 0.1, 200_000) },
  });
  if (values.json) {
    printJson({ ...cut, ...found });
    return 0;
  }
  print(`${tool.name} in ${material.name} on ${machine.name}, bite ${cut.ae} mm, layer ${cut.ap} mm`);
  const shown = (feed: number) => `${formatNumber(feed, 2)} mm/min`;
  print(`${formatNumber(found.rpm, 0)} rpm, ${shown(found.feed)}, entry ${shown(found.entryFeed)}`);
  print(found.limitText);
  for (const step of found.chain)
    print(
      `  ${step.governs ? '>' : ' '} ${step.label}: ${formatNumber(step.allows, 0)} ${step.on === 'rpm' ? 'rpm' : 'mm/min'}`,
    );
  for (const step of found.working) print(`  ${step.what}: ${step.formula} -> ${step.result}  (${step.source})`);
  return 0;
}

/** `import DRAWING.dxf`: what was recognised. */
export function importCommand(args: string[]): number {
  const { positionals, values } = parse(args, {
    unit: { type: 'string' },
    tolerance: { type: 'string' },
    bridge: { type: 'string' },
    json: { type: 'boolean' },
  });
  if (values.unit && values.unit !== 'mm' && values.unit !== 'inch') throw new UsageError('--unit takes mm or inch');
  const found = importDrawing(readText(positionals[0], 'a drawing'), {
    ...IMPORT_DEFAULTS,
    unit: (values.unit as LengthUnit | undefined) ?? 'mm',
    tolerance: numberOption(values.tolerance, 'tolerance', 1e-6, 10) ?? IMPORT_DEFAULTS.tolerance,
    bridge: numberOption(values.bridge, 'bridge', 0, 100) ?? 0,
    thickness: newJob('import', 'mm').part.thickness,
  });
  if (values.json) {
    printJson(found);
    return hasStop(found.findings) ? 1 : 0;
  }
  print(`unit ${found.unit ?? 'not named'}, ${found.features.length} chains, ${found.gaps.length} gaps`);
  for (const f of found.features) print(`  ${f.id} ${f.meaning.padEnd(8)} ${f.name} (layer ${f.layer})`);
  return report(found.findings);
}
