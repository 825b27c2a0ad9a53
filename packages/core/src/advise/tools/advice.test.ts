import fc from 'fast-check';
import { MACHINES, MATERIALS, TOOLS } from '../../shop/library';
import { jobWith } from '../../../testing/jobs';
import { plate } from '../../../testing/parts';
import { Feature } from '../../part/plate/feature';
import { Tool } from '../../shop/tool';
import { newFeature } from '../../part/plate/new';
import { Job } from '../../document/job';
import { adviseTools } from './index';

const mid = { ...jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }), machine: MACHINES[2] };
const ranked = (job: Job, rack: Tool[] = TOOLS) => adviseTools(job, 'f2', rack).ranked;
const best = (job: Job, role = 'does it') => ranked(job).find((r) => r.role === role)?.tool.name;
const hole = (diameter: number, more: Partial<Feature> = {}): Job => ({
  ...jobWith({ type: 'round', diameter }, { meaning: 'hole', through: true, ...more }),
  machine: MACHINES[2],
});

describe('pockets', () => {
  test('the first tool reaches the corners with room to turn, has room for chips, and says so', () => {
    const [first] = ranked(mid);
    expect(first.role).toBe('does it');
    expect(first.tool.diameter).toBeLessThan(12);
    expect(first.tool.flutes).toBeLessThanOrEqual(3);
    expect(first.reasons.join()).toMatch(/room for the chips of Aluminium 6082.*room to turn/);
    expect(first.minutes).toBeGreaterThan(0);
  });

  test('one with the radius of the corners is ranked lower and warned of; a larger one only roughs', () => {
    const twelve = ranked(mid).find((r) => r.tool.number === 3)!;
    expect(twelve.cautions.join()).toMatch(/turns on the spot/);
    const sixteen = ranked(mid).find((r) => r.tool.number === 2)!;
    expect(sixteen).toMatchObject({ role: 'roughs' });
    expect(sixteen.cautions.join()).toMatch(/leaves [\d.]+ % of the area/);
  });

  test.each([
    [23, true],
    [24, false],
  ])('a cutter that fills the neck between a boss at %d and a wall is warned of, and ranked behind', (y, fills) => {
    const base = { ...jobWith({ type: 'rectangle', width: 60, height: 36, radius: 8 }), machine: MACHINES[2] };
    const { features } = base.part;
    const boss = newFeature(features, 'boss', 'Boss', { type: 'round', diameter: 12 }, { x: 40, y, depth: 4 });
    const job = { ...base, part: { ...base.part, features: [...features, boss] } };
    const ten = ranked(job).find((r) => r.tool.number === 4)!;
    expect(/fills a neck/.test(ten.cautions.join())).toBe(fills);
    const [first] = ranked(job).filter((r) => r.role === 'does it');
    expect(first.tool.diameter < 10).toBe(fills);
  });

  test('steel may have more flutes', () => {
    const four = (job: Job) =>
      ranked(job)
        .find((r) => r.tool.number === 5)!
        .cautions.join();
    expect(four(mid)).toMatch(/little room/);
    expect(four({ ...mid, material: MATERIALS[3] })).not.toMatch(/little room/);
  });

  test('what is too short, too wide or round at the end is told why', () => {
    const deep = {
      ...mid,
      part: { kind: 'plate' as const, thickness: 40, features: mid.part.features.map((f) => ({ ...f, depth: 30 })) },
    };
    const why = Object.fromEntries(adviseTools(deep, 'f2', TOOLS).unfit.map((u) => [u.tool.number, u.why]));
    expect(why[7]).toMatch(/sticks out 24 mm, 30 mm are needed/);
    expect(why[4]).toMatch(/the shank would rub/);
    expect(why[12]).toMatch(/no level floor|sticks out/);
    expect(why[1]).toMatch(/made for level faces/);
  });

  test('nothing in the rack: the size to buy, not a brand', () => {
    const narrow = {
      ...mid,
      part: {
        ...mid.part,
        features: [
          plate(),
          newFeature([plate()], 'pocket', 'Slit', { type: 'slot', length: 30, width: 1.6 }, { x: 40, y: 25, depth: 3 }),
        ],
      },
    };
    const { ranked: none, buy } = adviseTools(narrow, 'f2', TOOLS);
    expect(none).toEqual([]);
    expect(buy).toBe('End mill 1.5 mm, up to 3 flutes, flutes of 4 mm or more');
  });
});

