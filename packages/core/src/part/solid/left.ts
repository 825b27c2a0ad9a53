/** Faces of a solid that no feature makes. */
import { LeftFace, Solid } from '../plate/feature';

/** Why no feature makes a face, and what would. */
export const LEFT_WORDS: Record<LeftFace['why'], { is: string; would: string }> = {
  undercut: {
    is: 'hidden from all six sides',
    would: 'a grip that leans, a cutter that reaches sideways, or another design',
  },
  along: {
    is: 'open at its two ends alone',
    would: 'a cutter that reaches sideways, as for a dovetail or a T-slot',
  },
  slope: { is: 'slopes: no flat or upright wall', would: 'a grip that leans, or a ball mill in lines' },
  round: { is: 'rounded', would: 'a corner-rounding mill, or a ball mill in lines' },
  free: { is: 'of free form', would: 'a ball mill in lines' },
  flat: {
    is: 'level or upright, but part of nothing that was found',
    would: 'a feature added by hand',
  },
};

/** Those faces of a solid that still belong to no feature. */
export function leftOf({ left = [], features }: Solid): LeftFace[] {
  const made = new Set(features.flatMap((f) => f.faces ?? []));
  return left.filter((l) => !made.has(l.face));
}
