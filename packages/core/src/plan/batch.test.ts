import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { barWays, priceOf, sawnFrom } from '../document/bars';
import { Job, Setup } from '../document/job';
import { wearOf } from '../judge/wear';
import { BARS } from '../shop/library/bars';
import { Bar, sectionArea } from '../shop/bar';
import { readItem } from '../shop/shelves';
import { cellFor, volumeOf } from '../stock/height/field';
import { stockField } from '../stock/height/stock';
import { boundsOf } from '../geometry/plane/point';
import { batchMinutes, blankFindings, blanksOf, kitOf, runsForBatch } from './batch';
import { batchText, blanksText, kitText, pullLines } from './batch-words';
import { readJob } from './documents';
import { groundOf } from './ground';
import { addHolding } from './holds';
import { joinPrograms } from './joined';
import { planSetup, postSetup } from './pipeline';
import { proveProgram } from './prove';
import { resultKey } from './results';

const ASKED = { left: 2, right: 2, front: 1, back: 1, top: 1, bottom: 5 };
/** A plate of 80 x 50 x 10 in aluminium, asked for with a little more all round. */
const plain = (): Job => withStock(jobWith(undefined), ASKED);

const bar = (more: Partial<Bar>): Bar => ({ ...BARS[0], id: 'b', name: 'Bar', kerf: 2.5, sawnMore: 1, ...more });

const ways = (job: Job, bars: Bar[]) =>
  barWays(job.setups[0].stock, groundOf(job, job.setups[0]).model, bars, job.material);

const from = (job: Job, bars: Bar[], way = 0): Job => ({
  ...job,
  setups: [{ ...job.setups[0], stock: ways(job, bars)[way].stock }, ...job.setups.slice(1)],
});

const codes = (job: Job, setup = job.setups[0]) => blankFindings(job, setup).map((f) => f.code);
const set = (job: Job, more: Partial<Setup>): Job => ({ ...job, setups: [{ ...job.setups[0], ...more }] });

test('what the shop starts with is sound', () => {
  for (const b of BARS) expect([b.name, readItem('bars', b).findings]).toEqual([b.name, []]);
  expect(new Set(BARS.map((b) => b.id)).size).toBe(BARS.length);
});

test('a blank of flat bar: its length, how many a bar gives, what it weighs and costs', () => {
  const [way] = ways(plain(), [bar({ width: 60, thickness: 20, length: 3000, pricePerKg: 6.5 })]);
  // 80 long and 2 more at each end; 52 wide and 16 high were asked: there is more.
  expect(way).toMatchObject({
    lengths: [84],
    less: 0,
    stock: { lies: 'along X', top: 1, bottom: 9, front: 5, back: 5 },
  });
  expect(way.perBar).toBe(Math.floor(3002.5 / 86.5));
  expect(way.kg).toBeCloseTo((86.5 * 60 * 20 * 2.7) / 1e6, 9);
  expect(way.price).toBeCloseTo(way.kg! * 6.5, 9);
});

test('a bar with less than was asked is offered last and says how much less; one smaller than the part is not', () => {
  const found = ways(plain(), [
    bar({ id: 'small', width: 52, thickness: 14 }),
    bar({ id: 'large', width: 100, thickness: 50 }),
    bar({ id: 'none', width: 45, thickness: 9 }),
  ]);
  expect(found[0].bar.id).toBe('large');
  expect(found.filter((w) => w.bar.id === 'small').map((w) => w.less)).toEqual([2]);
  expect(found.some((w) => w.bar.id === 'none')).toBe(false);
});

test('a round bar holds the part by its corners, upright by its outline alone', () => {
  const corner = Math.hypot(80, 50);
  const round = (diameter: number) => ways(plain(), [bar({ section: 'round', diameter })]).map((w) => w.stock.lies);
  expect(round(corner + 0.1)).toContain('upright');
  expect(round(corner - 0.1)).not.toContain('upright');
  expect(round(Math.hypot(50, 10) + 0.1)).toEqual(['along X']);
});

test('plate is sawn both ways, a kerf between blanks', () => {
  const plate = bar({ section: 'plate', thickness: 16, width: 500, length: 1000, pricePerKg: undefined });
  const [way] = ways(plain(), [plate]);
  expect(way.lengths).toEqual([84, 52]);
  expect(way.perBar).toBe(Math.max(11 * 9, 5 * 18));
  expect(way.price).toBeUndefined();
  expect(way.volume).toBeCloseTo(86.5 * 54.5 * 16, 6);
});

