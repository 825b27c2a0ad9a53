import { tool } from '../../testing/parts';
import { MACHINES, MATERIALS, TOOLS } from '../shop/library';
import { Tool, isBeam } from '../shop/tool';
import { readProgram } from '../program/read/reader';
import { Prover } from './prover';
import { FixtureBox } from '../geometry/space/box';

/** A block 100 × 60 × 25, zero on its front left top corner, in a machining centre; a clamp stands on its left end. */
const BLOCK = [
  { x: 0, y: 0 },
  { x: 100, y: 0 },
  { x: 100, y: 60 },
  { x: 0, y: 60 },
];
const CLAMP: FixtureBox = { name: 'Clamp', minX: -20, minY: 20, minZ: -25, maxX: 8, maxY: 40, maxZ: 12 };
const RACK = [1, 4, 9, 12, 13, 16, 18].map(tool);

/** Heads of programs in three hands: our own, a terse one, and one in inches. */
const HEADS: Record<string, (t: number) => string> = {
  ours: (t) => `G21\nG17 G40 G49 G80 G90 G94\nT${t} M6\nS4000 M3\nG54 G0 X-30. Y-30.\nG43 H${t} Z30.\n`,
  terse: (t) => `G90G21G54\nT${t}M6\nM3S4000\nG0X-30Y-30\nZ30\nG94\n`,
  inches: (t) => `G20 G90 G54\nT${t} M6\nS4000 M3\nG0 X-1.2 Y-1.2\nZ1.2\nG21\n`,
};
const HEAD_LINES = 6;

function findings(
  hand: string,
  t: number,
  body: string,
  tools: Tool[] = RACK,
  fixtures: FixtureBox[] = [],
  bentRapids = false,
) {
  const end = /M30/.test(body) ? '' : 'M30\n';
  const read = readProgram(HEADS[hand](t) + body + end, { homeZ: 200, unit: 'mm', bentRapids });
  const prover = new Prover({
    motions: read.motions,
    tools: new Map(tools.map((x) => [x.number, x])),
    machine: MACHINES[2],
    material: MATERIALS[0],
    stock: { region: [BLOCK], top: 0, bottom: -25 },
    zero: { x: 0, y: 0, z: 0 },
    fixtures,
    zeroAboveTable: 60,
    cell: 0.25,
  });
  prover.advance();
  return [...read.findings, ...prover.result().findings].map((f) => `${f.code}@${(f.place.line ?? 0) - HEAD_LINES}`);
}

/** A turn of a helix up, whole and in halves, by so much. */
const HELIX = (rise: number) => `G3 X50 Y30 I-2 J0 Z${rise - 5} F300\nG0 Z30\n`;
const HALVES = (rise: number) => `G3 X46 Y30 I-2 J0 Z${rise / 2 - 5} F300\nG3 X50 Y30 I2 J0 Z${rise - 5}\nG0 Z30\n`;
/** A thread mill of 1 mm pitch with many teeth. */
const COMB = [tool(41)];

/** The test runner puts a callback where a row ends early. */
const listed = <T>(value: T[] | undefined) => (Array.isArray(value) ? value : undefined);

const short = (t: number, more: Partial<Tool>) => RACK.map((x) => (x.number === t ? { ...x, ...more } : x));

const KINDS = [...new Map(TOOLS.filter((t) => !isBeam(t)).map((t) => [t.kind, t])).values()];

describe.each(KINDS.map((t) => [t.kind, t] as const))('a tool of the kind “%s”', (_, t) => {
  const rack = [{ ...t, number: 4 }];
  test('driven into the block by a rapid, it is found at its line', () =>
    expect(findings('terse', 4, 'G0 X50 Y30\nG0 Z-1\n', rack)).toContain('rapid-through-stock@2'));
  test('moved along above the block it raises nothing', () =>
    expect(findings('terse', 4, 'G0 Y30 Z2\nG1 X130 F300\nG0 Z30\n', rack)).toEqual([]));
});

test('a rapid that passes a corner when it is straight runs into it when it is bent', () => {
  const round = 'G0 X12 Y-12\nZ-5\nX-12 Y0\nZ30\n';
  expect(findings('ours', 4, round)).toEqual([]);
  expect(findings('ours', 4, round, RACK, [], true)).toEqual(['rapid-through-stock@3']);
});

