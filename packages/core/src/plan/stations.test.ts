import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Stations, offsetsOf, placesOfStations } from '../document/stations';
import { Job } from '../document/job';
import { addSetup } from '../document/edit';
import { pileOf, volumeOf } from '../stock/height/field';
import { blanksOf, runsForBatch } from './batch';
import { Bench } from './bench';
import { readJob } from './documents';
import { addHolding, holdFindings, stationPitch } from './holds';
import { groundOf } from './ground';
import { joinPrograms } from './joined';
import { planFindings, planSetup, postSetup } from './pipeline';
import { leftBefore, proveProgram } from './prove';

const CELL = 0.4;
const THREE: Stations = { count: 3, dx: 130, dy: 0, order: 'by tool' };

/** A plate with a pocket off its middle, held in a vise. */
function one(): Job {
  const pocket = { type: 'rectangle', width: 24, height: 16, radius: 5 } as const;
  const drawn = withStock(jobWith(pocket, { x: 22, y: 20, depth: 4 }), { top: 1, bottom: 8 });
  const faced = withOperation(drawn, 'face', [], tool(1));
  const pocketed = withOperation(faced, 'pocket', ['f2'], tool(7));
  return addHolding(pocketed, pocketed.setups[0], 'vise', { grip: 6, fixedJaw: 'front' });
}

const stationed = (stations: Partial<Stations> = {}, job = one()): Job => ({
  ...job,
  setups: [{ ...job.setups[0], stations: { ...THREE, ...stations } }, ...job.setups.slice(1)],
});

function proved(job: Job, index = 0, edit = (text: string) => text) {
  const setup = job.setups[index];
  const plan = planSetup(job, setup);
  const { programs, findings } = postSetup(job, setup, plan);
  const { left } = leftBefore(job, setup, CELL);
  const text = programs.length ? edit(joinPrograms(programs).text) : '';
  const proof = proveProgram(job, setup, text, CELL, { left, sections: programs[0]?.sections });
  const told = [...planFindings(plan), ...findings, ...proof.findings];
  return { proof, codes: [...new Set(told.map((f) => f.code))], text, plan };
}

const heightAt = ({ field }: ReturnType<typeof proved>['proof'], x: number, y: number) =>
  pileOf(field, Math.floor((y - field.y0) / field.cell) * field.nx + Math.floor((x - field.x0) / field.cell), -100)[0];

test('three vises are cut by one program, each from its own zero, planned once', () => {
  const job = stationed();
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  expect(offsetsOf(job.setups[0])).toEqual(['G54', 'G55', 'G56']);
  const [alone, three] = [proved(one()), proved(job)];
  expect(three.codes).toEqual(alone.codes);
  expect(three.plan.planned.length).toBe(alone.plan.planned.length);
  expect(three.text.match(/ M6\b/g)!.length).toBe(alone.text.match(/ M6\b/g)!.length);
  for (const { x } of placesOfStations(job.setups[0])) {
    expect(heightAt(three.proof, 22 + x, 20)).toBeCloseTo(-4, 3);
    expect(heightAt(three.proof, 60 + x, 20)).toBeCloseTo(0, 3);
  }
  expect(three.proof.removed / alone.proof.removed).toBeCloseTo(3, 1);
  // Each way over to another vise goes over the top of the machine.
  const lines = three.text.split('\n');
  lines.forEach((line, i) => {
    if (/G5[456] G0/.test(line) && !/M6|S\d/.test(lines[i - 1])) expect(lines[i - 1]).toMatch(/G53 G0 Z0\./);
  });
});

test('part by part a vise is finished before the next: tools are changed for each', () => {
  const text = proved(stationed({ order: 'part by part' })).text;
  const named = [...text.matchAll(/G5[456]/g)].map((m) => m[0]);
  expect(named).toEqual(['G54', 'G54', 'G55', 'G55', 'G56', 'G56']);
  expect(text.match(/ M6\b/g)!.length).toBe(6);
});

test('what is wrong in one vise alone is found there, and a vise nobody cuts is left whole', () => {
  // The pocket of the last vise goes 2 mm deeper than it may.
  const deeper = proved(stationed(), 0, (text) => {
    const at = text.lastIndexOf('G56');
    return text.slice(0, at) + text.slice(at).replace(/Z-5\./g, 'Z-7.');
  });
  expect(deeper.codes).toContain('gouge');
  expect(heightAt(deeper.proof, 22, 20)).toBeCloseTo(-4, 3);
  expect(heightAt(deeper.proof, 22 + 260, 20)).toBeCloseTo(-6, 3);
  const unknown = proved(stationed(), 0, (text) => text.replaceAll('G56', 'G57'));
  expect(unknown.codes).toContain('offset-unknown');
});

test('jaws of every vise stand in the way', () => {
  const job = stationed();
  const through = proved(job, 0, (text) => {
    const at = text.lastIndexOf('G55');
    return `${text.slice(0, at)}G55 G0 X40. Y-30. Z-20.\n${text.slice(at)}`;
  });
  expect(through.codes).toContain('fixture-hit');
});

