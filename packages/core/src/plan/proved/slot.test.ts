import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { newFeature } from '../../part/plate/new';
import { Shape } from '../../part/plate/feature';

const POCKET: Shape = { type: 'rectangle', width: 50, height: 30, radius: 6 };
const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

describe('slots', () => {
  const slotJob = (width: number) => withStock(jobWith({ type: 'slot', length: 50, width }, { depth: 5 }), flush);

  test.each([
    ['layers', 6, 7],
    ['layers', 9, 7],
    ['full depth', 6, 7],
    ['looping', 9, 7],
    ['looping', 16, 7],
  ])('%s, %d mm wide', (method, width, number) => {
    const proof = prove(withOperation(slotJob(width), 'slot', ['f2'], tool(number), { method, stepover: 0.8 }), 0.05);
    expect(proof.codes).toEqual([]);
    expect(proof.removed * 1000).toBeCloseTo(((50 - width) * width + (Math.PI * width * width) / 4) * 5, -1.2);
  });

  test('loops keep the bite near what was asked', () => {
    const proof = prove(
      withOperation(slotJob(9), 'slot', ['f2'], tool(7), { method: 'looping', stepover: 0.6, finish: false }),
      0.05,
    );
    const { samples } = proof;
    const cut = Array.from(samples.engagement).filter((a, i) => a > 0 && a < 179 && samples.z[i] < -4.9);
    const most = cut.sort((a, b) => a - b)[Math.floor(cut.length * 0.98)];
    expect(most).toBeLessThan(95);
  });

  test('a groove along an open line is as wide as the cutter, or as asked', () => {
    const base = withStock(jobWith(undefined), flush);
    const shape: Shape = {
      type: 'chain',
      closed: false,
      vertices: [
        { x: 0, y: 0, bulge: 0 },
        { x: 30, y: 0, bulge: 0.4 },
        { x: 40, y: 14, bulge: 0 },
      ],
    };
    const line = newFeature(base.part.features, 'line', 'Groove', shape, { x: 20, y: 18, depth: 3 });
    const job = { ...base, part: { ...base.part, features: [...base.part.features, line] } };
    for (const params of [{ width: 0 }, { width: 9 }, { width: 9, method: 'looping', stepover: 1 }])
      expect(prove(withOperation(job, 'slot', ['f2'], tool(7), params), 0.1).codes).toEqual([]);
  });

  test('too narrow, too wide, no room for loops, no slot at all: told', () => {
    const codes = (job: ReturnType<typeof slotJob>, params = {}) =>
      post(withOperation(job, 'slot', ['f2'], tool(7), params)).codes;
    expect(codes(slotJob(5))).toContain('slot-narrow');
    expect(codes(slotJob(14))).toContain('slot-wide');
    expect(codes(slotJob(6.2), { method: 'looping' })).toContain('no-room-for-loops');
    expect(codes(withStock(jobWith(POCKET), flush))).toContain('not-a-slot');
  });
});
