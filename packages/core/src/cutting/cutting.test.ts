import { MACHINES, MATERIALS, TOOLS } from '../shop/library';
import { powerAt, torqueAt } from '../machine/machine';
import { gaugesOf } from './gauges';
import { drillPower, helixDrop, pointLength } from './holes';
import * as m from './milling';

const deg = (r: number) => (r * 180) / Math.PI;
const rad = (d: number) => (d * Math.PI) / 180;

describe('check values of milling', () => {
  test('spindle speed and feed', () => {
    expect(m.spindleSpeed(200, 10)).toBeCloseTo(6366.2, 1);
    expect(m.surfaceSpeed(6366.2, 10)).toBeCloseTo(200, 2);
    expect(m.feedRate(6366, 3, 0.05)).toBeCloseTo(954.9, 1);
  });

  test.each([
    [0.5, 25.84],
    [1, 36.87],
    [2, 53.13],
    [3, 66.42],
    [5, 90],
    [7.5, 120],
    [10, 180],
  ])('engaged angle of a bite of %d mm with D 10', (ae, expected) => {
    expect(deg(m.engagement(ae, 10))).toBeCloseTo(expected, 2);
    expect(m.biteFor(m.engagement(ae, 10), 10)).toBeCloseTo(ae, 9);
  });

  test.each([
    [0.5, 0.4359],
    [1, 0.6],
    [2, 0.8],
    [3, 0.9165],
  ])('largest chip at %d mm', (ae, share) => expect(m.largestChip(1, m.engagement(ae, 10))).toBeCloseTo(share, 4));

  test.each([
    [1, 0.3108],
    [2, 0.4314],
    [5, 0.6366],
    [10, 0.6366],
  ])('mean chip at %d mm', (ae, share) => expect(m.meanChip(1, ae, 10)).toBeCloseTo(share, 4));

  test('chip thinning, force, removal, power, torque', () => {
    expect(m.chipLoadFor(0.03, m.engagement(1, 10))).toBeCloseTo(0.05, 9);
    expect(m.specificForce(1700, 0.25, 0.01554)).toBeCloseTo(4815, 0);
    expect(m.removalRate(10, 1, 954.9)).toBeCloseTo(9.549, 3);
    const n = m.spindleSpeed(150, 10);
    const power = m.cuttingPower(10, 1, m.feedRate(n, 4, 0.05), m.specificForce(1700, 0.25, m.meanChip(0.05, 1, 10)));
    expect(power).toBeCloseTo(0.766, 3);
    expect(m.torqueOf(power, n)).toBeCloseTo(1.53, 2);
  });

  test('deflection', () => {
    expect(m.cantilever(100, 30, 8, m.MODULUS.carbide)).toBeCloseTo(0.00746, 5);
    expect(m.cantilever(100, 30, 8, m.MODULUS.hss)).toBeCloseTo(0.0213, 4);
    const piece = (from: number, to: number) => ({ from, to, d: 8, E: m.MODULUS.carbide });
    expect(m.beamDeflection(100, [piece(0, 30)])).toBeCloseTo(0.00746, 5);
    expect(m.beamDeflection(100, [piece(0, 12), piece(12, 30)])).toBeCloseTo(0.00746, 5);
    expect(m.beamDeflection(100, [piece(0, 40)])).toBeGreaterThan(0.0074 * 2);
    expect(m.beamSlope(100, [piece(0, 30)])).toBeCloseTo((1.5 * 0.00746) / 30, 6);
  });

  test('corners, arcs, balls', () => {
    expect(deg(m.engagement(4, 10))).toBeCloseTo(78.46, 2);
    expect(deg(m.cornerEngagement(4, 10, rad(90)))).toBeCloseTo(168.46, 2);
    expect(deg(m.cornerEngagement(8, 10, rad(30)))).toBeCloseTo(180, 6);
    expect(m.arcFeed(1000, 10, 5, 'inside')).toBe(500);
    expect(m.arcFeed(1000, 10, 5, 'outside')).toBe(1500);
    expect(m.ballDiameter(0.3, 6)).toBeCloseTo(2.615, 3);
    expect(m.ballDiameter(0.3, 6, rad(15))).toBeCloseTo(3.924, 3);
    expect(m.scallopHeight(0.3, 6)).toBeCloseTo(0.00375, 5);
    expect(m.stepoverForScallop(0.005, 6)).toBeCloseTo(0.346, 3);
    expect(m.feedMarks(0.1, 10)).toBeCloseTo(0.00025, 6);
  });
});

describe('check values of holes', () => {
  test.each([
    [90, 0.5],
    [118, 0.3004],
    [130, 0.2332],
    [135, 0.2071],
    [140, 0.182],
  ])('point of %d degrees', (point, share) => expect(pointLength(1, point)).toBeCloseTo(share, 4));

  test('helix and power', () => {
    expect(helixDrop(8, rad(2))).toBeCloseTo(0.8777, 4);
    expect(drillPower(0.1, 25, 10, 2000)).toBeCloseTo(0.2083, 4);
  });
});

test('spindle power follows torque below the corner speed and is flat above it', () => {
  const [mill] = MACHINES;
  expect(powerAt(mill, 1000)).toBeCloseTo((4 * 1000) / 9549, 3);
  expect(powerAt(mill, 9000)).toBe(1.1);
  expect(torqueAt(mill, 100)).toBeCloseTo(4, 2);
  const falling = {
    spindle: [
      { rpm: 1000, kW: 1 },
      { rpm: 3000, kW: 2 },
      { rpm: 9000, kW: 0.5 },
    ],
  };
  expect([500, 2000, 6000, 20000].map((n) => powerAt(falling, n))).toEqual([0.5, 1.5, 1.25, 0.5]);
});

describe('gauges', () => {
  test('gauges speak the unit of the job', () => {
    const tool = TOOLS.find((t) => t.number === 4)!;
    const cut = { tool, material: MATERIALS[0], machine: MACHINES[0], rpm: 8000, feed: 1200, ae: 5, ap: 5 };
    expect(gaugesOf(cut)[0].text).toBe('0.05 mm');
    expect(gaugesOf(cut, 'inch')[0].text).toBe('0.002 in');
  });

  test('a gauge says when its limit is passed', () => {
    const [bench] = MACHINES;
    const tool = TOOLS.find((t) => t.number === 4)!;
    const gauges = gaugesOf({ tool, material: MATERIALS[3], machine: bench, rpm: 9000, feed: 3000, ae: 10, ap: 20 });
    expect(gauges.find((g) => g.id === 'load')!.state).toBe('over');
    expect(
      gaugesOf({ tool: TOOLS[14], material: MATERIALS[0], machine: bench, rpm: 5000, feed: 300, ae: 5, ap: 5 }).map(
        (g) => g.id,
      ),
    ).toEqual(['chip', 'load', 'grip']);
  });
});

test('taps and reamers show no chip gauge: their hole and pitch decide, so it could only alarm for nothing', () => {
  const shown = (number: number) =>
    gaugesOf({
      tool: TOOLS.find((t) => t.number === number)!,
      material: MATERIALS[0],
      machine: MACHINES[0],
      rpm: 800,
      feed: 640,
      ae: 1,
      ap: 5,
    }).map((g) => g.id);
  for (const number of [35, 36, 37, 38]) expect(shown(number)).toEqual(['load', 'grip']);
  expect(shown(15)).toContain('chip');
});
