/** Commands about solids. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import {
  FACES,
  FACE_UPS,
  Face,
  Feature,
  Finding,
  Job,
  MACHINES,
  MATERIALS,
  MODEL_UNITS,
  ModelUnit,
  Solid,
  StepReader,
  TakenSolid,
  facesOfSolid,
  formatNumber,
  hasStop,
  LEFT_WORDS,
  chainBounds,
  endsAt,
  instancesOf,
  isBeside,
  jobText,
  newJob,
  packJob,
  planPart,
  putAtHand,
  readModel,
  seenFrom,
  splitFeature,
  sha256Of,
  takenSolid,
  waysUp,
} from '@tidypath/core';
import { UsageError, numberOption, oneOf, parse, readBytes, report, print } from './files';

/** A reader of STEP files, made for one file. */
async function stepReader(): Promise<StepReader> {
  const { default: start } = await import('occt-import-js');
  return start({ print: () => undefined, printErr: () => undefined });
}

const isStep = (file: Uint8Array) => /^\s*ISO-10303-21/.test(Buffer.from(file.subarray(0, 200)).toString('latin1'));

interface Asked {
  unit?: string;
  body?: string;
  up?: string;
}

/** A solid from a file; undefined, with what speaks against it, where it is none. */
async function solidFrom(
  path: string | undefined,
  { unit, body, up }: Asked,
): Promise<{ taken?: TakenSolid; bytes: Uint8Array; findings: Finding[] }> {
  const bytes = new Uint8Array(readBytes(path, 'a model'));
  const asked = oneOf(unit, 'unit', MODEL_UNITS);
  const side = oneOf(up, 'up', FACES);
  const model = readModel(bytes, { unit: asked, step: isStep(bytes) ? await stepReader() : undefined });
  const which = numberOption(body, 'body', 1, Math.max(1, model.bodies.length)) ?? 1;
  const found = model.bodies[which - 1];
  const findings = [...model.findings, ...(found?.findings ?? [])];
  if (!found || hasStop(findings)) return { bytes, findings };
  const faces = facesOfSolid(found.mesh);
  const units: ModelUnit = model.unit ?? asked ?? 'mm';
  const taken = takenSolid(
    faces,
    { body: which - 1, unit: units, up: side ?? waysUp(faces)[0].side },
    { name: basename(path!).slice(0, 120), sha256: sha256Of(bytes) },
  );
  putAtHand(taken.surface);
  return { taken, bytes, findings };
}

const rounded = (v: number) => Number(v.toFixed(6));
const middle = (a: number, b: number) => rounded((a + b) / 2);

/** One place of a feature as a script reads it: mm, the front left corner of the box round the part as it lies at X 0 Y 0, its top at Z 0. */
function listed(feature: Feature, name: string, thickness: number) {
  const { meaning, shape, through, from, counterbore, edge, foot, taper, lean, side, faces = [] } = feature;
  const floor = endsAt(feature, isBeside(feature) ? feature.depth : thickness);
  const [chain] = instancesOf(feature);
  const b = chainBounds(chain);
  const sizes =
    shape.type === 'round'
      ? { diameter: shape.diameter }
      : shape.type === 'rectangle'
        ? { sizes: [shape.width, shape.height], corner: shape.radius }
        : shape.type === 'slot'
          ? { sizes: [shape.length, shape.width] }
          : { sizes: [rounded(b.maxX - b.minX), rounded(b.maxY - b.minY)] };
  const at = { x: middle(b.minX, b.maxX), y: middle(b.minY, b.maxY) };
  const wall = { ...(edge && { edge }), ...(foot && { foot }), ...(taper && { taper }), ...(lean && { lean }) };
  const more = { ...(counterbore && { counterbore }), ...wall, side: side ?? 'top' };
  return {
    kind: meaning,
    name,
    ...at,
    z: -floor,
    ...(from && { from }),
    depth: floor,
    through,
    ...sizes,
    ...more,
    faces,
  };
}

