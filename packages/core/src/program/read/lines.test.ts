import { Flow, Lines } from './lines';

/** Runs a program by its M98, M99 and M30 words; what was read, and what could not be followed. */
function ran(text: string): { read: number[]; faults: string[] } {
  const read: number[] = [];
  const faults: string[] = [];
  new Lines(text).run(
    (line, number): Flow => {
      read.push(number);
      const call = /M98 P(\d+)(?: L(\d+))?/.exec(line);
      if (call) return { call: Number(call[1]), times: Number(call[2] ?? 1) };
      if (/^(N\d+ )?[O:]\d+/i.test(line)) return 'program';
      return /M99/.test(line) ? 'return' : /M30/.test(line) ? 'end' : 'on';
    },
    {
      cannotFollow: (why, call) => faults.push(`${why} ${call}`),
      withoutEnd: () => faults.push('no end'),
      runsInto: (line) => faults.push(`into ${line}`),
    },
  );
  return { read, faults };
}

test('lines are counted and given as they stand, an empty last one too', () => {
  const lines = new Lines('G21\r\n\nG0 X1\n');
  expect(lines.count).toBe(4);
  expect([0, 1, 2, 3].map((i) => lines.at(i))).toEqual(['G21\r', '', 'G0 X1', '']);
  expect(new Lines('').count).toBe(1);
});

test('what stands behind the end is not read', () => {
  expect(ran('G0\nM30\nG1\n').read).toEqual([1, 2]);
});

test('a subprogram is read where it is called, as often as asked, and then what comes after the call', () => {
  const text = 'M98 P20 L2\nG0\nM30\nO20\nG1\nM99\n';
  expect(ran(text)).toEqual({ read: [1, 4, 5, 6, 4, 5, 6, 2, 3], faults: [] });
  expect(ran(text.replace('L2', 'L0')).read).toEqual([1, 2, 3]);
});

test('subprograms call each other; one named by a colon or behind a block number is found too', () => {
  expect(ran('M98 P1\nM30\nN10 O1\nM98 P2\nM99\n:2\nG1\nM99\n').read).toEqual([1, 3, 4, 6, 7, 8, 5, 2]);
});

test('small letters name a subprogram as well', () => {
  expect(ran('M98 P1\nM30\nn10 o1\nG1\nM99\n').read).toEqual([1, 3, 4, 5, 2]);
});

test('the first of two subprograms of one number counts', () => {
  expect(ran('M98 P1\nM30\nO1\nM99\nO1\nG1\nM99\n').read).toEqual([1, 3, 4, 2]);
});

test('a call of what is not there is told, and reading goes on behind it', () => {
  expect(ran('M98 P7\nG0\nM30\n')).toEqual({ read: [1, 2, 3], faults: ['missing 7'] });
});

test('a subprogram that calls itself is told when it is too deep, and ends', () => {
  const { read, faults } = ran('M98 P1\nM30\nO1\nM98 P1\nM99\n');
  expect(faults).toEqual(['deep 1']);
  expect(read[read.length - 1]).toBe(2);
});

test('one that runs on and on is left after a million lines', () => {
  const { faults } = ran('M98 P1 L9999\nM30\nO1\nM98 P2 L9999\nM99\nO2\nG1\nM99\n');
  expect(faults).toEqual(['long 0']);
});

test.each([
  ['a subprogram that is called and returns', 'M98 P1\nM30\nO1\nM99\n', []],
  ['the text is over', 'O5\nG0\n', ['no end']],
  ['the next program begins', 'O5\nG0\nO6\nG1\nM30\n', ['into 3']],
  ['its own subprogram is run into, and returns', 'O5\nM98 P1\nO1\nG1\nM99\n', ['into 3', 'into 5']],
])('where a program ends: %s', (_, text, faults) => expect(ran(text).faults).toEqual(faults));

const fail = () => {
  throw new Error('told of nothing');
};

test('reading is left when nobody waits for it', () => {
  let read = 0;
  new Lines('G1\n'.repeat(20_000)).run(
    () => (read++, 'on'),
    { cannotFollow: fail, withoutEnd: fail, runsInto: fail },
    () => read > 5000,
  );
  expect(read).toBe(8192);
});
