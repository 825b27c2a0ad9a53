import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { plate, tool } from '../../testing/parts';
import { barWays } from '../document/bars';
import { addSetup, neverSeen, upText, withSetup } from '../document/edit';
import { Job } from '../document/job';
import { Feature } from '../part/plate/feature';
import { Lean, leaningBody, leaningFaces, leaningPlace } from '../part/plate/leaning';
import { Opposite, oppositeOf } from '../part/plate/landing';
import { leaningPart } from '../part/plate/lean';
import { newFeature } from '../part/plate/new';
import { BARS } from '../shop/library/bars';
import { pileOf, volumeOf } from '../stock/height/field';
import { stockField } from '../stock/height/stock';
import { blankFindings, blanksOf } from './batch';
import { readJob } from './documents';
import { groundOf } from './ground';
import { addHolding } from './holds';
import { joinPrograms } from './joined';
import { planFindings, planSetup, postSetup } from './pipeline';
import { proveProgram } from './prove';

const BODY = { x: 40, y: 25, size: [80, 50, 20] as [number, number, number] };
const RIGHT: Lean = { to: 'right', degrees: 30 };
const [SIN, COS] = [Math.sin(Math.PI / 6), Math.cos(Math.PI / 6)];

describe('a block that leans', () => {
  test('is as wide and high as its corners say; its middle stays, its highest edge is at 0', () => {
    const { size } = leaningBody(RIGHT, BODY);
    expect(size[0]).toBeCloseTo(80 * COS + 20 * SIN, 9);
    expect(size[2]).toBeCloseTo(80 * SIN + 20 * COS, 9);
    expect(size[1]).toBe(50);
    const top = leaningPlace(RIGHT, { x: 80, y: 0, z: 0 }, BODY);
    expect(top.z).toBeCloseTo(0, 9);
    const middle = leaningPlace(RIGHT, { x: 40, y: 25, z: -10 }, BODY);
    expect([middle.x, middle.y, middle.z]).toEqual([40, 25, expect.closeTo(-size[2] / 2, 9)]);
  });

  test.each(['left', 'right', 'front', 'back'] as const)(
    'rises to the %s, is turned and no mirror, faces where its corners are',
    (to) => {
      const lean = { to, degrees: 25 };
      const place = (x: number, y: number, z: number) => leaningPlace(lean, { x, y, z }, BODY);
      const corner = { left: [0, 25], right: [80, 25], front: [40, 0], back: [40, 50] }[to];
      const other = [80 - corner[0], 50 - corner[1]];
      expect(place(corner[0], corner[1], 0).z).toBeGreaterThan(place(other[0], other[1], 0).z + 10);
      // A chiral triple keeps its sense: the volume of three edges has the same sign.
      const [o, a, b, c] = [place(0, 0, 0), place(1, 0, 0), place(0, 1, 0), place(0, 0, 1)];
      const way = (p: typeof o) => [p.x - o.x, p.y - o.y, p.z - o.z];
      const [u, v, w] = [way(a), way(b), way(c)];
      const volume =
        u[0] * (v[1] * w[2] - v[2] * w[1]) - u[1] * (v[0] * w[2] - v[2] * w[0]) + u[2] * (v[0] * w[1] - v[1] * w[0]);
      expect(volume).toBeCloseTo(1, 9);
      const faces = leaningFaces(lean, BODY);
      const on = place(30, 20, 0);
      expect(faces(on)!.top).toBeCloseTo(on.z, 9);
      const under = place(50, 30, -20);
      expect(faces(under)!.bottom).toBeCloseTo(under.z, 9);
      expect(faces({ x: 200, y: 25 })).toBeUndefined();
    },
  );

  test('has the volume of the block in its field', () => {
    const job = withStock(jobWith(undefined, {}, 20), { left: 2, right: 3, front: 0, back: 0, top: 0, bottom: 4 });
    const { stock } = groundOf(job, { ...job.setups[0], lean: RIGHT });
    const field = stockField(stock, 0.25);
    expect(volumeOf(field, stock.bottom) / (85 * 50 * 24)).toBeCloseTo(1, 3);
  });
});

