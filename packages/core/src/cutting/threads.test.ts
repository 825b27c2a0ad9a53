import { DRILL_SIZES, nearestDrill } from '../quantity/drill-sizes';
import { SCREWS, reamAllowance, suggestPeck } from './holes';
import {
  THREADS,
  custom,
  formingDrill,
  likelyThreads,
  parseThread,
  tapDrill,
  tapPercent,
  threadMillInside,
  threadMillOutside,
  threadSizes,
} from './threads';

const sizes = (name: string) => {
  const read = parseThread(name);
  if (!read.ok) throw new Error(read.why);
  return threadSizes(read.thread);
};

describe('thread data', () => {
  test('M20x1.5 and 1/2-13, as the formulas give them', () => {
    const m20 = sizes('M20x1.5');
    expect([m20.internalMinor, m20.pitchDiameter, m20.externalMinor]).toEqual(
      [18.376, 19.026, 18.16].map((v) => expect.closeTo(v, 3)),
    );
    expect(sizes('1/2-13').internalMinor / 25.4).toBeCloseTo(0.4167, 4);
  });

  /** Limits of the internal minor diameter as printed in ISO 965-2 (6H), ASME B1.1 (2B, inch) and ISO 228-1. */
  test.each([
    ['M3', 2.459, 2.599],
    ['M5', 4.134, 4.334],
    ['M6', 4.917, 5.153],
    ['M8', 6.647, 6.912],
    ['M10', 8.376, 8.676],
    ['M12', 10.106, 10.441],
    ['M16', 13.835, 14.21],
    ['M10x1', 8.917, 9.153],
    ['G1/8', 8.566, 8.848],
    ['G1/4', 11.445, 11.89],
    ['G1/2', 18.631, 19.172],
    ['G1', 30.291, 30.931],
  ])('%s: minor diameter from %d to %d mm', (name, least, most) => {
    expect(sizes(name).internalMinor).toBeCloseTo(least, 2);
    expect(Math.abs(sizes(name).internalMinorMost - most)).toBeLessThanOrEqual(0.0011);
  });
  test.each([
    ['1/4-20', 0.196, 0.207],
    ['1/2-13', 0.417, 0.434],
    ['#10-32', 0.156, 0.164],
    ['3/8-16', 0.307, 0.321],
  ])('%s: minor diameter from %d to %d in', (name, least, most) => {
    expect(sizes(name).internalMinor / 25.4).toBeCloseTo(least, 3);
    expect(Math.abs(sizes(name).internalMinorMost / 25.4 - most)).toBeLessThan(0.0006);
  });

  test('every thread of the tables follows its standard’s formulas to 0.001 mm', () => {
    for (const t of THREADS) {
      const s = threadSizes(t);
      const H = (t.form === 60 ? 0.866025 : 0.960491) * t.pitch;
      const [flank, root] = t.form === 60 ? [3 / 8, 5 / 8] : [1 / 3, 2 / 3];
      expect(s.pitchDiameter).toBeCloseTo(t.major - 2 * flank * H, 3);
      expect(s.internalMinor).toBeCloseTo(t.major - 2 * root * H, 3);
      expect(s.internalMinorMost).toBeGreaterThan(s.internalMinor);
      expect(parseThread(t.name)).toEqual({ ok: true, thread: t });
    }
    expect(new Set(THREADS.map((t) => t.name)).size).toBe(THREADS.length);
  });

  test('tap drills, both ways', () => {
    expect(tapDrill(6, 1, 75)).toBeCloseTo(5.03, 2);
    expect(formingDrill(6, 1, 65)).toBeCloseTo(5.558, 3);
    expect(tapPercent(6, 1, tapDrill(6, 1, 63))).toBeCloseTo(63, 9);
  });

  test('thread milling', () => {
    expect(threadMillInside(20, 12)).toEqual({ radius: 4, feedShare: 0.4 });
    const outside = threadMillOutside(18, 12);
    expect(outside.radius).toBe(15);
    expect(outside.feedShare).toBeCloseTo(30 / 18, 9);
  });

  test('names are read as people write them', () => {
    const named = (text: string) => {
      const read = parseThread(text);
      return read.ok ? [read.thread.name, read.thread.series] : read.why;
    };
    expect(named('m 42 x 1')).toEqual(['M42x1', 'ISO fine']);
    expect(named('M42x1.25')).toEqual(['M42x1.25', 'custom']);
    expect(named('5/8-18 UNF')).toEqual(['5/8-18', 'UNF']);
    expect(named('#10-32')).toEqual(['#10-32', 'UNF']);
    expect(named('1-1/8-7')).toEqual(['1-1/8-7', 'UNC']);
    expect(named('0.9-20')).toEqual(['0.9-20', 'custom']);
    expect(named('G 1/2')).toEqual(['G1/2', 'BSP parallel']);
    expect(named('M7')).toMatch(/give one, as in M7x1/);
    expect(named('G5')).toMatch(/no G5/);
    expect(named('M6x9')).toMatch(/too coarse/);
    expect(named('cheese')).toMatch(/write a thread as/);
    expect(custom('x', 0, 1).ok).toBe(false);
    expect(sizes('1/2-13').pitch).toBeCloseTo(1.9538, 4);
  });
});

