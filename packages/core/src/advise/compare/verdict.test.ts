import { normalFrom, randomFrom } from '../../quantity/random';
import { Priced, costAt, costInBatch, verdictOf } from './verdict';
import { verdictText } from './words';

/** A pocket 100 × 30 × 18 cut five ways, worked out by hand: minutes, share of edges, what a set of them costs, minutes to change. */
const way = (id: string, minutes: number, w: number, price: number, spikes: number, energy = 0.055): Priced => ({
  ...{ id, minutes, edgePrice: w * price, edgeMinutes: w * 3, spikes, energy, cutting: energy / 2, oneOff: 0 },
});
const RATE = 62;
const plain = way('plain', 3.824, 0.01938, 64, 48);
const slow = way('slow', 5.72, 0.0153, 64, 5);
const steady = way('steady', 2.86, 0.0354, 64, 5, 0.05);
const insert = way('insert', 6.31, 0.194, 9, 94);
const head = way('head', 4.07, 0.0312, 46, 0);
const all = [plain, slow, steady, insert, head];

describe('what a part costs', () => {
  test('to the cent, and with edges that last half as long or half as long again', () => {
    expect(plain.minutes * (RATE / 60)).toBeCloseTo(3.951, 3);
    expect(plain.edgePrice).toBeCloseTo(1.24, 3);
    expect((plain.edgeMinutes * RATE) / 60).toBeCloseTo(0.06, 3);
    const costs = (p: Priced) => [0.5, 1, 1.5].map((life) => costAt(p, RATE, life));
    expect(costs(plain).map((c) => c.toFixed(2))).toEqual(['6.61', '5.31', '4.87']);
    expect(costs(steady).map((c) => c.toFixed(1))).toEqual(['7.8', '5.4', '4.6']);
    expect(costs(head).map((c) => c.toFixed(1))).toEqual(['7.3', '5.8', '5.3']);
  });
});

describe('what is spent once', () => {
  const [bare, dear] = [way('bare', 60, 0, 0, 0, 0), { ...way('dear', 48, 0, 0, 0, 0), oneOff: 620 }];
  const name = (id: string) => id;

  test('is shared by the batch, and turns the verdict where it is paid for', () => {
    // 12 minutes less at 62 an hour are 12.40 a part: 620 is paid for after fifty.
    const few = verdictOf([bare, dear], RATE, 10);
    expect([few.cheapest, few.flips.find((f) => f.what === 'batch')?.at]).toEqual(['bare', expect.closeTo(50, 9)]);
    expect(verdictText(few, [bare, dear], RATE, name, 10).join(' ')).toContain('when 51 or more are made');
    const many = verdictOf([bare, dear], RATE, 200);
    expect(many.cheapest).toBe('dear');
    expect(verdictText(many, [bare, dear], RATE, name, 200).join(' ')).toContain('when 49 or fewer are made');
    expect(costInBatch(dear, RATE, 200)).toBeCloseTo(49.6 + 3.1, 9);
  });

  test('turns nothing where nothing is saved a part', () => {
    const worse = { ...bare, id: 'worse', oneOff: 100 };
    expect(verdictOf([bare, worse], RATE, 10).flips.filter((f) => f.what === 'batch')).toEqual([]);
  });
});

describe('the verdict', () => {
  const verdict = verdictOf(all, RATE);

  test('is a draw where no way is cheapest in most of the cases that may be', () => {
    expect(verdict).toMatchObject({
      cheapest: 'plain',
      next: 'steady',
      sure: 'a draw',
      quickest: 'steady',
      kindest: 'head',
    });
    expect(verdict.shares.plain).toBeCloseTo(0.45, 1);
    expect(verdict.shares.steady).toBeCloseTo(0.42, 1);
    expect(verdict.shares.head).toBeCloseTo(0.13, 1);
    expect(Object.values(verdict.shares).reduce((a, b) => a + b)).toBeCloseTo(1, 9);
  });

  test('knows what turns it: edges that last a little longer, a dearer machine', () => {
    const [life, rate] = (['edge life', 'machine rate'] as const).map(
      (what) => verdict.flips.find((f) => f.what === what && f.other === 'steady')!.at,
    );
    expect(life).toBeCloseTo(1.07, 1);
    expect(rate).toBeCloseTo(67, -0.3);
    // There both cost the same.
    expect(costAt(steady, RATE, life)).toBeCloseTo(costAt(plain, RATE, life), 9);
    expect(costAt(steady, rate)).toBeCloseTo(costAt(plain, rate), 9);
  });

  test('metal that takes more force turns it where the cuts of one take more energy', () => {
    const hungry = { ...way('hungry', 3, 0, 0, 0, 0.5), cutting: 0.4 };
    const frugal = { ...way('frugal', 3.1, 0, 0, 0, 0.45), cutting: 0.1 };
    const { cheapest, flips } = verdictOf([hungry, frugal], RATE);
    const { at } = flips.find((f) => f.what === 'cutting force')!;
    const dearer = (p: Priced) => costAt(p, RATE) + (at - 1) * p.cutting;
    expect([cheapest, dearer(hungry)]).toEqual(['hungry', expect.closeTo(dearer(frugal), 9)]);
    const words = verdictText(verdictOf([hungry, frugal], RATE), [hungry, frugal], RATE, (id) => id);
    expect(words.join(' ')).toMatch(/when the metal takes 18 % more force to cut/);
  });

  test('wins where the next is far dearer, and is the same each time', () => {
    expect(verdictOf([plain, insert], RATE)).toMatchObject({ cheapest: 'plain', sure: 'wins', share: 1 });
    expect(verdictOf([plain], RATE)).toMatchObject({ cheapest: 'plain', sure: 'wins', share: 1 });
    expect(verdictOf(all, RATE)).toEqual(verdict);
  });

  test('in sentences', () => {
    const words = verdictText(verdict, all, RATE, (id) => id);
    expect(words[0]).toMatch(
      /^On cost it is a draw: “plain” takes 5.31 a part, “steady” 5.38; .* 4\d % of the cases, the other in 4\d %\.$/,
    );
    expect(words[1]).toBe('“steady” is quickest: 2:52, 25 % less than “plain”.');
    expect(words[2]).toMatch(
      /^“steady” becomes the cheaper one when edges last 7\.\d % longer, or when the machine costs more than 67 an hour\.$/,
    );
    expect(words[3]).toBe('“head” is kindest to its tool: 0 spikes of load against 48.');
    expect(verdictText(verdictOf([plain, insert], RATE), [plain, insert], RATE, (id) => id)[0]).toBe(
      '“plain” costs least: 5.31 a part, 41 % less than “insert” at 8.92.',
    );
    expect(verdictText(verdictOf([slow], RATE), [slow], RATE, (id) => id)).toEqual([
      '“slow” is the only one that can be cut: 6.99 a part.',
    ]);
  });
});

test('random figures are spread as they should be, and repeat', () => {
  const [even, normal] = [randomFrom(7), normalFrom(randomFrom(8))];
  const figures = Array.from({ length: 20_000 }, even);
  const mean = (all: number[]) => all.reduce((a, b) => a + b) / all.length;
  expect(mean(figures)).toBeCloseTo(0.5, 2);
  expect(mean(figures.map((f) => f * f))).toBeCloseTo(1 / 3, 2);
  const drawn = Array.from({ length: 20_000 }, normal);
  expect(mean(drawn)).toBeCloseTo(0, 1);
  expect(mean(drawn.map((d) => d * d))).toBeCloseTo(1, 1);
  expect(Array.from({ length: 5 }, randomFrom(7))).toEqual(figures.slice(0, 5));
});
