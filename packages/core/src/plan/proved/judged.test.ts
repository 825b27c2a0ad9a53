import {
  TIGHT_POCKET,
  atGentleSpeeds,
  jobWith,
  post,
  prove as proveJob,
  tightPocket,
  withOperation,
  withStock,
} from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { ProofRun, leftBefore } from '../prove';
import { addSetup } from '../../document/edit';
import { Job } from '../../document/job';
import { volumeOf } from '../../stock/height/field';
import { cellMiddle } from '../../stock/height/field';
import { worstPlaces } from '../../stock/height/places';
import { judge, worstOn } from '../../stock/height/judged';
import { probeAt } from '../../stock/height/probe';

/** A coarse grid, as a large piece has it. */
const COARSE = 0.6;
const { depth: DEPTH, toolRadius: TOOL_R, cornerRadius: CORNER_R, long: LONG, wide: WIDE } = TIGHT_POCKET;
const job = tightPocket();
const { text } = post(job);

function prove(of: Job, program: string, setup = of.setups[0]) {
  const run = new ProofRun(of, setup, program, COARSE, leftBefore(of, setup, COARSE));
  while (!run.prover.done) run.advance();
  const coarse = run.prover.result().findings.map((f) => f.code);
  while (!run.done) run.advance();
  return { ...run.finish(), coarse, run };
}

const codesOf = (found: { code: string; place: { line?: number } }[]) => found.map((f) => `${f.code}@${f.place.line}`);
const program = (t: number, body: string) => `G21 G90 G54\nT${t} M6\nS5000 M3\nG0 Z20\n${body}G0 Z20\nM30\n`;

test('a coarse grid is a tenth of a millimetre fine along the walls', () => {
  const proof = prove(job, text);
  expect(proof.field.cell).toBe(COARSE);
  expect(proof.finest).toBeCloseTo(0.1, 6);
  expect(proof.findings.filter((f) => f.code !== 'metal-left')).toEqual([]);
});

test.each([COARSE, 0.14])('on a grid of %p mm the share of the work done rises from nothing to all', (cell) => {
  const run = new ProofRun(job, job.setups[0], text, cell);
  const shares = [run.progress];
  while (!run.done) {
    run.advance(5);
    shares.push(run.progress);
  }
  expect([shares[0], shares[shares.length - 1]]).toEqual([0, 1]);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares.filter((s) => s > 0.2 && s < 0.8).length).toBeGreaterThan(3);
});

test('what a tool too large leaves in corners has the volume between two circles', () => {
  const places = worstPlaces(prove(job, text).judged!);
  expect(places).toHaveLength(4);
  const exact = (1 - Math.PI / 4) * (TOOL_R ** 2 - CORNER_R ** 2) * DEPTH;
  for (const p of places) {
    expect(p.volume).toBeGreaterThan(exact * 0.82);
    expect(p.volume).toBeLessThan(exact * 1.02);
  }
});

describe.each([0.12, 0.2, 0.35, 0.5])('a pocket cut %p mm beside its place', (by) => {
  const beside = text.replace(/X(-?[\d.]+)/g, (_, x) => `X${(Number(x) + by).toFixed(3)}`);
  const proof = prove(job, beside);
  const lines = beside.split('\n');
  const gouges = proof.findings.filter((f) => f.code === 'gouge');

  test('cuts into the wall on that side and is told at lines of that wall', () => {
    expect(gouges.length).toBeGreaterThan(0);
    for (const { place } of gouges) {
      expect(Math.abs(place.at!.x - (40 + LONG / 2 + by / 2))).toBeLessThan(by / 2 + 0.1);
      expect(lines[place.line! - 1]).toMatch(/^(N\d+ )?(G[123] )?[XYIJRZ]/);
    }
  });

  test('with its volume', () => {
    const { judged } = proof;
    let volume = 0;
    judged!.off.forEach((off, i) => (volume += off < 0 ? judged!.volume[i] : 0));
    // The wall between the corners, and what the corners of the tool cut beyond it.
    const wall = by * (WIDE - 2 * TOOL_R) * DEPTH;
    expect(volume).toBeGreaterThan(wall - 0.07 * WIDE * DEPTH);
    expect(volume).toBeLessThan(by * WIDE * DEPTH + 0.07 * WIDE * DEPTH);
  });
});

test('on the coarse grid alone, a straight wall cut 0.35 mm too far may not be seen at all', () => {
  const beside = text.replace(/Y(-?[\d.]+)/g, (_, y) => `Y${(Number(y) + 0.35).toFixed(3)}`);
  const { field, owner, allowed, findings } = prove(job, beside);
  const isStraight = (i: number) => Math.abs(cellMiddle(field, i).x - 40) < LONG / 2 - TOOL_R;
  expect(judge(field, owner, allowed!).off.some((off, i) => off < 0 && isStraight(i))).toBe(false);
  expect(findings.map((f) => f.code)).toContain('gouge');
});

