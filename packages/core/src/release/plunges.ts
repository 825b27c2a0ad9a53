/** The first time each tool comes down: where whoever proves a program out stops and compares. */
import { MOVE, Motions } from '../path/motions';

/** Where a tool feeds down first, in work coordinates, mm. */
export interface Plunge {
  tool: number;
  /** Program line. */
  line: number;
  /** Where it stands before, and how far down it goes next. */
  at: { x: number; y: number; z: number };
  to: number;
}

/** Falls by less than this are none, mm. */
const LEVEL = 0.001;

const FED: readonly number[] = [MOVE.line, MOVE.arcCw, MOVE.arcCcw];

/** The first feed downwards of each tool, in program order. */
export function firstPlunges(m: Motions): Plunge[] {
  const found = new Map<number, Plunge>();
  for (let i = 1; i < m.count; i++) {
    const tool = m.tool[i];
    if (found.has(tool) || !FED.includes(m.type[i]) || m.z[i] > m.z[i - 1] - LEVEL) continue;
    found.set(tool, { tool, line: m.line[i], at: { x: m.x[i - 1], y: m.y[i - 1], z: m.z[i - 1] }, to: m.z[i] });
  }
  return [...found.values()];
}
