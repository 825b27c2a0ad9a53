import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { Feature } from '../../part/plate/feature';
import { Tool } from '../../shop/tool';
import { newFeature } from '../../part/plate/new';
import { addSetup } from '../../document/edit';
import { Job } from '../../document/job';
import { parseJob } from '../../plan/documents';
import { MACHINES } from '../../shop/library';
import { STAGES, Stage } from '../../operation/operation';
import { inRouteOrder, stageOf, suggestOrder, toolChanges } from './order';
import { adviseTools } from '../tools';
import { proposeRoute } from './propose';
import { provenRoute } from './proven';
import { Proposal } from './step';

const demo = (name: string): Job =>
  parseJob(readFileSync(join(__dirname, '../../../../../demo/jobs', `${name}.json`), 'utf8')).job!;
const kinds = (job: Job) => job.setups[0].operations.map((o) => o.kind);

describe('a proposed route', () => {
  test.each(['vane-hub-plate', 'float-pulley-bracket'])(
    '%s: every operation has its reason, and it proves clean',
    (name) => {
      const { job, missing } = proposeRoute(demo(name), 's1');
      const { operations } = job.setups[0];
      expect(missing).toEqual([]);
      expect(operations.every((o) => (o.reason?.length ?? 0) > 20)).toBe(true);
      expect(kinds(job)[0]).toBe('face');
      const last = kinds(job).filter((k) => k !== 'chamfer');
      expect(last[last.length - 1]).toBe('contour');
      const proof = prove(job, 0.14);
      expect(proof.findings.filter((f) => f.level !== 'note')).toEqual([]);
    },
  );

  test('the edge of the outside is broken once its wall is there', () => {
    const { job } = proposeRoute(demo('lens-cell-ring'), 's1');
    expect(kinds(job).indexOf('chamfer')).toBeGreaterThan(kinds(job).indexOf('contour'));
  });

  test('all is roughed before anything is finished, and threads follow their holes', () => {
    const { job } = proposeRoute(demo('vane-hub-plate'), 's1');
    const stages = job.setups[0].operations.map((o) => STAGES.indexOf(stageOf(o, job, job.setups[0].operations)));
    const at = (name: Stage) => stages.flatMap((s, i) => (s === STAGES.indexOf(name) ? [i] : []));
    expect(Math.max(...at('rough'), ...at('rest'))).toBeLessThan(Math.min(...at('finish')));
    expect(Math.max(...at('finish'), ...at('threads'))).toBeLessThan(Math.min(...at('outside')));
    expect(kinds(job).indexOf('tap')).toBeGreaterThan(kinds(job).lastIndexOf('drill'));
  });

  test('edges, mouths, marks and threads of the part each get their operation', () => {
    const base = withStock(
      jobWith(
        { type: 'rectangle', width: 40, height: 24, radius: 6 },
        { depth: 4, edge: { form: 'chamfer', size: 0.5, angle: 90 } },
      ),
      { bottom: 0 },
    );
    const { features } = base.part;
    const hole = newFeature(
      features,
      'hole',
      'Screw hole',
      { type: 'round', diameter: 5 },
      { x: 8, y: 8, counterbore: { diameter: 9, depth: 4 } },
    );
    const label = newFeature(
      [...features, hole],
      'line',
      'Label',
      { type: 'text', text: 'A1', height: 5 },
      { x: 68, y: 42 },
    );
    const job: Job = { ...base, part: { ...base.part, features: [...features, hole, label] } };
    const { job: routed, missing } = proposeRoute(job, 's1');
    expect(missing).toEqual([]);
    for (const kind of ['face', 'drill', 'counterbore', 'chamfer', 'engrave', 'contour'])
      expect(kinds(routed)).toContain(kind);
    expect(routed.setups[0].operations.find((o) => o.kind === 'contour')!.params.tabs).toBe('ramped');
    expect(post(routed).codes.filter((c) => c !== 'finish-starts-on-wall' && c !== 'corner-left')).toEqual([]);
  });

  test('what the rack cannot do is said, and the rest is still proposed', () => {
    const job = jobWith({ type: 'rectangle', width: 2, height: 2, radius: 0 }, { depth: 8 });
    const { job: routed, missing } = proposeRoute(job, 's1');
    expect(missing).toEqual([{ feature: 'Feature', why: expect.stringContaining('no cutter') }]);
    expect(kinds(routed)).toEqual(['face', 'contour']);
  });

  test('sheet is cut out with a beam', () => {
    const table = MACHINES.find((m) => m.kind === 'sheet cutter')!;
    const job = {
      ...jobWith({ type: 'round', diameter: 20 }, { meaning: 'hole', through: true }, 4),
      machine: table,
      controllerId: table.controllerId,
    };
    expect(kinds(proposeRoute(job, 's1').job)).toEqual(['cut-out']);
  });
});

