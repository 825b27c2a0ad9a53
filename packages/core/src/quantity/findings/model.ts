import { Spot, care, note, stop } from './words';

/** Findings of solids that are opened. */
export const MODEL = {
  'model-unreadable': stop('The file is no solid that can be read', 'Save it as STEP, STL, OBJ or 3MF'),
  'model-too-large': stop<{ most: number }>(
    (d) => `The file is larger than ${d.most} MB`,
    'Save it coarser, or its bodies one by one',
  ),
  'model-empty': stop('The file holds no body', 'Save a solid, not lines or sheets'),
  'model-unit': care<{ largest: number }>(
    (d, say) => `The file names no unit; taken as mm its largest side is ${say.mm(d.largest, 3)}`,
    'Say which unit it was drawn in',
  ),
  'model-bodies': note<{ count: number }>(
    (d) => `The file holds ${d.count} bodies`,
    'Choose the one that is to be made',
  ),
  'model-size': stop<{ most: number; from: number; to: number }>(
    (d, say) =>
      `The largest side is ${say.mm(d.most, 3)}: parts of ${say.mm(d.from, 1)} to ${say.mm(d.to, 0)} can be worked on`,
    'Check the unit, or the file',
  ),
  'model-no-volume': stop('The surface encloses nothing: it is a sheet, no solid', 'Save a closed body'),
  'model-open': care<{ edges: number; near: Spot }>(
    (d, say) => `The surface is open along ${d.edges} edges, one at ${say.at(d.near, 2)}`,
    'Features are found as far as the surface goes; mend the model before you trust its volume',
  ),
  'model-crowded': care<{ edges: number; near: Spot }>(
    (d, say) => `More than two faces meet along ${d.edges} edges, one at ${say.at(d.near, 2)}`,
    'Look at the model there: bodies touch or overlap',
  ),
  'model-inside-out': note('The faces of the model looked inwards; they were turned round', 'Nothing needs to be done'),
  'model-flat-triangles': note<{ count: number }>(
    (d) => `${d.count} triangles without any area were left out`,
    'Nothing needs to be done',
  ),
  'solid-surface': stop<{ name: string }>(
    (d) => `The file “${d.name}” holds no surface of a solid`,
    'Open the solid again',
  ),
  'step-unreadable': stop(
    'The STEP file is broken, or holds no body',
    'Save it again as AP214 or AP242 with solids in it',
  ),
  'step-cut-short': stop(
    'The STEP file ends in the middle',
    'Save or fetch the file once more; nothing of it was taken in',
  ),
  'step-no-reader': stop('STEP files cannot be read here', 'Open it in the application, or save the solid as STL'),
  'obj-line': stop<{ line: number; said: string }>(
    (d) => `Line ${d.line} cannot be read: “${d.said}”`,
    'Save the model again; nothing of it was taken in',
  ),
  'model-package-unreadable': stop<{ why: string }>(
    (d) => `The 3MF file cannot be read: ${d.why}`,
    'Save the model again; nothing of it was taken in',
  ),
  'mesh-not-a-number': stop('A corner of the model is no number', 'Save the model again; nothing of it was taken in'),
};
