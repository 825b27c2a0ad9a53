/** Sheets for the shop: one content, drawn on paper, as a page of its own, or on a screen. PDF stands apart, in `pens/pdf`. */
export { htmlOf } from './html';
export { type Paper, PAPERS } from './pages';
export { heldPicture } from './pictures/held';
export { pathData } from './pens/svg';
export { type Grey, type Mark, type Scene, WEIGHTS, type Weight } from './scene';
export { firstPieceSheet, setupSheet, type ToPrint } from './setup-sheet';
