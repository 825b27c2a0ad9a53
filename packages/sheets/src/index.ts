/** Sheets for the shop: one content, drawn on paper, as a page of its own, or on a screen. PDF stands apart, in `pens/pdf`. */
export { htmlOf } from './html';
export { type Paper, PAPERS } from './pages';
export { firstPieceSheet, setupSheet, type ToPrint } from './setup-sheet';