describe('drill sizes', () => {
  const inch = (name: string) => DRILL_SIZES.find((d) => d.name === name)!.diameter / 25.4;
  test.each([
    ['#1', 0.228],
    ['#7', 0.201],
    ['#21', 0.159],
    ['#80', 0.0135],
    ['A', 0.234],
    ['F', 0.257],
    ['Z', 0.413],
    ['1/64 in', 0.015625],
    ['27/64 in', 0.421875],
    ['1 in', 1],
    ['1-1/4 in', 1.25],
  ])('%s is %d in', (name, expected) => expect(inch(name)).toBeCloseTo(expected, 5));

  test('the nearest stocked size and its error', () => {
    expect(nearestDrill(5.03)).toEqual({
      drill: expect.objectContaining({ name: '5 mm' }),
      error: expect.closeTo(-0.03, 9),
    });
    expect(nearestDrill(5.11, ['number']).drill.name).toBe('#7');
    expect(nearestDrill(6.53, ['letter']).drill.name).toBe('F');
    expect(nearestDrill(10.7, ['fraction']).drill.name).toBe('27/64 in');
  });
});

test('pecks by depth, material and coolant', () => {
  const peck = (ratio: number, long = false, through = false) => suggestPeck(5, 5 * ratio, long, through);
  expect([2, 3.5, 5, 8].map((r) => peck(r).method)).toEqual(['straight', 'straight', 'chip-break', 'peck']);
  expect([2, 3.5, 5.5].map((r) => peck(r, true).method)).toEqual(['straight', 'chip-break', 'peck']);
  expect(peck(10, true, true)).toMatchObject({ method: 'straight', peck: 0 });
  expect(peck(15, true, true).method).toBe('peck');
  expect(peck(8).peck).toBeLessThan(peck(5).peck);
});

test('reaming and counterbores', () => {
  expect([4, 10, 30, 60].map(reamAllowance)).toEqual([0.1, 0.2, 0.3, 0.5]);
  for (const { clearance, counterbore, headHeight } of Object.values(SCREWS)) {
    expect(counterbore).toBeGreaterThan(clearance);
    expect(headHeight).toBeGreaterThan(0);
  }
});

describe('threads offered for a hole', () => {
  test.each([
    [2.5, 'mm', 'M3'],
    [3.3, 'mm', 'M4'],
    [4.2, 'mm', 'M5'],
    [5, 'mm', 'M6'],
    [6.8, 'mm', 'M8'],
    [8.5, 'mm', 'M10'],
    [7.4, 'mm', 'M8'],
    [5.1, 'inch', '1/4-20'],
  ] as const)('%s in %s: %s first', (diameter, unit, name) => {
    expect(likelyThreads(diameter, unit)[0].name).toBe(name);
  });

  test('the tap drill of every thread offers it, and a clearance hole nothing', () => {
    for (const thread of THREADS.filter((t) => t.series === 'ISO coarse')) {
      const drill = tapDrill(thread.major, thread.pitch, 75);
      const { internalMinor, internalMinorMost } = threadSizes(thread);
      if (drill < internalMinor || drill > internalMinorMost) continue;
      expect(likelyThreads(drill, 'mm').map((t) => t.name)).toContain(thread.name);
    }
    expect(likelyThreads(5.5, 'mm')).toEqual([]);
  });
});