/** A block with a hole that leans 30° to the right and a slanting flat, drilled and cut on a sine plate. */
function leaning(more: Partial<Feature> = {}): Job {
  const outline = plate();
  const hole: Feature = {
    ...newFeature(
      [outline],
      'hole',
      'Oil hole',
      { type: 'round', diameter: 6 },
      { x: 60, y: 25, depth: 16, through: false },
    ),
    lean: RIGHT,
    ...more,
  };
  const pocket: Feature = {
    ...newFeature(
      [outline, hole],
      'pocket',
      'Seat',
      { type: 'rectangle', width: 20, height: 16, radius: 5 },
      { x: 60, y: 25, depth: 5 },
    ),
    lean: RIGHT,
  };
  const base = withStock(jobWith(undefined, {}, 20), { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 });
  const part = { ...base.part, features: [outline, hole, pocket] };
  const [setup] = base.setups;
  const zero = { on: 'part' as const, point: 'front right' as const, height: 'top' as const };
  const set: Job = { ...base, part, setups: [{ ...setup, lean: RIGHT, riser: 60, zero }] };
  const held = addHolding(set, set.setups[0], 'sine plate');
  const seated = withOperation(held, 'pocket', [pocket.id], tool(7));
  return withOperation(seated, 'drill', [hole.id], tool(16));
}

function proved(job: Job, edit = (text: string) => text) {
  const [setup] = job.setups;
  const plan = planSetup(job, setup);
  const { programs, findings } = postSetup(job, setup, plan);
  const text = programs.length ? edit(joinPrograms(programs).text) : '';
  const proof = proveProgram(job, setup, text, 0.3, { sections: programs[0]?.sections });
  return { proof, text, codes: [...planFindings(plan), ...findings, ...proof.findings].map((f) => f.code) };
}

test('leaning features come out where they are drawn, their depths along their own axes, by the posted program', () => {
  const job = leaning();
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  const { proof, codes } = proved(job);
  expect(codes).toEqual([]);
  const { field } = proof;
  const height = (x: number, y: number) =>
    pileOf(
      field,
      Math.floor((y - field.y0) / field.cell) * field.nx + Math.floor((x - field.x0) / field.cell),
      -100,
    )[0];
  const mouth = leaningPlace(RIGHT, { x: 60, y: 25, z: 0 }, BODY);
  expect(height(mouth.x, mouth.y)).toBeLessThan(mouth.z - 16 + 0.1);
  expect(height(mouth.x + 6, mouth.y)).toBeCloseTo(mouth.z - 5, 2);
  // Beside them the slope is as the block was.
  const beside = leaningPlace(RIGHT, { x: 20, y: 10, z: 0 }, BODY);
  expect(Math.abs(height(beside.x, beside.y) - beside.z)).toBeLessThan(0.15);
});

test('a cut into the slope is a gouge, a hole that is not deep enough is told', () => {
  const deeper = proved(leaning(), (text) =>
    text.replace('M30', 'T7 M6\nS3000 M3\nG54 G0 X-50. Y25.\nG43 H7 Z10.\nG1 Z-30. F100.\nG0 Z10.\nM5\nM30'),
  );
  expect(deeper.codes).toContain('gouge');
  const job = leaning();
  const [seat, drill] = job.setups[0].operations;
  const off = withSetup(job, { ...job.setups[0], operations: [seat, { ...drill, on: false }] });
  expect(proved(off).codes).toContain('metal-left');
});

