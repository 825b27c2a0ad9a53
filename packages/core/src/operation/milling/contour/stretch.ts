import { Chain, reversed, shareAt, signedArea, splitRound, pointAtShare } from '../../../geometry/plane/chain';
import { distance } from '../../../geometry/plane/point';
import { Stretch } from '../../../document/operation';
import { Feature } from '../../../part/plate/feature';
import { instancesOf } from '../../../part/plate/shapes';

/** A stretch shorter than this share of its line is none. */
const LEAST = 1e-4;

/** The part of a closed line an operation is asked to run along. */
export interface Cut {
  feature: Feature;
  /** Counterclockwise from its first to its last point; no vertices where these are the same. */
  chain: Chain;
}

/** Of all closed lines worked on, the stretch of the one that lies nearest to where it is to begin; undefined where none is closed. */
export function stretchOf(targets: Feature[], { from, to }: Stretch): Cut | undefined {
  const lines = targets.flatMap((feature) =>
    instancesOf(feature)
      .filter((c) => c.closed)
      .map((c) => {
        const chain = signedArea(c) < 0 ? reversed(c) : c;
        const share = shareAt(chain, from);
        return { feature, chain, share, off: distance(from, pointAtShare(chain, share)) };
      }),
  );
  const nearest = lines.sort((a, b) => a.off - b.off)[0];
  if (!nearest) return undefined;
  const { feature, chain, share } = nearest;
  const end = shareAt(chain, to);
  const isNone = Math.abs(end - share) < LEAST || Math.abs(end - share) > 1 - LEAST;
  return { feature, chain: isNone ? { closed: false, vertices: [] } : splitRound(chain, share, end) };
}