test('the stock of every way is the metal of the bar at its length, and is known again as that', () => {
  const job = plain();
  const found = ways(job, BARS);
  expect(found.length).toBeGreaterThan(15);
  for (const way of found) {
    const laid = set(job, { stock: way.stock });
    expect(readJob(JSON.parse(JSON.stringify(laid))).findings).toEqual([]);
    const { stock, model } = groundOf(laid, laid.setups[0]);
    expect(sawnFrom(way.stock, model)).toEqual({ lengths: way.lengths, perBar: way.perBar, volume: way.volume });
    const field = stockField(stock, cellFor(boundsOf(stock.region.flat()), 200_000, 0.05));
    const [a, b = 1] = way.lengths;
    const closed = way.bar.section === 'plate' ? a * b * way.bar.thickness : a * sectionArea(way.bar);
    expect([way.bar.name, Math.abs(volumeOf(field, stock.bottom) / closed - 1) < 0.004]).toEqual([way.bar.name, true]);
  }
});

test('a blank that is no longer what its bar gives, another material, a bar too short: told with what to do', () => {
  const job = from(plain(), [bar({ width: 60, thickness: 20 })]);
  expect(codes(job)).toEqual([]);
  const { stock } = job.setups[0];
  expect(codes(set(job, { stock: { ...stock, front: 8 } }))).toEqual(['bar-differs']);
  expect(codes({ ...job, material: { ...job.material, id: 'brass' } })).toEqual(['bar-material']);
  const copies = { columns: 100, rows: 1, dx: 92, dy: 60, order: 'by tool' } as const;
  const [long] = blankFindings(set(job, { copies }), set(job, { copies }).setups[0]);
  expect(long.code).toBe('bar-too-short');
  // (3000 - 84) / 92 + 1
  expect(long.remedy).toMatch(/^32 parts fit/);
  expect(codes(set(job, { copies: { ...copies, columns: 32 } }))).toEqual([]);
  expect(codes(set(job, { copies: { ...copies, columns: 33 } }))).toEqual(['bar-too-short']);
});

test('200 parts that do not fit the bars at hand: how many bars they take, and how many can be made', () => {
  const one = { ...from(plain(), [bar({ width: 60, thickness: 20, pieces: 5 })]), batch: 200 };
  const needed = blanksOf(one, one.setups[0])!;
  expect(needed).toMatchObject({ blanks: 200, perBar: 34, bars: 6 });
  const [short] = blankFindings(one, one.setups[0]);
  expect([short.code, short.remedy]).toEqual(['bars-too-few', 'Buy 1 more, or make 170']);
  expect(codes({ ...one, batch: 170 })).toEqual([]);
  expect(blanksText(needed, 'mm')).toMatch(/^200 blanks of 84 mm from 6 pieces of “Bar”; 0\.28 kg, 1\.82 each$/);
});

test('what is not known of a price is said, not taken for nothing', () => {
  const job = from(plain(), [bar({ width: 60, thickness: 20 })]);
  const { bar: b } = job.setups[0].stock;
  const sawn = blanksOf(job, job.setups[0])!;
  expect(priceOf(sawn, { ...b!, pricePerKg: 0 }, job.material).price).toBeUndefined();
  expect(priceOf(sawn, b!, { ...job.material, id: 'own', density: undefined })).toEqual({
    kg: undefined,
    price: undefined,
  });
  const { kg } = priceOf(sawn, b!, job.material);
  // A copy from before densities were kept weighs what its material does.
  expect(priceOf(sawn, b!, { ...job.material, density: undefined }).kg).toBe(kg);
  expect(blanksText({ ...sawn, kg, price: undefined }, 'mm')).toMatch(/its price is not known/);
});

test('runs and minutes of a batch, many parts a run', () => {
  const job = { ...plain(), batch: 22 };
  const four = set(job, {
    copies: { columns: 2, rows: 2, dx: 95, dy: 65, order: 'by tool' },
    setUpMinutes: 30,
    reloadMinutes: 2,
  });
  expect(runsForBatch(four, four.setups[0])).toBe(6);
  expect(batchMinutes(four, four.setups[0], 4)).toBe(30 + 6 * 6);
  expect(batchText(four, four.setups[0], 4)).toBe(
    '6 runs of 4:00 and 2 min to reload, 30 min to set up: 1:06:00 in all.',
  );
  expect(batchText(four, four.setups[0], undefined)).toMatch(/known once the program is proved/);
});

