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
