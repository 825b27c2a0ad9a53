/** How long the edges of a tool really last in a material: from those that were changed. */
import { maths } from '../quantity/maths';

/** An edge that was changed. */
export interface ChangedEdge {
  /** Share of its life it was computed to have used. */
  used: number;
  /** Whether it was worn; else it was changed in good time. */
  worn: boolean;
}

/** How life falls with wear: its third power counts, as the largest count most. */
const POWER = 3;

/**
 * By how much an edge lasts longer than is said of it: ((1 + Σ w³)/(1 + number worn))^⅓, which begins at 1 and is moved by what is seen.
 * One that was changed in good time says only that it lasted so long.
 */
export function lifeFactor(edges: readonly ChangedEdge[]): number {
  const lasted = edges.reduce((sum, { used }) => sum + maths.pow(used, POWER), 0);
  const worn = edges.filter((e) => e.worn).length;
  return maths.pow((1 + lasted) / (1 + worn), 1 / POWER);
}
