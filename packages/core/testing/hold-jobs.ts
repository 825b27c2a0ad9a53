/** Jobs of the invented shop that are held in more than a plain vise. */
import { addOperation } from '../src/advise/edit';
import { Job, Setup } from '../src/document/job';
import { barWays } from '../src/document/bars';
import { newJob } from '../src/document/new';
import { MACHINES } from '../src/shop/library';
import { BARS } from '../src/shop/library/bars';
import { ChainVertex, Feature } from '../src/part/plate/feature';
import { newFeature } from '../src/part/plate/new';
import { groundOf } from '../src/plan/ground';
import { addHolding } from '../src/plan/holds';
import { tool } from './parts';

const FLUSH = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };

type Cuts = [kind: string, targets: string[], tool: number][];

const cutIn = (job: Job, id: string, cuts: Cuts): Job =>
  cuts.reduce((j, [kind, targets, number]) => addOperation(j, id, kind, targets, tool(number)), job);

/** A part cut from bar in a vise, then turned over and faced, held by something else. */
function turnedOver(
  name: string,
  thickness: number,
  features: Feature[],
  first: Cuts,
  [kind, params, more]: [string, Record<string, unknown>, Partial<Setup>],
  second: Cuts = [['face', [], 1]],
): Job {
  const base: Job = { ...newJob(name, 'mm'), part: { kind: 'plate', thickness, features } };
  const [setup] = base.setups;
  const stock = { ...setup.stock, left: 4, right: 4, front: 4, back: 4, top: 1, bottom: 6 };
  const zero = { on: 'stock' as const, point: 'back left' as const, height: 'top' as const };
  const above = cutIn(
    addHolding({ ...base, setups: [{ ...setup, stock, zero }] }, { ...setup, stock, zero }, 'vise', { grip: 4 }),
    's1',
    first,
  );
  const below: Setup = {
    ...{ ...setup, id: 's2', name: 'Underside', up: 'underside, turned sideways', zero },
    stock: { ...stock, ...FLUSH, shape: 'as left' },
    ...more,
  };
  const held = addHolding({ ...above, setups: [...above.setups, below] }, below, kind, params);
  return cutIn(held, 's2', second);
}

/** A valve crank: two round ends of 30 and 18 joined by tangents, a bore in each; its underside is faced in soft jaws, zero on the fixed one. */
export function crank(): Job {
  const [big, small, apart] = [15, 9, 55];
  const slope = Math.asin((big - small) / apart);
  const [cos, sin] = [Math.cos(slope), Math.sin(slope)];
  const quarter = (sweep: number) => Math.tan(sweep / 4);
  const vertices: ChainVertex[] = [
    { x: big * sin, y: -big * cos, bulge: 0 },
    { x: apart + small * sin, y: -small * cos, bulge: quarter(Math.PI - 2 * slope) },
    { x: apart + small * sin, y: small * cos, bulge: 0 },
    { x: big * sin, y: big * cos, bulge: quarter(Math.PI + 2 * slope) },
  ];
  const outline = newFeature([], 'outline', 'Crank', { type: 'chain', vertices, closed: true }, { x: 15, y: 15 });
  const bore = newFeature(
    [outline],
    'pocket',
    'Hub bore',
    { type: 'round', diameter: 14 },
    { x: 15, y: 15, through: true },
  );
  const pin = newFeature(
    [outline, bore],
    'hole',
    'Pin hole',
    { type: 'round', diameter: 6 },
    { x: 70, y: 15, through: true },
  );
  return turnedOver(
    'Valve crank',
    14,
    [outline, bore, pin],
    [
      ['face', [], 1],
      ['pocket', ['f2'], 7],
      ['drill', ['f3'], 16],
      ['clear', ['f1'], 6],
    ],
    ['soft jaws', { grip: 5 }, { zero: { on: 'holding', of: 'h1', point: 'back left', height: 'top' } }],
  );
}

/** A dial disc of 60 with one flat; its underside is faced in a V-block, the flat on the moving jaw. */
export function flatDisc(): Job {
  const [radius, flat] = [30, 26];
  const half = Math.sqrt(radius * radius - flat * flat);
  const sweep = 2 * Math.PI - 2 * Math.asin(half / radius);
  const vertices: ChainVertex[] = [
    { x: -half, y: -flat, bulge: 0 },
    { x: half, y: -flat, bulge: Math.tan(sweep / 4) },
  ];
  const outline = newFeature([], 'outline', 'Disc', { type: 'chain', vertices, closed: true }, { x: 30, y: 26 });
  const bore = newFeature(
    [outline],
    'pocket',
    'Bore',
    { type: 'round', diameter: 16 },
    { x: 30, y: 26, through: true },
  );
  return turnedOver(
    'Dial disc',
    12,
    [outline, bore],
    [
      ['face', [], 1],
      ['pocket', ['f2'], 7],
      ['clear', ['f1'], 6],
    ],
    ['v-block', { grip: 5 }, { zero: { on: 'feature', of: 'f2', point: 'centre', height: 'top' } }],
  );
}

/** Twenty toggles of 26 x 30 in a row from one sawn length of flat bar, then faced one by one. */
export function twentyToggles(): Job {
  const plain = { type: 'rectangle', width: 26, height: 30, radius: 4 } as const;
  const outline = newFeature([], 'outline', 'Toggle', plain, { x: 13, y: 15 });
  const hole = newFeature([outline], 'hole', 'Hole', { type: 'round', diameter: 6 }, { x: 13, y: 15, through: true });
  const job = turnedOver(
    'Twenty toggles',
    12,
    [outline, hole],
    [
      ['face', [], 1],
      ['drill', ['f2'], 16],
      ['contour', ['f1'], 6],
    ],
    ['vise', { grip: 5 }, {}],
  );
  const fulmar = MACHINES.find((m) => m.id === 'fulmar')!;
  const [setup, below] = job.setups;
  const row = { ...setup, copies: { columns: 20, rows: 1, dx: 35.5, dy: 0.1, order: 'by tool' as const } };
  const wide = { ...row, holding: row.holding!.map((h) => ({ ...h, params: { ...h.params, jawWidth: 720 } })) };
  const model = groundOf({ ...job, setups: [wide, below] }, wide).model;
  const bar = { ...BARS.find((b) => b.id === 'flat-aluminium-40-20')!, length: 1000 };
  const [way] = barWays({ ...setup.stock, bottom: 5 }, model, [bar], job.material);
  return { ...job, machine: fulmar, batch: 20, setups: [{ ...wide, stock: way.stock }, below] };
}
