/** What the apps, the command line and the tests may use of this floor. */
export { cellFor, NOTHING } from './height/field';
export type { Piece } from './height/height-stock';
export type { WrongKind } from './height/judged';
export { readStl } from './height/mesh';
export { worstPlaces, type WrongPlace } from './height/places';
export { type CrossSection, type Probe, probeAt } from './height/probe';
export { stockField, type StockModel } from './height/stock';
export { type Allowed, deviation } from './height/wanted';
