/** What the apps, the command line and the tests may use of this floor. */
export { IMPORT_DEFAULTS, importDrawing, type Imported, type ImportOptions } from './drawing/drawing';
export {
  endsAt,
  Feature,
  isBeside,
  type LeftFace,
  type Limited,
  type Meaning,
  MEANINGS,
  type Part,
  Pattern,
  type Shape,
  SHAPES,
  sideOf,
  SINGLE,
  type Solid,
  type Taken,
} from './plate/feature';
export { Lean, leanText, leaningEdges, leaningFaces, LEANS } from './plate/leaning';
export { limitsOf } from './plate/limits';
export { modelOf, partModel, type PartModel } from './plate/model';
export { sculptingOf, type Sculpting } from './plate/sculpted';
export { newFeature } from './plate/new';
export { landed, onZero, type Opposite, OPPOSITES, oppositeOf } from './plate/landing';
export { svgPath, type Thumbnail, thumbnailOf } from './plate/outline-path';
export { trimmedPart } from './plate/notch';
export { MIRRORS, placements } from './plate/placed';
export { ONCE, Repeat, placesOf, repeated } from './plate/repeat';
export { instancesOf } from './plate/shapes';
export { bodyAs, facesOf, middleOn, partFindings, seenFrom } from './plate/side';
export { type Tight, tightestOf } from './plate/tight';
export { FACES, type Face, FACE_UPS, type Up, faceOf } from './plate/turn';
export { type Change, revised } from './plate/revised';
export { changeText } from './plate/revised-words';
export { facesAgain } from './solid/again';
export { joinedFeature, splitFeature } from './solid/corrected';
export { TOLD, type Told, toldFeature } from './solid/told';
export { between, type FaceFacts, factsOf } from './solid/facts';
export { type Faces, facesOfSolid } from './solid/faces/faces';
export { solidEdges } from './solid/lines';
export { MODEL_UNITS, type ModelForm, type ModelUnit } from './solid/read/model';
export { type HowToRead, type Model, type ModelBody, readModel } from './solid/read/read';
export { FINE, GLIMPSE, stepOptions, type StepReader } from './solid/read/step';
export { surfaceFile, surfaceIn } from './solid/read/surface';
export { LEFT_WORDS, leftOf } from './solid/left';
export { type Understood, type WayUp, waysUp } from './solid/sides';
export { laidSolid, takenSolid, type TakenSolid } from './solid/take';