/** A plate with holes in a row. */
const holed = (...holes: Partial<Feature>[]): Job => {
  const base = withStock(jobWith(undefined, {}, 14), { bottom: 2, top: 1 });
  const features = holes.reduce(
    (all, more, i) => [
      ...all,
      newFeature(all, 'hole', `Hole ${i}`, more.shape ?? { type: 'round', diameter: 5 }, {
        x: 12 + 20 * i,
        y: 25,
        through: true,
        ...more,
      }),
    ],
    base.part.features,
  );
  return { ...base, machine: MACHINES[2], part: { ...base.part, features } };
};
const toolOf = (job: Job, kind: string) =>
  job.tools.find((t) => t.id === job.setups[0].operations.find((o) => o.kind === kind)!.toolId)!;

describe('what a route takes for a feature', () => {
  test('a tap whose hole a drill of the rack makes: one that presses the thread wants a larger one', () => {
    const { job } = proposeRoute(
      holed({ shape: { type: 'round', diameter: 4.2 }, thread: 'M5', through: false, depth: 9 }),
      's1',
    );
    expect(kinds(job)).not.toContain('helical-bore');
    expect(toolOf(job, 'tap').kind).toBe('tap');
    expect(post(job).codes).toEqual([]);
  });

  test('nothing threads a hole that nothing opens', () => {
    const hole = { shape: { type: 'round' as const, diameter: 6 }, thread: 'M7' };
    const { job, missing } = proposeRoute(holed(hole), 's1', [tool(4), tool(13)]);
    expect(kinds(job)).not.toContain('tap');
    expect(missing.map((m) => m.feature)).toContain('Hole 0');
  });

  test('a seat is plunged by a mill of its size, else run round with room to turn', () => {
    const seat = (diameter: number) =>
      toolOf(proposeRoute(holed({ counterbore: { diameter, depth: 5 } }), 's1').job, 'counterbore').diameter;
    expect(seat(10)).toBe(10);
    expect(seat(11)).toBe(8);
  });

  test('a face mill stays out of pockets, a roughing mill leaves walls to others, short flutes rank behind long ones', () => {
    const wide = {
      ...jobWith({ type: 'rectangle', width: 74, height: 44, radius: 6 }, { depth: 15 }, 30),
      machine: MACHINES[2],
    };
    const kind = (number: number, kind: Tool['kind']): Tool => ({ ...tool(number), kind });
    const rack = [tool(4), kind(2, 'roughing'), { ...kind(1, 'face'), fluteLength: 20 }];
    const { ranked, unfit } = adviseTools(wide, 'f2', rack);
    expect(ranked.filter((r) => r.role === 'does it').map((r) => r.tool.id)).toEqual([tool(4).id]);
    expect(unfit.find((u) => u.tool.kind === 'face')!.why).toMatch(/level faces/);
    const short: Tool = { ...tool(4), id: 'short', fluteLength: 9, shankDiameter: 9, stickOut: 40 };
    const long: Tool = { ...tool(4), id: 'long', fluteLength: 32, stickOut: 40 };
    const [first, second] = adviseTools(wide, 'f1', [short, long]).ranked;
    expect([first.tool.id, second.tool.id]).toEqual(['long', 'short']);
    expect(second.cautions.join()).toMatch(/shows their steps/);
  });

  test('flutes shorter than a wall finish it layer by layer, and those of a pocket not at all', () => {
    const short: Tool = { ...tool(4), id: 'short', fluteLength: 9, shankDiameter: 9, stickOut: 40 };
    const wide = {
      ...withStock(jobWith({ type: 'rectangle', width: 74, height: 44, radius: 6 }, { depth: 15 }, 20), { left: 3 }),
      machine: MACHINES[2],
    };
    const { job, missing } = proposeRoute(wide, 's1', [short]);
    const contour = job.setups[0].operations.find((o) => o.kind === 'contour')!;
    expect(contour.params.finishAt).toBe('each layer');
    expect(job.setups[0].operations.filter((o) => o.targets.includes('f2')).map((o) => o.params.finish)).toEqual([
      false,
    ]);
    expect(missing.map((m) => m.why).join()).toMatch(/leaves a smooth wall; end mill 12 mm.* would/);
    const opened = proposeRoute(wide, 's1', [short, { ...tool(17), fluteLength: 60, stickOut: 70 }]);
    expect(opened.job.setups[0].operations.every((o) => o.kind === 'drill' || o.toolId === 'short')).toBe(true);
  });

  test('a neck as wide as the cutter is opened in layers, before a lap over all the depth runs through it', () => {
    const walls = jobWith({ type: 'rectangle', width: 60, height: 40, radius: 6 }, { depth: 15 }, 20);
    const boss = newFeature(walls.part.features, 'boss', 'Post', { type: 'round', diameter: 12 }, { depth: 0 });
    const necked = (gap: number, x = 40, more: Feature[] = []): Job => {
      const features = [...walls.part.features, { ...boss, x, y: 25 + 20 - 6 - gap }, ...more];
      return {
        ...withStock(walls, { left: 0, right: 0, front: 0, back: 0, top: 0 }),
        part: { ...walls.part, features },
      };
    };
    const long: Tool = { ...tool(4), fluteLength: 22, stickOut: 30 };
    const routed = (...asked: Parameters<typeof necked>) => proposeRoute(necked(...asked), 's1', [long]).job;
    const job = routed(10);
    expect(kinds(job)).toEqual(['clear', 'contour', 'clear']);
    expect(kinds(routed(12))).toEqual(['clear', 'clear']);
    // Between two walls and a post there are two necks, and a room of its own in the corner.
    expect(kinds(routed(10, 26))).toEqual(['clear', 'contour', 'clear']);
    // A lap along the wall would run into another post.
    expect(kinds(routed(10, 40, [{ ...boss, id: 'near', x: 60, y: 25 + 20 - 6 - 6 }]))).toEqual(['clear', 'clear']);
    const without = { ...job.setups[0], operations: job.setups[0].operations.filter((o) => o.kind !== 'contour') };
    const most = (j: Job) => Math.max(...prove(j, 0.14).samples.load);
    expect(most(job)).toBeLessThan(0.6 * most({ ...job, setups: [without] }));
  });

  test('where a cutter has no room to turn it roughs in plain passes', () => {
    const groove = jobWith({ type: 'round', diameter: 28 }, { depth: 3 });
    const post: Feature = {
      ...newFeature(groove.part.features, 'boss', 'Post', { type: 'round', diameter: 21.2 }, { depth: 0 }),
      x: groove.part.features[1].x,
      y: groove.part.features[1].y,
    };
    const job = { ...groove, part: { ...groove.part, features: [...groove.part.features, post] } };
    const mill: Tool = { ...tool(7), id: 'three', kind: 'flat', diameter: 3, shankDiameter: 6, fluteLength: 9 };
    const [rough] = proposeRoute(job, 's1', [mill]).job.setups[0].operations.filter((o) => o.targets.includes('f2'));
    expect([rough.kind, rough.reason]).toEqual([
      'pocket',
      expect.stringMatching(/^Too narrow to turn in: plain passes/),
    ]);
  });

  test('corners and floors nobody reaches are said, with the tool that would', () => {
    const deep = {
      ...jobWith({ type: 'rectangle', width: 30, height: 20, radius: 3 }, { depth: 30 }, 40),
      machine: MACHINES[2],
    };
    const { missing } = proposeRoute(deep, 's1');
    expect(missing.map((m) => m.why).join()).toMatch(/turns in its corners.*end mill 6 mm.* would/);
  });
});

