import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { normalFrom, randomFrom } from '../quantity/random';
import { chartOf } from './chart';
import { lifeFactor } from './edges';
import { CutEvidence, evidenceText, isSameCut, noted, recipeOf } from './recipe';
import { SizedPart, adviseOffset } from './offsets';
import { TimedRun, fitTime } from './time';

const run = (seconds: number, dwell: number, moves: number, changes: number): TimedRun => ({
  seconds,
  dwell,
  moves,
  changes,
});

describe('the time of a machine', () => {
  const RUNS = [
    run(700, 0, 600, 2),
    run(388, 10, 300, 3),
    run(1150, 0, 1000, 3),
    run(530, 20, 400, 4),
    run(2400, 0, 800, 2),
    run(255, 0, 200, 2),
  ];

  test('is learnt from runs of which one had lunch in it', () => {
    const { extraTime, toolChangeSeconds, outliers } = fitTime(RUNS, 12);
    expect(extraTime).toBeCloseTo(0.1122, 2);
    expect(Math.abs(toolChangeSeconds - 15.69)).toBeLessThan(0.15);
    expect(outliers).toEqual([4]);
  });

  test('with 15 % of outliers it is right within a few percent after some runs', () => {
    const miss = (count: number) => {
      const misses = Array.from({ length: 60 }, (_, seed) => {
        const [random, normal] = [randomFrom(seed), normalFrom(randomFrom(seed + 1000))];
        const runs = Array.from({ length: count }, () => {
          const [moves, changes] = [200 + 900 * random(), 1 + Math.floor(5 * random())];
          const lunch = random() < 0.15 ? 300 + 1500 * random() : 0;
          return run(1.1 * moves + 15 * changes + 6 * normal() + lunch, 0, moves, changes);
        });
        return Math.abs(fitTime(runs, 12).extraTime - 0.1);
      }).sort((a, b) => a - b);
      return misses[misses.length >> 1];
    };
    const [two, twelve] = [miss(2), miss(12)];
    expect(two).toBeLessThan(0.05);
    expect(twelve).toBeLessThan(0.02);
    expect(twelve).toBeLessThan(two);
  });

  test('nothing logged says what was said before', () => {
    expect(fitTime([], 12)).toMatchObject({ extraTime: 0, toolChangeSeconds: 12, outliers: [] });
  });
});

describe('the life of edges', () => {
  const worn = (...used: number[]) => used.map((u) => ({ used: u, worn: true }));
  const changed = (...used: number[]) => used.map((u) => ({ used: u, worn: false }));
  test.each([
    [worn(0.7, 0.8, 0.65), 0.81],
    [changed(0.5, 0.5, 0.5, 0.5), 1.145],
    [[...worn(1.6, 1.4), ...changed(1.2)], 1.472],
    [[], 1],
  ])('%j: × %f', (edges, factor) => expect(lifeFactor(edges)).toBeCloseTo(factor, 3));
});

describe('wear offsets', () => {
  const HALF = 0.02;
  /** 200 parts with chance of 4 µm and a drift, corrected by some rule. */
  function made(drift: number, seed: number, rule: (parts: SizedPart[], measure: () => number) => number) {
    const normal = normalFrom(randomFrom(seed));
    let [wear, offset, out, corrections, fresh] = [0, 0, 0, 0, true];
    const parts: SizedPart[] = [];
    for (let n = 0; n < 200; n++) {
      wear += drift;
      const off = wear - offset + 0.004 * normal();
      if (Math.abs(off) > HALF) out++;
      parts.push({ off, fresh });
      fresh = false;
      const by = rule(parts, () => off + 0.0005 * normal());
      if (by === 0) continue;
      offset += by;
      corrections++;
      fresh = true;
    }
    return { out: out / 200, corrections };
  }
  const byRules = (parts: SizedPart[], measure: () => number): number => {
    let advice = adviseOffset(parts, { half: HALF });
    if (advice.do === 'measure again')
      advice = adviseOffset([...parts, { off: measure(), again: true }], { half: HALF });
    return advice.do === 'correct' ? advice.by : 0;
  };
  const average = (drift: number, rule: typeof byRules) => {
    const all = Array.from({ length: 200 }, (_, seed) => made(drift, seed, rule));
    const mean = (of: (m: (typeof all)[number]) => number) => all.reduce((sum, m) => sum + of(m), 0) / all.length;
    return { out: mean((m) => m.out), corrections: mean((m) => m.corrections) };
  };

  test('follow a drift with a tenth of the corrections of who corrects every part, and no more parts out', () => {
    const every = (parts: SizedPart[]) => parts.at(-1)!.off;
    const [rules, always, never] = [byRules, every, () => 0].map((rule) => average(0.00025, rule));
    expect(rules.out).toBeLessThan(0.008);
    expect(rules.corrections).toBeGreaterThan(6);
    expect(rules.corrections).toBeLessThan(16);
    expect(always.corrections).toBeGreaterThan(180);
    expect(rules.out).toBeLessThan(always.out * 1.3);
    expect(never.out).toBeGreaterThan(0.5);
  });

  const advise = (offs: number[], more: Partial<SizedPart> = {}) =>
    adviseOffset(
      offs.map((off, i) => ({ off, ...(i === offs.length - 1 && more) })),
      { half: HALF, deviation: 0.001 },
    );
  test.each([
    ['nothing measured', [], {}, 'leave'],
    ['chance', [0.002, -0.001, 0.003], {}, 'leave'],
    ['at its limit, once', [0.0175, 0.0185], {}, 'measure again'],
    ['at its limit, measured twice', [0.0175, 0.0185], { again: true }, 'correct'],
    ['two half way', [0.0115, 0.012], {}, 'correct'],
    ['two half way on different sides', [0.0115, 0.0085], {}, 'leave'],
    ['a jump', [0.001, 0.008], {}, 'measure again'],
    ['seven on one side', [0.004, 0.004, 0.0035, 0.004, 0.004, 0.0045, 0.004], {}, 'correct'],
    ['a new edge', [0.0115, 0.012], { fresh: true }, 'leave'],
    ['too little', [0.001, 0.001, 0.001, 0.001, 0.001, 0.001, 0.001], {}, 'leave'],
  ] as const)('%s', (_, offs, more, wanted) => expect(advise([...offs], more).do).toBe(wanted));

  test('seven tenths of what it is off are taken, in steps of the register', () => {
    expect(advise([0.012, 0.0115])).toMatchObject({ by: expect.closeTo(0.008, 9) });
  });
});

