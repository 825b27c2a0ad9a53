import { Region, Ring, difference, union } from '../src/geometry/plane/clip';

const rect = (x0: number, y0: number, x1: number, y1: number): Ring => [
  { x: x0, y: y0 },
  { x: x1, y: y0 },
  { x: x1, y: y1 },
  { x: x0, y: y1 },
];

const disc = (x: number, y: number, r: number, n = 120): Ring =>
  Array.from({ length: n }, (_, i) => ({
    x: x + r * Math.cos((2 * Math.PI * i) / n),
    y: y + r * Math.sin((2 * Math.PI * i) / n),
  }));

/** A wavy closed curve. */
const blob = (x: number, y: number): Ring =>
  Array.from({ length: 60 }, (_, i) => {
    const a = (2 * Math.PI * i) / 60;
    const r = 38 + 6 * Math.sin(3 * a) + 3 * Math.cos(5 * a + 1);
    return { x: x + r * Math.cos(a), y: y + 0.8 * r * Math.sin(a) };
  });

/** What must be cleared, what must stay beside it, and the stock; mm. `slots` where passages are narrow. */
export interface ClearingShape {
  name: string;
  /** The area to be cleared. */
  target: Region;
  /** Metal of the part, never to be touched. */
  keep: Region;
  stock: Region;
  kind: 'plain' | 'islands' | 'narrow' | 'open';
}

const PLATE: Region = [rect(-30, -30, 150, 110)];

/** A closed pocket in a plate. */
const pocket = (name: string, target: Region, kind: ClearingShape['kind']): ClearingShape => ({
  name,
  target,
  keep: difference(PLATE, target),
  stock: PLATE,
  kind,
});

/** The shapes that clearing is measured on, for a cutter of diameter `D`. */
export function clearingShapes(D: number): ClearingShape[] {
  const room: Region = [rect(0, 0, 120, 80)];
  const boss: Region = union([rect(35, 25, 85, 55)], [disc(60, 40, 20)]);
  const half: Region = [rect(0, 0, 120, 60)];
  const uneven: Region = [rect(20, 20, 100, 60)];
  return [
    pocket('rectangle', room, 'plain'),
    pocket(
      'three islands',
      difference(room, union([disc(30, 40, 8), rect(55, 15, 70, 35)], [disc(92, 52, 11)])),
      'islands',
    ),
    pocket(
      'comb',
      union([rect(0, 0, 120, 34)], union([rect(0, 30, 22, 80), rect(38, 30, 60, 80)], [rect(76, 30, 98, 80)])),
      'narrow',
    ),
    pocket('L', union([rect(0, 0, 120, 40)], [rect(0, 0, 45, 80)]), 'plain'),
    pocket(
      'neck of 1.15 D',
      union([rect(0, 0, 50, 80), rect(70, 0, 120, 80)], [rect(45, 40 - 0.575 * D, 75, 40 + 0.575 * D)]),
      'narrow',
    ),
    pocket(
      '30° corner',
      [
        [
          { x: 0, y: 0 },
          { x: 120, y: 0 },
          { x: 120, y: 120 * Math.tan(Math.PI / 6) },
        ],
      ],
      'narrow',
    ),
    pocket('sliver island', difference(room, [rect(40, 39.75, 80, 40.25)]), 'islands'),
    {
      name: 'boss from outside',
      target: difference([rect(0, 0, 120, 80)], boss),
      keep: boss,
      stock: room,
      kind: 'open',
    },
    {
      name: 'one open side',
      target: half,
      keep: difference([rect(-20, 0, 140, 90)], half),
      stock: [rect(-20, 0, 140, 90)],
      kind: 'open',
    },
    {
      name: 'shoulder',
      target: [rect(40, 0, 120, 60)],
      keep: [rect(0, 0, 40, 60)],
      stock: [rect(0, 0, 120, 60)],
      kind: 'open',
    },
    pocket('blob', [blob(60, 40)], 'plain'),
    {
      name: 'uneven stock',
      target: difference([rect(8, 17, 118, 62)], uneven),
      keep: uneven,
      stock: [rect(8, 17, 118, 62)],
      kind: 'open',
    },
    pocket(
      'two rooms and a passage',
      union([disc(25, 40, 24), disc(95, 40, 24)], [rect(25, 40 - 0.8 * D, 95, 40 + 0.8 * D)]),
      'narrow',
    ),
  ];
}