describe('a route that was tried out', () => {
  const outcome = (job: Job, rack?: Tool[]) => {
    const work = provenRoute(job, 's1', rack);
    for (;;) {
      const { done, value } = work.next();
      if (done) return value;
    }
  };
  const through = withStock(
    {
      ...jobWith({ type: 'rectangle', width: 40, height: 24, radius: 6 }, { through: true }, 18),
      machine: MACHINES[2],
    },
    { bottom: 2, top: 1 },
  );
  const bossed = withStock(
    { ...jobWith({ type: 'rectangle', width: 60, height: 36, radius: 8 }, { depth: 12 }, 18), machine: MACHINES[2] },
    { bottom: 6, top: 1 },
  );
  const face = tool(1);
  const short: Tool = { ...tool(4), id: 'short', number: 51, fluteLength: 18, stickOut: 30 };
  const long: Tool = { ...tool(6), id: 'long', number: 52, fluteLength: 24, stickOut: 30 };

  test('is plain data: a worker hands it over', () => {
    const proposal = outcome(through) as Proposal;
    expect(Object.values(proposal).map((v) => typeof v)).not.toContain('function');
  });

  test('takes the next tool where the first, planned and cut, is found wanting', () => {
    const toolsOn = (job: Job) =>
      new Set(job.setups[0].operations.filter((o) => o.targets.includes('f2')).map((o) => o.toolId));
    expect(toolsOn(proposeRoute(through, 's1', [face, short, long]).job)).toContain('short');
    const { job, missing } = outcome(through, [face, short, long]);
    expect(toolsOn(job)).toEqual(new Set(['long']));
    expect(missing.filter((m) => /shank/.test(m.why))).toEqual([]);
  });

  test('and tells what still stands where there is no other', () => {
    const { job, missing } = outcome(through, [face, { ...short, shankDiameter: 12 }]);
    expect(kinds(job)).toContain('contour');
    const rubs = missing.filter((m) => /shank/.test(m.why));
    expect(rubs.length).toBeGreaterThan(1);
    const names = job.setups[0].operations.map((o) => o.name);
    for (const { feature } of rubs) expect(names).toContain(feature);
  });

  test('of a demo part nothing stands against it, and it is quicker than what advice alone proposes', () => {
    const before = demo('vane-hub-plate');
    const { job, missing } = outcome(before);
    expect(missing).toEqual([]);
    const minutes = (j: Job) => prove(j, 0.5).clock.total;
    expect(minutes(job)).toBeLessThan(0.98 * minutes(proposeRoute(before, 's1').job));
    const tried = job.setups[0].operations.filter((o) => /of what was tried/.test(o.reason ?? ''));
    expect(tried.length).toBeGreaterThan(0);
  });

  test('what would be quicker but leaves metal does not take its place', () => {
    // Plain passes run round the low boss at the floor and would leave its top.
    const boss = newFeature(
      bossed.part.features,
      'boss',
      'Boss',
      { type: 'round', diameter: 14 },
      { x: 40, y: 25, depth: 6 },
    );
    const { job, missing } = outcome({
      ...bossed,
      part: { ...bossed.part, features: [...bossed.part.features, boss] },
    });
    expect(missing).toEqual([]);
    expect(kinds(job)).toContain('clear');
    expect(prove(job, 0.3).codes.filter((c) => c === 'metal-left')).toEqual([]);
  });
});

