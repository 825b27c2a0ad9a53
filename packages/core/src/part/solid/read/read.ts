/** The door for files of solids: whatever form they have, checked, with what speaks against them. */
import {
  CROWDED,
  Joined,
  OPEN,
  Triangles,
  bodiesOf,
  boxRound,
  countOf,
  edgesAgainst,
  pickedTriangles,
  turnedInsideOut,
  volumeOf,
} from '../../../geometry/space/triangles';
import { LARGEST_FILE } from '../../../quantity/files';
import { Finding, finding } from '../../../quantity/finding';
import { MM_IN, ModelForm, ModelUnit, ReadBody, ReadModel } from './model';
import { isObj, readObj } from './obj';
import { read3mf } from './package-3mf';
import { Chords, FINE, StepReader, isStep, readStep } from './step';
import { isBinaryStl, isTextStl, readBinaryStl, readTextStl } from './stl';
import { surfaceIn } from './surface';

/** A body that can be taken as the part. */
export interface ModelBody {
  name: string;
  mesh: Triangles;
  /** Along X, Y and Z, mm. */
  size: [number, number, number];
  /** mm³; 0 where it is open. */
  volume: number;
  findings: Finding[];
}

export interface Model {
  form: ModelForm;
  /** The unit the file names. */
  unit?: ModelUnit;
  /** Largest first. */
  bodies: ModelBody[];
  findings: Finding[];
}

export interface HowToRead {
  /** The unit to take where the file names none. */
  unit?: ModelUnit;
  /** A reader of STEP files made for this one file. */
  step?: StepReader;
  chords?: Chords;
}

/** Sides within which a part is believed, mm. */
const SMALLEST = 0.5;
const LARGEST = 4000;
/** Outside this a unit is asked for, mm. */
const UNLIKELY = { below: 2, above: 2000 };
/** Bodies that are told one by one. */
const MOST_BODIES = 200;

function readAny(file: Uint8Array, how: HowToRead): ReadModel {
  const nothing = (form: ModelForm, found: Finding): ReadModel => ({ form, bodies: [], findings: [found] });
  const head = new TextDecoder('latin1').decode(file.subarray(0, 4000));
  // It is kept beside the job.
  if (file.length > LARGEST_FILE) return nothing('surface', finding('model-too-large', { most: LARGEST_FILE / 1e6 }));
  if (isStep(head)) {
    if (!how.step) return nothing('STEP', finding('step-no-reader', {}));
    return readStep(file, how.step, how.chords ?? FINE);
  }
  if (head.startsWith('PK')) return read3mf(file);
  if (head.startsWith('ply')) {
    const mesh = surfaceIn(file);
    const whole: ReadModel = { form: 'surface', bodies: [], unit: 'mm', findings: [] };
    return mesh
      ? { ...whole, bodies: [{ name: '', mesh: { ...mesh, flat: 0 } }] }
      : { ...whole, findings: [finding('model-unreadable', {})] };
  }
  if (isBinaryStl(file)) return readBinaryStl(file);
  const isText = !head.includes('\0');
  if (isText && isTextStl(head)) return readTextStl(new TextDecoder('latin1').decode(file));
  if (isText && isObj(head)) return readObj(new TextDecoder('latin1').decode(file));
  return nothing('surface', finding('model-unreadable', {}));
}

/** A read body apart into those that hang together, where it is several. */
function apart({ name, mesh }: ReadBody): ReadBody[] {
  const { body, count } = bodiesOf(edgesAgainst(mesh));
  if (count <= 1 || count > MOST_BODIES) return [{ name, mesh }];
  return Array.from({ length: count }, (_, b) => ({
    name,
    mesh: { ...pickedTriangles(mesh, (t) => body[t] === b), flat: 0 } as Joined,
  }));
}

/** A hollow is a body that looks inwards within another: it belongs to the one round it. */
function withHollows(pieces: ReadBody[]): ReadBody[] {
  if (pieces.length === 1) return pieces;
  const looked = pieces.map((p) => ({ ...p, volume: volumeOf(p.mesh), box: boxRound(p.mesh) }));
  const within = (a: (typeof looked)[number], b: (typeof looked)[number]) =>
    a !== b &&
    (['x', 'y', 'z'] as const).every((k) => a.box.min[k] >= b.box.min[k] - 1e-6 && a.box.max[k] <= b.box.max[k] + 1e-6);
  const host = (p: (typeof looked)[number]) =>
    p.volume < 0 ? looked.find((q) => q.volume > -p.volume && within(p, q)) : undefined;
  return looked
    .filter((p) => !host(p))
    .map(({ name, mesh }) => {
      const hollows = looked.filter((p) => host(p)?.mesh === mesh);
      return { name, mesh: hollows.reduce((all, h) => together(all, h.mesh), mesh) };
    });
}

