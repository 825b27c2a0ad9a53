import { Budget } from '../../quantity/budget';
import { contours } from 'd3-contour';
import { Region, area, intersection, thinned } from '../../geometry/plane/clip';
import { boundsOf, growBounds } from '../../geometry/plane/point';
import { Tool, profileHeight } from '../../shop/tool';
import { Path, RAPID, sweepOf } from '../../path/path';
import { Earlier, pastBy } from '../earlier';
import { Metal } from './steady/metal';
import { maths } from '../../quantity/maths';

const CHORD = 0.02;
const SLOPE_STEP = 0.2;
const SIDES = 64;
/** Specks of metal smaller than this are the grid's own, mm². */
const SPECK = 0.02;

/** So many stretches looked at count as one move made. */
const PER_STEP = 20;

/** Widest radius at which a tool's profile is no higher than `height` above its tip, mm. */
export function radiusBelow(tool: Tool, height: number): number {
  const R = tool.diameter / 2;
  if (height < -1e-6) return 0;
  for (let k = SIDES; k > 0; k--) if (profileHeight(tool, (R * k) / SIDES) <= height + 1e-6) return (R * k) / SIDES;
  return 0;
}

/**
 * Where metal of the stock still stands at height `z`, after everything earlier operations cut, drilled holes included.
 * @param within what is of interest
 * @param fine radius of the finest cutter that will work there, mm; decides the grid
 * @param budget spent by the stretches that are looked at
 * @param from where the layer begins that ends at `z`: what was cut from below counts where it reaches so far up
 */
export function metalLeft(
  stock: Region,
  earlier: Earlier[],
  z: number,
  within: Region,
  fine: number,
  budget?: Budget,
  from = z,
): Region {
  const field = fieldOver(stock, within, fine);
  let taken = false;
  for (const one of earlier) {
    const { z: tips, count } = one.path;
    const firsts = firstsOf(one.path);
    const wide = new Float64Array(count);
    const height = one.below ? from : z;
    for (let i = 1; i < count; i++) {
      const [past0, past1] = [pastBy(one, tips[i - 1], height), pastBy(one, tips[i], height)];
      if (Math.max(past0, past1) < -1e-6) continue;
      if (past0 === past1) {
        const radius = radiusBelow(one.tool, past0);
        if (radius <= wide[firsts[i]]) continue;
        wide[firsts[i]] = radius;
      }
      taken = takeMove(field, one, i, height, budget) || taken;
    }
  }
  return taken ? intersection(outlineOf(field), stock) : stock;
}

const FIRSTS = new WeakMap<Path, Int32Array>();

/** For each move the first that runs along the same line, whatever its height: layers often do. */
function firstsOf(path: Path): Int32Array {
  const known = FIRSTS.get(path);
  if (known) return known;
  const { x, y, cx, cy, kind, count } = path;
  const firsts = new Int32Array(count);
  const seen = new Map<string, number>();
  for (let i = 1; i < count; i++) {
    const key = [x[i - 1], y[i - 1], x[i], y[i], cx[i], cy[i], kind[i] > 1 ? kind[i] : 1].join();
    const first = seen.get(key) ?? i;
    seen.set(key, first);
    firsts[i] = first;
  }
  FIRSTS.set(path, firsts);
  return firsts;
}

function fieldOver(stock: Region, within: Region, fine: number): Metal {
  const box = growBounds(boundsOf(within.flat()), fine);
  const cell = Math.max(fine / 15, Math.sqrt(((box.maxX - box.minX) * (box.maxY - box.minY)) / 2e6));
  return new Metal(stock, box, cell, fine);
}

/** Takes away what one move cut at height z; true when it reached the height at all. */
function takeMove(field: Metal, one: Earlier, i: number, z: number, budget?: Budget): boolean {
  const { tool, path } = one;
  const [x0, y0, x1, y1] = [path.x[i - 1], path.y[i - 1], path.x[i], path.y[i]];
  const [past0, past1] = [pastBy(one, path.z[i - 1], z), pastBy(one, path.z[i], z)];
  const arc = path.kind[i] > 1;
  const sweep = arc ? sweepOf(path.kind[i], x0, y0, x1, y1, path.cx[i], path.cy[i]) : 0;
  const r = arc ? maths.hypot(x0 - path.cx[i], y0 - path.cy[i]) : 0;
  const start = maths.atan2(y0 - path.cy[i], x0 - path.cx[i]);
  const sloped = Math.abs(past1 - past0) > 1e-9;
  const flat = arc ? r * Math.abs(sweep) : maths.hypot(x1 - x0, y1 - y0);
  const chords = arc ? Math.ceil(Math.abs(sweep) / (2 * maths.acos(Math.max(0, 1 - CHORD / Math.max(r, CHORD))))) : 1;
  const steps = Math.max(1, chords, sloped && path.kind[i] !== RAPID ? Math.ceil(flat / SLOPE_STEP) : 1);
  budget?.spend(Math.ceil(steps / PER_STEP));
  let [x, y] = [x0, y0];
  let reached = false;
  for (let k = 1; k <= steps; k++) {
    const t = k / steps;
    const nx = arc ? path.cx[i] + r * maths.cos(start + sweep * t) : x0 + (x1 - x0) * t;
    const ny = arc ? path.cy[i] + r * maths.sin(start + sweep * t) : y0 + (y1 - y0) * t;
    const past = (share: number) => past0 + (past1 - past0) * share;
    const surely = flat < 1e-9 ? Math.max(past0, past1) : Math.min(past(t), past((k - 1) / steps));
    const radius = radiusBelow(tool, surely);
    if (radius > field.cell) {
      field.take(x, y, x, y, radius);
      field.take(x, y, nx, ny, radius);
      reached = true;
    }
    [x, y] = [nx, ny];
  }
  return reached;
}

/** The metal of a field as polygons. */
function outlineOf(field: Metal): Region {
  const { nx, ny, cell, box, depth } = field;
  const [shape] = contours().size([nx, ny]).thresholds([0])(Array.from(depth));
  const rings = shape.coordinates
    .flat()
    .map((ring) =>
      ring.slice(0, -1).map(([u, v]) => ({ x: box.minX + (u - 0.5) * cell, y: box.minY + (v - 0.5) * cell })),
    );
  return thinned(rings, cell / 50).filter((ring) => Math.abs(area([ring])) > SPECK);
}
