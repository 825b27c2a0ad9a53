import { crank, flatDisc } from '../../testing/hold-jobs';
import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { plate, tool } from '../../testing/parts';
import { fewestGrips, gripsText } from '../document/grips';
import { Job, Setup } from '../document/job';
import { HoldingKind } from '../holding/holding';
import { holdingOf } from '../holding/registry';
import { Feature, Part } from '../part/plate/feature';
import { newFeature } from '../part/plate/new';
import { readJob } from './documents';
import { groundOf } from './ground';
import { pressesOnFinished } from './holds';
import { joinPrograms } from './joined';
import { planFindings, planSetup, postSetup } from './pipeline';
import { leftBefore, proveProgram } from './prove';
import { cutIn } from './situation';
import { bodiesInMetal } from '../judge/grip';
import { kindOf } from '../operation/registry';
import { HeightStock } from '../stock/height/height-stock';

const CELL = 0.4;

/** A job whose first setup is held by one thing. */
function held(job: Job, kind: string, params: Record<string, unknown> = {}, more: Partial<Setup> = {}): Job {
  const [setup, ...others] = job.setups;
  const { starts } = holdingOf(kind) as HoldingKind;
  const { model, stock, job: seen } = groundOf(job, setup);
  const work = { model, features: seen.part.features, stock, outline: stock.region, parts: 1 };
  const holding = [{ id: 'h1', kind, name: 'Vise', params: { ...starts(work), ...params } }];
  const zero = { ...setup.zero, point: 'back left' as const };
  return { ...job, setups: [{ ...setup, holding, zero, ...more }, ...others] };
}

function codes(job: Job, index = 0): string[] {
  const setup = job.setups[index];
  const plan = planSetup(job, setup);
  const { programs, findings } = postSetup(job, setup, plan);
  const text = programs.length ? joinPrograms(programs).text : '';
  const { left } = leftBefore(job, setup, CELL);
  const proof = proveProgram(job, setup, text, CELL, { left, sections: programs[0]?.sections });
  return [...new Set([...planFindings(plan), ...findings, ...proof.findings].map((f) => f.code))];
}

/** A block of 80 x 50 x 20 with a pocket, 6 mm of stock below. */
const block = () =>
  withOperation(
    withStock(jobWith({ type: 'rectangle', width: 40, height: 24, radius: 6 }, { depth: 6 }, 20), {
      left: 0,
      right: 0,
      front: 0,
      back: 0,
      top: 0,
      bottom: 6,
    }),
    'pocket',
    ['f2'],
    tool(4),
  );

test('a job that says what holds its work can be read by anybody; nonsense is refused by name', () => {
  const job = held(block(), 'vise');
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  const wrong = (change: (h: Record<string, unknown>) => void) => {
    const copy = JSON.parse(JSON.stringify(job)) as { setups: { holding: Record<string, unknown>[] }[] };
    change(copy.setups[0].holding[0]);
    return readJob(copy).findings.map((f) => [f.code, f.place.field]);
  };
  expect(wrong((h) => (h.kind = 'spell'))).toEqual([['unknown-holding', 'setups.0.holding.0.kind']]);
  expect(wrong((h) => (h.params = { ...(h.params as object), friction: -1 }))[0][1]).toBe(
    'setups.0.holding.0.params.friction',
  );
});

test('work held well is quiet; a weak vise slips or tips, and the finding names the operation and its line', () => {
  const job = held(block(), 'vise', { grip: 4 });
  expect(codes(job)).toEqual([]);
  const weak = held(block(), 'vise', { grip: 1, force: 0.4, friction: 0.1 });
  const plan = planSetup(weak, weak.setups[0]);
  const [program] = postSetup(weak, weak.setups[0], plan).programs;
  const { findings, grip } = proveProgram(weak, weak.setups[0], program.text, CELL, { sections: program.sections });
  const told = findings.find((f) => ['slips', 'tips', 'holds-barely'].includes(f.code))!;
  expect(told.place.operation).toBe(weak.setups[0].operations[0].id);
  expect(told.place.line).toBeGreaterThan(5);
  expect(grip[0].margin).toBeLessThan(2);
});

