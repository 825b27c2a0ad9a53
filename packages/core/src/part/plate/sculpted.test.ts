import { contains } from '../../geometry/plane/clip';
import { Vec3, dot, minus } from '../../geometry/space/vec3';
import { plate } from '../../../testing/parts';
import { Sculpting, sculptingOf } from './sculpted';
import { Feature, Part } from './feature';
import { newFeature } from './new';

/** Whether a place is metal once all steps are taken. */
function isMetal({ blank, sides }: Sculpting, p: Vec3): boolean {
  const isIn = ({ region, from, to }: Sculpting['blank'], q: Vec3) => q.z > from && q.z < to && contains(region, q);
  if (!isIn(blank, p)) return false;
  return sides.every(({ steps, columns: [a, b, c, zero] }) => {
    const from = minus(p, zero);
    const q = { x: dot(from, a), y: dot(from, b), z: dot(from, c) };
    return !steps.reduce((taken, step) => (isIn(step, q) ? step.takes : taken), false);
  });
}

const outline = plate();
const feature = (meaning: Feature['meaning'], shape: Feature['shape'], more: Partial<Feature>): Feature =>
  newFeature([outline], meaning, meaning, shape, { depth: 4, through: false, ...more });
const partOf = (...features: Feature[]): Part => ({
  kind: 'plate',
  thickness: 20,
  features: [outline, ...features.map((f, i) => ({ ...f, id: `g${i}` }))],
});
const at = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const round = (diameter: number): Feature['shape'] => ({ type: 'round', diameter });

describe('a plate is sculpted', () => {
  test('from above: a pocket with a boss in it, a hole through with its mouth', () => {
    const sculpting = sculptingOf(
      partOf(
        feature('pocket', { type: 'rectangle', width: 30, height: 20, radius: 3 }, { x: 30, y: 25, depth: 6 }),
        feature('boss', round(8), { x: 30, y: 25, depth: 2 }),
        feature('hole', round(6), { x: 60, y: 25, through: true, counterbore: { diameter: 11, depth: 5 } }),
      ),
    );
    const metal = (x: number, y: number, z: number) => isMetal(sculpting, at(x, y, z));
    expect([metal(20, 25, -5.9), metal(20, 25, -6.1)]).toEqual([false, true]);
    expect([metal(30, 25, -1.9), metal(30, 25, -2.1)]).toEqual([false, true]);
    expect([metal(60, 25, -19.9), metal(63.1, 25, -5.1), metal(65, 25, -4.9)]).toEqual([false, true, false]);
  });

  test('from below, from beside and leaning', () => {
    const sculpting = sculptingOf(
      partOf(
        feature('pocket', round(20), { x: 20, y: 20, depth: 3, side: 'underside' }),
        feature('hole', round(5), { x: 15, y: 8, depth: 12, side: 'front' }),
        feature('hole', round(4), { x: 50, y: 30, depth: 10, lean: { to: 'right', degrees: 30 } }),
      ),
    );
    const metal = (x: number, y: number, z: number) => isMetal(sculpting, at(x, y, z));
    expect([metal(20, 20, -17.1), metal(20, 20, -16.9)]).toEqual([false, true]);
    // 8 mm over the underside, 15 from the left.
    expect([metal(15, 11.9, -12), metal(15, 12.1, -12), metal(15, 5, -15)]).toEqual([false, true, true]);
    // Along its axis, which goes down to the left.
    const along = (deep: number): [number, number, number] => [
      50 - deep * Math.sin(Math.PI / 6),
      30,
      -deep * Math.cos(Math.PI / 6),
    ];
    expect([metal(...along(1)), metal(...along(9.9)), metal(...along(10.1))]).toEqual([false, false, true]);
  });

  test('its broken edges: as far in as they are at each height, round an opening and along a line, mitred at corners', () => {
    const chamfer = { form: 'chamfer' as const, size: 2, angle: 90 };
    const step = feature(
      'pocket',
      { type: 'rectangle', width: 200, height: 20, radius: 0 },
      { x: 40, y: 50, depth: 8 },
    );
    const ends = [0, 80].map((x) => ({ x, y: 40, bulge: 0 }));
    const line = feature('edge', { type: 'chain', vertices: ends, closed: false }, { edge: chamfer, depth: 0 });
    const hole = feature('hole', round(10), { x: 40, y: 20, through: true, edge: { ...chamfer, form: 'round' } });
    const part = partOf(step, line, hole);
    const all = sculptingOf({
      ...part,
      features: part.features.map((f) => (f === outline ? { ...f, edge: chamfer } : f)),
    });
    const edgeOf = (id: string) => all.sides[0].edges.find((e) => e.feature === id)!;
    const along = edgeOf('g1');
    expect(along.isClosed).toBe(false);
    // From a little beside the wall, 2 below the top, to a little over the top, 2 into the metal.
    for (const [from, to] of along.rows) {
      expect([from.y + from.z, to.y + to.z]).toEqual([expect.closeTo(38, 6), expect.closeTo(38, 6)]);
      expect([from.y, to.y]).toEqual([expect.closeTo(40, 1), expect.closeTo(38, 1)]);
      expect(from.y > 40 && to.z > 0).toBe(true);
    }
    const round2 = edgeOf('g2').rows.flatMap((row) => row.slice(1, -2));
    // On a quarter circle of 2 mm whose middle lies 7 mm from the axis, 2 below the top.
    for (const p of round2) expect(Math.hypot(Math.hypot(p.x - 40, p.y - 20) - 7, p.z + 2)).toBeCloseTo(2, 2);
    for (const [, { x, y }] of edgeOf(outline.id).rows)
      expect([x, y].map((v, k) => Math.min(v, [80, 50][k] - v))).toEqual([expect.closeTo(2, 1), expect.closeTo(2, 1)]);
  });
});