test('neither batch nor bar asks for another plan or proof; the stock does', () => {
  const job = from(plain(), [bar({ width: 60, thickness: 20 })]);
  const { stock } = job.setups[0];
  const key = (j: Job) => resultKey('code', j, 's1');
  expect(
    key({ ...set(job, { setUpMinutes: 9, reloadMinutes: 1, stock: { ...stock, bar: undefined } }), batch: 9 }),
  ).toBe(key(job));
  expect(key(set(job, { stock: { ...stock, top: 3 } }))).not.toBe(key(job));
});

describe('what is made ready', () => {
  const job = withOperation(
    withOperation(
      withStock(jobWith({ type: 'rectangle', width: 24, height: 16, radius: 5 }), ASKED),
      'pocket',
      ['f2'],
      tool(7),
    ),
    'contour',
    ['f1'],
    tool(4),
  );
  const [setup] = job.setups;

  test('each tool against the carousel: there, to load and what comes out, by hand', () => {
    const machine = { ...job.machine, carousel: [{ pocket: 4, toolId: tool(4).id }] };
    const kit = (more: Partial<Job['machine']>, numbers = [7, 4, 7]) =>
      kitOf({ ...job, machine: { ...machine, ...more } }, setup, numbers, []).map((k) => [
        k.tool.number,
        k.stands,
        k.out,
      ]);
    expect(kit({})).toEqual([
      [7, 'to load', undefined],
      [4, 'there', undefined],
    ]);
    expect(kit({ carousel: [{ pocket: 7, toolId: tool(4).id }] })).toEqual([
      [7, 'to load', tool(4).name],
      [4, 'to load', undefined],
    ]);
    expect(kit({ toolPockets: 6 })[0].slice(0, 2)).toEqual([7, 'nowhere']);
    expect(kit({ toolPockets: 1, carousel: [] }, [7])).toEqual([[7, 'by hand', undefined]]);
  });

  test('edges are counted for the whole batch from what the proof wears', () => {
    const { programs } = postSetup(job, setup, planSetup(job, setup));
    const proof = proveProgram(job, setup, joinPrograms(programs).text, 0.6, { sections: programs[0].sections });
    expect(proof.wear.map((w) => w.tool).sort()).toEqual([4, 7]);
    const { share, minutes } = proof.wear.find((w) => w.tool === 4)!;
    expect(minutes).toBeGreaterThan(0);
    expect(minutes).toBeLessThanOrEqual(proof.clock.cut);
    // Cards that last half as long say twice as much.
    const short = new Map([4, 7].map((n) => [n, { ...tool(n), edgeLife: tool(n).edgeLife / 2 }]));
    const again = wearOf(proof.samples, proof.read.motions, short, job.material);
    expect(again.find((w) => w.tool === 4)!.share).toBeCloseTo(2 * share, 6);
    const edges = (batch: number) => kitOf({ ...job, batch }, setup, [4], proof.wear)[0].edges;
    expect(edges(1)).toBe(1);
    expect(edges(1000)).toBe(Math.ceil(share * 1000 - 1e-9));
    expect(kitText(kitOf({ ...job, batch: 1000 }, setup, [4], proof.wear)[0], 'mm')).toMatch(
      /; (have \d+ edges|one edge)/,
    );
    const lasts = [{ materialId: job.material.id, factor: 0.8, note: 'from the log: 4 edges' }];
    const taught = { ...job, tools: job.tools.map((t) => ({ ...t, lasts })) };
    expect(kitText(kitOf(taught, setup, [4], proof.wear)[0], 'mm')).toMatch(/their life from the log: 4 edges/);
  });

  test('what is pulled: the blanks, and what holds them', () => {
    const sawn = from(job, [bar({ width: 60, thickness: 20 })]);
    const held = addHolding(sawn, sawn.setups[0], 'vise');
    expect(pullLines(held, held.setups[0])[0]).toMatch(/^1 blank of 84 mm from 1 piece/);
    expect(pullLines(held, held.setups[0])[1]).toMatch(/^Vise: /);
  });
});
