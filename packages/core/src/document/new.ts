import { BOLDNESS } from '../cutting/boldness';
import { LengthUnit } from '../quantity/units';
import { MACHINES, MATERIALS } from '../shop/library';
import { FORMAT_VERSION, Job, Setup } from './job';

/** A copy of stored data that can be changed by itself. */
export const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export const emptySetup = (): Setup => ({
  id: 's1',
  name: 'Setup 1',
  stock: { shape: 'box', left: 2, right: 2, front: 2, back: 2, top: 1, bottom: 6, diameter: 100 },
  zero: { on: 'stock', point: 'front left', height: 'top' },
  workOffset: 'G54',
  clearance: 10,
  riser: 40,
  fixtures: [],
  operations: [],
});

/** Of a job nobody has named; the first drawing it is given names it. */
export const UNNAMED = 'Job without a name';

/** A job with nothing on it yet but the shop's first material and machine. */
export function newJob(name: string, unit: LengthUnit): Job {
  const machine = copy(MACHINES[0]);
  return {
    formatVersion: FORMAT_VERSION,
    name,
    unit,
    note: '',
    material: copy(MATERIALS[0]),
    machine,
    controllerId: machine.controllerId,
    tools: [],
    part: { kind: 'plate', thickness: unit === 'mm' ? 10 : 12.7, features: [] },
    setups: [emptySetup()],
    boldness: BOLDNESS.settled,
    output: { lineNumbers: true, unit },
  };
}