/** From where to where a feature goes down. */
const deepText = ({ from, depth }: { from?: number; depth: number }) =>
  from ? `${from} to ${depth} down` : `${depth} deep`;

/** The features a solid shows with one side up, or all of them. */
function featuresOf({ part, found }: TakenSolid, asked: Face | undefined) {
  const { features } = asked ? seenFrom(part, FACE_UPS.top) : part;
  const places = features.flatMap((f) => splitFeature(part, f).map((place) => listed(place, f.name, part.thickness)));
  return { thickness: part.thickness, features: places, left: found.left };
}

/** `features MODEL`: what was understood of a solid. */
export async function features(args: string[]): Promise<number> {
  const { positionals, values } = parse(args, {
    up: { type: 'string' },
    unit: { type: 'string' },
    body: { type: 'string' },
    json: { type: 'boolean' },
  });
  const { taken, findings } = await solidFrom(positionals[0], values as Asked);
  if (!taken) {
    if (values.json) print(JSON.stringify({ features: [], findings }, null, 2));
    return values.json ? 1 : report(findings) || 1;
  }
  const found = featuresOf(taken, oneOf(values.up, 'up', FACES));
  if (values.json) {
    print(JSON.stringify({ up: taken.part.taken.up, ...found, findings }, null, 2));
    return 0;
  }
  print(`${taken.part.taken.up} up, ${formatNumber(found.thickness, 3)} mm thick, ${found.features.length} features`);
  for (const f of found.features)
    print(`  ${f.kind.padEnd(8)} ${f.name} at X ${f.x} Y ${f.y}, ${deepText(f)}, from the ${f.side}`);
  for (const l of found.left)
    print(`  no feature makes face ${l.face}: ${LEFT_WORDS[l.why].is}, ${formatNumber(l.area, 1)} mm²`);
  return report(findings);
}

/** A job with its files: in one ZIP, or as plain JSON with the folder `files` beside it. */
function save(path: string, job: Job, files: Uint8Array[]): void {
  if (/\.zip$/i.test(path)) return writeFileSync(path, packJob(job));
  const folder = join(dirname(path), 'files');
  mkdirSync(folder, { recursive: true });
  for (const bytes of files) writeFileSync(join(folder, sha256Of(bytes)), bytes);
  writeFileSync(path, jobText(job));
}

const byId = <T extends { id: string }>(id: unknown, items: T[], name: string): T => {
  const found = items.find((i) => i.id === id);
  if (!found) throw new UsageError(`--${name} takes one of: ${items.map((i) => i.id).join(', ')}`);
  return found;
};

/** `plan MODEL`: a whole job for a solid. */
export async function plan(args: string[]): Promise<number> {
  const { positionals, values } = parse(args, {
    material: { type: 'string' },
    machine: { type: 'string' },
    batch: { type: 'string' },
    up: { type: 'string' },
    unit: { type: 'string' },
    body: { type: 'string' },
    out: { type: 'string' },
  });
  if (!values.out) throw new UsageError('Name the file to write with --out');
  const material = byId(values.material, MATERIALS, 'material');
  const machine = byId(values.machine, MACHINES, 'machine');
  const batch = numberOption(values.batch, 'batch', 1, 1_000_000);
  const { taken, bytes, findings } = await solidFrom(positionals[0], values as Asked);
  if (!taken) return report(findings) || 1;
  putAtHand(bytes);
  const part: Solid = taken.part;
  const name = basename(positionals[0]).replace(/\.[^.]*$/, '');
  const empty = {
    ...newJob(name, 'mm'),
    material,
    machine,
    controllerId: machine.controllerId,
    part,
    ...(batch && { batch: Math.round(batch) }),
  };
  const work = planPart(empty);
  let step = work.next();
  while (!step.done) step = work.next();
  const { job, sentences, missing } = step.value;
  save(values.out, job, [taken.surface, bytes]);
  sentences.forEach((s) => print(s));
  missing.forEach((m) => print(`not done: ${m.feature}: ${m.why}`));
  return report(findings);
}