describe('the order of a route', () => {
  test('holes and finished walls give way to each other, so that a tool that does both is loaded once', () => {
    const edge = { form: 'chamfer' as const, size: 0.5, angle: 90 };
    const base = withStock(jobWith({ type: 'rectangle', width: 30, height: 20, radius: 4 }, { edge }), {
      bottom: 2,
      top: 1,
    });
    const hole = newFeature(
      base.part.features,
      'hole',
      'Hole',
      { type: 'round', diameter: 6 },
      { x: 10, y: 10, through: true, edge },
    );
    const job = { ...base, machine: MACHINES[2], part: { ...base.part, features: [...base.part.features, hole] } };
    const route = proposeRoute(job, 's1').job;
    const { operations } = route.setups[0];
    expect(operations.map((o) => o.kind)).toEqual(expect.arrayContaining(['countersink', 'chamfer', 'contour']));
    const cone = operations.map((o) => o.kind).indexOf('countersink');
    expect(operations[cone + 1]).toMatchObject({ kind: 'chamfer', toolId: operations[cone].toolId });
  });

  test('a muddled route is put in order with fewer tool changes, nothing lost', () => {
    const job = proposeRoute(demo('vane-hub-plate'), 's1').job;
    const muddled = [...job.setups[0].operations].reverse();
    const ordered = inRouteOrder(muddled, job);
    expect(new Set(ordered)).toEqual(new Set(muddled));
    expect(ordered[0].kind).toBe('face');
    expect(toolChanges(ordered)).toBeLessThanOrEqual(toolChanges(muddled));
    expect(suggestOrder(job, { ...job.setups[0], operations: ordered }).differs).toBe(false);
  });

  test('within a stage the tool in the spindle goes on, but a feature keeps its own order', () => {
    let job = jobWith({ type: 'rectangle', width: 20, height: 14, radius: 5 }, { x: 20 });
    const second = newFeature(
      job.part.features,
      'pocket',
      'Second',
      { type: 'rectangle', width: 20, height: 14, radius: 5 },
      { x: 60, y: 25 },
    );
    job = { ...job, part: { ...job.part, features: [...job.part.features, second] } };
    job = withOperation(job, 'pocket', ['f2'], tool(6));
    job = withOperation(job, 'pocket', ['f2'], tool(7));
    job = withOperation(job, 'pocket', ['f3'], tool(6));
    const ordered = inRouteOrder(job.setups[0].operations, job);
    expect(ordered.map((o) => [o.toolId, o.targets[0]])).toEqual([
      ['t6', 'f2'],
      ['t6', 'f3'],
      ['t7', 'f2'],
    ]);
  });
});

