import { Corner, StlBuilder } from '../../geometry/space/stl';
import { HeightField, pileOf } from './field';

/** What of one pile stands where the other has air: top, underside, top, underside. */
function standsAgainst(pile: number[], other: number[]): number[] {
  const out: number[] = [];
  for (let k = 0; k < pile.length; k += 2) {
    let top = pile[k];
    const low = pile[k + 1];
    for (let j = 0; j < other.length && top > low; j += 2) {
      if (other[j] <= low || other[j + 1] >= top) continue;
      if (other[j] < top) out.push(top, other[j]);
      top = other[j + 1];
    }
    if (top > low) out.push(top, low);
  }
  return out;
}

/**
 * The stock as a closed surface in the binary STL form, mm: each cell of the field as it stands.
 * @param floor underside where nothing is known below
 */
export function stockStl(field: HeightField, floor: number): Uint8Array {
  const { nx, ny, cell, x0, y0 } = field;
  const out = new StlBuilder();
  const pile = (i: number, j: number) => (i >= 0 && j >= 0 && i < nx && j < ny ? pileOf(field, j * nx + i, floor) : []);
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const own = pile(i, j);
      if (own.length === 0) continue;
      const [l, r, f, b] = [x0 + i * cell, x0 + (i + 1) * cell, y0 + j * cell, y0 + (j + 1) * cell];
      for (let k = 0; k < own.length; k += 2) {
        const [t, u] = [own[k], own[k + 1]];
        out.rectangle([l, f, t], [r, f, t], [r, b, t], [l, b, t], [0, 0, 1]);
        out.rectangle([l, f, u], [l, b, u], [r, b, u], [r, f, u], [0, 0, -1]);
      }
      const walls: [number[], Corner, (t: number, u: number) => [Corner, Corner, Corner, Corner]][] = [
        [
          pile(i - 1, j),
          [-1, 0, 0],
          (t, u) => [
            [l, b, u],
            [l, f, u],
            [l, f, t],
            [l, b, t],
          ],
        ],
        [
          pile(i + 1, j),
          [1, 0, 0],
          (t, u) => [
            [r, f, u],
            [r, b, u],
            [r, b, t],
            [r, f, t],
          ],
        ],
        [
          pile(i, j - 1),
          [0, -1, 0],
          (t, u) => [
            [l, f, u],
            [r, f, u],
            [r, f, t],
            [l, f, t],
          ],
        ],
        [
          pile(i, j + 1),
          [0, 1, 0],
          (t, u) => [
            [r, b, u],
            [l, b, u],
            [l, b, t],
            [r, b, t],
          ],
        ],
      ];
      for (const [other, normal, corners] of walls) {
        const bare = standsAgainst(own, other);
        for (let k = 0; k < bare.length; k += 2) out.rectangle(...corners(bare[k], bare[k + 1]), normal);
      }
    }
  }
  return out.build();
}
