import {
  Job,
  MACHINES,
  MATERIALS,
  SINGLE,
  addOperation,
  editOperation,
  newFeature,
  newJob,
  addHolding,
} from '@tidypath/core';
import { TOOLS } from '@tidypath/core';

/** Minor diameter of M42×1 as cut. */
const BORE = 40.917;

/** The ring that holds the lens of the cloud camera: a milled thread, screw holes around, lettering. */
export function lensCellRing(): Job {
  const base = newJob('Lens cell ring', 'mm');
  const outline = newFeature(
    [],
    'outline',
    'Ring',
    { type: 'round', diameter: 64 },
    { x: 0, y: 0, edge: { form: 'chamfer', size: 0.5, angle: 90 } },
  );
  const thread = newFeature(
    [outline],
    'hole',
    'Lens thread',
    { type: 'round', diameter: BORE },
    { thread: 'M42x1', through: true },
  );
  const seat = newFeature([outline, thread], 'pocket', 'Lens seat', { type: 'round', diameter: 48 }, { depth: 2 });
  const screws = newFeature(
    [outline, thread, seat],
    'hole',
    'Screw holes',
    { type: 'round', diameter: 3.3 },
    {
      x: 28,
      y: 0,
      through: true,
      edge: { form: 'chamfer', size: 0.3, angle: 90 },
      pattern: { ...SINGLE, type: 'circle', count: 6 },
    },
  );
  const mark = newFeature(
    [outline, thread, seat, screws],
    'line',
    'Mark',
    { type: 'text', text: '42', height: 3 },
    { x: 0, y: 28 },
  );
  const machine = MACHINES.find((m) => m.id === 'fulmar')!;
  const features = [outline, thread, seat, screws, mark];
  const setup = {
    ...base.setups[0],
    stock: { ...base.setups[0].stock, shape: 'round' as const, diameter: 70, top: 0.5, bottom: 6 },
    riser: 100,
    zero: { on: 'part' as const, point: 'centre' as const, height: 'top' as const },
  };
  let job: Job = {
    ...base,
    note: 'Holds the lens of the cloud camera.',
    material: MATERIALS.find((m) => m.id === 'brass')!,
    machine,
    controllerId: machine.controllerId,
    part: { kind: 'plate', thickness: 8, features },
  };
  job = addHolding({ ...job, setups: [setup] }, setup, 'chuck', { grip: 4 });
  const tool = (n: number) => TOOLS.find((t) => t.number === n)!;
  const add = (kind: string, target: string | undefined, number: number) =>
    (job = addOperation(job, 's1', kind, target ? [target] : [], tool(number)));
  add('face', undefined, 1);
  add('helical-bore', thread.id, 3);
  add('clear', seat.id, 3);
  add('drill', screws.id, 13);
  add('drill', screws.id, 33);
  add('countersink', screws.id, 13);
  add('thread-mill', thread.id, 41);
  add('contour', outline.id, 3);
  add('chamfer', outline.id, 22);
  add('engrave', mark.id, 31);
  const spot = job.setups[0].operations[3];
  return editOperation(job, spot.id, (o) => ({ ...o, name: 'Spot the screw holes' }));
}