test('a hole through goes as far as its axis comes out, not to the table', () => {
  const { features } = leaningPart(leaning({ through: true }).part, RIGHT);
  const hole = features.find((f) => f.name === 'Oil hole')!;
  // From the highest edge down to where the low wall of the hole leaves the underside, and a little more.
  const faces = leaningFaces(RIGHT, BODY);
  const low = Math.min(...[-3, 3].map((r) => faces({ x: hole.x + r, y: 25 })!.bottom));
  expect(hole.through).toBe(false);
  expect(hole.depth).toBeCloseTo(-low + 0.5, 1);
  // It comes out of a slope, onto the plate: both are told.
  expect(proved(leaning({ through: true })).codes).toEqual(['drill-leaves-over-edge', 'fixture-hit']);
});

test('in a mirror a feature leans the other way across it, and as it did along it', () => {
  const [, hole] = leaning().part.features;
  const to = (how: Opposite) => oppositeOf(leaning().part, hole, how).lean!.to;
  expect((['left and right', 'front and back', 'half a turn'] as const).map(to)).toEqual(['left', 'right', 'left']);
  const below = leaningPart({ ...leaning().part, features: [{ ...hole, side: 'underside' }] }, RIGHT);
  expect(below.features).toEqual([]);
});

test('what a leaning block measures, and the bar it is sawn off, are told as it lies level', () => {
  const job = leaning();
  const [setup] = job.setups;
  const { model } = groundOf(job, { ...setup, lean: undefined });
  const bar = { ...BARS[0], width: 50, thickness: 20, corner: 0 };
  const [way] = barWays(setup.stock, model, [bar], job.material);
  const sawn = withSetup(job, { ...setup, stock: way.stock });
  expect(blankFindings(sawn, sawn.setups[0])).toEqual([]);
  expect(blanksOf(sawn, sawn.setups[0])!.lengths).toEqual([82]);
});

test('zero is a corner of the block itself', () => {
  const job = leaning();
  const { zero } = groundOf(job, job.setups[0]);
  const corner = leaningPlace(RIGHT, { x: 80, y: 0, z: 0 }, BODY);
  expect(zero.x).toBeCloseTo(corner.x, 9);
  expect(zero.z).toBeCloseTo(0, 9);
});

describe('what cannot be at an angle is said with its reason', () => {
  const told = (job: Job, index = 0) => planFindings(planSetup(job, job.setups[index])).map((f) => f.code);

  test('what an earlier setup left, or a round bar, is refused; nothing goes on from a leaning setup', () => {
    const job = leaning();
    const round = withStock(job, { shape: 'round' });
    expect(told(round)).toContain('leaning-needs-block');
    const [setup] = job.setups;
    const second = { ...setup, id: 's2', stock: { ...setup.stock, shape: 'as left' as const } };
    expect(told({ ...job, setups: [setup, second] }, 1)).toContain('leaning-needs-block');
    expect(told({ ...job, setups: [setup, { ...second, lean: undefined, operations: [] }] }, 1)).toContain(
      'after-leaning',
    );
  });

  test('another side up, many parts, a vise', () => {
    const job = leaning();
    const [setup] = job.setups;
    expect(told(withSetup(job, { ...setup, up: 'front' }))).toContain('leaning-from-top');
    const copies = { columns: 2, rows: 1, dx: 100, dy: 60, order: 'by tool' as const };
    expect(told(withSetup(job, { ...setup, copies }))).toContain('leaning-alone');
    expect(told(addHolding(job, setup, 'vise'))).toContain('cannot-hold-leaning');
    expect(told(withSetup(job, { ...setup, lean: undefined }))).toContain('sine-plate-flat');
  });

  test('leaning features no setup sees wait for a setup that leans as they do', () => {
    const job = withSetup(leaning(), { ...leaning().setups[0], lean: undefined, operations: [] });
    const [unseen] = neverSeen(job);
    expect([upText(unseen), unseen.features.length]).toEqual(['top up, leaning 30° to the right', 2]);
    const next = addSetup(job);
    expect(next.setups[1]).toMatchObject({ lean: RIGHT, up: 'top', stock: { shape: 'box' } });
    expect(neverSeen(next)).toEqual([]);
  });
});
