/** Plans the demo jobs of two solids, each with its files beside it: `npx tsx demo/solids/jobs.ts`. It takes minutes. Same input, same files. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import startStep from 'occt-import-js';
import {
  Job,
  MACHINES,
  MATERIALS,
  TOOLS,
  Tool,
  facesOfSolid,
  newJob,
  packJob,
  planPart,
  putAtHand,
  readModel,
  sha256Of,
  takenSolid,
  waysUp,
} from '@tidypath/core';

/** What the shop would buy for a part: another size of a tool it has. */
function bought(
  number: number,
  like: number,
  name: string,
  diameter: number,
  flutes: number,
  more: Partial<Tool> = {},
): Tool {
  const known = TOOLS.find((t) => t.number === like)!;
  const stickOut = flutes + 10;
  return {
    ...known,
    id: `t${number}`,
    number,
    name,
    diameter,
    shankDiameter: diameter,
    fluteLength: flutes,
    stickOut,
    ...more,
  };
}

const DRILL = 15;
const BULL = 11;

const JOBS = [
  {
    solid: 'gauge-housing',
    name: 'Gauge housing',
    tools: [
      bought(51, DRILL, '2.5 mm drill', 2.5, 18),
      bought(52, DRILL, '4.3 mm drill, long', 4.3, 46),
      bought(53, DRILL, '5.5 mm drill, long', 5.5, 46),
    ],
  },
  {
    solid: 'probe-bracket',
    name: 'Probe bracket',
    tools: [
      bought(51, DRILL, '6.6 mm drill', 6.6, 40),
      bought(52, BULL, '12 mm bull mill, 1 mm corner', 12, 26, { cornerRadius: 1 }),
    ],
  },
];

async function jobOf({ solid, name, tools }: (typeof JOBS)[number]): Promise<Job> {
  const bytes = new Uint8Array(readFileSync(join(__dirname, `${solid}.step`)));
  const { bodies } = readModel(bytes, { step: await startStep() });
  const faces = facesOfSolid(bodies[0].mesh);
  const [{ side: up }] = waysUp(faces);
  const source = { name: `${solid}.step`, sha256: sha256Of(bytes) };
  const { part, surface } = takenSolid(faces, { body: 0, unit: 'mm', up }, source);
  putAtHand(surface);
  putAtHand(bytes);
  const machine = MACHINES.find((m) => m.id === 'fulmar')!;
  const material = MATERIALS.find((m) => m.id === 'alu-6082')!;
  const prices = { energy: 0.28 };
  const empty = {
    ...newJob(name, 'mm'),
    machine,
    material,
    controllerId: machine.controllerId,
    part,
    batch: 20,
    prices,
  };
  const work = planPart(empty, { rack: [...TOOLS, ...tools] });
  let step = work.next();
  while (!step.done) step = work.next();
  const { job, sentences, missing } = step.value;
  [name, ...sentences, ...missing.map((m) => `not done: ${m.feature}: ${m.why}`)].forEach((line) => console.log(line));
  return { ...job, setups: job.setups.map((s) => ({ ...s, setUpMinutes: 20, reloadMinutes: 1.5 })) };
}

async function main(): Promise<void> {
  for (const one of JOBS) writeFileSync(join(__dirname, '..', 'jobs', `${one.solid}.zip`), packJob(await jobOf(one)));
}

void main();
