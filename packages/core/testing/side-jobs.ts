/** Jobs of the invented shop that turn the part onto its sides. */
import { addOperation } from '../src/advise/edit';
import { Job, Setup } from '../src/document/job';
import { newJob } from '../src/document/new';
import { Feature, Meaning, Shape } from '../src/part/plate/feature';
import { newFeature } from '../src/part/plate/new';
import { Up } from '../src/part/plate/turn';
import { addHolding } from '../src/plan/holds';
import { tool } from './parts';

/** Features one after another, each with an id of its own. */
function features(...made: [Meaning, string, Shape, Partial<Feature>][]): Feature[] {
  return made.reduce<Feature[]>(
    (have, [meaning, name, shape, more]) => [...have, newFeature(have, meaning, name, shape, more)],
    [],
  );
}

const round = (diameter: number): Shape => ({ type: 'round', diameter });
const FLUSH = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };

/** One more setup that starts from what the one before left, with an operation a feature, gripped in the vise. */
export function onSide(
  job: Job,
  up: Up,
  cuts: [kind: string, target: string, tool: number][],
  more: Partial<Setup> = {},
): Job {
  const [first] = job.setups;
  const id = `s${job.setups.length + 1}`;
  const stock = { ...first.stock, ...FLUSH, shape: 'as left' as const };
  const setup: Setup = { ...first, id, name: `${up} up`, up, stock, fixtures: [], operations: [], ...more };
  const held: Job = { ...job, setups: [...job.setups, setup] };
  const gripped = addHolding(held, setup, 'vise');
  return cuts.reduce(
    (j, [kind, target, number]) => addOperation(j, id, kind, target ? [target] : [], tool(number)),
    gripped,
  );
}

/**
 * A sensor block of 60 x 40 x 20 with something of its own in each of six sides, nothing of it symmetrical: milled from above, then
 * a hole drilled in its front, one in its back, one in its left end, and a slot milled in its right end.
 */
export function fourSides(): Job {
  const part = features(
    ['outline', 'Block', { type: 'rectangle', width: 60, height: 40, radius: 0 }, { x: 30, y: 20 }],
    ['pocket', 'Well', { type: 'rectangle', width: 20, height: 14, radius: 4 }, { x: 24, y: 22, depth: 6 }],
    ['hole', 'Front port', round(5), { x: 12, y: 8, depth: 9, through: false, side: 'front' }],
    ['hole', 'Back port', round(6), { x: 14, y: 13, depth: 7, through: false, side: 'back' }],
    ['hole', 'Cable hole', round(4.2), { x: 9, y: 11, depth: 8, through: false, side: 'left' }],
    ['pocket', 'Clip slot', { type: 'slot', length: 18, width: 8 }, { x: 22, y: 9, depth: 3, side: 'right' }],
  );
  const job = newJob('Sensor block', 'mm');
  const [setup] = job.setups;
  const stock = { ...setup.stock, left: 2, right: 2, front: 2, back: 2, top: 1, bottom: 3 };
  const zero = { on: 'stock' as const, point: 'back left' as const, height: 'top' as const };
  const base: Job = {
    ...job,
    part: { kind: 'plate', thickness: 20, features: part },
    setups: [{ ...setup, stock, zero }],
  };
  const milled = [
    ['face', '', 1],
    ['pocket', 'f2', 7],
    ['contour', 'f1', 3],
  ] as const;
  const above = milled.reduce(
    (j, [kind, target, t]) => addOperation(j, 's1', kind, target ? [target] : [], tool(t)),
    base,
  );
  const below = onSide(above, 'underside, turned sideways', [['face', '', 1]]);
  const front = onSide(below, 'front', [['drill', 'f3', 15]]);
  const behind = onSide(front, 'back', [['drill', 'f4', 16]]);
  const left = onSide(behind, 'left', [['drill', 'f5', 14]]);
  return onSide(left, 'right', [['pocket', 'f6', 7]]);
}
