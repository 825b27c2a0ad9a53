import { Region, difference, offset } from '../../geometry/plane/clip';
import { Added } from '../../part/plate/added';
import { ANYTHING, GOUGE, HeightRule, LEFT } from '../../part/plate/heights';
import { Grid, HeightField, cellMiddle, eachInside } from './field';
import { SurfaceRule, laySurface } from './surface';

/** The heights between which a piece is right, cell by cell, mm, slack sideways included. */
export interface Allowed {
  low: Float32Array;
  high: Float32Array;
  /** Underside of the part: below it nothing counts. */
  floor: number;
  /** By cell, the cosine of the slope that is wanted there: deviations are told along its normal. 1 where left out. */
  rise?: Float32Array;
  /** How well faces are known that have not been cut yet, where that is not exactly. */
  upright?: Upright & Pick<Grid, 'nx' | 'cell'>;
}

/** A piece that was set on another side since it was cut. */
export interface Upright {
  /** How well its faces are known, mm. */
  within: number;
  /** How far down the tip went in each motion: what lies lower was uncovered by it, not cut. */
  tips: Float32Array;
}

const HOW = {
  set: (_: number, z: number) => z,
  lower: Math.min,
  raise: Math.max,
};

/** Lays a rule on a grid. */
function lay({ region, how, low, high }: HeightRule, grid: Grid, allowed: Allowed): void {
  const change = HOW[how];
  const put = (bound: Float32Array, z: NonNullable<HeightRule['low']>) =>
    typeof z === 'number'
      ? eachInside(grid, region, (i) => (bound[i] = change(bound[i], z)))
      : eachInside(grid, region, (i) => (bound[i] = change(bound[i], z(cellMiddle(grid, i)))));
  if (low !== undefined) put(allowed.low, low);
  if (high !== undefined) put(allowed.high, high);
}

/** Share of the line around a piece that must be cut for it to fall out; the rest are bridges meant to be broken. */
const CUT_ROUND = 0.5;

/** What is wanted of a piece, to be laid on any grid. */
export class Wanted {
  /** Pieces known to have been cut loose. */
  private gone: Region[] = [];

  /**
   * @param rules laid one after another; a solid first
   * @param floor underside of the part
   * @param freed what falls out once the line round it is cut
   * @param upright how well faces are known that have not been cut yet
   */
  constructor(
    private readonly rules: (HeightRule | SurfaceRule)[],
    private readonly floor: number,
    private readonly freed: Added['freed'] = [],
    private readonly upright?: Upright,
  ) {}

  /** What is right where on a grid, if no piece is gone but those found loose. */
  on(grid: Grid): Allowed {
    const cells = grid.nx * grid.ny;
    const [low, high] = [new Float32Array(cells).fill(-ANYTHING), new Float32Array(cells).fill(ANYTHING)];
    const allowed: Allowed = { low, high, floor: this.floor };
    if (this.upright) allowed.upright = { ...this.upright, nx: grid.nx, cell: grid.cell };
    for (const rule of this.rules) {
      if ('tops' in rule) laySurface(rule, grid, allowed);
      else lay(rule, grid, allowed);
    }
    for (const region of this.gone) eachInside(grid, region, (i) => (high[i] = ANYTHING));
    return allowed;
  }

  /** Lets the metal of pieces that a field shows cut loose stand: it is gone by then. */
  findLoose(field: HeightField): this {
    this.gone = [];
    if (this.freed.length === 0) return this;
    const { high } = this.on(field);
    for (const { region, kerf } of this.freed) {
      let [cells, cut] = [0, 0];
      eachInside(field, difference(offset(region, -LEFT), offset(region, LEFT - kerf)), (i) => {
        cells++;
        if (field.height[i] <= high[i] + LEFT) cut++;
      });
      if (cut >= CUT_ROUND * cells) this.gone.push(region);
    }
    return this;
  }
}

/** Metal so far below a tip was not cut by it, mm. */
const UNCOVERED = 1e-3;

/** Whether a bound asks for anything. */
export const isWanted = (bound: number) => Math.abs(bound) < ANYTHING;

/**
 * How far a height is from what is allowed, mm: above 0 metal is left, below 0 the part is cut into; 0 within the slack.
 * @param owner the motion that cut there, −1 for none
 */
export function deviation(allowed: Allowed, i: number, height: number, owner: number): number {
  const { low, high, floor, rise, upright } = allowed;
  const along = rise ? rise[i] : 1;
  const slack = upright && (owner < 0 || height < upright.tips[owner] - UNCOVERED) ? upright.within : 0;
  const over = height - high[i];
  if (over > LEFT + slack) return over * along;
  const under = low[i] - Math.max(height, floor);
  if (!(under > GOUGE + slack) || !isWanted(low[i])) return 0;
  return slack > 0 && isLowBeside(allowed.low, upright!, i, height + slack) ? 0 : -under * along;
}

/** Whether a height is right for some cell so near: the walls of a piece are known no better. */
function isLowBeside(
  low: Float32Array,
  { within, nx, cell }: Required<Allowed>['upright'],
  i: number,
  height: number,
): boolean {
  const reach = Math.ceil(within / cell);
  const x = i % nx;
  for (let dy = -reach; dy <= reach; dy++)
    for (let dx = Math.max(-reach, -x); dx <= Math.min(reach, nx - 1 - x); dx++)
      if (low[i + dy * nx + dx] <= height + GOUGE) return true;
  return false;
}
