import { Path } from '../path/path';
import { Tool } from '../shop/tool';

/** An operation that has run before: its tool and where its tip went. */
export interface Earlier {
  tool: Tool;
  path: Path;
  /** Whether it ran from the other side, before the work was turned over: its tip points up. */
  below?: boolean;
}

/** How far a tip went past a height, mm: below it, or above it where it came from the other side. */
export const pastBy = ({ below }: Pick<Earlier, 'below'>, tip: number, z: number): number =>
  below ? tip - z : z - tip;
