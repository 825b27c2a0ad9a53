import fc from 'fast-check';
import { ABSURD_MM, parseLength } from './length';
import { formatArea, formatFeed, formatLength, formatNumber, formatThin, formatTime, formatVolume } from './units';

const mm = (text: string, unit: 'mm' | 'inch' = 'mm', share?: number) => {
  const read = parseLength(text, unit, share);
  return read.ok ? read.mm : read.why;
};

describe('lengths as people write them', () => {
  test.each([
    ['12', 12],
    ['12mm', 12],
    ['12 mm', 12],
    ['5/16', 7.9375],
    ['.3125in', 7.9375],
    ['1-5/8', 41.275],
    ['1 5/8"', 41.275],
    ['10+0.2', 10.2],
    ['10-0.2', 9.8],
    ['#21', 4.0386],
    ['#80', 0.3429],
    ['1,5', 1.5],
    ['-3', -3],
    ['2cm', 20],
    ['100 thou', 2.54],
    ['1/2in + 1mm', 13.7],
  ])('%s in a mm job', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 6));

  test('an engaged angle is a bite of the diameter it is a share of', () => {
    expect(mm('90°', 'mm', 10)).toBeCloseTo(5, 9);
    expect(mm('36.87 °', 'mm', 10)).toBeCloseTo(1, 4);
    expect(mm('180°', 'mm', 10)).toBeCloseTo(10, 9);
    expect(mm('200°', 'mm', 10)).toMatch(/180° at most/);
    expect(mm('90°')).toMatch(/no meaning here/);
  });

  test('a bare number is in the job unit, a suffix overrules it', () => {
    expect(mm('0.5', 'inch')).toBeCloseTo(12.7, 9);
    expect(mm('12mm', 'inch')).toBe(12);
  });

  test('a percentage is a share where one makes sense', () => {
    expect(mm('40%', 'mm', 10)).toBe(4);
    expect(mm('40%')).toMatch(/share/);
  });

  test.each([
    ['', /needed/],
    ['abc', /not a length/],
    ['5/0', /over zero/],
    ['#99', /#1 to #80/],
    ['12 apples', /left over/],
    ['1e9', /left over/],
    ['999999', /check the unit/],
    ['3++4', /not a length/],
  ])('"%s" says why it cannot be read', (text, why) => expect(mm(text)).toMatch(why));

  test('never throws, and never gives an absurd length', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const read = parseLength(text, 'mm', 10);
        return read.ok ? Math.abs(read.mm) <= ABSURD_MM : read.why.length > 0;
      }),
      { numRuns: 300, seed: 1 },
    );
  });

  test('what is shown reads back as itself', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.constantFrom('mm' as const, 'inch' as const),
        (value, unit) => {
          const read = parseLength(formatLength(value, unit), unit);
          return read.ok && Math.abs(read.mm - value) <= (unit === 'mm' ? 0.0006 : 0.0014);
        },
      ),
      { numRuns: 300, seed: 2 },
    );
  });
});

test('numbers carry thin spaces, units and no trailing zeros', () => {
  expect(formatNumber(9500, 0)).toBe('9\u202f500');
  expect(formatNumber(-0.0001, 2)).toBe('0');
  expect(formatLength(12.7, 'inch')).toBe('0.5 in');
  expect([formatVolume(12_345, 'mm'), formatVolume(12.34, 'mm', true)]).toEqual(['12.35 cm³', '12.3 mm³']);
  expect([formatVolume(16_387.064, 'inch'), formatVolume(16.387064, 'inch', true)]).toEqual(['1 in³', '0.001 in³']);
  expect([formatArea(350.4, 'mm'), formatArea(2.345, 'mm'), formatArea(322.58, 'inch')]).toEqual([
    '350 mm²',
    '2.35 mm²',
    '0.5 in²',
  ]);
  expect([formatThin(0.0254, 'mm'), formatThin(0.0254, 'inch')]).toEqual(['0.025 mm', '0.001 in']);
  expect(formatFeed(950, 'mm')).toBe('950 mm/min');
  expect(formatTime(4.2)).toBe('4:12');
  expect(formatTime(62.083333)).toBe('1:02:05');
});
