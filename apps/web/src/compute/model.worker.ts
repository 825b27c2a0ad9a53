/** Reads one file of a solid beside the page; ended with it, as a broken file may spoil the reader for the next. */
import 'reflect-metadata';
import {
  Sculpting,
  FACE_UPS,
  FINE,
  GLIMPSE,
  Faces,
  Model,
  StepReader,
  facesOfSolid,
  laidSolid,
  readModel,
  sha256Of,
  solidEdges,
  stepOptions,
  surfaceFile,
  takenSolid,
  waysUp,
} from '@tidypath/core';
import type { SculptedAnswer, ModelAnswer, ModelAsk, Picture } from './model-messages';

const scope = globalThis as unknown as {
  postMessage(m: ModelAnswer | SculptedAnswer, given?: Transferable[]): void;
  onmessage: ((e: MessageEvent<ModelAsk>) => void) | null;
};

let file: Uint8Array | undefined;
let model: Model | undefined;
const known = new Map<number, Faces>();

/** STEP files begin with their standard’s number. */
const isStep = (bytes: Uint8Array) => /^\s*ISO-10303-21/.test(new TextDecoder('latin1').decode(bytes.subarray(0, 200)));

type StepRead = ReturnType<StepReader['ReadStepFile']>;

/** Nobody waits longer for a STEP file, ms. */
const PATIENCE = 180_000;

/**
 * Reads a STEP file in a worker of its own, which ends with it; without an answer in time it counts as broken.
 * @param glimpsed hears of it as soon as there is something to see
 */
function readStepApart(bytes: Uint8Array, origin: string, glimpsed: (found: StepRead) => void): Promise<StepReader> {
  return new Promise((resolve) => {
    const worker = new Worker(`${origin}/step/reader.js`);
    const ways = [GLIMPSE, stepOptions(FINE)];
    let found = 0;
    const end = (found: StepRead) => {
      clearTimeout(patience);
      worker.terminate();
      resolve({ ReadStepFile: () => found });
    };
    const patience = setTimeout(() => end({ success: false, meshes: [] }), PATIENCE);
    worker.onmessage = ({ data }: MessageEvent<StepRead>) => {
      found++;
      if (found === ways.length || !data.success) end(data);
      else glimpsed(data);
    };
    worker.onerror = () => end({ success: false, meshes: [] });
    worker.postMessage({ bytes, ways });
  });
}

/** What the sculptor makes: nothing where it cannot. */
interface SculptedMesh {
  points?: Float32Array;
  corners?: Uint32Array;
  features?: (string | undefined)[];
  failed?: string;
}

/** Sculpts a plate in a worker of its own. */
function sculptedApart(sculpting: Sculpting, origin: string): Promise<SculptedMesh> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(`${origin}/sculpt/sculptor.js`, { type: 'module' });
    const end = (made: SculptedMesh) => {
      worker.terminate();
      resolve(made);
    };
    worker.onmessage = ({ data }: MessageEvent<SculptedMesh>) => end(data);
    worker.onerror = () => reject(new Error('The sculptor does not start'));
    worker.postMessage(sculpting);
  });
}

async function sculpt({ sculpting, origin }: Extract<ModelAsk, { type: 'sculpt' }>): Promise<void> {
  const { points, corners, features = [], failed } = await sculptedApart(sculpting, origin);
  if (!points || !corners) throw new Error(failed ?? 'Its features leave nothing to look at');
  const faces = facesOfSolid({ points: Float64Array.from(points), corners });
  const surface = surfaceFile({ ...faces.mesh, face: faces.of });
  const made = faces.faces.map(({ triangles }) => features[triangles[0]]);
  scope.postMessage({ type: 'sculpted', surface, made }, [surface.buffer as ArrayBuffer]);
}

function facesOf(body: number): Faces {
  const faces = known.get(body) ?? facesOfSolid(model!.bodies[body].mesh);
  known.set(body, faces);
  return faces;
}

/** More lines than this make no small picture clearer. */
const MOST_LINES = 30_000;

/** The solid from a corner above with one side up. */
function pictureOf(faces: Faces, side: keyof typeof FACE_UPS): Picture {
  const { mesh } = laidSolid(faces, side);
  const lines = solidEdges(mesh, { x: -0.5, y: -0.8, z: 0.7 });
  const step = 6 * Math.max(1, Math.ceil(lines.length / 6 / MOST_LINES));
  // Turned so that the front left corner looks at who sees it.
  const u = (k: number) => 0.85 * lines[k] + 0.53 * -lines[k + 1];
  const v = (k: number) => -(0.3 * lines[k] + 0.48 * lines[k + 1] + 0.82 * lines[k + 2]);
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  const parts: string[] = [];
  for (let k = 0; k < lines.length; k += step) {
    const [a, b, c, d] = [u(k), v(k), u(k + 3), v(k + 3)];
    [minX, maxX] = [Math.min(minX, a, c), Math.max(maxX, a, c)];
    [minY, maxY] = [Math.min(minY, b, d), Math.max(maxY, b, d)];
    parts.push(`M${a.toFixed(2)} ${b.toFixed(2)}L${c.toFixed(2)} ${d.toFixed(2)}`);
  }
  const room = 0.03 * Math.max(maxX - minX, maxY - minY, 1);
  const box = [minX - room, minY - room, maxX - minX + 2 * room, maxY - minY + 2 * room];
  return { path: parts.join(''), viewBox: box.map((n) => n.toFixed(2)).join(' ') };
}

/** A coarse look at the first body of a file, while it is read finely; what is too coarse to see waits for that. */
function glimpse(bytes: Uint8Array, found: StepRead): void {
  try {
    const { bodies } = readModel(bytes, { step: { ReadStepFile: () => found } });
    if (bodies.length === 0) return;
    const picture = pictureOf(facesOfSolid(bodies[0].mesh), 'top');
    scope.postMessage({ type: 'glimpsed', glimpse: { picture, size: bodies[0].size, bodies: bodies.length } });
  } catch {
    return;
  }
}

async function read({ bytes, unit, origin }: Extract<ModelAsk, { type: 'read' }>): Promise<void> {
  const step = isStep(bytes) ? await readStepApart(bytes, origin, (found) => glimpse(bytes, found)) : undefined;
  known.clear();
  file = bytes;
  model = readModel(bytes, { unit, step });
  const { form, bodies, findings } = model;
  const seen = bodies.map(({ name, size, volume, findings: its }) => ({ name, size, volume, findings: its }));
  scope.postMessage({ type: 'read', model: { form, unit: model.unit, bodies: seen, findings } });
}

function answer(ask: ModelAsk): void | Promise<void> {
  if (ask.type === 'read') return read(ask);
  if (ask.type === 'sculpt') return sculpt(ask);
  if (ask.type === 'look') {
    const faces = facesOf(ask.body);
    const ways = waysUp(faces).map((way) => ({ ...way, picture: pictureOf(faces, way.side) }));
    return scope.postMessage({ type: 'looked', looked: { body: ask.body, faces: faces.faces.length, ways } });
  }
  const { taken, name } = ask;
  const { part, surface } = takenSolid(facesOf(taken.body), taken, { name, sha256: sha256Of(file!) }, (share) =>
    scope.postMessage({ type: 'share', share }),
  );
  scope.postMessage({ type: 'taken', part, surface }, [surface.buffer as ArrayBuffer]);
}

scope.onmessage = async ({ data }) => {
  try {
    await answer(data);
  } catch (error) {
    scope.postMessage({ type: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
};
