/** What the apps, the command line and the tests may use of this floor. */
export { Bar } from './bar';
export { freePocket, pocketFinding } from './check';
export { Controller, CYCLES } from './controller';
export { CONTROLLERS } from './controllers';
export { freshToolId, newTool, type Preview, previewTools, toolsToCsv, toolsToJson } from './exchange';
export { guessTool } from './guess';
export { Holder, holderLength, holderWidth, segmentStarts } from './holder';
export { BARS } from './library/bars';
export { HOLDERS } from './library/holders';
export { MACHINES } from './library/machines';
export { HANDBOOK, MATERIALS } from './library/materials';
export { originOf, SHOP_VALUE, startOf } from './library/origin';
export { TOOLS } from './library/tools';
export { Material, Range } from './material';
export { type Person, PersonEntry, PIN, type Role, ROLES } from './person';
export { Recipe } from './recipe';
export { type Kept, readItem, SHELF_NAMES, type ShelfName, SHELVES, type ShopItems } from './shelves';
export {
  cutsFloors,
  cutsWalls,
  flankAngle,
  type Form,
  formOf,
  isAxial,
  isBeam,
  kindLabel,
  makesHoles,
  OwnData,
  plunges,
  profileOutline,
  startsHoles,
  Tool,
  TOOL_KINDS,
  type ToolKind,
  TRADES,
} from './tool';
