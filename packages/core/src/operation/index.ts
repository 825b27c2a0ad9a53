/** What the apps, the command line and the tests may use of this floor. */
export { ContourParams } from './milling/contour/params';
export { moveTab, tabShares } from './milling/tabs';
export type { OperationKind, Waiting } from './operation';
export { byHand, handOf, isByHand } from './hand/by-hand';
export { plungeFeedOf } from './entry';
export { APPROACH } from './heights';
export { kindOf, KINDS } from './registry';
