import fc from 'fast-check';
import { feedForms, parseFeed, parseSpeed, speedForms } from './typed';

const ten = { diameter: 10, flutes: 3, rpm: 6000 };
const speed = (text: string) => {
  const read = parseSpeed(text, 10);
  return read.ok ? read.value : read.why;
};
const feed = (text: string, unit: 'mm' | 'inch' = 'mm') => {
  const read = parseFeed(text, unit, ten);
  return read.ok ? read.value : read.why;
};

test.each([
  ['6000', 6000],
  ['6 000 rpm', 'write 6000, 190 m/min or 620 ft/min'],
  ['6000rpm', 6000],
  ['200 m/min', 6366],
  ['656.168 ft/min', 6366],
  ['12 mm/min', 'write 6000, 190 m/min or 620 ft/min'],
  ['', 'write 6000, 190 m/min or 620 ft/min'],
])('a speed typed as %p', (text, expected) => expect(speed(text)).toEqual(expected));

test.each([
  ['900', 900],
  ['900 mm/min', 900],
  ['0.15 a turn', 900],
  ['0.15 mm/rev', 900],
  ['0.05 a tooth', 900],
  ['0,05/z', 900],
  ['.002 in/tooth', 914.4],
  ['fast', 'write 900, 0.15 a turn or 0.05 a tooth'],
])('a feed typed as %p', (text, expected) =>
  expect(feed(text)).toEqual(typeof expected === 'number' ? expect.closeTo(expected, 6) : expected),
);

test('bare feeds of an inch job are inches', () => {
  expect(feed('35', 'inch')).toBeCloseTo(889, 6);
  expect(feed('.002 a tooth', 'inch')).toBeCloseTo(914.4, 6);
  expect(feed('900 mm/min', 'inch')).toBeCloseTo(900, 6);
});

test('the other forms follow', () => {
  expect(speedForms({ ...ten, rpm: 6366 }, 'mm')).toBe('6\u202f366 rpm = 200 m/min');
  expect(feedForms(900, ten, 'mm')).toMatch(/^900 mm\/min = 0\.15 mm a turn = 0\.05 mm a tooth$/);
});

test('what is said of a feed is read again as that feed', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 8 }),
      fc.integer({ min: 100, max: 30000 }),
      fc.integer({ min: 50, max: 9000 }),
      (flutes, rpm, f) => {
        const read = parseFeed(`${f / rpm / flutes} a tooth`, 'mm', { diameter: 6, flutes, rpm });
        return read.ok && Math.abs(read.value - f) < 1e-6 * f;
      },
    ),
    { numRuns: 200, seed: 3 },
  );
});
