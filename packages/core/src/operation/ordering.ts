import { Point, distance } from '../geometry/plane/point';

/** Total length of an open tour, mm. */
export const tourLength = (points: Point[]) => points.slice(1).reduce((sum, p, i) => sum + distance(points[i], p), 0);

function nearestNeighbour<T extends Point>(points: T[]): T[] {
  const left = [...points].sort((a, b) => a.x + a.y - (b.x + b.y) || a.x - b.x);
  const tour: T[] = [];
  let here = left.shift();
  while (here) {
    tour.push(here);
    const from = here;
    let best = -1;
    left.forEach((p, i) => {
      if (best < 0 || distance(from, p) < distance(from, left[best]) - 1e-9) best = i;
    });
    here = best < 0 ? undefined : left.splice(best, 1)[0];
  }
  return tour;
}

const ROUNDS = 30;

/** Orders points into a short tour from the lower left: nearest neighbour, then improved by reversing stretches (2-opt). */
export function shortTour<T extends Point>(points: T[]): T[] {
  const tour = nearestNeighbour(points);
  const n = tour.length;
  for (let round = 0; round < ROUNDS; round++) {
    let better = false;
    for (let i = 0; i < n - 2; i++) {
      for (let j = i + 1; j < n; j++) {
        const after = tour[j + 1];
        const now = distance(tour[i], tour[i + 1]) + (after ? distance(tour[j], after) : 0);
        const then = distance(tour[i], tour[j]) + (after ? distance(tour[i + 1], after) : 0);
        if (then < now - 1e-9) {
          tour.splice(i + 1, j - i, ...tour.slice(i + 1, j + 1).reverse());
          better = true;
        }
      }
    }
    if (!better) break;
  }
  return tour;
}
