/** The same work in several stations: all of their stock and what holds it, in the coordinates of the first. */
import { placesOfStations, offsetsOf } from '../document/stations';
import { Setup } from '../document/job';
import { Bounds, Point, boundsOf } from '../geometry/plane/point';
import { FixtureBox } from '../geometry/space/box';
import { Contact } from '../holding/holding';
import { Piece, pieceOf } from '../stock/height/height-stock';
import { StockModel } from '../stock/height/stock';
import { tiled } from '../stock/height/turned';
import { Ground, bodiesOf } from './ground';

const movedRings = (rings: Point[][], { x, y }: Point): Point[][] =>
  rings.map((ring) => ring.map((p) => ({ x: p.x + x, y: p.y + y })));

const movedBody = (b: FixtureBox, { x, y }: Point): FixtureBox => ({
  ...b,
  minX: b.minX + x,
  maxX: b.maxX + x,
  minY: b.minY + y,
  maxY: b.maxY + y,
  ...(b.outline && { outline: movedRings([b.outline], { x, y })[0] }),
});

const movedContact = (c: Contact, { x, y }: Point): Contact => ({
  ...c,
  from: { x: c.from.x + x, y: c.from.y + y },
  to: { x: c.to.x + x, y: c.to.y + y },
});

/** Bodies as they stand in every station. */
export const bodiesEverywhere = (setup: Setup, bodies: FixtureBox[]): FixtureBox[] =>
  placesOfStations(setup).flatMap((place) => (place.x || place.y ? bodies.map((b) => movedBody(b, place)) : bodies));

/** What jaws and clamps press on in every station. */
export const contactsEverywhere = (setup: Setup, contacts: Contact[]): Contact[] =>
  placesOfStations(setup).flatMap((place) => contacts.map((c) => movedContact(c, place)));

/** The stock of all stations; what is in it stands in the piece. */
export function stockEverywhere(setup: Setup, stock: StockModel): StockModel {
  const places = placesOfStations(setup);
  if (places.length === 1) return stock;
  return { region: places.flatMap((p) => movedRings(stock.region, p)), top: stock.top, bottom: stock.bottom };
}

/**
 * The piece of every station to begin with; undefined where there is one and its stock is fresh.
 * @param left what an earlier setup left of one
 */
export function pieceEverywhere(setup: Setup, stock: StockModel, left: Piece | undefined, cell?: number) {
  const places = placesOfStations(setup);
  if (places.length === 1) return left;
  const whole = boundsOf(stockEverywhere(setup, stock).region.flat());
  return tiled(left ?? pieceOf(stock, whole, cell), places, stock.bottom);
}

/** Where the zeros of the stations lie from the first one’s; undefined where there is but one. */
export function zerosOf(setup: Setup): Map<string, { x: number; y: number; z: number }> | undefined {
  const places = placesOfStations(setup);
  if (places.length === 1) return undefined;
  return new Map(offsetsOf(setup).map((name, k) => [name, { ...places[k], z: 0 }]));
}

/** What stands in one station: its stock and what holds it. */
export const stationBounds = ({ stock, held }: Ground): Bounds =>
  boundsOf([
    ...stock.region.flat(),
    ...bodiesOf(held).flatMap((b) => [
      { x: b.minX, y: b.minY },
      { x: b.maxX, y: b.maxY },
    ]),
  ]);