test('jaws that grip below the pocket stand; one that is not where the metal is, or whose wall is cut away, is told', () => {
  // The outside of wider stock is cut down past the tops of the jaws.
  const wide = withOperation(withStock(block(), { left: 4, right: 4, front: 4, back: 4 }), 'contour', ['f1'], tool(3), {
    breakthrough: 5.9,
  });
  expect(codes(held(wide, 'vise', { grip: 2 }))).toContain('grip-cut-away');
  const round = withStock(block(), { shape: 'round', diameter: 120 });
  expect(codes(held(round, 'vise', { grip: 4 }))).toContain('jaw-meets-little');
});

test.each(['vise', 'soft jaws', 'straps', 'toes', 'stuck', 'left on', 'indexer'])(
  '%s starts beside the metal of a block, not in it',
  (kind) => {
    const job = held(block(), kind);
    const ground = groundOf(job, job.setups[0]);
    const stock = HeightStock.of(ground.stock, CELL);
    expect(bodiesInMetal(ground.fixtures, stock, ground.zero)).toEqual([]);
    const into = ground.fixtures.map((b) => ({
      ...b,
      outline: undefined,
      minX: b.minX - 20,
      maxX: b.maxX + 20,
      minY: b.minY - 20,
      maxY: b.maxY + 20,
      maxZ: 0,
    }));
    expect(bodiesInMetal(into, stock, ground.zero).length > 0).toBe(ground.fixtures.length > 0);
  },
);

test('a weak grip lowers the feed that is suggested, and says that it does', () => {
  const feed = (job: Job) => {
    const [setup] = job.setups;
    const [operation] = setup.operations;
    const own = job.tools.find((t) => t.id === operation.toolId)!;
    return cutIn(job, setup, kindOf(operation.kind)!, own, operation).hold;
  };
  expect(feed(block())).toBeUndefined();
  const strong = feed(held(block(), 'vise', { force: 20, grip: 4 }))!;
  const weak = feed(held(block(), 'vise', { force: 2, grip: 1 }))!;
  expect(strong).toBeGreaterThan(weak * 5);
});

describe('a zero', () => {
  const zero = (of: Partial<Setup['zero']>) => ({
    zero: { on: 'stock' as const, point: 'back left' as const, height: 'top' as const, ...of },
  });

  test('stands on the fixed jaw’s corner, on a pin, or in the middle of a feature', () => {
    const at = (job: Job) => groundOf(job, job.setups[0]).zero;
    const jaw = held(
      block(),
      'vise',
      { grip: 4, jawWidth: 60, jawThickness: 18 },
      zero({ on: 'holding', of: 'h1', point: 'front left' }),
    );
    expect(at(jaw)).toEqual({ x: 10, y: 50, z: -22 });
    const under = held(
      block(),
      'vise',
      { jawWidth: 60 },
      zero({ on: 'holding', of: 'h1', point: 'front left', height: 'bottom' }),
    );
    expect(at(under)).toEqual({ x: 10, y: 50, z: -26 });
    expect(at({ ...block(), setups: [{ ...block().setups[0], ...zero({ on: 'feature', of: 'f2' }) }] })).toEqual({
      x: 40,
      y: 25,
      z: 0,
    });
  });

  test('on something that is gone is refused, on the moving jaw’s side it is told', () => {
    expect(codes(held(block(), 'vise', { grip: 4 }, zero({ on: 'holding', of: 'h7' })))).toContain('zero-nowhere');
    expect(codes(held(block(), 'vise', { grip: 4 }, zero({ on: 'feature', of: 'f7' })))).toContain('zero-nowhere');
    expect(codes(held(block(), 'vise', { grip: 4 }, zero({ point: 'front left' })))).toContain('zero-at-moving-jaw');
    expect(codes(held(block(), 'vise', { grip: 4 }, zero({ point: 'back left' })))).toEqual([]);
  });

  test('on a corner that an earlier setup took away is refused', () => {
    const cut = withOperation(block(), 'contour', ['f1'], tool(3));
    const corner = newFeature(
      cut.part.features,
      'pocket',
      'Corner',
      { type: 'rectangle', width: 30, height: 30, radius: 0 },
      { x: 0, y: 0, through: true },
    );
    const drawn = withOperation(
      { ...cut, part: { ...cut.part, features: [...cut.part.features, corner] } },
      'clear',
      [corner.id],
      tool(3),
      { breakthrough: 6.5 },
    );
    const [first] = drawn.setups;
    const second = (point: Setup['zero']['point']): Job => ({
      ...drawn,
      setups: [
        first,
        {
          ...first,
          id: 's2',
          name: 'Again',
          ...zero({ on: 'part', point }),
          stock: { ...first.stock, shape: 'as left' },
          operations: [],
        },
      ],
    });
    expect(codes(second('front left'), 1)).toContain('zero-on-nothing');
    expect(codes(second('back left'), 1)).not.toContain('zero-on-nothing');
  });
});

