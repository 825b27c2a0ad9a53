import { Machine } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { Motions } from '../path/motions';
import { FixtureBox } from '../geometry/space/box';
import { Piece } from '../stock/height/height-stock';
import { StockModel } from '../stock/height/stock';

/** Everything a proof is made from. */
export interface ProveInput {
  motions: Motions;
  /** Tools by number. */
  tools: Map<number, Tool>;
  machine: Machine;
  material: Material;
  stock: StockModel;
  /** What an earlier setup left, in the place of a fresh piece. */
  left?: Piece;
  /** Work zero in part coordinates. */
  zero: { x: number; y: number; z: number };
  fixtures: FixtureBox[];
  /** Where the work is gripped anew: from which motion on, and what holds it then. */
  grips?: { from: number; fixtures: FixtureBox[] }[];
  /** The middle of the table, part coordinates; under the middle of the stock where left out. */
  table?: { x: number; y: number };
  /** Height of the work zero above the table, mm. */
  zeroAboveTable: number;
  /** Height of the tip with the spindle at home, over the work zero, mm; there it may always go. */
  homeZ?: number;
  cell?: number;
}
