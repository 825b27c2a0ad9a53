import { Chain, circle, transform, Vertex } from '../../geometry/plane/chain';
import { Feature, Shape } from './feature';
import { flipped, placed, placements } from './placed';
import { lettering } from './lettering';
import { maths } from '../../quantity/maths';

const QUARTER = maths.tan(Math.PI / 8);

function rectangle(width: number, height: number, radius: number): Chain {
  const w = width / 2;
  const h = height / 2;
  const r = Math.min(radius, w, h);
  if (r <= 0) {
    const corners = [
      [-w, -h],
      [w, -h],
      [w, h],
      [-w, h],
    ];
    return { closed: true, vertices: corners.map(([x, y]) => ({ x, y, bulge: 0 })) };
  }
  const rows: [number, number, number][] = [
    [-w + r, -h, 0],
    [w - r, -h, QUARTER],
    [w, -h + r, 0],
    [w, h - r, QUARTER],
    [w - r, h, 0],
    [-w + r, h, QUARTER],
    [-w, h - r, 0],
    [-w, -h + r, QUARTER],
  ];
  const vertices = rows.map(([x, y, bulge]): Vertex => ({ x, y, bulge }));
  return { closed: true, vertices: withoutDoubles(vertices) };
}

/** Drops pieces of no length, as where two corner arcs meet. */
function withoutDoubles(vertices: Vertex[]): Vertex[] {
  return vertices.filter((v, i) => {
    const next = vertices[(i + 1) % vertices.length];
    return maths.hypot(next.x - v.x, next.y - v.y) > 1e-9;
  });
}

function polygon(sides: number, across: number): Chain {
  const radius = across / 2 / maths.cos(Math.PI / sides);
  const turn = Math.PI / sides - Math.PI / 2;
  return {
    closed: true,
    vertices: Array.from({ length: sides }, (_, i) => ({
      x: radius * maths.cos(turn + (2 * Math.PI * i) / sides),
      y: radius * maths.sin(turn + (2 * Math.PI * i) / sides),
      bulge: 0,
    })),
  };
}

/** The lines of a shape about its own centre: one outline, counterclockwise for all but drawn chains, or the strokes of a text. */
export function linesOf(shape: Shape): Chain[] {
  switch (shape.type) {
    case 'rectangle':
      return [rectangle(shape.width, shape.height, shape.radius)];
    case 'round':
      return [circle(0, 0, shape.diameter / 2)];
    case 'slot':
      return [rectangle(Math.max(shape.length, shape.width), shape.width, shape.width / 2)];
    case 'polygon':
      return [polygon(shape.sides, shape.across)];
    case 'chain':
      return [{ vertices: shape.vertices, closed: shape.closed }];
    case 'text':
      return lettering(shape.text, shape.height);
  }
}

/** Every copy of a chain that belongs to a feature, part coordinates. */
function copiesOf(feature: Feature, chain: Chain): Chain[] {
  const first = transform(chain, { turn: feature.turn, dx: feature.x, dy: feature.y });
  const { centreX, centreY } = feature.pattern;
  return placements(feature.pattern).map((place) => {
    const { dx, dy, turn, mirrors } = place;
    if (mirrors.length > 0) {
      const { x, y, turn } = placed(feature, feature.pattern, place);
      const isFlipped = feature.shape.type === 'chain' && mirrors.length === 1;
      return transform(isFlipped ? { ...chain, vertices: flipped(chain.vertices) } : chain, { turn, dx: x, dy: y });
    }
    if (turn === 0) return dx === 0 && dy === 0 ? first : transform(first, { dx, dy });
    const around = transform(transform(first, { dx: -centreX, dy: -centreY }), { turn });
    return transform(around, { dx: centreX, dy: centreY });
  });
}

/** Every copy of a feature's lines in part coordinates. */
export const instancesOf = (feature: Feature): Chain[] => linesOf(feature.shape).flatMap((l) => copiesOf(feature, l));

/** The middle lines of a feature: of each copy of a slot, or open lines as they are drawn. */
export function centreLinesOf(feature: Feature): Chain[] {
  const { shape } = feature;
  if (shape.type === 'chain') return instancesOf(feature).filter((c) => !c.closed);
  if (shape.type !== 'slot') return [];
  const half = Math.max(0, shape.length - shape.width) / 2;
  return copiesOf(feature, { closed: false, vertices: [-half, half].map((x) => ({ x, y: 0, bulge: 0 })) });
}
