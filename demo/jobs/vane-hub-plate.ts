import {
  Job,
  addOperation,
  editOperation,
  importDrawing,
  newComparison,
  withOffered,
  IMPORT_DEFAULTS,
  newJob,
  addHolding,
  MATERIALS,
  MACHINES,
  TOOLS,
  Feature,
  Tool,
  addSetup,
} from '@tidypath/core';
import { circle, dxf, polyline, roundedRectangle } from '../dxf';

const PLATE = { width: 120, height: 80, thickness: 12 };
/** Bulge of a quarter circle. */
const FILLET = Math.tan(Math.PI / 8);
const SCREWS = [
  [10, 10],
  [110, 10],
  [110, 70],
  [10, 70],
];

/** The plate that carries the wind vane's hub: a pocket with two bosses, a bearing bore, an open notch, four M5 holes. */
export function vaneHubDrawing(): string {
  return dxf(
    [
      roundedRectangle('OUTSIDE', 60, 40, PLATE.width, PLATE.height, 6),
      roundedRectangle('FLOAT POCKET', 52, 40, 68, 50, 6),
      circle('BOSSES', 39, 40, 6),
      circle('BOSSES', 65, 40, 6),
      circle('BEARING', 100, 40, 9),
      polyline('NOTCH', true, [
        [52, 90],
        [52, 77, FILLET],
        [58, 71],
        [66, 71, FILLET],
        [72, 77],
        [72, 90],
      ]),
      ...SCREWS.map(([x, y]) => circle('M5 TAP DRILL', x, y, 2.1)),
    ],
    4,
  );
}

const MEANINGS: Record<string, Partial<Feature> & { meaning: Feature['meaning'] }> = {
  OUTSIDE: { meaning: 'outline', name: 'Outside', through: true, edge: { form: 'chamfer', size: 0.4, angle: 90 } },
  'FLOAT POCKET': {
    meaning: 'pocket',
    name: 'Float pocket',
    depth: 7,
    through: false,
    edge: { form: 'chamfer', size: 0.3, angle: 90 },
    limits: [{ size: 'depth', upper: 0.02, lower: -0.02 }],
  },
  BOSSES: { meaning: 'boss', name: 'Boss', depth: 0, through: false },
  BEARING: { meaning: 'pocket', name: 'Bearing bore', depth: PLATE.thickness, through: true },
  NOTCH: { meaning: 'pocket', name: 'Open notch', depth: 5, through: false },
  'M5 TAP DRILL': { meaning: 'hole', name: 'M5 hole', depth: PLATE.thickness, through: true, thread: 'M5' },
};

export function vaneHubPlate(drawing: string): Job {
  let job = newJob('Vane hub plate', 'mm');
  const { features } = importDrawing(drawing, { ...IMPORT_DEFAULTS, thickness: PLATE.thickness });
  const count = new Map<string, number>();
  const meant = features.map((f) => {
    const n = (count.get(f.layer) ?? 0) + 1;
    count.set(f.layer, n);
    const meaning = MEANINGS[f.layer];
    return {
      ...f,
      ...meaning,
      name: n > 1 || f.layer === 'BOSSES' || f.layer.startsWith('M5') ? `${meaning.name} ${n}` : meaning.name!,
    };
  });
  job = {
    ...job,
    material: MATERIALS[0],
    machine: MACHINES[0],
    note: 'Carries the hub of the wind vane. Coastal weather station, batch of 20.',
    part: { kind: 'plate', thickness: PLATE.thickness, features: meant },
  };
  const setup = {
    ...job.setups[0],
    name: 'Top',
    stock: { ...job.setups[0].stock, left: 2, right: 2, front: 2, back: 2, top: 1, bottom: 6 },
  };
  job = addHolding({ ...job, setups: [setup] }, setup, 'vise', { grip: 4, fixedJaw: 'front' });
  const id = (name: string) => job.part.features.filter((f) => f.name.startsWith(name)).map((f) => f.id);
  const tool = (n: number) => TOOLS.find((t) => t.number === n)!;
  job = addOperation(job, 's1', 'face', [], tool(1));
  job = addOperation(job, 's1', 'clear', id('Float pocket'), tool(4));
  job = addOperation(job, 's1', 'pocket', id('Bearing bore'), tool(4));
  job = addOperation(job, 's1', 'pocket', id('Open notch'), tool(4));
  job = addOperation(job, 's1', 'drill', id('M5 hole'), tool(13));
  job = addOperation(job, 's1', 'drill', id('M5 hole'), tool(14));
  job = addOperation(job, 's1', 'tap', id('M5 hole'), tool(37));
  job = addOperation(job, 's1', 'contour', id('Outside'), tool(4));
  job = addOperation(job, 's1', 'chamfer', [...id('Outside'), ...id('Float pocket')], tool(22));
  const [, , , , spot] = job.setups[0].operations;
  job = editOperation(job, spot.id, (o) => ({
    ...o,
    name: 'Spot the M5 holes',
    params: { ...o.params, spotDiameter: 4 },
  }));
  return underside(withPocketCompared(job), id('Outside'), tool);
}

/** Three ways to clear the float pocket, held against each other. */
function withPocketCompared(job: Job): Job {
  const [top] = job.setups;
  const clear = top.operations.find((o) => o.kind === 'clear')!;
  return { ...job, comparisons: [withOffered(job, newComparison(job, top, [clear.id]))] };
}

/** Turned over in the same vise: the rest of the stock off, the lower edge broken. */
function underside(top: Job, outside: string[], tool: (n: number) => Tool): Job {
  let job = addSetup(top);
  const [, second] = job.setups;
  job = addHolding(job, { ...second, name: 'Underside', holding: [] }, 'vise', { fixedJaw: 'front' });
  job = addOperation(job, second.id, 'face', [], tool(1));
  job = addOperation(job, second.id, 'chamfer', outside, tool(22));
  const [face, chamfer] = job.setups[1].operations;
  job = editOperation(job, face.id, (o) => ({ ...o, name: 'Face the underside' }));
  job = editOperation(job, chamfer.id, (o) => ({ ...o, params: { ...o.params, width: 0.4 } }));
  return job;
}
