import { IsIn, IsNumber, Max, Min } from 'class-validator';
import type { Vec3 } from '../../geometry/space/vec3';
import type { Bounds, Point } from '../../geometry/plane/point';
import { maths } from '../../quantity/maths';
import { radians } from '../../quantity/units';
import type { Body } from './turn';

export const LEANS = ['left', 'right', 'front', 'back'] as const;

/**
 * To one side by an angle: a setup whose work rises to that side on a sine plate, or a feature whose axis leans to it, as it is cut there.
 */
export class Lean {
  @IsIn([...LEANS]) to!: (typeof LEANS)[number];
  @IsNumber() @Min(0.05) @Max(60) degrees!: number;
}

/** Angles nearer than this are the same, degrees. */
const SAME = 1e-3;

/** Whether two lean alike; neither leaning is alike too. */
export const leansAlike = (a: Lean | undefined, b: Lean | undefined): boolean =>
  a?.to === b?.to && Math.abs((a?.degrees ?? 0) - (b?.degrees ?? 0)) < SAME;

const OTHER = { left: 'right', right: 'left', front: 'back', back: 'front' } as const;

/** How something leans in a mirror across X or Y. */
export const mirroredLean = (lean: Lean, across: 'x' | 'y'): Lean =>
  (lean.to === 'left' || lean.to === 'right') === (across === 'x') ? { ...lean, to: OTHER[lean.to] } : lean;

/** "30° to the right". */
export const leanText = ({ to, degrees }: Lean): string => `${Number(degrees.toFixed(3))}° to the ${to}`;

/** The axis that tilts, and sine and cosine of the angle by which its positive end rises. */
function tilt({ to, degrees }: Lean): { axis: 'x' | 'y'; sin: number; cos: number } {
  const angle = radians(degrees) * (to === 'right' || to === 'back' ? 1 : -1);
  return { axis: to === 'left' || to === 'right' ? 'x' : 'y', sin: maths.sin(angle), cos: maths.cos(angle) };
}

/** The box round a part once it leans; its middle seen from above stays, its highest edge is at Z 0. */
export function leaningBody(lean: Lean, { x, y, size: [w, h, t] }: Body): Body {
  const { axis, sin, cos } = tilt(lean);
  const along = axis === 'x' ? w : h;
  const [wide, high] = [along * cos + t * Math.abs(sin), along * Math.abs(sin) + t * cos];
  return { x, y, size: axis === 'x' ? [wide, h, high] : [w, wide, high] };
}

/** Where a place of a part comes to lie when it leans; part coordinates before, Z 0 at its highest edge after. */
export function leaningPlace(lean: Lean, p: Vec3, body: Body): Vec3 {
  const { axis, sin, cos } = tilt(lean);
  const [u, z] = [p[axis] - body[axis], p.z + body.size[2] / 2];
  const placed = { x: p.x, y: p.y, z: u * sin + z * cos - leaningBody(lean, body).size[2] / 2 };
  return { ...placed, [axis]: body[axis] + u * cos - z * sin };
}

/** A block by its sides, part coordinates before it leans. */
export interface Block extends Bounds {
  top: number;
  bottom: number;
}

/** The box round a part as a block. */
const blockOf = ({ x, y, size: [w, h, t] }: Body): Block => ({
  ...{ minX: x - w / 2, maxX: x + w / 2, minY: y - h / 2, maxY: y + h / 2 },
  ...{ top: 0, bottom: -t },
});

/**
 * Top and underside of a leaning block over a point; undefined beside it.
 * @param body the box of the part, by which things are placed
 */
export function leaningFaces(
  lean: Lean,
  body: Body,
  block: Block = blockOf(body),
): (p: Point) => { top: number; bottom: number } | undefined {
  const { axis, sin, cos } = tilt(lean);
  const { minX, maxX, minY, maxY, top, bottom } = block;
  const [along, across] =
    axis === 'x'
      ? [
          [minX, maxX],
          [minY, maxY],
        ]
      : [
          [minY, maxY],
          [minX, maxX],
        ];
  const half = body.size[2] / 2;
  const middle = -leaningBody(lean, body).size[2] / 2;
  const other = axis === 'x' ? 'y' : 'x';
  return (p) => {
    if (p[other] < across[0] || p[other] > across[1]) return undefined;
    const u = p[axis] - body[axis];
    // Between its two faces, and between its two ends.
    const faces = [bottom, top].map((z) => (z + half + u * sin) / cos);
    const ends = along.map((end) => (end - body[axis] - u * cos) / sin).sort((a, b) => a - b);
    const [low, high] = [Math.max(faces[0], ends[0]), Math.min(faces[1], ends[1])];
    return high > low ? { top: middle + high, bottom: middle + low } : undefined;
  };
}

/** The edges of the leaning box of a part, each from one corner to another. */
export function leaningEdges(lean: Lean, body: Body): [Vec3, Vec3][] {
  const { minX, maxX, minY, maxY, top, bottom } = blockOf(body);
  const corner = (i: number): Vec3 =>
    leaningPlace(lean, { x: i & 1 ? maxX : minX, y: i & 2 ? maxY : minY, z: i & 4 ? top : bottom }, body);
  const along = [1, 2, 4];
  return Array.from({ length: 8 }, (_, i) => i).flatMap((i) =>
    along.filter((bit) => !(i & bit)).map((bit): [Vec3, Vec3] => [corner(i), corner(i | bit)]),
  );
}
