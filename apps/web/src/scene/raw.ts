import { NOTHING, StockModel, boundsOf, cellFor, stockField, SurfaceView } from '@tidypath/core';

/** Cells of the picture of a raw piece, and the finest of them, mm. */
const RAW = { cells: 20_000, finest: 0.3 };

/** A raw piece as a surface. */
export function rawSurface(block: StockModel): SurfaceView {
  const { top, bottom, region } = block;
  const { x0, y0, cell, nx, ny, height } = stockField(block, cellFor(boundsOf(region.flat()), RAW.cells, RAW.finest));
  return { x0, y0, cell, nx, ny, top, bottom, height: height.map((h) => (h <= NOTHING ? bottom : h)) };
}

/** Where a piece lies and how large it is: when that changes, the picture is fitted again. */
export const placeOf = (stock: SurfaceView | StockModel): string =>
  'height' in stock
    ? [stock.x0, stock.y0, stock.nx, stock.ny, stock.cell].join()
    : [stock.bottom, stock.top, ...Object.values(boundsOf(stock.region.flat()))].join();
