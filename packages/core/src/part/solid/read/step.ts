import { joinedTriangles } from '../../../geometry/space/triangles';
import { finding } from '../../../quantity/finding';
import { MOST_TRIANGLES, ReadBody, ReadModel } from './model';

/** How a STEP file is made a mesh. */
export interface StepOptions {
  linearUnit: 'millimeter';
  linearDeflectionType: 'absolute_value' | 'bounding_box_ratio';
  linearDeflection: number;
  angularDeflection: number;
}

/** What is asked of the reader of STEP files, which stands outside the core. */
export interface StepReader {
  ReadStepFile(
    file: Uint8Array,
    how: StepOptions,
  ): {
    success: boolean;
    meshes: {
      name: string;
      attributes: { position: { array: number[] } };
      index: { array: number[] };
      brep_faces: { first: number; last: number }[];
    }[];
  };
}

/** How far chords may lie from the true surface, mm, and how far they may turn, rad. */
export interface Chords {
  within: number;
  turning: number;
}

/** Fine enough to work from: a foot of 1 mm is within 3 µm of its chords. */
export const FINE: Chords = { within: 0.005, turning: 0.15 };

/** What a reader of STEP files is told. */
export const stepOptions = ({ within, turning }: Chords): StepOptions => ({
  linearUnit: 'millimeter',
  linearDeflectionType: 'absolute_value',
  linearDeflection: within,
  angularDeflection: turning,
});

/** Enough to see what it is, in a fifth of the time: chords within a hundredth of its size. */
export const GLIMPSE: StepOptions = {
  linearUnit: 'millimeter',
  linearDeflectionType: 'bounding_box_ratio',
  linearDeflection: 0.01,
  angularDeflection: 0.6,
};

export const isStep = (head: string): boolean => /^\s*ISO-10303-21\b/.test(head);

/** The face each triangle of a body belongs to. */
function facesOf(ranges: { first: number; last: number }[], count: number): Int32Array {
  const face = new Int32Array(count).fill(-1);
  ranges.forEach(({ first, last }, i) => face.fill(i, first, last + 1));
  return face;
}

/**
 * Reads STEP through a reader made for this one file: after a broken one it is not to be trusted again. Faces keep their numbers.
 * Findings: `step-unreadable`, `step-cut-short`, `mesh-large`.
 */
export function readStep(file: Uint8Array, reader: StepReader, chords: Chords): ReadModel {
  const empty: ReadModel = { form: 'STEP', bodies: [], findings: [] };
  const tail = new TextDecoder('latin1').decode(file.subarray(-2000));
  if (!/END-ISO-10303-21\s*;/.test(tail)) return { ...empty, findings: [finding('step-cut-short', {})] };
  let found: ReturnType<StepReader['ReadStepFile']> | undefined;
  try {
    found = reader.ReadStepFile(file, stepOptions(chords));
  } catch {
    found = undefined;
  }
  if (!found?.success || found.meshes.length === 0) return { ...empty, findings: [finding('step-unreadable', {})] };
  const count = found.meshes.reduce((sum, m) => sum + m.index.array.length / 3, 0);
  if (count > MOST_TRIANGLES) return { ...empty, findings: [finding('mesh-large', { most: MOST_TRIANGLES })] };
  const bodies = found.meshes.map(({ name, attributes, index, brep_faces }): ReadBody => {
    const face = facesOf(brep_faces, index.array.length / 3);
    return { name, mesh: joinedTriangles(attributes.position.array, index.array, (t) => face[t]) };
  });
  return { ...empty, bodies, unit: 'mm' };
}
