import {
  Job,
  MACHINES,
  MATERIALS,
  SINGLE,
  TOOLS,
  addOperation,
  editOperation,
  newFeature,
  newJob,
  addHolding,
} from '@tidypath/core';

const inch = (v: number) => v * 25.4;

/** The bracket of the tide gauge's float pulley, drawn from shapes with numbers, in inches. */
export function floatPulleyBracket(): Job {
  let job = newJob('Float-pulley bracket', 'inch');
  const outline = newFeature(
    [],
    'outline',
    'Plate',
    { type: 'rectangle', width: inch(4), height: inch(2.5), radius: inch(0.375) },
    { x: inch(2), y: inch(1.25) },
  );
  const slot = newFeature(
    [outline],
    'pocket',
    'Cord slot',
    { type: 'slot', length: inch(1.75), width: inch(0.625) },
    { x: inch(1.375), y: inch(1.25), depth: inch(0.25) },
  );
  const seat = newFeature(
    [outline, slot],
    'pocket',
    'Pulley seat',
    { type: 'round', diameter: inch(1) },
    { x: inch(3), y: inch(1.25), depth: inch(0.1875) },
  );
  const holes = newFeature(
    [outline, slot, seat],
    'hole',
    'Screw hole',
    { type: 'round', diameter: inch(0.201) },
    {
      x: inch(0.375),
      y: inch(0.375),
      depth: inch(0.5),
      pattern: { ...SINGLE, type: 'grid', count: 2, rows: 2, dx: inch(3.25), dy: inch(1.75) },
    },
  );
  const machine = MACHINES[2];
  job = {
    ...job,
    note: 'Holds the float pulley of the tide gauge.',
    material: MATERIALS[3],
    machine,
    controllerId: machine.controllerId,
    part: { kind: 'plate', thickness: inch(0.5), features: [outline, slot, seat, holes] },
  };
  const setup = {
    ...job.setups[0],
    stock: {
      ...job.setups[0].stock,
      left: inch(0.0625),
      right: inch(0.0625),
      front: inch(0.0625),
      back: inch(0.0625),
      top: inch(0.03125),
      bottom: inch(0.25),
    },
    clearance: inch(0.5),
  };
  job = addHolding({ ...job, setups: [setup] }, setup, 'vise', { grip: inch(0.17), fixedJaw: 'front' });
  const tool = (n: number) => TOOLS.find((t) => t.number === n)!;
  job = addOperation(job, 's1', 'face', [], tool(1));
  job = addOperation(job, 's1', 'slot', [slot.id], tool(21));
  job = addOperation(job, 's1', 'pocket', [seat.id], tool(21));
  job = addOperation(job, 's1', 'drill', [holes.id], tool(13));
  job = addOperation(job, 's1', 'drill', [holes.id], tool(19));
  job = addOperation(job, 's1', 'contour', [outline.id], tool(21));
  const spot = job.setups[0].operations[3];
  return editOperation(job, spot.id, (o) => ({
    ...o,
    name: 'Spot the screw holes',
    params: { ...o.params, spotDiameter: inch(0.18) },
  }));
}
