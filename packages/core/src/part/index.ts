/** What the apps, the command line and the tests may use of this floor. */
export { IMPORT_DEFAULTS, importDrawing, type Imported, type ImportOptions } from './drawing/drawing';
export {
  Feature,
  isBeside,
  type Limited,
  type Meaning,
  MEANINGS,
  type Part,
  Pattern,
  type Shape,
  SHAPES,
  sideOf,
  SINGLE,
} from './plate/feature';
export { Lean, leaningEdges, leaningFaces, LEANS } from './plate/leaning';
export { limitsOf } from './plate/limits';
export { modelOf, partModel, type PartModel } from './plate/model';
export { newFeature } from './plate/new';
export { landed, onZero, type Opposite, OPPOSITES, oppositeOf } from './plate/landing';
export { svgPath, type Thumbnail, thumbnailOf } from './plate/outline-path';
export { trimmedPart } from './plate/notch';
export { MIRRORS, ONCE, Repeat, placesOf, repeated } from './plate/repeat';
export { instancesOf } from './plate/shapes';
export { bodyAs, facesOf, middleOn, partFindings, seenFrom } from './plate/side';
export { FACES, type Face, FACE_UPS, type Up, faceOf } from './plate/turn';
