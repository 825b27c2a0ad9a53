/** Least squares: small dense problems. */

/**
 * Eigenvalues and eigenvectors of a symmetric matrix, the least first. Jacobi’s rotations.
 * @param given rows of the matrix; not changed
 */
export function eigenOf(given: number[][]): { value: number; vector: number[] }[] {
  const n = given.length;
  const a = given.map((row) => [...row]);
  const v: number[][] = a.map((_, i) => a.map((__, j) => (i === j ? 1 : 0)));
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) off += a[p][q] * a[p][q];
    if (off < 1e-300) break;
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        if (a[p][q] === 0) continue;
        const theta = (a[q][q] - a[p][p]) / (2 * a[p][q]);
        const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        const c = 1 / Math.sqrt(t * t + 1);
        const s = t * c;
        for (let k = 0; k < n; k++) [a[k][p], a[k][q]] = [c * a[k][p] - s * a[k][q], s * a[k][p] + c * a[k][q]];
        for (let k = 0; k < n; k++) [a[p][k], a[q][k]] = [c * a[p][k] - s * a[q][k], s * a[p][k] + c * a[q][k]];
        for (let k = 0; k < n; k++) [v[k][p], v[k][q]] = [c * v[k][p] - s * v[k][q], s * v[k][p] + c * v[k][q]];
      }
  }
  return a
    .map((row, i) => ({ value: row[i], vector: v.map((r) => r[i]) }))
    .sort((one, other) => one.value - other.value);
}

/** Solves A·x = b by elimination with pivots; undefined where A is singular. */
export function solved(given: number[][], b: number[]): number[] | undefined {
  const n = b.length;
  const a = given.map((row, i) => [...row, b[i]]);
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i][k]) > Math.abs(a[best][k])) best = i;
    if (Math.abs(a[best][k]) < 1e-14) return undefined;
    [a[k], a[best]] = [a[best], a[k]];
    for (let i = k + 1; i < n; i++) {
      const by = a[i][k] / a[k][k];
      for (let j = k; j <= n; j++) a[i][j] -= by * a[k][j];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = a[k][n];
    for (let j = k + 1; j < n; j++) sum -= a[k][j] * x[j];
    x[k] = sum / a[k][k];
  }
  return x;
}

const ROUNDS = 40;

/**
 * Values for which the squares of all residuals add up to least, near a start. Levenberg and Marquardt, slopes by differences.
 * @param residuals of some values; as many each time
 */
export function leastSquares(residuals: (x: number[]) => number[], start: number[], step = 1e-6): number[] {
  const sum = (r: number[]) => r.reduce((s, v) => s + v * v, 0);
  let x = [...start];
  let r = residuals(x);
  let cost = sum(r);
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS && Number.isFinite(cost); round++) {
    const slopes = x.map((_, k) => {
      const moved = [...x];
      moved[k] += step;
      const back = [...x];
      back[k] -= step;
      const low = residuals(back);
      return residuals(moved).map((v, i) => (v - low[i]) / (2 * step));
    });
    const normal = slopes.map((a) => slopes.map((b) => a.reduce((s, v, i) => s + v * b[i], 0)));
    const right = slopes.map((a) => -a.reduce((s, v, i) => s + v * r[i], 0));
    let isBetter = false;
    for (let tries = 0; tries < 8 && !isBetter; tries++) {
      const by = solved(
        normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) + 1e-15 : v))),
        right,
      );
      const next = by && x.map((v, k) => v + by[k]);
      const its = next && residuals(next);
      if (its && sum(its) < cost) {
        const gained = cost - sum(its);
        [x, r, cost, isBetter] = [next, its, sum(its), true];
        damping = Math.max(1e-12, damping / 5);
        if (gained < 1e-12 * cost || cost < 1e-26) return x;
      } else damping *= 10;
    }
    if (!isBetter) break;
  }
  return x;
}
