import { TIGHT_POCKET, post, tightPocket, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { proveProgram } from '../prove';
import { worstPlaces } from '../../stock/height/places';
import { Probed, probeAt } from '../../stock/height/probe';

const { depth: DEPTH, toolRadius: TOOL_R, cornerRadius: CORNER_R, long: LONG, wide: WIDE } = TIGHT_POCKET;
const job = tightPocket();
const CELL = 0.1;
const { text } = post(job);
const proof = proveProgram(job, job.setups[0], text, CELL);
const piece: Probed = { ...proof, floor: -job.part.thickness - TIGHT_POCKET.below };

const { x0, y0, nx, ny, cell } = proof.field;
const middle = { x: x0 + (nx * cell) / 2, y: y0 + (ny * cell) / 2 };

test('a tool too large for the corners leaves four patches of the volume between two circles', () => {
  const places = worstPlaces(proof.judged!);
  expect(places).toHaveLength(4);
  const exact = (1 - Math.PI / 4) * (TOOL_R ** 2 - CORNER_R ** 2) * DEPTH;
  for (const p of places) {
    expect(p.by).toBeCloseTo(DEPTH, 3);
    // Less what lies within the slack sideways, along two walls of each corner.
    expect(p.volume).toBeGreaterThan(exact * 0.82);
    expect(p.volume).toBeLessThan(exact * 1.02);
    expect(Math.abs(Math.abs(p.x - middle.x) - LONG / 2)).toBeLessThan(TOOL_R);
    expect(Math.abs(Math.abs(p.y - middle.y) - WIDE / 2)).toBeLessThan(TOOL_R);
  }
});

test('a cut into the part comes before what is left', () => {
  const lines = text.split('\n');
  const i = lines.findIndex((l) => /Z-4/.test(l));
  const wrong = proveProgram(job, job.setups[0], text.replace(/Z-4\.?(?=\s)/g, 'Z-4.5'), CELL);
  expect(i).toBeGreaterThan(0);
  const [first] = worstPlaces(wrong.judged!);
  expect(first.by).toBeCloseTo(-0.5, 3);
  expect(first.z).toBeCloseTo(-4.5, 3);
});

test('a probe tells height, wanted height, the way to the wall and the motion that cut there', () => {
  const floor = probeAt(piece, middle.x, middle.y + 5)!;
  expect(floor.z).toBeCloseTo(-DEPTH, 4);
  expect(floor.wanted).toBeCloseTo(-DEPTH, 4);
  expect(floor.by).toBe(0);
  expect(Math.abs(floor.wall! - (WIDE / 2 - 5))).toBeLessThan(CELL);
  expect(proof.read.motions.tool[floor.motion]).toBe(tool(4).number);
  const rim = probeAt(piece, x0 + 1, y0 + 1)!;
  expect([rim.z, rim.by, rim.wall, rim.motion]).toEqual([0, 0, undefined, -1]);
  expect(probeAt(piece, x0 - 1, y0)).toBeUndefined();
});

test('its sections show the metal of a row and of a column', () => {
  const [alongX, alongY] = probeAt(piece, middle.x, middle.y)!.sections;
  expect([alongX.along, alongY.along]).toEqual(['x', 'y']);
  const area = (s: typeof alongX) => s.piles.reduce((sum, p) => sum + (p[0] - p[1]) * s.step, 0);
  const [width, height] = [nx * cell, ny * cell];
  expect(area(alongX)).toBeCloseTo(width * -piece.floor - LONG * DEPTH, -1);
  expect(area(alongY)).toBeCloseTo(height * -piece.floor - WIDE * DEPTH, -1);
  const k = Math.round((middle.x - alongX.from) / alongX.step);
  expect(alongX.wanted[k]).toBeCloseTo(-DEPTH, 4);
  expect(alongX.piles[k]).toEqual([-DEPTH, piece.floor]);
});

test('stock that does not reach is missing, not cut into, and is told', () => {
  const round = withStock(job, { shape: 'round', diameter: 90 });
  const setup = { ...round.setups[0], zero: { ...round.setups[0].zero, on: 'part' as const } };
  const short = proveProgram({ ...round, setups: [setup] }, setup, text, 0.14);
  const [worst] = worstPlaces(short.judged!);
  expect(worst.kind).toBe('missing');
  expect(short.findings.filter((f) => f.code === 'stock-short')).toHaveLength(1);
  expect(short.findings.some((f) => f.code === 'gouge')).toBe(false);
  expect(proof.findings.some((f) => f.code === 'stock-short')).toBe(false);
});