describe('a chart of single values', () => {
  const VALUES = [10.002, 9.998, 10.004, 10.001, 9.997, 10.003, 10.0, 10.005, 9.999, 10.002];

  test('limits come from the moving range', () => {
    const { mean, deviation, lower, upper, signals } = chartOf(VALUES)!;
    expect([mean, deviation]).toEqual([expect.closeTo(10.0011, 4), expect.closeTo(0.00394, 5)]);
    expect([lower, upper]).toEqual([expect.closeTo(9.98928, 4), expect.closeTo(10.01292, 4)]);
    expect(signals).toEqual([]);
  });

  test.each([
    ['one beyond', [...VALUES, 10.03], /beyond the limits/],
    ['eight on one side', [-4, 3, -5, 2, -6, 1, -5, 3, 2, 6, 2, 7, 3, 6, 2, 7], /8 on one side/],
    ['six rising', [0, 3, 1, 4, 0, 3, 1, 4, 0, 0.5, 1, 1.5, 2, 2.5].map((v) => v), /6 rising/],
  ])('%s', (_, values, why) => {
    expect(
      chartOf(values)!
        .signals.map((s) => s.why)
        .join(),
    ).toMatch(why);
  });

  test('one value makes no chart', () => expect(chartOf([1])).toBeUndefined());
});

describe('cuts that were run', () => {
  const drawn = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 8 }, { depth: 6 });
  const job = withOperation(withOperation(drawn, 'pocket', ['f2'], tool(4)), 'face', [], tool(1));
  const [pocket, face] = job.setups[0].operations;
  const recipe = recipeOf(job, job.setups[0], pocket)!;
  const seen: CutEvidence = {
    day: '1 Dec 2026',
    release: '09DCC099',
    seen: { load: 0.47, sound: 'quiet', colour: 'bright' },
  };

  test('become recipes as they were run', () => {
    const { rpm, feed } = pocket.speeds;
    expect(recipe).toMatchObject({ rpm, feed, tool: { number: 4 }, name: `${tool(4).name} in ${job.material.name}` });
    expect(recipe.ap).toBeLessThanOrEqual(6);
    expect(recipe.ae).toBeLessThanOrEqual(10);
    const drill = { ...pocket, toolId: tool(14).id };
    expect(recipeOf({ ...job, tools: [...job.tools, tool(14)] }, job.setups[0], drill)).toBeUndefined();
    expect(recipeOf(job, job.setups[0], { ...pocket, toolId: 'gone' })).toBeUndefined();
  });

  test('are the same where tool, bar, machine and values are', () => {
    expect(isSameCut(recipe, { ...recipe, feed: 1.02 * recipe.feed })).toBe(true);
    expect(isSameCut(recipe, { ...recipe, feed: 1.2 * recipe.feed })).toBe(false);
    expect(isSameCut(recipe, recipeOf(job, job.setups[0], face)!)).toBe(false);
  });

  test('say how they went, the newest first, the oldest giving way', () => {
    expect(evidenceText(seen)).toBe('✓ 1 Dec 2026, release 09DCC099: 47 % of the spindle, quiet, chips bright');
    expect(evidenceText({ ...seen, seen: { chatter: 803.4 } })).toMatch(/^▲ .* chatters at 803 Hz/);
    expect(evidenceText({ ...seen, seen: { load: 1.1 } })).toMatch(/^▲/);
    expect(noted('b\na', 'c')).toBe('c\nb\na');
    expect(noted('b\na', 'a')).toBe('a\nb');
    const long = Array.from({ length: 40 }, (_, i) => `line ${i} ${'x'.repeat(40)}`).reduce(
      (note, line) => noted(note, line),
      '',
    );
    expect(long.length).toBeLessThanOrEqual(1000);
    expect(long).toMatch(/^line 39 /);
  });
});