test('screws ask for their holes to be made before, in another grip', () => {
  const base = block();
  const hole = newFeature(
    base.part.features,
    'hole',
    'Bolt holes',
    { type: 'round', diameter: 6 },
    { x: 8, y: 8, through: true },
  );
  const job = { ...base, part: { ...base.part, features: [...base.part.features, hole] } };
  const screwed = held(job, 'screws', { holes: hole.id, head: 9 });
  expect(codes(screwed)).toContain('screws-undrilled');
  const { job: seen } = groundOf(screwed, screwed.setups[0]);
  expect(seen.part.features).toHaveLength(3);
});

test('the fewest grips reach all of a part; what goes through is reached from both sides', () => {
  const outline = plate();
  const hole = (id: string, more: Partial<Feature>): Feature => ({
    ...newFeature([outline], 'hole', id, { type: 'round', diameter: 5 }, { x: 20, y: 20, ...more }),
    id,
    name: id,
  });
  const part = (...features: Feature[]) => ({
    kind: 'plate' as const,
    thickness: 20,
    features: [outline, ...features],
  });
  const told = (p: Part) => fewestGrips(p).map(({ face, features }) => [face, features.map((f) => f.id).join()]);
  const through = hole('through', { through: true });
  expect(told(part(through))).toEqual([['top', 'f1,through']]);
  expect(told(part(through, hole('below', { side: 'underside', depth: 4, through: false })))).toEqual([
    ['underside', 'f1,through,below'],
  ]);
  const sided = part(
    hole('top', { depth: 4, through: false }),
    hole('front', { side: 'front', y: 10, depth: 9, through: false }),
  );
  expect(told(sided)).toEqual([
    ['top', 'f1,top'],
    ['front', 'front'],
  ]);
  // From beside one sees the box round an outside, not the outside.
  expect(told(part(hole('front', { side: 'front', y: 10, depth: 9, through: false })))).toEqual([
    ['top', 'f1'],
    ['front', 'front'],
  ]);
  expect(gripsText(sided, 3)).toBe(
    '2 grips reach all of it: top up (Plate, top), front up (front). There are 3 setups: what can be cut in one grip stays true to itself.',
  );
});

test('hard jaws on walls that were cut to size are told, soft jaws are not', () => {
  const job = flatDisc();
  const [, below] = job.setups;
  expect(pressesOnFinished(groundOf(job, below))).toEqual([below.holding![0].name]);
  const soft = crank();
  expect(pressesOnFinished(groundOf(soft, soft.setups[1]))).toEqual([]);
  expect(pressesOnFinished(groundOf(job, job.setups[0]))).toEqual([]);
});
