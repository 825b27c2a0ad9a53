/**
 * Measures a posted clearing program by brute force, sharing no code with planner or prover: its own reading of the text, a grid of
 * distances to the path, and a sample every quarter of a millimetre.
 */
const { abs, acos, atan2, ceil, cos, floor, hypot, max, min, sign, sin, sqrt } = Math;

type P = { x: number; y: number };
type Rings = P[][];

interface Move {
  rapid: boolean;
  from: P & { z: number };
  to: P & { z: number };
  /** Centre and signed sweep of an arc. */
  arc?: { x: number; y: number; r: number; start: number; sweep: number };
  feed: number;
}

/** Reads the few words such a program uses; coordinates shifted by the work zero. */
export function readMoves(text: string, zero: P & { z: number }): Move[] {
  const moves: Move[] = [];
  let at = { x: NaN, y: NaN, z: NaN };
  let code = 0;
  let feed = 0;
  for (const raw of text.split('\n')) {
    const line = raw.replace(/\(.*\)/g, '');
    if (/G53|^%|^O/.test(line)) continue;
    const words = Object.fromEntries([...line.matchAll(/([A-Z])(-?[\d.]+)/g)].map((m) => [m[1], Number(m[2])]));
    for (const m of line.matchAll(/G([0-3])(?!\d)/g)) code = Number(m[1]);
    if (words.F !== undefined) feed = words.F;
    if (!('X' in words || 'Y' in words || 'Z' in words || 'I' in words)) continue;
    const to = {
      x: words.X !== undefined ? words.X + zero.x : at.x,
      y: words.Y !== undefined ? words.Y + zero.y : at.y,
      z: words.Z !== undefined ? words.Z + zero.z : at.z,
    };
    let arc: Move['arc'];
    if (code > 1) {
      const c = { x: at.x + (words.I ?? 0), y: at.y + (words.J ?? 0) };
      const start = atan2(at.y - c.y, at.x - c.x);
      let sweep = atan2(to.y - c.y, to.x - c.x) - start;
      if (code === 3 && sweep <= 1e-9) sweep += 2 * Math.PI;
      if (code === 2 && sweep >= -1e-9) sweep -= 2 * Math.PI;
      arc = { ...c, r: hypot(at.x - c.x, at.y - c.y), start, sweep };
    }
    if (Number.isFinite(at.x + at.y + at.z)) moves.push({ rapid: code === 0, from: at, to, arc, feed });
    at = to;
  }
  return moves;
}

const inside = (rings: Rings, x: number, y: number) => {
  let odd = false;
  for (const ring of rings)
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++)
      if (ring[i].y > y !== ring[j].y > y) {
        const cross = ((ring[j].x - ring[i].x) * (y - ring[i].y)) / (ring[j].y - ring[i].y) + ring[i].x;
        if (x < cross) odd = !odd;
      }
  return odd;
};

const toEdges = (rings: Rings, x: number, y: number) => {
  let best = Infinity;
  for (const ring of rings)
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [a, b] = [ring[j], ring[i]];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const t = max(0, min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      best = min(best, hypot(x - a.x - t * dx, y - a.y - t * dy));
    }
  return best;
};

/** Cells whose middle lies inside, row by row. */
function mask(rings: Rings, x0: number, y0: number, cell: number, nx: number, ny: number): Uint8Array {
  const out = new Uint8Array(nx * ny);
  for (let j = 0; j < ny; j++) {
    const y = y0 + j * cell;
    const cuts: number[] = [];
    for (const ring of rings)
      for (let i = 0, k = ring.length - 1; i < ring.length; k = i++)
        if (ring[i].y > y !== ring[k].y > y)
          cuts.push(((ring[k].x - ring[i].x) * (y - ring[i].y)) / (ring[k].y - ring[i].y) + ring[i].x);
    cuts.sort((p, q) => p - q);
    for (let n = 0; n + 1 < cuts.length; n += 2)
      for (let i = max(0, ceil((cuts[n] - x0) / cell)); i < nx && x0 + i * cell < cuts[n + 1]; i++) out[j * nx + i] = 1;
  }
  return out;
}

/** Exact squared distance of every cell to the nearest marked cell, in cells (lower envelope of parabolas, one axis at a time). */
function distances(marked: Uint8Array, nx: number, ny: number): Float64Array {
  const far = 1e12;
  const out = Float64Array.from(marked, (m) => (m ? 0 : far));
  const pass = (n: number, read: (i: number) => number, write: (i: number, v: number) => void) => {
    const f = Float64Array.from({ length: n }, (_, i) => read(i));
    const v = new Int32Array(n);
    const z = new Float64Array(n + 1);
    let k = 0;
    z[0] = -Infinity;
    z[1] = Infinity;
    for (let q = 1; q < n; q++) {
      let s = (f[q] + q * q - f[v[k]] - v[k] * v[k]) / (2 * q - 2 * v[k]);
      while (s <= z[k]) {
        k--;
        s = (f[q] + q * q - f[v[k]] - v[k] * v[k]) / (2 * q - 2 * v[k]);
      }
      v[++k] = q;
      z[k] = s;
      z[k + 1] = Infinity;
    }
    k = 0;
    for (let q = 0; q < n; q++) {
      while (z[k + 1] < q) k++;
      write(q, (q - v[k]) ** 2 + f[v[k]]);
    }
  };
  for (let i = 0; i < nx; i++)
    pass(
      ny,
      (j) => out[j * nx + i],
      (j, d) => void (out[j * nx + i] = d),
    );
  for (let j = 0; j < ny; j++)
    pass(
      nx,
      (i) => out[j * nx + i],
      (i, d) => void (out[j * nx + i] = d),
    );
  return out;
}

