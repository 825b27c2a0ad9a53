/** A small writer of DXF entities, for the demo drawings and for tests. */

const tags = (...pairs: [number, string | number][]) => pairs.map(([code, value]) => `${code}\n${value}`).join('\n');

export const line = (layer: string, x0: number, y0: number, x1: number, y1: number) =>
  tags([0, 'LINE'], [8, layer], [10, x0], [20, y0], [11, x1], [21, y1]);

export const arc = (layer: string, x: number, y: number, r: number, from: number, to: number) =>
  tags([0, 'ARC'], [8, layer], [10, x], [20, y], [40, r], [50, from], [51, to]);

export const circle = (layer: string, x: number, y: number, r: number) =>
  tags([0, 'CIRCLE'], [8, layer], [10, x], [20, y], [40, r]);

export const polyline = (layer: string, closed: boolean, points: [number, number, number?][]) =>
  tags(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, points.length],
    [70, closed ? 1 : 0],
    ...points.flatMap(([x, y, bulge]): [number, number][] => [
      [10, x],
      [20, y],
      [42, bulge ?? 0],
    ]),
  );

/** A rectangle about (x, y) drawn as four lines and four arcs, as many drawing programs do. */
export function roundedRectangle(layer: string, x: number, y: number, w: number, h: number, r: number): string {
  const [l, b, t, u] = [x - w / 2, y - h / 2, x + w / 2, y + h / 2];
  return [
    line(layer, l + r, b, t - r, b),
    arc(layer, t - r, b + r, r, 270, 0),
    line(layer, t, b + r, t, u - r),
    arc(layer, t - r, u - r, r, 0, 90),
    line(layer, t - r, u, l + r, u),
    arc(layer, l + r, u - r, r, 90, 180),
    line(layer, l, u - r, l, b + r),
    arc(layer, l + r, b + r, r, 180, 270),
  ].join('\n');
}

/** A whole file; `insunits` 1 inch, 4 mm, undefined for none. */
export function dxf(entities: string[], insunits?: number): string {
  const header =
    insunits === undefined
      ? []
      : [tags([0, 'SECTION'], [2, 'HEADER'], [9, '$INSUNITS'], [70, insunits], [0, 'ENDSEC'])];
  return (
    [...header, tags([0, 'SECTION'], [2, 'ENTITIES']), ...entities, tags([0, 'ENDSEC'], [0, 'EOF'])].join('\n') + '\n'
  );
}