function together(a: Joined, b: Joined): Joined {
  const first = a.points.length / 3;
  const points = new Float64Array(a.points.length + b.points.length);
  points.set(a.points);
  points.set(b.points, a.points.length);
  const corners = new Uint32Array(a.corners.length + b.corners.length);
  corners.set(a.corners);
  corners.set(
    b.corners.map((c) => c + first),
    a.corners.length,
  );
  const face = a.face && b.face && Int32Array.from([...a.face, ...b.face]);
  return { points, corners, flat: a.flat + b.flat, ...(face && { face }) };
}

/** Looks a body over: where it is open, inside out, or not solid at all. */
function lookedOver({ name, mesh: { flat, ...mesh } }: ReadBody): ModelBody {
  const findings: Finding[] = [];
  const against = edgesAgainst(mesh);
  const place = (e: number) => {
    const p = 3 * mesh.corners[e];
    return { x: mesh.points[p], y: mesh.points[p + 1], z: mesh.points[p + 2] };
  };
  const open = against.reduce((n, a) => n + (a === OPEN ? 1 : 0), 0);
  const crowded = against.reduce((n, a) => n + (a === CROWDED ? 1 : 0), 0);
  if (open > 0) findings.push(finding('model-open', { edges: open, near: place(against.indexOf(OPEN)) }));
  if (crowded > 0) findings.push(finding('model-crowded', { edges: crowded, near: place(against.indexOf(CROWDED)) }));
  // Where the file knows its faces they are the reader’s own slivers.
  if (flat > 0 && !mesh.face) findings.push(finding('model-flat-triangles', { count: flat }));
  const volume = volumeOf(mesh);
  const isInsideOut = volume < 0;
  if (isInsideOut) findings.push(finding('model-inside-out', {}));
  const { min, max } = boxRound(mesh);
  const size: ModelBody['size'] = [max.x - min.x, max.y - min.y, max.z - min.z];
  const [least, , most] = [...size].sort((a, b) => a - b);
  if (!(least > 1e-3) || Math.abs(volume) < 1e-3 * least * least * least) findings.push(finding('model-no-volume', {}));
  else if (most < SMALLEST || most > LARGEST)
    findings.push(finding('model-size', { most, from: SMALLEST, to: LARGEST }));
  return {
    name,
    mesh: isInsideOut ? turnedInsideOut(mesh) : mesh,
    size,
    volume: open ? 0 : Math.abs(volume),
    findings,
  };
}

const scaled = (mesh: Joined, by: number): Joined =>
  by === 1 ? mesh : { ...mesh, points: mesh.points.map((v) => v * by) };

/**
 * Reads a solid: STEP, STL, OBJ, 3MF, or the form they are kept in.
 * Findings: those of each form, `model-unreadable`, `model-too-large`, `model-empty`, `model-unit`; those of each body stand with it.
 */
export function readModel(file: Uint8Array, how: HowToRead = {}): Model {
  const read = readAny(file, how);
  const by = read.unit ? 1 : MM_IN[how.unit ?? 'mm'];
  const numbers = read.bodies.every((b) => b.mesh.points.every(Number.isFinite));
  if (!numbers) return { ...read, bodies: [], findings: [finding('mesh-not-a-number', {})] };
  const solid = read.bodies.filter((b) => countOf(b.mesh) > 0);
  const bodies = solid
    .map((b) => ({ ...b, mesh: scaled(b.mesh, by) }))
    .flatMap((b) => withHollows(apart(b)))
    .map(lookedOver)
    .sort((a, b) => sizeOf(b) - sizeOf(a));
  const findings = [...read.findings];
  if (findings.length === 0 && bodies.length === 0) findings.push(finding('model-empty', {}));
  const largest = Math.max(0, ...bodies.flatMap((b) => b.size));
  if (bodies.length > 0 && !read.unit && !how.unit && (largest < UNLIKELY.below || largest > UNLIKELY.above))
    findings.push(finding('model-unit', { largest }));
  if (bodies.length > 1) findings.push(finding('model-bodies', { count: bodies.length }));
  return { form: read.form, unit: read.unit, bodies, findings };
}

const sizeOf = ({ size, volume }: ModelBody) => volume || size[0] * size[1] * size[2] * 1e-3;
