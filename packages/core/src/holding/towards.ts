import { Bounds, Point } from '../geometry/plane/point';

export const SIDES = ['back', 'front', 'left', 'right'] as const;
/** A side of the work as it lies. */
export type WorkSide = (typeof SIDES)[number];

/** The work as somebody sees it who looks towards one of its sides: `u` to the right, `v` away from him, mm from its near left corner. */
export interface Towards {
  wide: number;
  deep: number;
  at(u: number, v: number): Point;
  /** Unit vector away from him. */
  ahead: Point;
  /** A rectangle, counterclockwise. */
  rect(u0: number, u1: number, v0: number, v1: number): Point[];
}

export function towards(side: WorkSide, { minX, maxX, minY, maxY }: Bounds): Towards {
  const [width, height] = [maxX - minX, maxY - minY];
  const at = {
    back: (u: number, v: number) => ({ x: minX + u, y: minY + v }),
    front: (u: number, v: number) => ({ x: maxX - u, y: maxY - v }),
    left: (u: number, v: number) => ({ x: maxX - v, y: minY + u }),
    right: (u: number, v: number) => ({ x: minX + v, y: maxY - u }),
  }[side];
  const isAcross = side === 'back' || side === 'front';
  const [wide, deep] = isAcross ? [width, height] : [height, width];
  const ahead = { back: { x: 0, y: 1 }, front: { x: 0, y: -1 }, left: { x: -1, y: 0 }, right: { x: 1, y: 0 } }[side];
  const rect = (u0: number, u1: number, v0: number, v1: number) => [at(u0, v0), at(u1, v0), at(u1, v1), at(u0, v1)];
  return { wide, deep, at, ahead, rect };
}