test('a scratch narrower than a cell is found on the floor, at its line', () => {
  const engraver = tool(31);
  const with31 = { ...job, tools: [...job.tools, engraver] };
  const scratch = `${text.replace(/M30[\s%]*$/, '')}T31 M6\nS5000 M3\nG0 X20 Y20.35\nZ2\nG1 Z-4.2 F300\nX60\nG0 Z20\nM30\n`;
  const down = scratch.split('\n').indexOf('G1 Z-4.2 F300') + 1;
  const found = prove(with31, scratch).findings.filter((f) => f.code === 'gouge');
  expect(found.map((f) => f.place.line)).toEqual([down, down + 1]);
  expect(found.every((f) => /Cuts 0\.[12]\d? mm/.test(f.message))).toBe(true);
});

test.each([0.1, 0.25, 0.4])('a rapid that grazes the side of the stock by %p mm is told at its line', (by) => {
  const { findings, coarse } = prove(job, program(4, `G0 X${-TOOL_R + by} Y-20\nZ-3\nY80\n`));
  expect(codesOf(findings)).toContain('rapid-through-stock@7');
  if (by === 0.1) expect(coarse).not.toContain('rapid-through-stock');
});

test.each([0, -0.05])('a rapid that only just passes the stock is not (%p mm)', (by) => {
  const { findings } = prove(job, program(4, `G0 X${-TOOL_R + by} Y-20\nZ-3\nY80\n`));
  expect(codesOf(findings)).not.toContain('rapid-through-stock@7');
});

test('a shank a little thicker than its cutter rubs along a wall higher than its flutes', () => {
  const thick = { ...tool(4), shankDiameter: 10.3, fluteLength: 3 };
  const changed = { ...job, tools: job.tools.map((t) => (t.number === 4 ? thick : t)) };
  const { findings } = prove(changed, program(4, 'G0 X-10 Y-20\nG1 Z-2 F300\nX-5\nY80\nZ-6\nY-20\n'));
  expect(codesOf(findings)).toContain('shank-rub@10');
});

test('a probe on a coarse grid tells distances as on a fine one', () => {
  const proof = prove(job, text);
  for (const [x, y] of [
    [62.3, 25],
    [40, 12.2],
    [17.77, 30.01],
  ]) {
    const probe = probeAt({ ...proof, floor: -5 }, x, y, proof.run.around(x, y))!;
    expect(probe.z).toBeCloseTo(-DEPTH, 4);
    expect(probe.wanted).toBeCloseTo(-DEPTH, 4);
    const wall = Math.min(40 + LONG / 2 - x, x - 40 + LONG / 2, 25 + WIDE / 2 - y, y - 25 + WIDE / 2);
    expect(Math.abs(probe.wall! - wall)).toBeLessThan(0.051);
  }
});

test('a picture of cells of 2 mm shows a wall cut 0.35 mm too far all along, and nothing where all is right', () => {
  const beside = text.replace(/Y(-?[\d.]+)/g, (_, y) => `Y${(Number(y) + 0.35).toFixed(3)}`);
  const { judged } = prove(job, beside);
  const grid = { x0: 0, y0: 0, cell: 2, nx: 40, ny: 25 };
  const worst = worstOn(judged!, grid);
  const cells = [...worst.keys()].filter((i) => worst[i] < 0).map((i) => [i % 40, Math.floor(i / 40)]);
  const wall = 25 + WIDE / 2;
  const along = cells.filter(([, row]) => row === Math.floor(wall / 2)).map(([column]) => column);
  expect(along.length).toBeGreaterThanOrEqual((LONG - 2 * TOOL_R) / 2 - 1);
  expect(cells.every(([, row]) => Math.abs((row + 0.5) * 2 - wall) < 2 * TOOL_R)).toBe(true);
  const right = worstOn(prove(job, text).judged!, grid);
  expect(right.some((off) => off < 0)).toBe(false);
});

describe('a piece turned over', () => {
  const pocketed = withOperation(
    jobWith({ type: 'rectangle', width: LONG, height: WIDE, radius: 6 }, { depth: 6 }),
    'pocket',
    ['f2'],
    tool(4),
  );
  const turned = addSetup(pocketed);
  const [first, second] = turned.setups;
  test('is known as finely as one proved at once on a fine grid', () => {
    const { left } = leftBefore(turned, second, COARSE);
    const { x0, y0, cell, nx, ny } = left!.field;
    const finer = left!.on({ x0, y0, cell: cell / 6, nx: nx * 6, ny: ny * 6 });
    const fine = leftBefore(turned, second, COARSE / 6).left!.field;
    expect(first.id).not.toBe(second.id);
    expect(Math.abs(volumeOf(finer, -1e6) / volumeOf(fine, -1e6) - 1)).toBeLessThan(1e-4);
  });
});

test.each([
  ['pocket', { wallAllowance: 0.4, floorAllowance: 0.3, finish: false }, ['left-as-asked']],
  ['clear', { wallAllowance: 0.4, finish: false }, ['left-as-asked']],
  ['pocket', { wallAllowance: 0, finish: true }, []],
])('%s: metal that is left as asked is no warning: %o', (kind, params, expected) => {
  const shape = { type: 'rectangle', width: 30, height: 20, radius: 6 } as const;
  const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };
  const job = withOperation(withStock(jobWith(shape, { depth: 4 }), flush), kind, ['f2'], tool(7), params);
  const { findings } = proveJob(atGentleSpeeds(job), 0.15);
  expect(findings.map((f) => f.code).filter((c) => c.startsWith('left') || c.startsWith('metal'))).toEqual(expected);
});