describe.each(Object.keys(HEADS))('faults, in the hand of “%s”', (hand) => {
  test.each<[string, number, string, string, Tool[]?, FixtureBox[]?]>([
    ['rapid along through the block', 4, 'G0 Y30\nG0 Z-5\nG0 X120\n', 'rapid-through-stock@3'],
    ['rapid down into it', 4, 'G0 X50 Y30\nG0 Z-2\n', 'rapid-through-stock@2'],
    ['slanted rapid that clips its edge', 4, 'G0 X-20 Y30 Z8\nG0 X50 Z-8\n', 'rapid-through-stock@2'],
    ['rapid of a ball', 12, 'G0 X50 Y30\nG0 Z-1\n', 'rapid-through-stock@2'],
    ['rapid of a drill', 18, 'G0 X50 Y30\nG0 Z-3\n', 'rapid-through-stock@2'],
    ['rapid back through a wall', 4, 'G0 X-20 Y30\nG1 Z-4 F500\nG1 X30\nG0 Y90\n', 'rapid-through-stock@4'],
    [
      'flutes too short for a slot',
      4,
      'G0 X-20 Y30\nG1 Z-20 F500\nG1 X120\n',
      'too-deep-for-flutes@3',
      short(4, { fluteLength: 12 }),
    ],
    [
      'flutes too short in a hole',
      16,
      'G0 X50 Y30\nG1 Z-24 F100\n',
      'too-deep-for-flutes@2',
      short(16, { fluteLength: 15 }),
    ],
    [
      'holder into the block',
      4,
      'G0 X-20 Y30\nG1 Z-15 F500\nG1 X120\n',
      'holder-hit@3',
      short(4, { stickOut: 10, fluteLength: 16 }),
    ],
    ['holder of a drill into the block', 18, 'G0 X50 Y30\nG1 Z-20 F100\n', 'holder-hit@2', short(18, { stickOut: 15 })],
    [
      'shank thicker than its cutter',
      9,
      'G0 X-20 Y30\nG1 Z-8 F500\nG1 X120\n',
      'shank-rub@3',
      short(9, { fluteLength: 5, stickOut: 40 }),
    ],
    [
      'straight down with a tool that cannot',
      4,
      'G0 X50 Y30\nG1 Z-3 F100\n',
      'cannot-plunge@2',
      short(4, { centreCutting: false }),
    ],
    ['straight down with a face mill', 1, 'G0 X50 Y30\nG1 Z-1 F100\n', 'cannot-plunge@2'],
    ['into the clamp', 4, 'G0 Y30\nG0 Z5\nG1 X50 F900\n', 'fixture-hit@3', RACK, [CLAMP]],
    ['rapid over the clamp, too low', 4, 'G0 Y30 Z10\nG0 X120\n', 'fixture-hit@2', RACK, [CLAMP]],
    [
      'holder against the clamp',
      9,
      'G0 Y15\nG0 Z-10\nG1 X-15 F900\n',
      'fixture-hit@2',
      short(9, { stickOut: 12 }),
      [CLAMP],
    ],
    ['off the table in X', 4, 'G0 X700\n', 'beyond-travel@1'],
    ['off the table in Y', 4, 'G0 Y-400\n', 'beyond-travel@1'],
    ['off the machine downwards', 4, 'G1 Z-500 F900\n', 'beyond-travel@1'],
    ['a tool that is not on the rack', 4, 'T88 M6\nS900 M3\nG1 X1 F100\n', 'unknown-tool@3'],
    ['a cut with the spindle stopped', 4, 'M5\nG0 X-20 Y30\nG1 Z-2 F100\nX50\n', 'spindle-off@3'],
    ['a cut after a change, the spindle not started again', 4, 'T9 M6\nG0 X-20 Y30\nG1 Z-2 F300\n', 'spindle-off@3'],
    ['a cut with no speed', 4, 'S0\nG0 X-20 Y30\nG1 Z-2 F300\n', 'no-speed@3'],
    ['the tool changed in a slot', 4, 'G0 X-20 Y30\nG1 Z-4 F500\nX50\nT9 M6\n', 'change-in-metal@4'],
    ['the tool changed low beside the block', 4, 'G0 X-20 Y30\nZ-4\nT9 M6\n', 'change-low@3'],
    ['the spindle stopped in a slot', 4, 'G0 X-20 Y30\nG1 Z-4 F500\nX50\nM5\nG0 Z30\n', 'spindle-stops-down@5'],
    ['the spindle stopped in a hole', 18, 'G0 X50 Y30\nZ1\nG1 Z-12 F120\nM5\nG0 Z30\n', 'spindle-stops-down@5'],
    ['off the machine upwards', 4, 'G0 Z600\n', 'beyond-travel@1'],
    [
      'an arc that bulges into the clamp',
      4,
      'G0 X4 Y0\nG0 Z5\nG2 X4 Y60 I0 J30 F900\n',
      'fixture-hit@3',
      RACK,
      [CLAMP],
    ],
    ['a slant that ends in the clamp', 4, 'G0 X60 Y30\nG0 X4 Z11\n', 'fixture-hit@2', RACK, [CLAMP]],
    [
      'a comb of teeth on a helix of another pitch',
      41,
      `G0 X50 Y30\nG1 Z-5 F900\n${HELIX(1.5)}`,
      'thread-out-of-pitch@3',
      COMB,
    ],
    ['the same in halves', 41, `G0 X50 Y30\nG1 Z-5 F900\n${HALVES(0.75)}`, 'thread-out-of-pitch@4', COMB],
    ['a feed of nothing', 4, 'G0 X-20 Y30\nG1 Z-2 F0\n', 'feed-zero@2'],
    ['an arc off its circle', 4, 'G1 X0 Y0 F500\nG2 X20 Y0 I3 J0\n', 'arc-impossible@2'],
    ['compensation in the control', 4, 'G41 D4 X0\n', 'not-followed@1'],
    ['a subprogram that is not there', 4, 'M98 P2000\n', 'subprogram-missing@1'],
    ['a macro', 4, '#101=5\n', 'not-understood@1'],
    ['an incomplete cycle', 18, 'G0 X50 Y30\nG81 X50 Y30 F100\n', 'cycle-incomplete@2'],
    ['a peck that starts inside', 18, 'G0 X50 Y30\nG0 Z5\nG83 Z-10 R-4 Q3 F100\n', 'rapid-through-stock@3'],
    ['a drill that enters over the edge', 18, 'G0 X0 Y30\nZ1\nG1 Z-5 F100\n', 'drill-over-edge@3'],
    ['a ball whose tip drags', 12, 'G0 Y30\nG1 Z-1 F900\nX130\n', 'tip-drags@3'],
    ['fed down through 30 mm of air', 16, 'G0 X50 Y30\nG1 Z-2 F200\n', 'fed-through-air@2'],
    ['into the table', 4, 'G0 X-20 Y30\nG1 Z-61 F900\n', 'table-hit@2'],
    [
      'the spindle nose over the block',
      4,
      'G0 Y-10\nZ-24\nG1 X50 F900\n',
      'nose-hit@2',
      short(4, { stickOut: 15, holder: { ...tool(4).holder, segments: [{ lower: 9, upper: 9, length: 6 }] } }),
    ],
    ['home by way of a place in the block', 4, 'G0 X50 Y30\nG28 Z-3\n', 'rapid-through-stock@2'],
    ['home in X with the tool down', 4, 'G0 X-20 Y30\nG1 Z-3 F900\nG28 X-20\n', 'way-unknown@3'],
    ['an axis that turns', 4, 'G0 X50 Y30\nG1 Z2 A30 F900\n', 'turned-axis@2'],
    ['two places in one block', 4, 'G0 X50 Y30 X60\n', 'word-twice@1'],
    ['another work offset that nobody gave', 4, 'G55 G0 X0 Y0\n', 'offset-unknown@1'],
  ])('%s is found at its line', (...[, t, body, expected, tools, fixtures]) => {
    expect(findings(hand, t, body, listed(tools), listed(fixtures))).toContain(expected);
  });

  test.each<[string, number, string, FixtureBox[]?]>([
    ['a slot from outside', 4, 'G0 Y30\nG1 Z-4 F900\nX130\nG0 Z30\n'],
    ['a slot, back through it, and out', 4, 'G0 Y30\nG1 Z-4 F900\nX130\nX-30\nG0 Z30\n'],
    ['a rapid back inside a slot already cut', 4, 'G0 Y30\nG1 Z-4 F900\nX130\nG0 X-30\nZ30\n'],
    ['a rapid a hundredth above the top', 4, 'G0 Y30\nZ0.01\nX130\nZ30\n'],
    ['a ramp, then the level', 4, 'G0 X20 Y30\nZ1\nG1 X80 Z-3 F400\nX20\nG0 Z30\n'],
    ['a helix', 4, 'G0 X54 Y30\nZ0.5\nG3 X54 Y30 I-4 J0 Z-1 F300\nX54 Y30 I-4 J0 Z-2.5\nX54 Y30 I-4 J0\nG0 Z30\n'],
    ['a plunge of a centre-cutting mill', 4, 'G0 X50 Y30\nZ1\nG1 Z-3 F100\nG0 Z30\n'],
    ['a ball along an edge', 12, 'G0 Y-1\nG1 Z-1 F900\nX130\nG0 Z30\n'],
    ['a drill near the edge, wholly on the metal', 18, 'G0 X8 Y30\nZ1\nG1 Z-5 F100\nG0 Z30\n'],
    ['down by feed beside the block, quickly', 4, 'G0 Y-20\nG1 Z-4 F900\nG0 Z30\n'],
    ['straight drilling by cycle', 18, 'G0 X20 Y20\nZ5\nG98 G81 Z-12 R1 F120\nX50\nX80\nG80\nG0 Z30\n'],
    ['pecking by cycle', 18, 'G0 X20 Y20\nZ5\nG99 G83 Z-18 R1 Q4 F120\nX50\nG80\nG0 Z30\n'],
    ['breaking the chip by cycle', 16, 'G0 X20 Y20\nZ5\nG98 G73 Z-15 R1 Q3 F120\nG80\nG0 Z30\n'],
    ['facing with a face mill from outside', 1, 'G0 X-30 Y15\nG1 Z-0.5 F900\nX130\nY45\nX-30\nG0 Z30\n'],
    ['past the clamp, beside it', 4, 'G0 Y52\nG1 Z-4 F900\nX130\nG0 Z30\n', [CLAMP]],
    ['over the clamp by a slant that comes down behind it', 4, 'G0 Y30 Z30\nX-30\nG0 X60 Z5\nG0 Z30\n', [CLAMP]],
    ['the tool changed above the block', 4, 'G0 X50 Y30 Z10\nT9 M6\nS4000 M3\nG0 Z30\n'],
    ['the spindle stopped with the retract', 4, 'G0 Y30\nG1 Z-4 F900\nX50\nG0 Z30 M5\n'],
    ['the spindle stopped above the block', 4, 'G0 Y30\nG1 Z-4 F900\nX130\nG0 Z30\nM5\nG0 X0\n'],
    ['over the clamp, high', 4, 'G0 Y30 Z14\nX130\nG0 Z30\n', [CLAMP]],
    ['an arc in the plane', 4, 'G0 X30 Y-20\nG1 Z-3 F900\nY20\nG2 X70 Y20 I20 J0\nG1 Y-20\nG0 Z30\n'],
    ['incremental moves', 4, 'G0 Y30\nG1 Z-2 F900\nG91 X50\nX50\nX60\nG90 G0 Z30\n'],
    ['a dwell at the bottom of a spot', 13, 'G0 X50 Y30\nZ2\nG1 Z-2 F100\nG4 P500\nG0 Z30\n'],
    ['remarks and block skips of one’s own', 4, '(ONE)\nG0 Y30 ; two\nG1 Z-2 F900\nX130\nG0 Z30\n'],
  ])('clean: %s', (...[, t, body, fixtures]) => {
    expect(findings(hand, t, body, RACK, listed(fixtures))).toEqual([]);
  });
});
