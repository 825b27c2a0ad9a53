/** Drawings written: curves by layer, as DXF and as SVG. */
import { Chain, asCircle, chainBounds } from '../../geometry/plane/chain';
import { EMPTY_BOUNDS, isEmpty, joinBounds } from '../../geometry/plane/point';
import { LengthUnit, MM_PER_INCH } from '../../quantity/units';
import { svgPath } from '../plate/outline-path';

/** A curve to be written, mm. */
export interface Drawn {
  chain: Chain;
  layer: string;
}

/** Digits behind the point: a tenth of a micrometre, in inches no coarser. */
const DIGITS = { mm: 4, inch: 6 } as const;
/** How DXF names the unit of its numbers. */
const UNIT_CODES = { mm: 4, inch: 1 } as const;

/** A layer as every reader of DXF takes it: letters, digits and lines. */
const layerName = (layer: string): string =>
  layer
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^A-Za-z0-9_$-]+/g, '_')
    .slice(0, 31)
    .toUpperCase() || '0';

/**
 * Curves as an ASCII DXF drawing in the form of release 12, which every reader knows: circles, and polylines with arcs.
 * @param unit its numbers are written in
 */
export function dxfText(curves: Drawn[], unit: LengthUnit): string {
  const by = unit === 'inch' ? 1 / MM_PER_INCH : 1;
  const n = (mm: number) => String(Number((mm * by).toFixed(DIGITS[unit])) + 0);
  const lines: string[] = [];
  const tags = (...pairs: [number, string | number][]) =>
    pairs.forEach(([code, v]) => lines.push(String(code), String(v)));
  const layers = [...new Set(curves.map((c) => layerName(c.layer)))];
  tags(
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1009'],
    [9, '$INSUNITS'],
    [70, UNIT_CODES[unit]],
    [0, 'ENDSEC'],
  );
  tags([0, 'SECTION'], [2, 'TABLES'], [0, 'TABLE'], [2, 'LAYER'], [70, layers.length]);
  for (const layer of layers) tags([0, 'LAYER'], [2, layer], [70, 0], [62, 7], [6, 'CONTINUOUS']);
  tags([0, 'ENDTAB'], [0, 'ENDSEC'], [0, 'SECTION'], [2, 'ENTITIES']);
  for (const { chain, layer } of curves) {
    const on: [number, string] = [8, layerName(layer)];
    const round = chain.closed ? asCircle(chain) : undefined;
    if (round) {
      tags([0, 'CIRCLE'], on, [10, n(round.centre.x)], [20, n(round.centre.y)], [40, n(round.radius)]);
      continue;
    }
    tags([0, 'POLYLINE'], on, [66, 1], [70, chain.closed ? 1 : 0], [10, 0], [20, 0]);
    for (const { x, y, bulge } of chain.vertices)
      tags(
        [0, 'VERTEX'],
        on,
        [10, n(x)],
        [20, n(y)],
        ...(bulge ? [[42, Number(bulge.toFixed(9))] as [number, number]] : []),
      );
    tags([0, 'SEQEND'], on);
  }
  tags([0, 'ENDSEC'], [0, 'EOF']);
  return `${lines.join('\r\n')}\r\n`;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** Curves as an SVG drawing in its true size, a group for each layer. */
export function svgText(curves: Drawn[]): string {
  const box = curves.reduce((b, c) => joinBounds(b, chainBounds(c.chain)), EMPTY_BOUNDS);
  const { minX, minY, maxX, maxY } = isEmpty(box) ? { minX: 0, minY: 0, maxX: 1, maxY: 1 } : box;
  const n = (mm: number) => Number(mm.toFixed(DIGITS.mm));
  const [width, height] = [n(maxX - minX), n(maxY - minY)];
  const layers = [...new Set(curves.map((c) => c.layer))];
  const groups = layers.map((layer) => {
    const paths = curves
      .filter((c) => c.layer === layer)
      .map(({ chain }) => `<path d="${svgPath(downwards(chain, maxY), DIGITS.mm)}"/>`);
    return `<g id="${escaped(layer)}">${paths.join('')}</g>`;
  });
  const head = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="${n(minX)} 0 ${width} ${height}"`;
  return `<?xml version="1.0" encoding="UTF-8"?>\n${head} fill="none" stroke="black" stroke-width="0.1">\n${groups.join('\n')}\n</svg>\n`;
}

/** A chain with Y counted down from a height. */
const downwards = ({ closed, vertices }: Chain, from: number): Chain => ({
  closed,
  vertices: vertices.map((v) => ({ x: v.x, y: from - v.y, bulge: -v.bulge })),
});
