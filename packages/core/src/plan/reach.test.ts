import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { alike } from '../machine/axes';
import { Job, OnTable } from '../document/job';
import { holderLength } from '../shop/holder';
import { addHolding } from './holds';
import { joinPrograms } from './joined';
import { planFindings, planSetup, postSetup } from './pipeline';
import { proveProgram } from './prove';
import { Reach, isBetter, reachOf, reachText } from './reach';

/** A plate of 80 x 50 whose outside is cut by a 10 mm cutter, with 60 mm of bar to its right. */
const job = (): Job =>
  withOperation(
    withStock(jobWith(undefined), { left: 2, right: 60, front: 2, back: 2, top: 0, bottom: 6 }),
    'contour',
    ['f1'],
    tool(4),
    { lead: 1, breakthrough: 0 },
  );

const on = (j: Job, machine: Partial<Job['machine']>, onTable?: OnTable): Job => ({
  ...j,
  machine: { ...j.machine, ...machine },
  setups: [{ ...j.setups[0], onTable }],
});

function reached(j: Job): Reach {
  const plan = planSetup(j, j.setups[0]);
  const paths = plan.planned.map(({ operation, plan: { path } }) => ({
    tool: j.tools.find((t) => t.id === operation.toolId)!,
    path,
  }));
  return reachOf(j.machine, plan.ground, paths)!;
}

function codes(j: Job): string[] {
  const plan = planSetup(j, j.setups[0]);
  const { programs } = postSetup(j, j.setups[0], plan);
  const proof = proveProgram(j, j.setups[0], joinPrograms(programs).text, 0.5);
  return [...planFindings(plan), ...proof.findings].map((f) => f.code);
}

const WIDE = { axes: alike(400, 220, 300, 5000, 500) };

test('what is left of the travel is counted from the middle of the stock, under which the table’s middle lies', () => {
  const r = reached(on(job(), WIDE));
  // The stock’s middle is 69 mm from the part's left; the cutter's middle runs from -5.2 to 85.2, 0.2 left for the finish.
  const middle = (-2 + 140) / 2;
  expect(r.left).toBeCloseTo(200 - (middle + 5.2), 3);
  expect(r.right).toBeCloseTo(200 - (85.2 - middle), 3);
  expect(r.left + r.right).toBeCloseTo(400 - 90.4, 3);
  expect(r.best.x).toBeCloseTo(middle - 40, 3);
  expect(reachText(r, 'mm')).toBe(
    'Left of its travel: 126 mm to the left, 184 mm to the right, 79 mm to the front, 80 mm to the back.',
  );
});

test('the best place ends what went beyond the travel, by the posted program', () => {
  const narrow = { axes: alike(110, 220, 300, 5000, 500), tableX: 0, tableY: 0 };
  const beyond = on(job(), narrow);
  expect(codes(beyond)).toContain('beyond-travel');
  const { best } = reached(beyond);
  expect(isBetter(reached(beyond), beyond.setups[0])).toBe(true);
  const moved = on(job(), narrow, best);
  expect(codes(moved)).toEqual([]);
  const now = reached(moved);
  expect(now.left).toBeCloseTo(now.right, 6);
  expect(isBetter(now, moved.setups[0])).toBe(false);
});

test('the best place leaves all that stands there on the table, where its size is known', () => {
  const small = reached(on(job(), { ...WIDE, tableX: 160 }));
  // 142 mm of stock have 9 mm to either side.
  expect(small.best.x).toBeCloseTo(9, 6);
  expect(reached(on(job(), { ...WIDE, tableX: 100 })).best.x).toBeCloseTo(0, 6);
  expect(codes(on(job(), { ...WIDE, tableX: 160 }, { x: 20, y: 0 }))).toEqual(['off-table']);
  expect(codes(on(job(), { ...WIDE, tableX: 160 }, { x: 9, y: 0 }))).toEqual([]);
});

test('each tool: how far its nose may still go down and up', () => {
  const [own] = reached(on(job(), WIDE)).tools;
  const { machine, setups } = job();
  const above = setups[0].riser + 16 + own.tool.stickOut + holderLength(own.tool.holder);
  expect(own.down).toBeCloseTo(above - 10 - (machine.noseToTable - 300), 3);
  expect(own.up).toBeCloseTo(machine.noseToTable - above - setups[0].clearance, 3);
});

test('a tool that has no room to be changed over the work, or what holds it, is told before anything runs', () => {
  const change = (more: Partial<Job['machine']>, j = job()) =>
    planFindings(planSetup(on(j, more), on(j, more).setups[0])).filter((f) => f.code === 'no-room-to-change');
  const { stickOut, holder } = tool(4);
  const top = 40 + 16;
  const room = job().machine.noseToTable - stickOut - holderLength(holder) - top;
  expect(change({ changeRoom: room })).toEqual([]);
  expect(change({ changeRoom: room + 1 })).toHaveLength(1);
  expect(change({ changeRoom: 0, noseToTable: 380 - room - 1 })[0].message).toMatch(/1 mm too long/);
  const held = addHolding(job(), job().setups[0], 'straps');
  expect(change({ changeRoom: room }, held)).toHaveLength(1);
});
