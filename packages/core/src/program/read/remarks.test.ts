import { TOOLS } from '../../shop/library';
import { guessTool, speaksOfOther, speaksOfTool } from '../../shop/guess';
import { readProgram } from './reader';
import { calledTools } from './remarks';

const called = (text: string) => calledTools(readProgram(text, { homeZ: 100, unit: 'mm' }));

test('a tool is told with the remark at its change, or from a list that names it', () => {
  const text =
    '(T12 6 MM BALL MILL)\nG21 G90\n(ROUGH THE TOP)\nT4 M6 (10 MM END MILL)\nG0 X1 Y1\n\n\n\n\nT12 M6\nG0 X2\nT7 M6\nG0 X3\n';
  expect(called(text)).toEqual([
    { number: 4, remark: '10 MM END MILL', line: 4, isNamed: true },
    { number: 12, remark: '6 MM BALL MILL', line: 10, isNamed: true },
    { number: 7, remark: '', line: 12, isNamed: false },
  ]);
});

test.each(TOOLS.filter((t) => ['flat', 'ball', 'drill', 'face'].includes(t.kind)).map((t) => [t.name, t] as const))(
  'a remark with the size and the kind finds a tool like %s',
  (_, t) => {
    const word = { flat: 'END MILL', ball: 'BALL MILL', drill: 'DRILL', face: 'FACE MILL' }[t.kind as 'flat'];
    for (const remark of [
      `D${t.diameter} ${word}`,
      `${word} ${t.diameter}MM`,
      `${(t.diameter / 25.4).toFixed(4)} IN ${word}`,
    ]) {
      const found = guessTool(remark, TOOLS)!;
      expect(found.diameter).toBeCloseTo(t.diameter, 1);
      if (t.kind !== 'flat') expect(found.kind).toBe(t.kind);
    }
  },
);

test.each(TOOLS.map((t) => [t.name, t] as const))('%s is not taken for another by its own name', (name, t) => {
  expect(speaksOfOther(`${name}, D${t.diameter}`, t)).toBe(false);
});

test('another size or another kind is told', () => {
  const mill = TOOLS.find((t) => t.kind === 'flat' && t.diameter === 10)!;
  expect(speaksOfOther('12 MM END MILL', mill)).toBe(true);
  expect(speaksOfOther('10 MM BALL MILL', mill)).toBe(true);
  expect(speaksOfOther('D10 ROUGHING MILL', mill)).toBe(false);
  expect(speaksOfOther('ROUGHING', mill)).toBe(false);
});

test('without a size, or with one that is not there, nothing is guessed', () => {
  expect(guessTool('ROUGHING', TOOLS)).toBeUndefined();
  expect(guessTool('D33.3 END MILL', TOOLS)).toBeUndefined();
  expect(guessTool('', TOOLS)).toBeUndefined();
});

test.each([
  ['12 MM END MILL', true],
  ['DRILL D5', true],
  ['END MILL', false],
  ['DRILL 5 MM HOLES', false],
  ['MILL POCKET D20', false],
  ['ROUGH OUTSIDE 0.2 MM', false],
])('“%s” is about a tool: %s', (remark, expected) => expect(speaksOfTool(remark)).toBe(expected));
