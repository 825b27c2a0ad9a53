import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { putAtHand } from '../quantity/files';
import { missingFiles } from '../document/files';
import type { Job } from '../document/job';
import { Bench } from './bench';
import { parseJob } from './documents';
import { planSetup } from './pipeline';
import { resultKey } from './results';

const demo = (name: string) => parseJob(readFileSync(join(__dirname, '../../../../demo/jobs', name), 'utf8')).job!;
const plate = demo('vane-hub-plate.json');
const key = (job: Job, text?: string) => resultKey('source', job, 's1', text);

/** Every value of a document with its place; one that stands for each kind of it in a list. */
function* leaves(value: unknown, path: (string | number)[] = []): Generator<(string | number)[]> {
  if (typeof value !== 'object' || value === null) yield path;
  else for (const name of Object.keys(value)) yield* leaves((value as Record<string, unknown>)[name], [...path, name]);
}

function changed(job: Job, path: (string | number)[]): Job {
  const copy = structuredClone(job) as unknown as Record<string, unknown>;
  const last = path.at(-1)!;
  const owner = path.slice(0, -1).reduce<Record<string, unknown>>((o, p) => o[p] as Record<string, unknown>, copy);
  const was = owner[last];
  owner[last] = typeof was === 'number' ? was + 1e-9 : typeof was === 'boolean' ? !was : `${String(was)} `;
  return copy as unknown as Job;
}

test('a result hangs on every value of the job but its note and what is only compared', () => {
  const own = key(plate);
  const places = [...leaves(plate)];
  expect(places.length).toBeGreaterThan(500);
  const same = places.filter((path) => key(changed(plate, path)) === own);
  const compared = places.filter(([first]) => first === 'comparisons');
  expect(compared.length).toBeGreaterThan(20);
  expect(same).toEqual([['note'], ...compared]);
});

test('it hangs on the setup, the whole text of another program, and the code that made it', () => {
  const long = 'G1 X1\n'.repeat(100_000);
  const keys = [
    key(plate),
    resultKey('source', plate, 's2'),
    resultKey('other source', plate, 's1'),
    key(plate, ''),
    key(plate, long),
    key(plate, `${long.slice(0, -3)}2\n`),
  ];
  expect(new Set(keys).size).toBe(keys.length);
  expect(key(structuredClone(plate), long)).toBe(key(plate, long));
});

test('it hangs on whether the files it names are at hand', () => {
  const bytes = new TextEncoder().encode('a mesh of this test alone');
  const [setup] = plate.setups;
  const sha256 = putAtHand(bytes).replace(/^./, (c) => (c === '0' ? '1' : '0'));
  const casting = (sha256: string): Job => ({
    ...plate,
    setups: [{ ...setup, stock: { ...setup.stock, casting: { name: 'a', sha256 } } }],
  });
  const away = casting(sha256);
  expect(missingFiles(away)).toHaveLength(1);
  expect(key(away)).not.toBe(key(casting(putAtHand(bytes))));
});

test.each(['vane-hub-plate.json', 'float-pulley-bracket.json'])(
  'plans that were kept are taken again as they were, those of earlier setups included: %s',
  (name) => {
    const job = demo(name);
    for (const setup of job.setups) {
      const { plans, planned } = planSetup(job, setup);
      const kept = new Map(structuredClone(plans));
      const bench = new Bench();
      bench.know([...kept]);
      const work = bench.plan(job, setup);
      let step = work.next();
      while (!step.done) step = work.next();
      expect(planned.length).toBeGreaterThan(0);
      expect(step.value.planned.every(({ key, plan }) => plan === kept.get(key))).toBe(true);
      expect(step.value.plans.map(([key]) => key)).toEqual(plans.map(([key]) => key));
    }
  },
);
