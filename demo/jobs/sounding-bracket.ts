import {
  BARS,
  Job,
  MACHINES,
  SINGLE,
  Setup,
  TOOLS,
  addHolding,
  addOperation,
  editOperation,
  newFeature,
  newJob,
  softJawsJob,
} from '@tidypath/core';

const inch = (v: number) => v * 25.4;
const tool = (n: number) => TOOLS.find((t) => t.number === n)!;
const FLUSH = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 };

/** The bracket of the sounding line: a foot with two bolt holes and a window, and two side holes in its front for the line's pins. */
function part(): Job['part'] {
  const outline = newFeature(
    [],
    'outline',
    'Foot',
    { type: 'rectangle', width: inch(2.5), height: inch(1.5), radius: inch(0.1875) },
    { x: inch(1.25), y: inch(0.75) },
  );
  const window = newFeature(
    [outline],
    'pocket',
    'Window',
    { type: 'rectangle', width: inch(0.75), height: inch(0.5), radius: inch(0.1563) },
    { x: inch(1.25), y: inch(0.875), through: true },
  );
  const bolts = newFeature(
    [outline, window],
    'hole',
    'Bolt hole',
    { type: 'round', diameter: inch(0.201) },
    { x: inch(0.375), y: inch(0.75), through: true, pattern: { ...SINGLE, type: 'line', count: 2, dx: inch(1.75) } },
  );
  const pins = newFeature(
    [outline, window, bolts],
    'hole',
    'Pin hole',
    { type: 'round', diameter: inch(0.201) },
    {
      ...{ x: inch(0.75), y: inch(0.25), depth: inch(0.4), through: false, side: 'front' as const },
      pattern: { ...SINGLE, type: 'line', count: 2, dx: inch(1) },
    },
  );
  return { kind: 'plate', thickness: inch(0.5), features: [outline, window, bolts, pins] };
}

/** Four of it cut from a flat bar that is glued down, its faces as bought. */
function fromBar(base: Job): Job {
  const [first] = base.setups;
  const margin = inch(0.125);
  const bar = BARS.find((b) => b.id === 'flat-aluminium-inch-1.75-0.5')!;
  const setup: Setup = {
    ...first,
    name: 'Four from the bar',
    stock: { ...first.stock, ...FLUSH, left: margin, right: margin, front: margin, back: margin, lies: 'along X', bar },
    setUpMinutes: 25,
    reloadMinutes: 6,
    zero: { on: 'stock', point: 'front left', height: 'top' },
    clearance: inch(0.5),
    copies: { columns: 4, rows: 1, dx: inch(2.875), dy: inch(2), order: 'by tool' },
  };
  const glued = { by: 'glue', share: 0.9, shear: 2, pull: 2, spoil: inch(0.1) };
  let job = addHolding({ ...base, setups: [setup] }, setup, 'stuck', glued);
  job = addOperation(job, 's1', 'drill', ['f3'], tool(13));
  job = addOperation(job, 's1', 'drill', ['f3'], tool(19));
  job = addOperation(job, 's1', 'pocket', ['f2'], tool(20));
  job = addOperation(job, 's1', 'contour', ['f1'], tool(20));
  const [spot] = job.setups[0].operations;
  return editOperation(job, spot.id, (o) => ({
    ...o,
    name: 'Spot the bolt holes',
    params: { ...o.params, spotDiameter: inch(0.18) },
  }));
}

/** Each on its own in soft jaws, its front up, zero on the corner of the fixed jaw. */
function frontUp(job: Job): Job {
  const [first] = job.setups;
  const setup: Setup = {
    ...{ ...first, id: 's2', name: 'Front, in soft jaws', up: 'front', copies: undefined, holding: [], operations: [] },
    stock: { ...first.stock, ...FLUSH, shape: 'as left', lies: undefined, bar: undefined },
    setUpMinutes: 15,
    reloadMinutes: 1.5,
    zero: { on: 'holding', of: 'h1', point: 'back left', height: 'top' },
    riser: inch(2),
  };
  let next = addHolding({ ...job, setups: [first, setup] }, setup, 'soft jaws', { grip: inch(0.4) });
  next = addOperation(next, 's2', 'drill', ['f4'], tool(13));
  next = addOperation(next, 's2', 'drill', ['f4'], tool(19));
  const [spot] = next.setups[1].operations;
  return editOperation(next, spot.id, (o) => ({
    ...o,
    name: 'Spot the pin holes',
    params: { ...o.params, spotDiameter: inch(0.18) },
  }));
}

/** A bracket with holes in its side: four from a bar, then each in soft jaws, in inches. */
export function soundingBracket(): Job {
  const machine = MACHINES[2];
  const base: Job = {
    ...newJob('Sounding-line bracket', 'inch'),
    note: 'Carries the sounding line. Four from a bar 1 3/4 × 1/2.',
    batch: 40,
    machine,
    controllerId: machine.controllerId,
    part: part(),
  };
  return frontUp(fromBar(base));
}

/** The job that cuts its soft jaws. */
export function soundingJaws(): Job {
  const job = soundingBracket();
  const jaws: Job = { ...softJawsJob(job, job.setups[1])!, name: 'Sounding-line jaws' };
  return addOperation(jaws, 's1', 'pocket', ['f2'], tool(20));
}
