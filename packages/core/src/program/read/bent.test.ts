import { bentWay } from './bent';
import { MOVE } from '../../path/motions';
import { readProgram } from './reader';

const at = (x: number, y: number, z: number) => ({ x, y, z });

test('axes run together until the nearest is there', () => {
  expect(bentWay(at(0, 0, 0), at(30, -10, 0))).toEqual([at(10, -10, 0), at(30, -10, 0)]);
  expect(bentWay(at(0, 0, 50), at(30, 10, 30))).toEqual([at(10, 10, 40), at(20, 10, 30), at(30, 10, 30)]);
});

test('one axis alone, equal ways and unknown places stay straight', () => {
  expect(bentWay(at(0, 0, 0), at(0, 7, 0))).toEqual([at(0, 7, 0)]);
  expect(bentWay(at(0, 0, 0), at(7, -7, 0))).toEqual([at(7, -7, 0)]);
  expect(bentWay(at(1, 2, 3), at(1, 2, 3))).toEqual([at(1, 2, 3)]);
  expect(bentWay(at(NaN, 2, 3), at(1, 5, 9))).toEqual([at(1, 5, 9)]);
});

describe('read for such a machine', () => {
  const places = (body: string, bentRapids: boolean) => {
    const { motions: m } = readProgram(`G21 G90 G54\nT1 M6\nS900 M3\nG0 X0 Y0 Z5\n${body}`, {
      homeZ: 100,
      unit: 'mm',
      bentRapids,
    });
    return Array.from({ length: m.count }, (_, i) => [m.type[i], m.x[i], m.y[i], m.line[i]]).filter(
      ([, , , line]) => line > 4,
    );
  };
  test('a rapid is bent and keeps its line, a feed is straight', () => {
    expect(places('G0 X30 Y10\nG1 X0 Y0 F100\n', true)).toEqual([
      [MOVE.rapid, 10, 10, 5],
      [MOVE.rapid, 30, 10, 5],
      [MOVE.line, 0, 0, 6],
    ]);
    expect(places('G0 X30 Y10\n', false)).toEqual([[MOVE.rapid, 30, 10, 5]]);
  });
  test('it bends along the axes of the machine, though the work is turned', () => {
    const [corner, end] = places('G68 X0 Y0 R90\nG0 X30 Y10\n', true);
    expect(corner[1]).toBeCloseTo(-10);
    expect(corner[2]).toBeCloseTo(10);
    expect(end[1]).toBeCloseTo(-10);
    expect(end[2]).toBeCloseTo(30);
  });
});
