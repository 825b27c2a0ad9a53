/** What is found in a solid, and how near is the same. */
import { distance } from '../../geometry/plane/point';
import { Counterbore, EdgeForm, Meaning } from '../plate/feature';
import { Lean } from '../plate/leaning';
import { Standing } from './rings';

/** Something that was found, as the solid lies. */
export interface Found extends Standing {
  meaning: Extract<Meaning, 'outline' | 'pocket' | 'boss' | 'hole' | 'edge'>;
  /** Of its floor below the top of the solid, of a boss its top, mm. */
  depth: number;
  through: boolean;
  /** Where the mouth of a hole lies, and where one that goes through comes out, where that is not at the sides of the solid, mm down. */
  from?: number;
  ends?: number;
  counterbore?: Counterbore;
  edge?: EdgeForm;
  /** Faces its edge was broken to, of those it is made of. */
  rim?: number[];
  /** Included angle of the point a blind hole ends in, degrees. */
  point?: number;
  /** Radius at the foot of its walls, mm. */
  foot?: number;
  /** How far its walls stand from upright, degrees. */
  taper?: number;
  /** How its axis leans, seen from the top. */
  lean?: Lean;
  /** Whether it is open to the side somewhere. */
  isOpen?: boolean;
  /** Faces it is made of. */
  faces: number[];
}

/** Heights so near are one, mm. */
export const SAME_HEIGHT = 1e-3;
/** Places and sizes so near are the same, mm. */
export const NEAR = 2e-3;

export const isSameRound = (hole: Found, { shape, x, y }: Standing): boolean =>
  shape.type === 'round' &&
  hole.shape.type === 'round' &&
  Math.abs(shape.diameter - hole.shape.diameter) < NEAR &&
  distance(hole, { x, y }) < NEAR;
