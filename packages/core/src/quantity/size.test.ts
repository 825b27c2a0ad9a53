import { fitLimits } from './fits';
import { limitsText, parseSize, rangeText, sizeText } from './size';

/** Limits in µm, as tables print them. */
const micron = (nominal: number, fit: string) => {
  const found = fitLimits(nominal, fit);
  return found && [found.upper, found.lower].map((mm) => Math.round(mm * 1e4) / 10 + 0);
};

describe('fits, against the printed tables', () => {
  test.each([
    [12, 'H7', [18, 0]],
    [10, 'H7', [15, 0]],
    [25, 'H8', [33, 0]],
    [50, 'H11', [160, 0]],
    [12, 'g6', [-6, -17]],
    [40, 'f7', [-25, -50]],
    [8, 'h6', [0, -9]],
    [20, 'js6', [6.5, -6.5]],
    [30, 'k6', [15, 2]],
    [30, 'm6', [21, 8]],
    [16, 'n6', [23, 12]],
    [60, 'p6', [51, 32]],
    [20, 'G7', [28, 7]],
    [20, 'F8', [53, 20]],
    [16, 'K7', [6, -12]],
    [16, 'M7', [0, -18]],
    [16, 'N7', [-5, -23]],
    [16, 'P7', [-11, -29]],
    [16, 'JS7', [9, -9]],
    [100, 'H7', [35, 0]],
    [450, 'H7', [63, 0]],
  ])('%d %s', (nominal, fit, expected) => expect(micron(nominal, fit)).toEqual(expected));

  test.each([
    [12, 'X9'],
    [12, 'H99'],
    [12, 'k11'],
    [600, 'H7'],
    [0, 'H7'],
    [12, 'Hg7'],
  ])('%d %s has none', (nominal, fit) => expect(fitLimits(nominal, fit)).toBeUndefined());
});

describe('sizes as they are typed', () => {
  test.each([
    ['12', 'mm', 12, undefined],
    ['1/4+0.15', 'mm', 6.5, undefined],
    ['1/2+1/4', 'inch', 19.05, undefined],
    ['12 H7', 'mm', 12, 'H7'],
    ['12H7', 'mm', 12, 'H7'],
    ['12 ±0.05', 'mm', 12, '±0.05'],
    ['12 +/-0,05', 'mm', 12, '±0.05'],
    ['12 +0.02/0', 'mm', 12, '+0.02/0'],
    ['12 0/-0.05', 'mm', 12, '0/-0.05'],
    ['12 -0.02/-0.05', 'mm', 12, '-0.02/-0.05'],
    ['.5 +.001/-.0005', 'inch', 12.7, '+0.001/-0.0005'],
    ['1/2 h6', 'inch', 12.7, 'h6'],
  ] as const)('%s in %s', (text, unit, mm, limits) => {
    const read = parseSize(text, unit);
    if (!read.ok) throw new Error(read.why);
    expect(read.mm).toBeCloseTo(mm, 9);
    expect(read.limits && limitsText(read.limits, unit)).toBe(limits);
    expect(parseSize(sizeText(read, unit), unit)).toEqual({ ...read, mm: expect.closeTo(read.mm, 2) as number });
  });

  test.each([
    ['12 0/+0.02', /upper limit, 0, lies below the lower, \+0.02/],
    ['12 -0.05/-0.02', /lies below/],
    ['12 X9', /“X9” is no fit the table has/],
    ['abc H7', /./],
  ])('%s is refused, and why', (text, why) => {
    const read = parseSize(text, 'mm');
    expect(read.ok ? '' : read.why).toMatch(why);
  });

  test('what it may measure is said', () => {
    expect(rangeText({ mm: 12, limits: { upper: 0.018, lower: 0, fit: 'H7' } }, 'mm')).toBe('12 to 12.018 mm');
    expect(rangeText({ mm: 12 }, 'mm')).toBe('12 mm');
  });
});
