import 'reflect-metadata';
import fc from 'fast-check';
import { solidFile, terraces } from '../../../testing/solids';
import { area } from '../../geometry/plane/clip';
import { boxRound } from '../../geometry/space/triangles';
import { readModel } from './read/read';
import { sectionAt } from './section';

test('a section of columns is those that stand higher', () => {
  const heights = fc.array(fc.array(fc.integer({ min: -4, max: 0 }), { minLength: 3, maxLength: 3 }), {
    minLength: 3,
    maxLength: 3,
  });
  fc.assert(
    fc.property(heights, fc.double({ min: -4.5, max: -0.1, noNaN: true }), (tops, z) => {
      fc.pre(!Number.isInteger(z));
      const higher = tops.flat().filter((h) => h > z).length;
      expect(area(sectionAt(terraces(tops), z))).toBeCloseTo(100 * higher, 6);
    }),
    { numRuns: 60 },
  );
});

test('hollows are no metal: a flange is a ring', () => {
  const { mesh } = readModel(solidFile('hub-flange.stl')).bodies[0];
  const { min } = boxRound(mesh);
  const found = area(sectionAt(mesh, min.z + 3));
  const ring = Math.PI * (55 ** 2 - 15 ** 2 - 6 * 4.5 ** 2);
  expect(Math.abs(found - ring) / ring).toBeLessThan(2e-3);
});
