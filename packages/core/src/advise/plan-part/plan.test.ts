import 'reflect-metadata';
import { prism, solidFile, terraces } from '../../../testing/solids';
import { Job } from '../../document/job';
import { newJob } from '../../document/new';
import { joinPrograms } from '../../plan/joined';
import { planFindings, planSetup, postSetup } from '../../plan/pipeline';
import { leftBefore, proveProgram } from '../../plan/prove';
import { Solid } from '../../part/plate/feature';
import { facesOfSolid } from '../../part/solid/faces/faces';
import { readModel } from '../../part/solid/read/read';
import { takenSolid } from '../../part/solid/take';
import { putAtHand } from '../../quantity/files';
import { BARS, MACHINES, TOOLS } from '../../shop/library';
import { inOrder } from './grip';
import { LEAST_CONTACT, contactOn, ordersOf } from './orders';
import { PlannedPart, planPart } from './plan';

function taken(mesh: Parameters<typeof facesOfSolid>[0]): Solid {
  const { part, surface } = takenSolid(facesOfSolid(mesh), { body: 0, unit: 'mm', up: 'top' }, undefined);
  putAtHand(surface);
  return part;
}

const solid = (name: string) => taken(readModel(solidFile(`${name}.stl`)).bodies[0].mesh);

function planned(part: Solid, rack = TOOLS): PlannedPart {
  const machine = MACHINES.find((m) => m.id === 'fulmar')!;
  const job: Job = { ...newJob('Part', 'mm'), machine, controllerId: machine.controllerId, part, batch: 10 };
  const work = planPart(job, { rack });
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}

/** Cares and stops of the whole proof of every setup. */
const proved = ({ job }: PlannedPart) =>
  job.setups.flatMap((setup) => {
    const made = planSetup(job, setup);
    const { text, sections } = joinPrograms(postSetup(job, setup, made).programs);
    const { left } = leftBefore(job, setup);
    const { findings } = proveProgram(job, setup, text, undefined, { sections, left, ground: made.ground });
    return [...planFindings(made), ...findings].filter((f) => f.level !== 'note');
  });

/** A block 60 × 40 × 20 with a step 8 deep along its right side. */
const step = () =>
  taken(
    terraces(
      [
        [0, 0, -8],
        [0, 0, -8],
      ],
      20,
    ),
  );

describe('planning a part', () => {
  const plan = planned(step());

  test('what the blank was held by is taken off from the other side', () => {
    expect(plan.job.setups.map((s) => s.up ?? 'top')).toEqual(['top', 'underside, turned sideways']);
    expect(plan.job.setups[1].operations.map((o) => o.kind)).toEqual(['face']);
    expect(plan.missing).toEqual([]);
  });

  test('both grips prove clean against the solid itself, and nothing of the part is left uncut', () => {
    expect(proved(plan)).toEqual([]);
  });

  test('what the proof finds is told, not only what a coarse grid shows of it', () => {
    const thin = TOOLS.filter((t) => t.number === 10 || t.kind === 'face');
    const short = planned(taken(terraces([[0, -8]], 20)), thin);
    const found = proved(short);
    expect(found.map((f) => f.message).join()).toMatch(/3 mm end mill, 2 flutes may break/);
    const told = short.missing.map((m) => m.why);
    expect(found.filter((f) => !told.includes(f.message))).toEqual([]);
  });

  test('what one costs is told, with what is not known', () => {
    const [told] = plan.sentences.filter((s) => / costs at least /.test(s));
    expect(told).toMatch(
      /^One of 10 costs at least [\d.]+: metal [\d.]+, machining [\d.]+, edges [\d.]+\. Not counted/,
    );
    expect([...plan.runs.keys()]).toEqual(plan.job.setups.map((s) => s.id));
  });

  test('an outside deeper than any mill is cut half from each side, the frame round it too', () => {
    const short = TOOLS.filter((t) => t.fluteLength <= 16 && t.kind !== 'head');
    const { job, missing } = planned(step(), short);
    expect(missing).toEqual([]);
    const round = job.setups.map((s) => s.operations.filter((o) => o.kind === 'contour').map((o) => o.heights?.end));
    expect(round).toEqual([[{ at: 'part top', offset: -10.25 }], [{ at: 'part top', offset: -10.25 }]]);
  });

  test('an inside corner that neither side gets into is told, though both cut round it', () => {
    const short = TOOLS.filter((t) => t.fluteLength <= 16 && t.kind !== 'head');
    const corners = [
      [0, 0],
      [60, 0],
      [60, 30],
      [40, 30],
      [40, 40],
      [0, 40],
    ];
    const notched = prism(
      corners.map(([x, y]) => ({ x, y })),
      20,
    );
    const { job, missing } = planned(taken(notched), short);
    expect(job.setups.every((s) => s.operations.some((o) => o.kind === 'contour'))).toBe(true);
    expect(missing).toMatchObject([{ feature: 'Outside', why: expect.stringMatching(/into its inside corners/) }]);
  });
});

describe('a blank', () => {
  const jobOf = (part: Solid): Job => {
    const machine = MACHINES.find((m) => m.id === 'fulmar')!;
    return { ...newJob('Slab', 'mm'), machine, controllerId: machine.controllerId, part };
  };

  test('is a block of its own size where every bar leaves too much to face off', () => {
    const row = [0, 0, -4];
    const { job, said } = inOrder(jobOf(taken(terraces([row, row], 47))), ['top', 'underside'], BARS);
    expect(said).toMatch(/^No bar on the shelf gives the blank: it is a block of 145 mm × 98 mm × \d+ mm\.$/);
    expect(job.setups[0].stock).toMatchObject({ shape: 'box', left: 2, bottom: 9 });
  });

  test('is no round bar that lies between jaws, though that were cheaper', () => {
    const { said } = inOrder(jobOf(solid('rod-fork')), ['top', 'underside'], BARS);
    expect(said).toMatch(/^The blank is sawn from Flat /);
  });

  test('of what leans nothing is begun: that is somebody’s own to hold', () => {
    const { job } = inOrder(jobOf(solid('slide-block')), ['top', 'underside', 'front'], BARS);
    expect(job.setups.map((s) => [s.lean, s.stock.shape])).toEqual([
      [undefined, 'box'],
      [undefined, 'as left'],
      [undefined, 'as left'],
    ]);
  });
});

describe('the order of grips', () => {
  test('the outside is cut before jaws are to find it', () => {
    const fork = solid('rod-fork');
    expect(ordersOf(fork, ['top', 'front', 'left'])[0].slice(0, 2)).toEqual(['top', 'underside']);
  });

  test('a plate is cut from above first, then faced below', () => {
    expect(ordersOf(solid('cover-plate'), ['top'])[0]).toEqual(['top', 'underside']);
  });

  test('thin walls are not gripped while there is another order', () => {
    const tray = solid('thin-tray');
    const { x, y } = contactOn(tray, 'underside');
    expect(Math.max(x, y)).toBeLessThan(LEAST_CONTACT);
    expect(contactOn(tray, 'top').x).toBeGreaterThan(30);
    expect(ordersOf(tray, ['top', 'underside', 'front'])[0]).toEqual(['underside', 'top', 'front']);
  });

  test('every order begins with two opposite sides and has the fewest grips', () => {
    // Begun from the front, the underside would stay as it was sawn, or take a fourth.
    for (const order of ordersOf(solid('drain-step'), ['top', 'front']))
      expect([order.length, [...order.slice(0, 2)].sort()]).toEqual([3, ['top', 'underside']]);
    expect(ordersOf(solid('drain-step'), [])[0]).toHaveLength(2);
  });
});
