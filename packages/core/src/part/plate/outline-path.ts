import { Chain, chainBounds, pieces, arcOf } from '../../geometry/plane/chain';
import { EMPTY_BOUNDS, isEmpty, joinBounds } from '../../geometry/plane/point';
import { Part, isBeside } from './feature';
import { trimmedPart } from './notch';
import { instancesOf } from './shapes';

/** A chain as an SVG path, Y upwards as drawn (flip it when showing). */
export function svgPath(chain: Chain, digits = 3): string {
  const n = (v: number) => Number(v.toFixed(digits)).toString();
  const first = chain.vertices[0];
  if (!first) return '';
  let d = `M${n(first.x)} ${n(first.y)}`;
  for (const { a, b, bulge } of pieces(chain)) {
    if (bulge === 0) d += `L${n(b.x)} ${n(b.y)}`;
    else {
      const { radius, sweep } = arcOf(a, b, bulge);
      d += `A${n(radius)} ${n(radius)} 0 ${Math.abs(sweep) > Math.PI ? 1 : 0} ${sweep > 0 ? 1 : 0} ${n(b.x)} ${n(b.y)}`;
    }
  }
  return chain.closed ? d + 'Z' : d;
}

/** A small picture of a part: its box, the outside, and everything else. */
export interface Thumbnail {
  box: { x: number; y: number; width: number; height: number };
  outside: string;
  inside: string;
}

/** Draws a part as two SVG paths. */
export function thumbnailOf(part: Part): Thumbnail {
  let box = EMPTY_BOUNDS;
  let outside = '';
  let inside = '';
  for (const feature of trimmedPart(part).part.features) {
    if (feature.meaning === 'ignore' || isBeside(feature)) continue;
    for (const chain of instancesOf(feature)) {
      box = joinBounds(box, chainBounds(chain));
      if (feature.meaning === 'outline') outside += svgPath(chain);
      else inside += svgPath(chain);
    }
  }
  if (isEmpty(box)) return { box: { x: 0, y: 0, width: 100, height: 60 }, outside: '', inside: '' };
  return {
    box: { x: box.minX, y: box.minY, width: box.maxX - box.minX, height: box.maxY - box.minY },
    outside,
    inside,
  };
}
