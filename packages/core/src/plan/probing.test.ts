import fc from 'fast-check';
import { jobWith, withStock } from '../../testing/jobs';
import { Probed, Spot, runProbing } from '../../testing/probe-control';
import { boundsOf } from '../geometry/plane/point';
import { addSetup } from '../document/edit';
import { addHolding } from './holds';
import type { Job } from '../document/job';
import { partModel } from '../part/plate/model';
import { CONTROLLERS } from '../shop/controllers';
import { groundOf } from './ground';
import { zeroByHand, zeroProgram } from './probing';
import { touchesOf } from './touch';

const BALL = 6;
const bare = withStock(jobWith(undefined), { left: 2, right: 2, front: 2, back: 2, top: 1, bottom: 5 });
const held = addHolding(bare, bare.setups[0], 'vise', { grip: 4, fixedJaw: 'front' });
const probing = (job: Job, controllerId: string): Job => ({
  ...job,
  machine: { ...job.machine, probeBall: BALL, probePocket: 9, controllerId },
  controllerId,
});

/** The program run over the block of stock, whose zero was set by hand so far off. */
function probed(job: Job, text: string, off: Spot): Probed {
  const { zero, stock } = groundOf(job, job.setups[0], partModel);
  const box = boundsOf(stock.region.flat());
  const r = BALL / 2;
  const isIn = ({ X, Y, Z }: Spot) =>
    X > box.minX - zero.x - r &&
    X < box.maxX - zero.x + r &&
    Y > box.minY - zero.y - r &&
    Y < box.maxY - zero.y + r &&
    Z < stock.top - zero.z;
  return runProbing(text, job.unit === 'mm' ? 1 : 25.4, off, isIn);
}

const AXES = ['X', 'Y', 'Z'] as const;

test('a zero set by hand within its room is set right by touch, and nothing is struck on the way', () => {
  const rough = fc.double({ min: -2.9, max: 2.9, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(rough, rough, rough), fc.constantFrom('iso-mill', 'hobby'), ([x, y, z], id) => {
      const job = probing(held, id);
      const { text } = zeroProgram(job, job.setups[0])!;
      const { off, struck } = probed(job, text, { X: x, Y: y, Z: z });
      expect(struck).toEqual([]);
      const lengths = CONTROLLERS.find((c) => c.id === id)!.lengthOffsets;
      for (const a of AXES) if (a !== 'Z' || lengths) expect(Math.abs(off[a])).toBeLessThan(0.01);
      // Without length registers it measures no length of a tool, and leaves Z alone.
      if (!lengths) expect(off.Z).toBe(z);
    }),
    { numRuns: 60 },
  );
});

test('in inches too, and it says what it does', () => {
  const job: Job = { ...probing(held, 'iso-mill'), unit: 'inch' };
  const { fileName, text } = zeroProgram(job, job.setups[0])!;
  expect(fileName).toMatch(/^zero-.*\.nc$/);
  expect(text).toMatch(/\(SETS G54 BY TOUCH: SET IT BY HAND WITHIN 0\.1181 IN FIRST\)/);
  expect(text).toMatch(/^G20$/m);
  const { off, struck } = probed(job, text, { X: 1, Y: -2, Z: 1.5 });
  expect(struck).toEqual([]);
  for (const a of AXES) expect(Math.abs(off[a])).toBeLessThan(0.01);
});

test('a face is touched only where it is met with a zero set wrong by hand; a round one is touched twice', () => {
  const { text } = zeroProgram(probing(held, 'iso-mill'), held.setups[0])!;
  expect(text).not.toMatch(/RUN IT TWICE/);
  const ground = groundOf(held, held.setups[0], partModel);
  const box = boundsOf(ground.stock.region.flat());
  const [x, y] = /G0 X(-?[\d.]+) Y(-?[\d.]+)/.exec(text)!.slice(1).map(Number);
  expect(x + ground.zero.x - box.minX).toBeGreaterThan(3);
  expect(y + ground.zero.y - box.minY).toBeGreaterThan(3);
  const disc = { ...ground, stock: { ...ground.stock, region: [circle] } };
  expect(touchesOf(disc, BALL)!.touches.map((t) => !!t.isRound)).toEqual([false, true, true]);
});

/** Sixty across, round the middle of the plate. */
const circle = Array.from({ length: 720 }, (_, i) => ({
  x: 40 + 30 * Math.cos((i * Math.PI) / 360),
  y: 25 + 30 * Math.sin((i * Math.PI) / 360),
}));

test('by hand the same faces are told; none without a fresh piece, no program without a probe', () => {
  const lines = zeroByHand(held, held.setups[0]);
  expect(lines).toHaveLength(3);
  expect(lines[1]).toMatch(/^X: the left face of the stock is X -?[\d.]+ mm in G54/);
  expect(zeroProgram(held, held.setups[0])).toBeUndefined();
  const both = addSetup(held);
  expect(zeroByHand(both, both.setups[1])).toEqual([]);
});

test('a face that is clamped is not touched, and is named where the other is too', () => {
  const ground = groundOf(held, held.setups[0], partModel);
  const high = ground.stock.top + 40;
  const wall = (minX: number, maxX: number) => ({
    ...{ id: `w${minX}`, name: 'Wall', minX, maxX, minY: -500, maxY: 500, minZ: -100, maxZ: high },
  });
  const walled = {
    ...held,
    setups: [{ ...held.setups[0], fixtures: [wall(-60, -4), wall(84, 140)] }],
  } as unknown as Job;
  const lines = zeroByHand(walled, walled.setups[0]);
  expect(lines).toContain('The left face of the stock is not free to be touched.');
  expect(lines).toContain('The right face of the stock is not free to be touched.');
});
