import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Spot, runProbing } from '../../testing/probe-control';
import type { Job } from '../document/job';
import type { Shape } from '../part/plate/feature';
import { partModel } from '../part/plate/model';
import { groundOf } from '../plan/ground';
import { sizesProgram } from './measuring';

const BALL = 4;
const RECTANGLE: Shape = { type: 'rectangle', width: 40, height: 24, radius: 8 };
const ROUND: Shape = { type: 'round', diameter: 20 };

function probing(shape: Shape, sizes: ('width' | 'height' | 'diameter')[], more: object = {}): Job {
  const limits = sizes.map((size) => ({ size, upper: 0.02, lower: -0.02 }));
  const job = withOperation(jobWith(shape, { depth: 6, limits, ...more }), 'pocket', ['f2'], tool(4));
  return { ...job, machine: { ...job.machine, probeBall: BALL, probePocket: 9 } };
}

/** What somebody notes at the stops, in a pocket that is so much wider than it should be. */
function measured(job: Job, wide: number, high: number): number[] {
  const { text } = sizesProgram(job, job.setups[0])!;
  const { zero } = groundOf(job, job.setups[0], partModel);
  const r = BALL / 2;
  const middle = { x: 40 - zero.x, y: 25 - zero.y };
  const isIn = ({ X, Y, Z }: Spot) =>
    Z < -zero.z && (Math.abs(X - middle.x) > wide / 2 - r || Math.abs(Y - middle.y) > high / 2 - r || Z < -6 - zero.z);
  const { stops, struck } = runProbing(text, 1, { X: 0, Y: 0, Z: 0 }, isIn);
  expect(struck).toEqual([]);
  const sizes: number[] = [];
  for (let i = 0; i < stops.length; i += 2) {
    const [a, b] = [stops[i], stops[i + 1]];
    sizes.push(Math.hypot(b.X - a.X, b.Y - a.Y) + BALL);
  }
  return sizes;
}

test('walls that look at each other are measured as they are, whichever way they lie', () => {
  const [width, height] = measured(probing(RECTANGLE, ['width', 'height']), 40.013, 23.987);
  expect([width, height]).toEqual([expect.closeTo(40.013, 4), expect.closeTo(23.987, 4)]);
  const turned = measured(probing(RECTANGLE, ['width', 'height'], { turn: 90 }), 23.987, 40.013);
  expect(turned).toEqual([expect.closeTo(40.013, 4), expect.closeTo(23.987, 4)]);
  expect(measured(probing(ROUND, ['diameter']), 20.021, 20.021)).toEqual([expect.closeTo(20.021, 4)]);
});

test('what a probe cannot reach has no program: leaning ways, no room, no limits, no probe', () => {
  const none = (job: Job) => expect(sizesProgram(job, job.setups[0])).toBeUndefined();
  none(probing(RECTANGLE, ['width'], { turn: 30 }));
  none(probing({ type: 'round', diameter: 11 }, ['diameter']));
  none(probing(ROUND, []));
  none({ ...probing(ROUND, ['diameter']), machine: { ...probing(ROUND, ['diameter']).machine, probeBall: 0 } });
  // A control that counts lengths has to know the probe's.
  none({ ...probing(ROUND, ['diameter']), machine: { ...probing(ROUND, ['diameter']).machine, probePocket: 0 } });
});

test('it waits at each wall and says what to note', () => {
  const { fileName, text } = sizesProgram(probing(ROUND, ['diameter']), probing(ROUND, ['diameter']).setups[0])!;
  expect(fileName).toMatch(/^sizes-.*\.nc$/);
  expect(text.match(/^M0$/gm)).toHaveLength(2);
  expect(text).toContain('(NOTE X: THE SIZE IS THE DIFFERENCE PLUS THE BALL)');
});
