import { blockFault, idleWord } from './block-check';
import { wordsOf } from './words';

const fault = (line: string, inCycle = false) => blockFault(wordsOf(line).words, inCycle)?.code;
const idle = (line: string, isArc = false) => idleWord(wordsOf(line).words, isArc)?.message;

test.each([
  'N10 G90 G54 G0 X1 Y2 M3 S900',
  'G80 G0 G90 G17 G40 G49',
  'G91 G28 Z0',
  'G1 G1 X5',
  'T4 M6',
  'G83 X1 Y2 Z-5 R2 Q1 P200 F100 L2 K1',
  'G0 X1 A0 B0. C-0',
  'N10 O20',
  'G43 H4 Z5',
  'G4 P500',
  'G54.1 P3',
  'G64 P0.01',
  'M98 P20 L3',
])('%s can be read as it stands', (line) => expect(fault(line)).toBeUndefined());

test.each([
  ['G1 X1e3', 'not-understood'],
  ['G1 U5', 'not-understood'],
  ['G1 X5 A30', 'turned-axis'],
  ['C.5', 'turned-axis'],
  ['G1 X5 X6', 'word-twice'],
  ['G1 X5 F100 F200', 'word-twice'],
  ['G0 G1 X5', 'codes-clash'],
  ['G81 G0 Z-5', 'codes-clash'],
  ['G90 G1 G91 X5', 'codes-clash'],
  ['G20 G21', 'codes-clash'],
  ['G0 X5 O20', 'word-misplaced'],
  ['G1 Z-5 Q1', 'word-misplaced'],
  ['X5 P2', 'word-misplaced'],
  ['G0 Z5 H3', 'word-misplaced'],
])('%s is refused: %s', (line, code) => expect(fault(line)).toBe(code));

test('in a drilling cycle its words stand alone', () => {
  for (const line of ['X5 Q2', 'Z-9 P300', 'X5 L3']) expect(fault(line, true)).toBeUndefined();
});

test('what clashes is named', () =>
  expect(blockFault(wordsOf('G0 X5 G3').words, false)!.message).toMatch(/^G0 and G3 stand in one block/));

test('a centre or a radius on a straight move is told, none is not', () => {
  expect(idle('G1 X5 R2.5')).toBe('R2.5 is not followed on a straight move');
  expect(idle('G1 X5 Z2')).toBeUndefined();
});

test('turns of an arc are told, its centre is not', () => {
  expect(idle('G3 X5 I3 P4', true)).toBe('P4 is not followed on an arc');
  expect(idle('G3 X5 I3 J2 Z-1', true)).toBeUndefined();
  expect(idle('G3 X5 I3 M98 P4', true)).toBeUndefined();
});
