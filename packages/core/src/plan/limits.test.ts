import { jobWith, prove, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { parseSize } from '../quantity/size';
import { Feature, Limited } from '../part/plate/feature';
import { aimedPart } from '../part/plate/limits';
import { modelOf } from '../part/plate/model';
import { seenFrom } from '../part/plate/side';
import { UPS } from '../part/plate/turn';
import { Job } from '../document/job';
import { readJob } from './documents';
import { planSetup } from './pipeline';

/** The job with limits, as they are typed, on sizes of its feature. */
function limited(job: Job, sizes: Partial<Record<Limited, string>>): Job {
  const limits = Object.entries(sizes).map(([size, text]) => {
    const read = parseSize(text, 'mm');
    if (!read.ok) throw new Error(read.why);
    return { size: size as Limited, ...read.limits! };
  });
  const [outline, feature] = job.part.features;
  return { ...job, part: { ...job.part, features: [outline, { ...feature, limits }] } };
}
const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 8 };
const hole = (diameter: number, text: string) =>
  limited(withStock(jobWith({ type: 'round', diameter }, { meaning: 'hole', through: true }), flush), {
    diameter: text,
  });

test('paths aim at the middle of the limits, and the proof wants it there', () => {
  const job = withOperation(hole(20, '20 +0.2/0'), 'helical-bore', ['f2'], tool(7));
  const { path } = planSetup(job, job.setups[0]).planned[0].plan;
  const reach = Math.max(...path.x) - 40 + 3;
  expect(reach).toBeCloseTo(10.05, 6);
  expect(prove(job, 0.1).codes.filter((c) => c !== 'below-stock')).toEqual([]);
});

test('pockets and depths too, whichever way the part lies, and once only', () => {
  const shape = { type: 'rectangle', width: 30, height: 20, radius: 5 } as const;
  const job = limited(jobWith(shape, { depth: 4 }), { width: '30 +0.1/0', height: '20 0/-0.1', depth: '4 ±0.1' });
  const aimed = aimedPart(job.part).features[1];
  expect([aimed.shape, aimed.depth]).toEqual([{ ...shape, width: 30.05, height: 19.95 }, 4]);
  expect(aimed.limits!.map((l) => [l.size, Math.round(l.upper * 1e6) / 1e6])).toEqual([
    ['width', 0.05],
    ['height', 0.05],
    ['depth', 0.1],
  ]);
  for (const up of UPS.slice(0, 4)) {
    const { features } = seenFrom(
      { ...job.part, features: job.part.features.map((f) => ({ ...f, through: true })) },
      up,
    );
    expect((features[1].shape as typeof shape).width).toBe(30.05);
  }
  const seen = seenFrom(job.part, UPS[0]);
  expect(seenFrom(seen, UPS[0])).toEqual(seen);
  const bare = jobWith(shape, { depth: 4 });
  expect(aimedPart(bare.part)).toBe(bare.part);
});

test('a drill or a reamer makes what lies within the limits', () => {
  const codes = (text: string, kind: string, number: number) => {
    const job = withOperation(hole(Number.parseFloat(text), text), kind, ['f2'], tool(number));
    return planSetup(job, job.setups[0]).planned[0].plan.findings.map((f) => f.code);
  };
  expect(codes('5 +0.1/0', 'drill', 15)).toEqual([]);
  expect(codes('5 +0.3/+0.2', 'drill', 15)).toEqual(['hole-larger']);
  expect(codes('6 H7', 'ream', 35)).toEqual(['hole-not-made']);
});

test('limits are kept in job files; crossed ones are a fault, and so is a size that can have none', () => {
  const job = hole(12, '12 H7');
  expect(readJob(JSON.parse(JSON.stringify(job))).job?.part).toEqual(job.part);
  const [outline, feature] = job.part.features;
  const withLimits = (limits: object[]): Feature[] => [outline, { ...feature, limits: limits as Feature['limits'] }];
  const crossed = { ...job.part, features: withLimits([{ size: 'diameter', upper: 0, lower: 0.1 }]) };
  expect(modelOf(crossed).findings.map((f) => [f.code, f.place.field])).toEqual([['limits-crossed', 'limits']]);
  const odd = { ...job, part: { ...job.part, features: withLimits([{ size: 'colour', upper: 0, lower: 0 }]) } };
  expect(readJob(JSON.parse(JSON.stringify(odd))).findings[0].place.field).toBe('part.features.1.limits.0.size');
});