export interface SteadyFigures {
  /** Share of the length in cut at or below 1.10 x the asked angle. */
  steady: number;
  /** Engaged angle in cut against the asked one: largest, largest with 0.02 % of the length excused, and mean. */
  most: number;
  peak: number;
  mean: number;
  /** Length in cut against removed area / bite. */
  length: number;
  /** Share of the cycle spent not cutting: cut 3, links 6, rapids 15 m/min. */
  idle: number;
  /** Share of the area that could be reached and stands, and the width of its widest piece, mm. */
  left: number;
  widest: number;
  /** Deepest cut into the part, mm. */
  gouge: number;
  /** Rapid or link through metal thicker than 0.02 mm, mm. */
  brushed: number;
}

export interface SteadyCase {
  text: string;
  zero: P & { z: number };
  /** Height of the layer. */
  z: number;
  radius: number;
  bite: number;
  turn: number;
  allowance: number;
  target: Rings;
  keep: Rings;
  stock: Rings;
  linkFeed: number;
  entryFeed: number;
}

const SAMPLE = 0.25;
const ANGLES = 360;

export function checkSteady(c: SteadyCase, cell = 0.1): SteadyFigures {
  const { radius: R } = c;
  const all = [...c.stock.flat(), ...c.target.flat()];
  const x0 = min(...all.map((p) => p.x)) - R;
  const y0 = min(...all.map((p) => p.y)) - R;
  const nx = ceil((max(...all.map((p) => p.x)) + R - x0) / cell) + 1;
  const ny = ceil((max(...all.map((p) => p.y)) + R - y0) / cell) + 1;
  const near = new Float32Array(nx * ny).fill(1e6);
  const metal = (x: number, y: number) => {
    const u = (x - x0) / cell;
    const v = (y - y0) / cell;
    const [i, j] = [floor(u), floor(v)];
    if (i < 0 || j < 0 || i >= nx - 1 || j >= ny - 1) return -1;
    const at = (a: number, b: number) => near[(j + b) * nx + i + a];
    const [s, t] = [u - i, v - j];
    const d = (at(0, 0) * (1 - s) + at(1, 0) * s) * (1 - t) + (at(0, 1) * (1 - s) + at(1, 1) * s) * t;
    return d - R;
  };
  const stand = (p: P) => (inside(c.stock, p.x, p.y) ? toEdges(c.stock, p.x, p.y) : -1);
  let last: P = { x: NaN, y: NaN };
  const take = (a: P, b: P) => {
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const l2 = dx * dx + dy * dy || 1;
    const reach = R + 4 * cell;
    // So far inside what is gone no reading tells one place from another.
    const settled = R - 4 * cell;
    const goesOn = hypot(a.x - last.x, a.y - last.y) < 1e-9;
    last = b;
    for (let j = max(0, floor((min(a.y, b.y) - reach - y0) / cell)); j < ny; j++) {
      const y = y0 + j * cell;
      if (y > max(a.y, b.y) + reach) break;
      const half = goesOn ? sqrt(max(0, settled ** 2 - (y - a.y) ** 2)) : 0;
      const [from, to] = [ceil((a.x - half - x0) / cell), floor((a.x + half - x0) / cell)];
      for (let i = max(0, floor((min(a.x, b.x) - reach - x0) / cell)); i < nx; i++) {
        const x = x0 + i * cell;
        if (x > max(a.x, b.x) + reach) break;
        if (near[j * nx + i] <= settled) {
          if (i >= from && i < to) i = to;
          continue;
        }
        const t = max(0, min(1, ((x - a.x) * dx + (y - a.y) * dy) / l2));
        const d = sqrt((x - a.x - t * dx) ** 2 + (y - a.y - t * dy) ** 2);
        if (d < near[j * nx + i]) near[j * nx + i] = d;
      }
    }
  };
  const asked = acos(1 - c.bite / R);
  const bites: { e: number; ds: number }[] = [];
  const time = { cut: 0, link: 0, rapid: 0 };
  let gouge = 0;
  let brushed = 0;
  for (const m of readMoves(c.text, c.zero)) {
    const flat = m.arc ? m.arc.r * abs(m.arc.sweep) : hypot(m.to.x - m.from.x, m.to.y - m.from.y);
    const length = hypot(flat, m.to.z - m.from.z);
    const sloped = abs(m.to.z - m.from.z) > 1e-6;
    const level = max(m.from.z, m.to.z) < c.z + 0.2;
    const entry = (sloped && flat > 0.01) || m.feed === c.entryFeed;
    if (m.rapid) time.rapid += length / 15000;
    else if (!entry && level)
      time[m.feed === c.linkFeed ? 'link' : 'cut'] += length / (m.feed === c.linkFeed ? 6000 : 3000);
    const deep = min(m.from.z, m.to.z) < c.z + 0.2;
    if (!deep) continue;
    const n = max(1, ceil(flat / SAMPLE));
    let before: P = m.from;
    for (let k = 1; k <= n; k++) {
      const t = k / n;
      const a = m.arc && m.arc.start + m.arc.sweep * t;
      const p = m.arc
        ? { x: m.arc.x + m.arc.r * cos(a!), y: m.arc.y + m.arc.r * sin(a!) }
        : { x: m.from.x + (m.to.x - m.from.x) * t, y: m.from.y + (m.to.y - m.from.y) * t };
      const heading = m.arc ? a! + (sign(m.arc.sweep) * Math.PI) / 2 : atan2(m.to.y - m.from.y, m.to.x - m.from.x);
      const into = R - (inside(c.keep, p.x, p.y) ? -1 : 1) * toEdges(c.keep, p.x, p.y);
      gouge = max(gouge, into);
      if (level && (!entry || m.rapid) && flat > 0.01) {
        let count = 0;
        let thick = 0;
        for (let q = 0; q < ANGLES; q++) {
          const b = heading - Math.PI / 2 + (Math.PI * (q + 0.5)) / ANGLES;
          const e = { x: p.x + R * cos(b), y: p.y + R * sin(b) };
          const d = metal(e.x, e.y);
          if (d <= 0.002) continue;
          const s = d < 4 * cell ? min(d, stand(e)) : stand(e);
          if (s <= 0.002) continue;
          count++;
          thick = max(thick, s);
        }
        const e = (count * Math.PI) / ANGLES;
        if (m.rapid || m.feed === c.linkFeed) brushed = max(brushed, thick > 0.02 ? thick : 0);
        else if (e > 0.01) bites.push({ e: e / asked, ds: flat / n });
      }
      // Arcs are followed in chords of the sample length, fine against the radius of any path here.
      if (m.arc && m.arc.r < 5) {
        const a0 = m.arc.start + (m.arc.sweep * (k - 1)) / n;
        const mid = a0 + m.arc.sweep / n / 2;
        const q = { x: m.arc.x + m.arc.r * cos(mid), y: m.arc.y + m.arc.r * sin(mid) };
        take(before, q);
        take(q, p);
      } else take(before, p);
      before = p;
    }
  }
  const total = bites.reduce((s, b) => s + b.ds, 0);
  const sorted = [...bites].sort((a, b) => b.e - a.e);
  let excused = total * 0.0002;
  const peak = sorted.find((b) => (excused -= b.ds) < 0)?.e ?? 0;
  // What could be reached: a disc of the smallest turn fits, with the cutter around its rim.
  const centre = new Uint8Array(nx * ny);
  const wanted = new Uint8Array(nx * ny);
  const rows = (rings: Rings) => mask(rings, x0, y0, cell, nx, ny);
  const [asTarget, asStock, asKeep] = [rows(c.target), rows(c.stock), rows(c.keep)];
  const toKeep = distances(asKeep, nx, ny);
  const clearOf = ((R + c.allowance + c.turn) / cell + 0.5) ** 2;
  for (let k = 0; k < nx * ny; k++) {
    wanted[k] = asTarget[k] & asStock[k];
    if (toKeep[k] >= clearOf) centre[k] = 1;
  }
  const reach = distances(centre, nx, ny);
  const within = ((R + c.turn) / cell - 1.5) ** 2;
  const left = new Uint8Array(nx * ny);
  let [area, standing] = [0, 0];
  for (let k = 0; k < nx * ny; k++) {
    if (!wanted[k]) continue;
    if (reach[k] > within) continue;
    area += cell * cell;
    if (near[k] > R + 0.01) {
      left[k] = 1;
      standing += cell * cell;
    }
  }
  const gone = left.map((v) => 1 - v) as Uint8Array;
  const thickness = standing > 0 ? distances(gone, nx, ny) : new Float64Array(1);
  const cycle = time.cut + time.link + time.rapid;
  return {
    steady: bites.filter((b) => b.e <= 1.1).reduce((s, b) => s + b.ds, 0) / total,
    most: sorted[0]?.e ?? 0,
    peak,
    mean: bites.reduce((s, b) => s + b.e * b.ds, 0) / total,
    length: total / (area / c.bite),
    idle: (time.link + time.rapid) / cycle,
    left: standing / area,
    widest: max(0, 2 * sqrt(thickness.reduce((a, b) => max(a, b), 0)) - 1) * cell,
    gouge: max(0, gouge),
    brushed,
  };
}
