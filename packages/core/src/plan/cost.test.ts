import 'reflect-metadata';
import { tightPocket } from '../../testing/jobs';
import { Job } from '../document/job';
import { BARS, MACHINES, TOOLS } from '../shop/library';
import { Cost, RunFigures, costOf, priceBreaks } from './cost';
import { costSentence, costSentences } from './cost-words';

const mill = { ...TOOLS[3], number: 4, edgePrice: 64 };
const run: RunFigures = { minutes: 3.824, wear: [{ tool: 4, share: 0.01938, minutes: 3 }], kWh: 0.2186 };

function job(more: Partial<Job> = {}): Job {
  const start = tightPocket();
  const machine = { ...MACHINES.find((m) => m.id === 'fulmar')!, hourlyRate: 62 };
  const setups = start.setups.map((s) => ({ ...s, setUpMinutes: 45, reloadMinutes: 1.5 }));
  return { ...start, machine, tools: [mill], setups, prices: { energy: 0.25, edgeMinutes: 3 }, ...more };
}

const known = (j: Job, batch = 1): Cost => costOf(j, new Map([[j.setups[0].id, run]]), batch);

describe('what a part costs', () => {
  test('a run worked out by hand', () => {
    const { lines, missing } = known(job());
    expect(lines.machining).toBeCloseTo(3.951, 3);
    expect(lines.edges).toBeCloseTo(1.24 + 0.06, 2);
    expect(lines.energy).toBeCloseTo(0.055, 3);
    expect(lines.reloading).toBeCloseTo(1.55, 2);
    expect(lines['setting up']).toBeCloseTo(46.5, 6);
    expect(missing).toEqual(['the price of the metal of Setup 1']);
  });

  test('setting up is shared by the batch, the rest is not', () => {
    const [one, ten, hundred] = [1, 10, 100].map((n) => known(job(), n));
    expect(one.known - ten.known).toBeCloseTo(46.5 * 0.9, 6);
    expect(ten.known - hundred.known).toBeCloseTo(46.5 * 0.09, 6);
    expect(priceBreaks(job({ batch: 25 }), new Map()).map((c) => c.batch)).toEqual([1, 10, 25, 100]);
  });

  test('other batches are told where they cost something else', () => {
    const j = job({ batch: 10 });
    const all = priceBreaks(j, new Map([[j.setups[0].id, run]]));
    expect(costSentences(all, 10)[1]).toMatch(/^One made singly at least 53\.\d\d and of 100 at least 7\.\d\d\.$/);
    const same = { ...j, setups: j.setups.map((s) => ({ ...s, setUpMinutes: 0 })) };
    const [told, ...others] = costSentences(priceBreaks(same, new Map([[j.setups[0].id, run]])), 10);
    expect(others).toEqual([]);
    expect(told).toMatch(/not known: .*the minutes to set up/);
  });

  test('what is not known is said and not counted as nothing', () => {
    const bare = job({ prices: undefined, machine: { ...job().machine, hourlyRate: 0 } });
    const { lines, missing } = known({ ...bare, setups: bare.setups.map((s) => ({ ...s, reloadMinutes: undefined })) });
    expect(lines).toEqual({ edges: expect.closeTo(1.24, 2) });
    expect(missing).toEqual([
      'the hourly rate of Fulmar mid-size machining centre',
      'the price of the metal of Setup 1',
      'the minutes to reload',
      'the price of energy',
    ]);
    expect(costSentence(known(bare))).toMatch(
      /^A single one costs at least 1\.24: edges 1\.24\. Not counted, as it is not known: the hourly rate/,
    );
    expect(costOf(bare, new Map()).missing).toContain('a proof of Setup 1');
  });

  test('good parts pay for spoiled ones', () => {
    const plain = known(job()).known;
    expect(known(job({ prices: { energy: 0.25, edgeMinutes: 3, scrap: 0.2 } })).known).toBeCloseTo(plain / 0.8, 6);
  });
});

test('bars have a price in the library, so that a blank has one', () => {
  expect(BARS.some((b) => b.pricePerKg)).toBe(true);
});