test('vises that stand into each other, and more than there are offsets, are refused with a way out', () => {
  const found = (stations: Partial<Stations>, workOffset = 'G54') => {
    const job = stationed(stations);
    const [setup] = job.setups;
    return holdFindings(job, groundOf(job, { ...setup, workOffset })).map((f) => [f.code, f.remedy]);
  };
  expect(found({})).toEqual([]);
  expect(found({ dx: 60 })[0][0]).toBe('stations-overlap');
  expect(found({ count: 4 }, 'G57')).toEqual([
    ['stations-no-offset', 'Begin at an earlier work offset, or have fewer stations'],
  ]);
  expect(found({ count: 3 }, 'G57')).toEqual([]);
});

test('where they stand to start with, the widest tool has room beside each', () => {
  const job = one();
  const ground = groundOf(job, job.setups[0]);
  // Jaws 125 mm wide, the face mill of 40, and a little more.
  expect(stationPitch(job, ground)).toBe(125 + 40 + 20);
  expect(proved(stationed({ count: 2, dx: 185 })).codes).toEqual([]);
  // With nothing but 10 mm between the blanks it comes down on the neighbour.
  const loose = { ...job, setups: [{ ...job.setups[0], holding: [] }] };
  expect(proved(stationed({ count: 2, dx: 94 }, loose)).codes).toContain('cannot-plunge');
});

test('the next setup has one of them; a batch counts them all', () => {
  const job = addSetup(stationed());
  const second = job.setups[1];
  expect(second.stations).toBeUndefined();
  const turned = (j: Job): Job => {
    const [first, last] = addSetup(j).setups;
    return { ...j, setups: [first, { ...last, operations: [{ ...first.operations[0], id: 'again' }] }] };
  };
  const { proof, codes } = proved(turned(stationed()), 1);
  expect(codes.filter((c) => c.startsWith('gouge') || c === 'earlier-setup')).toEqual([]);
  const single = proved(turned(one()), 1);
  expect(volumeOf(proof.field, -30) / volumeOf(single.proof.field, -30)).toBeCloseTo(1, 2);
  expect(runsForBatch({ ...job, batch: 20 }, job.setups[0])).toBe(7);
  expect(runsForBatch({ ...job, batch: 20 }, second)).toBe(20);
  expect(blanksOf(job, job.setups[0])).toBeUndefined();
});

test('the bench proves them, shows them, and goes on from what was proved', () => {
  const job = stationed();
  const bench = new Bench();
  const run = <T>(work: Generator<unknown, T>): T => {
    for (;;) {
      const { done, value } = work.next();
      if (done) return value as T;
    }
  };
  const plan = run(bench.plan(job, job.setups[0]));
  const { programs } = postSetup(job, job.setups[0], plan);
  const result = run(bench.prove(job, job.setups[0], programs[0].text, programs[0].sections))!;
  expect(result.proof.findings.filter((f) => f.level === 'stop')).toEqual([]);
  expect(bench.probe(22 + 260, 20)).toMatchObject({ z: expect.closeTo(-4, 2), by: 0 });
});

test('as subprograms what is cut in every vise is written once, and cuts the same', () => {
  const drilled = withOperation(
    { ...one(), part: jobWith({ type: 'round', diameter: 6 }, { meaning: 'hole', x: 60, y: 30, through: true }).part },
    'drill',
    ['f2'],
    tool(16),
  );
  const plain = {
    ...drilled,
    setups: [{ ...drilled.setups[0], operations: drilled.setups[0].operations.filter((o) => o.kind !== 'pocket') }],
  };
  const job = stationed({}, plain);
  const called = { ...job, output: { ...job.output, subprograms: true } };
  const [long, short] = [proved(job), proved(called)];
  expect([short.codes, long.codes]).toEqual([[], []]);
  expect(short.text.match(/M98 P\d+/g)).toHaveLength(6);
  expect(short.text.match(/^O\d{4}/gm)).toHaveLength(3);
  expect(short.text.length).toBeLessThan(long.text.length);
  expect(short.proof.removed).toBeCloseTo(long.proof.removed, 6);
  expect(short.proof.clock.total).toBeCloseTo(long.proof.clock.total, 2);
});

test('a stop before an operation is made once for all vises, or for each where each is finished by itself', () => {
  const job = one();
  const [face, pocket] = job.setups[0].operations;
  const stopped = { ...pocket, before: { stop: 'planned' as const, note: 'Blow out', minutes: 0 } };
  const held = { ...job, setups: [{ ...job.setups[0], operations: [face, stopped] }] };
  const stops = (order: Stations['order']) => {
    const j = stationed({ order }, held);
    const { programs } = postSetup(j, j.setups[0], planSetup(j, j.setups[0]));
    return programs[0].text.match(/ M0\b/g)!.length;
  };
  expect([stops('by tool'), stops('part by part')]).toEqual([1, 3]);
});
