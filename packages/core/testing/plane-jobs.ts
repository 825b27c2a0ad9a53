/** Jobs of the invented shop that use heights, parts of a line and steps by hand, as people at the machine do. */
import { addOperation } from '../src/advise/edit';
import { editOperation } from '../src/document/edit';
import { Fixture, Job } from '../src/document/job';
import { newJob } from '../src/document/new';
import { Operation } from '../src/document/operation';
import { Feature } from '../src/part/plate/feature';
import { newFeature } from '../src/part/plate/new';
import { tool } from './parts';
import { withOperation, withStock } from './jobs';

const lastId = (job: Job) => job.setups[0].operations[job.setups[0].operations.length - 1].id;
const also = (job: Job, more: Partial<Operation>): Job => editOperation(job, lastId(job), (o) => ({ ...o, ...more }));

function drawn(name: string, thickness: number, features: (have: Feature[]) => Feature[]): Job {
  const outline = newFeature(
    [],
    'outline',
    'Outside',
    { type: 'rectangle', width: 90, height: 60, radius: 4 },
    { x: 45, y: 30 },
  );
  return { ...newJob(name, 'mm'), part: { kind: 'plate', thickness, features: [outline, ...features([outline])] } };
}

const clamp = (id: string, x: number): Fixture => ({
  ...{ id, name: `Clamp ${id}`, x, y: 22, z: -14 },
  ...{ width: 22, depth: 16, height: 24 },
});

/** A bracket held by two clamps: its outside is cut in two parts, the clamps moved between them by hand. */
export function bracket(): Job {
  const job = drawn('Tide-gauge bracket', 10, (have) => {
    const hole = newFeature(
      have,
      'hole',
      'Bolt hole',
      { type: 'round', diameter: 6.8 },
      { x: 18, y: 30, through: true },
    );
    return [{ ...hole, pattern: { ...hole.pattern, type: 'line' as const, count: 2, dx: 54, dy: 0 } }];
  });
  const stock = withStock(job, { left: 12, right: 12, front: 12, back: 12, top: 0, bottom: 2 });
  const held: Job = { ...stock, setups: [{ ...stock.setups[0], fixtures: [clamp('left', -14), clamp('right', 82)] }] };
  const mill = tool(4);
  const values = { finish: false, lead: 1, breakthrough: 0.2 };
  const spots = { back: { x: 70, y: 60 }, front: { x: 70, y: 0 }, left: { x: 20, y: 60 }, low: { x: 20, y: 0 } };
  const drilled = withOperation(held, 'drill', ['f2'], { ...tool(16), diameter: 6.8, id: 'd68', name: '6.8 mm drill' });
  const front = also(withOperation(drilled, 'contour', ['f1'], mill, values), {
    stretch: { from: spots.low, to: spots.front, before: 1, after: 1 },
  });
  const back = also(withOperation(front, 'contour', ['f1'], mill, values), {
    stretch: { from: spots.back, to: spots.left, before: 1, after: 1 },
  });
  const gripped = also(addOperation(back, 's1', 'by-hand', []), {
    name: 'Move the clamps',
    params: {
      what: 'grip anew',
      minutes: 4,
      note: 'Clamps on the cut sides, less force',
      clamps: [middle('front', -14), middle('back', 58)],
    },
  });
  const right = also(withOperation(gripped, 'contour', ['f1'], mill, values), {
    stretch: { from: spots.front, to: spots.back, before: 1, after: 1 },
  });
  return also(withOperation(right, 'contour', ['f1'], mill, values), {
    stretch: { from: spots.left, to: spots.low, before: 1, after: 1 },
  });
}

/** A clamp on the front or the back, over the middle. */
const middle = (id: string, y: number): Fixture => ({
  ...{ id, name: `Clamp ${id}`, x: 38, y, z: -14 },
  ...{ width: 14, depth: 16, height: 24 },
});

/** A block of three steps: each is begun where the one above it ends, and a hole in the lowest from there. */
export function stepBlock(): Job {
  const job = drawn('Step block', 24, (have) => {
    const shelf = (name: string, x: number, width: number, depth: number) =>
      newFeature(have, 'pocket', name, { type: 'rectangle', width, height: 70, radius: 0 }, { x, y: 30, depth });
    const upper = { ...shelf('Upper shelf', 65, 60, 6), id: 'f2' };
    const lower = { ...shelf('Lower shelf', 80, 30, 14), id: 'f3' };
    const hole = newFeature(
      [...have, upper, lower],
      'hole',
      'Pin hole',
      { type: 'round', diameter: 5 },
      { x: 78, y: 30, depth: 20 },
    );
    return [upper, lower, { ...hole, id: 'f4', through: false }];
  });
  const block = withStock(job, { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 4 });
  const first = withOperation(block, 'pocket', ['f2'], tool(4));
  const second = also(withOperation(first, 'pocket', ['f3'], tool(4)), {
    heights: { start: { at: 'floor', feature: 'f2', offset: 0 } },
  });
  return also(withOperation(second, 'drill', ['f4'], tool(15)), {
    heights: { start: { at: 'what is left', offset: 0 }, retract: { at: 'top', offset: 3 } },
  });
}

/** A disc with four notches whose mouths are rounded, and a hole in its middle. */
export function notchedDisc(): Job {
  const disc = newFeature([], 'outline', 'Disc', { type: 'round', diameter: 80 }, { x: 40, y: 40 });
  const notch = newFeature(
    [disc],
    'notch',
    'Notch',
    { type: 'slot', length: 30, width: 12 },
    { x: 80, y: 40, mouth: 2 },
  );
  const around = { ...notch.pattern, type: 'circle' as const, count: 4, centreX: 40, centreY: 40 };
  const notches = { ...notch, pattern: around };
  const hole = newFeature(
    [disc, notch],
    'pocket',
    'Bore',
    { type: 'round', diameter: 24 },
    { x: 40, y: 40, through: true },
  );
  const job: Job = {
    ...newJob('Notched disc', 'mm'),
    part: { kind: 'plate', thickness: 8, features: [disc, notches, hole] },
  };
  const held = withStock(job, { left: 6, right: 6, front: 6, back: 6, top: 0, bottom: 2 });
  const bored = withOperation(held, 'pocket', ['f3'], tool(4));
  return withOperation(bored, 'contour', ['f1'], tool(4), { breakthrough: 0.2 });
}
