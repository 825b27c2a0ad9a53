/** A small job on the simulated machine, for tests. */
import { MACHINES, Job } from '@tidypath/core';
import { jobWith, post, withOperation } from '@tidypath/core/testing/jobs';
import { tool } from '@tidypath/core/testing/parts';
import { Machine } from '../src/control/machine';
import type { StreamRow } from '../src/control/events';
import { Entered, freshMemory } from '../src/control/memory';
import { trulyEntered } from '../src/control/run';
import { Loaded, Work, load, prepare, workOf } from '../src/control/work';

/** A pocket, then its wall once more with a smaller mill: two tools, a tool change. */
export const pocketAndWall: Job = withOperation(
  withOperation(
    jobWith({ type: 'rectangle', width: 40, height: 30, radius: 8 }, { depth: 3 }),
    'pocket',
    ['f2'],
    tool(4),
    {
      finish: false,
      wallAllowance: 0.3,
    },
  ),
  'contour',
  ['f2'],
  tool(7),
  { side: 'inside' },
);

export const onMachine = (job: Job, id: string): Job => ({
  ...job,
  machine: structuredClone(MACHINES.find((m) => m.id === id)!),
});

export const loaded = (job: Job, more: Partial<Work> = {}, text = post(job).text): Loaded =>
  load({ ...workOf(job, job.setups[0], text, { seed: 1, skips: false, cell: 0.5 }), ...more });

/** A machine with everything entered as it truly is, but for what is said. */
export function machineWith(
  of: Loaded,
  more: (truly: ReturnType<typeof trulyEntered>) => Partial<Entered> = () => ({}),
): Machine {
  const truly = trulyEntered(of);
  return new Machine(of, freshMemory({ ...truly, ...more(truly) }), true);
}

/** Lets time pass in steps, preparing what has to be; stops where the machine does. */
export function pass(machine: Machine, seconds: number, step = seconds): StreamRow[] {
  const rows: StreamRow[] = [];
  const end = machine.memory.now + seconds;
  while (machine.memory.now < end && machine.memory.state === 'running') {
    if (machine.needs) machine.supply(prepare(machine.loaded, machine.needs));
    machine.advance(Math.min(end, machine.memory.now + step));
    rows.push(...machine.stream());
  }
  return rows;
}