describe('the route proposed for a later setup', () => {
  /** A plate with a tapped hole through and a pocket below; what the first setup does is given. */
  function below(...first: [kind: string, targets: string[], tool: number][]): { job: Job; own: string; hole: string } {
    const base = jobWith({ type: 'rectangle', width: 24, height: 18, radius: 4 });
    const shape = { type: 'rectangle' as const, width: 20, height: 14, radius: 4 };
    const own = newFeature(base.part.features, 'pocket', 'Below', shape, { x: 60, y: 15, depth: 3, side: 'underside' });
    const round = { type: 'round' as const, diameter: 5 };
    const more = { x: 70, y: 40, through: true, thread: 'M6' };
    const hole = newFeature([...base.part.features, own], 'hole', 'Stud', round, more);
    const drawn = { ...base, part: { ...base.part, features: [...base.part.features, own, hole] } };
    const cut = first.reduce((j, [kind, targets, number]) => withOperation(j, kind, targets, tool(number)), drawn);
    return { job: addSetup(cut), own: own.id, hole: hole.id };
  }
  const routed = (job: Job) => proposeRoute(job, 's2').job.setups[1].operations;

  test('makes what that side shows', () => {
    const { job, own, hole } = below(['contour', ['f1'], 4], ['drill', ['f4'], 15], ['tap', ['f4'], 13]);
    expect(hole).toBe('f4');
    expect(routed(job).map((o) => o.kind)[0]).toBe('face');
    expect(new Set(routed(job).flatMap((o) => o.targets))).toEqual(new Set([own]));
  });

  test('and what goes through and was not made before, no more of it than is left', () => {
    const { job, own, hole } = below(['drill', ['f4'], 15]);
    const operations = routed(job);
    expect(operations.filter((o) => o.targets.includes(hole)).map((o) => o.kind)).not.toContain('drill');
    expect(operations.filter((o) => o.targets.includes(hole)).map((o) => o.kind)).toContain('tap');
    expect(operations.map((o) => o.kind)).toContain('contour');
    expect(operations.flatMap((o) => o.targets)).toContain(own);
  });
});

test('where the work leans, what leans is proposed, and neither its outside nor its top', () => {
  const lean = { to: 'right' as const, degrees: 20 };
  const job = withStock(jobWith({ type: 'rectangle', width: 20, height: 16, radius: 5 }, { lean }, 20), {
    top: 2,
    left: 4,
  });
  const [setup] = job.setups;
  const kinds = (j: Job) => proposeRoute(j, 's1').job.setups[0].operations.map((o) => o.kind);
  expect(kinds({ ...job, setups: [{ ...setup, lean }] }).filter((k) => k !== 'clear' && k !== 'pocket')).toEqual([]);
  expect(kinds({ ...job, setups: [{ ...setup, lean }] }).length).toBeGreaterThan(0);
  expect(kinds(job)).not.toContain('pocket');
});
