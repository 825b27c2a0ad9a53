import { shapeOf } from './rings';

test('a ring of four arcs is no rectangle', () => {
  const bulge = 0.1;
  const vertices = [
    { x: 0, y: 0, bulge },
    { x: 20, y: 0, bulge },
    { x: 20, y: 10, bulge },
    { x: 0, y: 10, bulge },
  ];
  expect(shapeOf({ closed: true, vertices }).shape).toEqual({ type: 'chain', closed: true, vertices });
});

const round = Math.tan(Math.PI / 8);
test.each([
  [
    'a lever, ends of two widths',
    [
      [20, 5, 0],
      [100, 13, 1],
      [100, 37, 0],
      [20, 45, 1],
    ],
  ],
  [
    'a slot whose ends do not face each other',
    [
      [0, -5, 0],
      [30, -3, 1],
      [30, 7, 0],
      [0, 5, 1],
    ],
  ],
  [
    'a rectangle with corners of two radii',
    [
      [5, 0, 0],
      [35, 0, round],
      [40, 5, 0],
      [40, 18, round],
      [38, 20, 0],
      [5, 20, round],
      [0, 15, 0],
      [0, 5, round],
    ],
  ],
])('%s is drawn as it is', (_, corners) => {
  const vertices = corners.map(([x, y, bulge]) => ({ x, y, bulge }));
  expect(shapeOf({ closed: true, vertices }).shape).toEqual({ type: 'chain', closed: true, vertices });
});
