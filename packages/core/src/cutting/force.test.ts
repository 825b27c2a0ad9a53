import { AIMS } from '../../testing/aims';
import fc from 'fast-check';
import { radians } from '../quantity/units';
import { MACHINES, MATERIALS } from '../shop/library';
import { tapTorque, twistStress } from './twist';
import { tool } from '../../testing/parts';
import { bendingOf, bentShape } from './cut';
import { HelicalCut, helicalForce } from './force';
import { engagement } from './milling';
import { suggest } from './suggest';

/** D, teeth, helix°, ap, ae, fz, kc1.1, mc; peak N, mean tangential N, torque N·m, arm mm. */
const CHECKS = [
  [12, 5, 38, 24, 1.2, 0.1, 1800, 0.25, 1957, 1576, 9.46, 12.5],
  [12, 5, 0, 24, 1.2, 0.1, 1800, 0.25, 5467, 1576, 9.46, 12.0],
  [12, 6, 38, 18, 1.2, 0.0592, 1600, 0.24, 971, 819, 4.91, 9.7],
  [10, 3, 40, 20, 1, 0.08, 600, 0.25, 286, 222, 1.11, 10.4],
  [10, 4, 30, 5, 5, 0.05, 1700, 0.25, 887, 622, 3.11, 2.6],
  [10, 4, 30, 10, 10, 0.03, 1700, 0.25, 1365, 1695, 8.48, 5.0],
  [16, 4, 38, 8, 16, 0.08, 1600, 0.24, 2108, 2588, 20.7, 4.0],
  [6, 4, 35, 12, 0.5, 0.04, 1700, 0.25, 296, 255, 0.77, 6.3],
];

const cutOf = ([D, teeth, helix, ap, ae, fz, kc11, mc]: number[]): HelicalCut => ({
  diameter: D,
  teeth,
  helix: radians(helix),
  ap,
  engagement: engagement(ae, D),
  fz,
  kc11,
  mc,
});

test.each(CHECKS)('D %d z %d helix %d ap %d ae %d fz %d', (...row) => {
  const [peak, mean, torque, arm] = row.slice(8);
  const found = helicalForce(cutOf(row));
  expect(Math.abs(found.peak / peak - 1)).toBeLessThan(0.005);
  expect(Math.abs(found.mean / mean - 1)).toBeLessThan(0.005);
  expect(Math.abs((found.mean * row[0]) / 2000 / torque - 1)).toBeLessThan(0.01);
  expect(Math.abs(found.arm / arm - 1)).toBeLessThan(0.15);
});

/** The same by brute force: slices and angles. */
function summed({ diameter, teeth, helix, ap, engagement: end, fz, kc11, mc }: HelicalCut, slices = 400): number {
  const lag = (ap * Math.tan(helix)) / (diameter / 2);
  let most = 0;
  for (let k = 0; k < 720; k++) {
    let [x, y] = [0, 0];
    for (let j = 0; j < teeth; j++)
      for (let i = 0; i < slices; i++) {
        const turn = (k * Math.PI) / 360 + (j * 2 * Math.PI) / teeth - (lag * (i + 0.5)) / slices;
        const psi = turn - 2 * Math.PI * Math.floor(turn / (2 * Math.PI));
        if (psi > end) continue;
        const t = kc11 * (fz * Math.sin(psi)) ** (1 - mc) * (ap / slices);
        x += t * Math.cos(psi) + 0.3 * t * Math.sin(psi);
        y += t * Math.sin(psi) - 0.3 * t * Math.cos(psi);
      }
    most = Math.max(most, Math.hypot(x, y));
  }
  return most;
}

test('any cut agrees with the sum over slices and angles', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 6 }),
      fc.integer({ min: 10, max: 45 }),
      fc.double({ min: 0.2, max: 3, noNaN: true }),
      fc.double({ min: 0.03, max: 1, noNaN: true }),
      (teeth, helix, deep, share) => {
        const cut = cutOf([10, teeth, helix, 10 * deep, 10 * share, 0.05, 1700, 0.25]);
        expect(Math.abs(helicalForce(cut).peak / summed(cut) - 1)).toBeLessThan(0.03);
      },
    ),
    { seed: 4, numRuns: 25 },
  );
});

