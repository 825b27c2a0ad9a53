import { Feeds } from '../document/operation';
import { LINE, Path, RAPID, TAGS } from '../path/path';

const SAME = 1e-6;

/** A planned path at the feeds that were asked for apart: leads, straight down, and the deepest layer; the rest as planned. */
export function withFeeds(path: Path, { lead, plunge, last }: Feeds): Path {
  const lowest = path.z.reduce((a, b) => Math.min(a, b), Infinity);
  const asked = (i: number): number | undefined => {
    const tag = TAGS[path.tag[i]];
    if (path.kind[i] === RAPID || i === 0) return undefined;
    if (tag === 'lead') return lead;
    const isDown = path.x[i] === path.x[i - 1] && path.y[i] === path.y[i - 1] && path.z[i] < path.z[i - 1];
    if (tag === 'entry') return path.kind[i] === LINE && isDown ? plunge : undefined;
    return tag === 'cut' && path.z[i] < lowest + SAME ? last : undefined;
  };
  return { ...path, feed: path.feed.map((feed, i) => asked(i) ?? feed) };
}
