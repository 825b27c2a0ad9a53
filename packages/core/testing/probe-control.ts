/** A control that runs a probing program over something solid, for tests. */

export type Spot = Record<'X' | 'Y' | 'Z', number>;

export interface Probed {
  /** How far its zero is off at the end, mm. */
  off: Spot;
  /** Blocks that ran into what is solid without touching it on purpose. */
  struck: string[];
  /** Where it stood at each stop, true work coordinates, mm. */
  stops: Spot[];
}

const STEP = 0.05;
const HALVES = 30;

/** How far one gets from a place towards another, share, until it is in something solid; 1 where nothing is met. */
function reach(from: Spot, to: Spot, isIn: (p: Spot) => boolean): number {
  const between = (t: number): Spot => ({
    X: from.X + t * (to.X - from.X),
    Y: from.Y + t * (to.Y - from.Y),
    Z: from.Z + t * (to.Z - from.Z),
  });
  const length = Math.hypot(to.X - from.X, to.Y - from.Y, to.Z - from.Z);
  const steps = Math.max(1, Math.ceil(length / STEP));
  for (let i = 1; i <= steps; i++) {
    if (!isIn(between(i / steps))) continue;
    let [free, hit] = [(i - 1) / steps, i / steps];
    for (let k = 0; k < HALVES; k++) {
      const middle = (free + hit) / 2;
      if (isIn(between(middle))) hit = middle;
      else free = middle;
    }
    return free;
  }
  return 1;
}

/**
 * Runs a program.
 * @param scale mm of one of its units
 * @param off how far its zero was set wrong, mm
 * @param isIn whether the ball, its middle along X and Y, its lower end along Z, is in something solid; true work coordinates
 */
export function runProbing(text: string, scale: number, off: Spot, isIn: (p: Spot) => boolean): Probed {
  const probed: Probed = { off: { ...off }, struck: [], stops: [] };
  let at: Spot = { X: -500, Y: -500, Z: 300 };
  for (const line of text.split('\n')) {
    if (/^(\(|%|O)/.test(line)) continue;
    const words = [...line.matchAll(/([XYZ])(-?\d+\.?\d*)/g)].map(
      ([, a, v]) => [a as keyof Spot, scale * Number(v)] as const,
    );
    if (/^M0$/.test(line)) probed.stops.push({ ...at });
    else if (/G53/.test(line)) at.Z = 300;
    else if (/^G10/.test(line)) for (const [a, v] of words) probed.off[a] = at[a] - v;
    else if (words.length > 0) {
      const to = { ...at };
      for (const [a, v] of words) to[a] = v + probed.off[a];
      const share = reach(at, to, isIn);
      if (share < 1 && !/^G(31|38\.2) /.test(line)) probed.struck.push(line);
      const from = at;
      at = { X: 0, Y: 0, Z: 0 };
      for (const a of ['X', 'Y', 'Z'] as const) at[a] = from[a] + share * (to[a] - from[a]);
    }
  }
  return probed;
}