test('force grows with feed by its power, and nothing engaged pushes nothing', () => {
  const cut = cutOf(CHECKS[0]);
  const twice = helicalForce({ ...cut, fz: 2 * cut.fz });
  expect(twice.peak / helicalForce(cut).peak).toBeCloseTo(2 ** 0.75, 6);
  expect(helicalForce({ ...cut, engagement: 0 })).toEqual({ peak: 0, mean: 0, arm: 0 });
});

test('a load that acts along the flutes bends less than one at the tip', () => {
  const segment = { length: 1, lower: 12, upper: 12 };
  const holder = { ...tool(4).holder, segments: [segment] };
  const stepped = {
    ...tool(4),
    material: 'carbide' as const,
    diameter: 12,
    fluteLength: 30,
    shankDiameter: 12,
    stickOut: 40,
    holder,
  };
  const stiff = { ...stepped, holder: { ...holder, segments: [{ ...segment, length: 1e-6 }] } };
  expect(bendingOf({ ...stiff }, 1000, 0).deflection).toBeCloseTo(0.0562, 3);
  expect(bendingOf({ ...stepped, holder: stiff.holder, id: 'other' }, 1000, 12).deflection).toBeCloseTo(0.0289, 3);
});

test('a bent tool has the curve of its beam: 1 − 1.5·z/L + 0.5·(z/L)³ where it is even, no kink, and gives at its holder too', () => {
  const { holder } = tool(4);
  const stiff = { ...holder, segments: [{ ...holder.segments[0], length: 1e-6 }] };
  const even = { ...tool(4), shankDiameter: 8, diameter: 10, fluteLength: 20, stickOut: 40, holder: stiff };
  const heights = [0, 10, 20, 30, 40];
  bentShape(even, 0, heights).forEach((share, i) => {
    const t = heights[i] / 40;
    expect(share).toBeCloseTo(1 - 1.5 * t + 0.5 * t ** 3, 5);
  });
  const real = tool(4);
  const [nose] = bentShape(real, 5, [real.stickOut]);
  expect(nose).toBeGreaterThan(0);
  expect(nose).toBeLessThan(0.5);
});

describe('torque of drills and taps', () => {
  const steel = MATERIALS.find((m) => m.id === 'steel-alloy')!;

  test('a tap by P²·D·kc/8000, pressed threads more', () => {
    const tap = { kind: 'tap' as const, diameter: 6, pitch: 1 };
    const kc = steel.kc11 * 0.05 ** -steel.mc;
    expect(tapTorque(tap, steel)).toBeCloseTo((1 * 6 * kc) / 8000, 9);
    expect(tapTorque({ ...tap, kind: 'forming-tap' }, steel)).toBeCloseTo(1.8 * tapTorque(tap, steel), 9);
  });

  test('an M6 tap and a 3 mm drill in alloy steel are far from what breaks them; a coarse thread on a thin tap is not', () => {
    const share = (t: { kind: 'tap' | 'drill'; diameter: number }, torque: number) => twistStress(t, torque) / 1200;
    const tap = { kind: 'tap' as const, diameter: 6, pitch: 1 };
    expect(share(tap, tapTorque(tap, steel))).toBeLessThan(0.4);
    expect(share({ kind: 'drill', diameter: 3 }, 0.245)).toBeLessThan(0.2);
    const thin = { kind: 'tap' as const, diameter: 3, pitch: 1.5 };
    expect(share(thin, tapTorque(thin, steel))).toBeGreaterThan(1);
  });
});

describe('what careful shops run, settled and firm, on a mid-size machining centre', () => {
  const machine = MACHINES.find((m) => m.id === 'fulmar')!;
  test.each(AIMS.map((aim) => [aim.name, aim] as const))('%s', (_, { on, least, most }) => {
    const found = suggest(on(machine));
    expect(found.feed).toBeGreaterThanOrEqual(least);
    expect(found.feed).toBeLessThanOrEqual(most);
    const less = suggest(on(MACHINES.find((m) => m.id === 'sanderling')!));
    expect(less.feed).toBeLessThan(found.feed);
    expect(less.limit).not.toBe('range');
    expect(suggest({ ...on(machine), grip: 'poor' }).feed).toBeLessThan(found.feed);
  });
});