describe('holes', () => {
  test('the drill of its size, then what opens it; spots start it', () => {
    expect(best(hole(5))).toMatch(/5 mm .*drill/);
    expect(best(hole(5), 'starts')).toMatch(/spot|centre/);
    expect(ranked(hole(5)).find((r) => r.tool.number === 14)).toMatchObject({ role: 'opens' });
  });

  test('through coolant is worth most where the machine has it', () => {
    const drill = (machine: number) =>
      ranked({ ...hole(5), machine: MACHINES[machine] }).find((r) => r.tool.number === 34)!;
    expect(drill(2).reasons.join()).toMatch(/straight down, no pecks/);
    expect(drill(0).cautions.join()).toMatch(/no coolant through/);
  });

  test('a thread wants its own drill, and the tap for a blind or through hole', () => {
    const through = ranked(hole(4.2, { thread: 'M5' }));
    expect(through[0].tool.name).toBe('4.2 mm drill');
    expect(through[0].reasons[0]).toMatch(/M5/);
    expect(through.filter((r) => r.role === 'threads').map((r) => r.tool.kind)[0]).toBe('tap');
    const blind = hole(4.2, { thread: 'M5', through: false, depth: 8 });
    expect(ranked(blind).filter((r) => r.role === 'threads')[0].tool.kind).toBe('tap');
    const drill = TOOLS.find((t) => t.kind === 'drill')!;
    const rack = [...TOOLS, { ...drill, id: 'for-forming', number: 99, diameter: 4.65, shankDiameter: 4.65 }];
    expect(ranked(blind, rack).filter((r) => r.role === 'threads')[0].tool.kind).toBe('forming-tap');
    const iron = { ...blind, material: MATERIALS.find((m) => m.id === 'iron-grey')! };
    expect(ranked(iron).filter((r) => r.role === 'threads')[0].tool.kind).toBe('tap');
  });

  test('a reamer sizes what fits it, after its allowance', () => {
    expect(ranked(hole(6)).find((r) => r.role === 'sizes')?.reasons[0]).toMatch(/drill 5.8 mm first/);
  });

  test('no drill of the size: the nearest stocked one, in the unit of the job', () => {
    expect(adviseTools(hole(7.14), 'f2', TOOLS).buy).toMatch(/^Drill 7.1 mm \(0.04 mm under\)/);
    // Only what is metal wants flutes; all of it wants reach.
    const sunk = hole(7.14);
    const features = sunk.part.features.map((f) => (f.id === 'f2' ? { ...f, through: false, depth: 40, from: 30 } : f));
    expect(adviseTools({ ...sunk, part: { ...sunk.part, thickness: 60, features } }, 'f2', TOOLS).buy).toMatch(
      /flutes of 18 mm or more, 48 mm out of its holder$/,
    );
    expect(adviseTools(hole(31), 'f2', TOOLS).buy).toMatch(/^End mill 16 mm/);
    expect(adviseTools({ ...hole(7.14), unit: 'inch' }, 'f2', TOOLS).buy).toMatch(/^Drill (9\/32 in|K|L|J)/);
  });
});

test('corners no mill gets into so deep: the first that is made, and what it leaves', () => {
  const job = jobWith({ type: 'rectangle', width: 14, height: 10, radius: 0 }, { depth: 28 }, 40);
  expect(adviseTools(job, 'f2', []).buy).toMatch(
    /^End mill 2 mm, .* for 29 mm \(it leaves a radius of 1 mm in the corners\)$/,
  );
});

test('for any pocket: what is advised can be done, what does it fits, and there is always a way', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 70 }),
      fc.integer({ min: 3, max: 40 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.integer({ min: 1, max: 25 }),
      fc.constantFrom(...MACHINES.slice(0, 3)),
      fc.constantFrom(...MATERIALS),
      (width, height, round, depth, machine, material) => {
        const radius = (Math.min(width, height) / 2) * round * 0.98;
        const job = { ...jobWith({ type: 'rectangle', width, height, radius }, { depth }, 30), machine, material };
        const { ranked, unfit, buy } = adviseTools(job, 'f2', TOOLS);
        const names = [...ranked, ...unfit].map((r) => r.tool.id);
        expect(new Set(names).size).toBe(names.length);
        for (const r of ranked) {
          expect(r.suggestion.possible).toBe(true);
          expect(r.tool.diameter).toBeLessThan(Math.min(width, height) + 1e-6);
          expect(r.tool.stickOut).toBeGreaterThanOrEqual(depth);
          expect(r.bite.ap).toBeLessThanOrEqual(r.tool.fluteLength);
          if (r.role === 'does it' && radius > 1) expect(r.tool.diameter / 2).toBeLessThanOrEqual(radius * 1.35);
          expect(r.reasons.length).toBeGreaterThan(0);
        }
        expect(buy !== undefined || ranked.some((r) => r.role === 'does it')).toBe(true);
      },
    ),
    { numRuns: 25, seed: 4 },
  );
}, 60_000);

test('outlines want the stiffest tool that reaches, edges anything with a flank', () => {
  const job = { ...mid, part: { ...mid.part, features: [plate()] } };
  const [first] = adviseTools(job, 'f1', TOOLS).ranked;
  expect(first).toMatchObject({ role: 'does it', kind: 'contour' });
  expect(first.tool.fluteLength).toBeGreaterThanOrEqual(10);
  const edge = {
    ...mid,
    part: { ...mid.part, features: [plate(), { ...mid.part.features[1], meaning: 'edge' as const }] },
  };
  const kinds = adviseTools(edge, 'f2', TOOLS).ranked.map((r) => r.tool.kind);
  expect(kinds[0]).toBe('chamfer');
  expect(kinds).toEqual(expect.arrayContaining(['spot', 'thread-mill']));
  expect(adviseTools(mid, 'gone', TOOLS)).toEqual({ ranked: [], unfit: [] });
});
