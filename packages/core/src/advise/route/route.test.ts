import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { newFeature } from '../../part/plate/new';
import { addSetup } from '../../document/edit';
import { jawsFor } from '../../plan/ground';
import { Job } from '../../document/job';
import { parseJob } from '../../plan/documents';
import { MACHINES } from '../../shop/library';
import { STAGES } from '../../operation/operation';
import { inRouteOrder, stageOf, suggestOrder, toolChanges } from './order';
import { proposeRoute } from './propose';

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
    expect(stages).toEqual([...stages].sort((a, b) => a - b));
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

describe('the order of a route', () => {
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
    expect(jawsFor(job, job.setups[1])).toHaveLength(2);
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
