import { crank, flatDisc, twentyToggles } from '../../testing/hold-jobs';
import { withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { Job } from '../document/job';
import { area, offset } from '../geometry/plane/clip';
import { Piece } from '../stock/height/height-stock';
import { blankFindings, blanksOf, runsForBatch } from '../plan/batch';
import { joinPrograms } from '../plan/joined';
import { groundOf } from '../plan/ground';
import { planFindings, planSetup, postSetup } from '../plan/pipeline';
import { leavings } from '../plan/leavings';
import { proveProgram } from '../plan/prove';
import { readJob } from '../plan/documents';
import { regionOf } from '../part/plate/model';
import { pileOf, volumeOf } from '../stock/height/field';
import { provenRoute } from './route/proven';
import { softJawsJob } from './soft-jaws';

const CELL = 0.3;

/** What is said of each setup of a job, each proved on what the one before left. */
function said(job: Job, cell = CELL) {
  let left: Piece | undefined;
  return job.setups.map((setup, i) => {
    const plan = planSetup(job, setup);
    const { programs, findings } = postSetup(job, setup, plan);
    const proof = proveProgram(job, setup, programs.length ? joinPrograms(programs).text : '', cell, { left });
    const next = job.setups[i + 1];
    if (next) left = leavings(job, groundOf(job, setup), next, proof);
    const told = new Set([...planFindings(plan), ...findings, ...proof.findings].map((f) => f.code));
    return { codes: [...told], proof };
  });
}

test.each([
  ['a crank in soft jaws, its zero on the fixed one', crank],
  ['a disc in a V-block by its one flat', flatDisc],
])('%s proves clean on both sides', (_, make) => {
  const job = make();
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  const setups = said(job);
  expect(setups.map((s) => s.codes)).toEqual([[], []]);
  for (const { proof } of setups) expect(proof.grip[0].margin).toBeGreaterThan(2);
});

test('twenty parts from one sawn length of bar, then turned over one by one, prove clean', () => {
  const job = twentyToggles();
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  const [first, second] = job.setups;
  expect(blankFindings(job, first)).toEqual([]);
  // 19 pitches of 35.5, a part of 26 and 4 mm more at each end.
  expect(blanksOf(job, first)).toMatchObject({ lengths: [19 * 35.5 + 26 + 8], blanks: 1, bars: 1 });
  expect([runsForBatch(job, first), runsForBatch(job, second)]).toEqual([1, 20]);
  const setups = said(job, 0.6);
  expect(setups.map((s) => s.codes)).toEqual([[], []]);
  const one = 26 * 30 - (4 - Math.PI) * 16 - Math.PI * 9;
  expect(volumeOf(setups[1].proof.field, -40) / (one * 12)).toBeCloseTo(1, 1);
});

test('jaws that are not where the part is, and a flat that is not on the jaw, are told', () => {
  const job = crank();
  const [first, second] = job.setups;
  const [jaws] = second.holding!;
  const off = { ...second, holding: [{ ...jaws, params: { ...jaws.params, off: 90 } }] };
  expect(said({ ...job, setups: [first, off] })[1].codes).toContain('jaws-too-small');
  const disc = flatDisc();
  const [vee] = disc.setups[1].holding!;
  const wrong = { ...disc.setups[1], holding: [{ ...vee, params: { ...vee.params, fixedJaw: 'front' } }] };
  expect(said({ ...disc, setups: [disc.setups[0], wrong] })[1].codes).toContain('flat-not-on-jaw');
});

test('jaws closed where metal of the piece still stands are told', () => {
  const job = crank();
  const [first, second] = job.setups;
  // Cut round by one lap only, the corners of the bar still stand where the jaws are to be.
  const operations = first.operations.map((o) => (o.kind === 'clear' ? { ...o, on: false } : o));
  const contoured = withOperation({ ...job, setups: [{ ...first, operations }] }, 'contour', ['f1'], tool(4));
  const codes = said({ ...contoured, setups: [contoured.setups[0], second] })[1].codes;
  expect(codes).toContain('body-in-metal');
});

/** With the route that is proposed for it. */
function routed(job: Job): Job {
  const work = provenRoute(job, 's1');
  for (;;) {
    const { done, value } = work.next();
    if (done) return value.job;
  }
}

describe('the jaws’ own job', () => {
  const job = crank();
  const jaws = routed(softJawsJob(job, job.setups[1])!);

  test('cuts their pocket as deep as they grip, and proves clean', () => {
    expect(readJob(JSON.parse(JSON.stringify(jaws))).findings).toEqual([]);
    const [{ codes, proof }] = said(jaws);
    expect(codes).toEqual([]);
    // The crank as it lies in the second setup stands in it: its hub at the right now.
    const { work, held } = groundOf(job, job.setups[1]);
    const [fixed, moving] = held[0].placed.bodies.filter((b) => b.maxZ === work.stock.bottom);
    const corner = { x: Math.min(fixed.minX, moving.minX), y: Math.min(fixed.minY, moving.minY) };
    const height = (x: number, y: number) => {
      const { x0, y0, cell, nx } = proof.field;
      const at = Math.floor((y - corner.y - y0) / cell) * nx + Math.floor((x - corner.x - x0) / cell);
      return pileOf(proof.field, at, -100)[0];
    };
    for (const ring of offset(work.outline, -CELL - 0.1))
      for (const p of ring) expect(height(p.x, p.y)).toBeLessThanOrEqual(-4.9);
    expect(height(fixed.minX + 2, fixed.maxY - 2)).toBeCloseTo(0, 3);
  });

  test('stands on the same corner of the fixed jaw as the setup it is for', () => {
    const own = groundOf(jaws, jaws.setups[0]).zero;
    const { zero, held } = groundOf(job, job.setups[1]);
    const xs = held[0].placed.bodies.map((b) => b.minX);
    const ys = held[0].placed.bodies.map((b) => b.minY);
    expect(own.x + Math.min(...xs)).toBeCloseTo(zero.x, 6);
    expect(own.y + Math.min(...ys)).toBeCloseTo(zero.y, 6);
    // The top of the jaws, as high above the work’s underside as they grip.
    expect([own.z, zero.z]).toEqual([0, -14 + 5]);
  });

  test('has relief where the outline has sharp corners, none where it has not', () => {
    const pocketOf = ({ part }: Job) => area(regionOf(part.features.find((f) => f.meaning === 'pocket')!));
    expect(jaws.part.features.map((f) => f.meaning)).toEqual(['outline', 'pocket']);
    expect(pocketOf(jaws)).toBeCloseTo(area(offset(groundOf(job, job.setups[1]).work.outline, 0.02)), 0);
    const disc = flatDisc();
    const [first, second] = disc.setups;
    const soft = { ...second, holding: [{ ...job.setups[1].holding![0] }] };
    const cornered = softJawsJob({ ...disc, setups: [first, soft] }, soft)!;
    const plain = area(offset(groundOf(disc, second).work.outline, 0.02));
    // Two circles of 6.8 on corners where the disc meets its flat: of each the part outside it is new.
    expect(pocketOf(cornered) - plain).toBeGreaterThan(Math.PI * 3.4 * 3.4);
    expect(pocketOf(cornered) - plain).toBeLessThan(2 * Math.PI * 3.4 * 3.4);
    expect(softJawsJob(disc, second)).toBeUndefined();
  });
});
