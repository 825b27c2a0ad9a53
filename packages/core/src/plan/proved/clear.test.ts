import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { cutLength } from '../../../testing/paths';
import { planSetup } from '../pipeline';
import { newFeature } from '../../part/plate/new';
import { Shape } from '../../part/plate/feature';
import { TAGS } from '../../path/path';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };

describe('clearing at a steady load', () => {
  const roomy: Shape = { type: 'rectangle', width: 56, height: 36, radius: 9 };
  const pocketJob = (depth = 4) => withStock(jobWith(roomy, { depth }), flush);

  test('a pocket with its walls finished proves clean', () => {
    const proof = prove(withOperation(pocketJob(), 'clear', ['f2'], tool(4), { stepover: 2 }), 0.1);
    expect(proof.codes).toEqual([]);
  });

  test('flats on the way down are cleared too, and left alone where not asked for', () => {
    const base = pocketJob(6);
    const boss = newFeature(
      base.part.features,
      'boss',
      'Boss',
      { type: 'round', diameter: 12 },
      { x: 40, y: 25, depth: 2 },
    );
    const job = { ...base, part: { ...base.part, features: [...base.part.features, boss] } };
    const cut = (flats: boolean) => prove(withOperation(job, 'clear', ['f2'], tool(4), { stepover: 2, flats }), 0.25);
    const [all, without] = [cut(true), cut(false)];
    expect([all.codes, without.codes]).toEqual([[], ['metal-left']]);
    expect((all.removed - without.removed) * 1000).toBeCloseTo(Math.PI * 36 * 2, -1.3);
  });

  test('a ramp round a long narrow room goes down in many laps: it cuts at full width', () => {
    const groove = withStock(jobWith({ type: 'slot', length: 74, width: 12 }, { depth: 15 }, 20), flush);
    const cutter = { ...tool(4), fluteLength: 22, stickOut: 30 };
    const job = withOperation(groove, 'clear', ['f2'], cutter, { finish: false });
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    const entries = [...path.tag.keys()].filter((i) => TAGS[path.tag[i]] === 'entry');
    const laps = entries.filter((i) => path.y[i] > 25 && path.x[i] < 40 && path.x[i - 1] > 40);
    const deep = path.z[entries[entries.length - 1]];
    expect(deep).toBe(-15);
    expect(laps.length).toBeGreaterThanOrEqual(Math.ceil(15 / (0.25 * cutter.diameter)));
  });

  test('rest clearing cuts only what a larger tool left', () => {
    const corners = withStock(jobWith({ type: 'rectangle', width: 56, height: 36, radius: 4 }, { depth: 4 }), flush);
    const rough = withOperation(corners, 'clear', ['f2'], tool(3), { stepover: 3, finish: false });
    const alone = prove(rough, 0.25);
    const both = withOperation(rough, 'clear', ['f2'], tool(9), { stepover: 1, finish: false });
    const rest = prove(both, 0.25);
    expect(alone.codes).toContain('metal-left');
    expect(rest.codes).toEqual([]);
    const length = (job: typeof rough, i: number) => cutLength(planSetup(job, job.setups[0]).planned[i].plan.path);
    const anew = withOperation(rough, 'clear', ['f2'], tool(9), {
      stepover: 1,
      finish: false,
      from: 'all of the stock',
    });
    expect(length(both, 1)).toBeLessThan(length(anew, 1) / 5);
  });

  const outside = withStock(jobWith(undefined, {}, 6), { left: 8, right: 3, front: 5, back: 12, top: 0, bottom: 2 });
  const around = (params: Record<string, unknown>) =>
    withOperation(outside, 'clear', ['f1'], tool(4), { stepover: 2, layer: 10, ...params });

  test('the outside of a part, from the stock inwards, without an entry into solid metal', () => {
    const job = around({ careful: true });
    expect(prove(job, 0.2).codes.filter((c) => c !== 'below-stock')).toEqual([]);
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    expect([...path.tag].map((t) => TAGS[t])).not.toContain('entry');
  });

  test('values that do not matter have no effect: neither bite nor feed of a first lap that is not asked for', () => {
    const text = (params: Record<string, unknown>) => post(around(params)).text;
    expect(text({ careful: false, firstBite: 0.2, firstFeed: 0.3 })).toBe(
      text({ careful: false, firstBite: 0.9, firstFeed: 1 }),
    );
    expect(text({ careful: true, firstFeed: 0.3 })).not.toBe(text({ careful: true, firstFeed: 1 }));
    const job = around({ careful: false });
    const { operation, plan } = planSetup(job, job.setups[0]).planned[0];
    const { x, y, tag, feed, count } = plan.path;
    const long = (isIn: (i: number) => boolean) => {
      const cuts = Array.from({ length: count }, (_, i) => i).filter((i) => i > 0 && TAGS[tag[i]] === 'cut' && isIn(i));
      return cuts.reduce((sum, i) => sum + Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]), 0);
    };
    // Slower only round the corners of the stock, where its metal is wider than the bite.
    expect(long((i) => feed[i] < operation.speeds.feed)).toBeLessThan(0.02 * long(() => true));
  });

  test('faults say what and where: too large a tool, too wide a bite', () => {
    const narrow = withStock(jobWith({ type: 'slot', length: 40, width: 9 }, { depth: 3 }), flush);
    expect(post(withOperation(narrow, 'clear', ['f2'], tool(4))).codes).toContain('pocket-too-small');
    expect(post(withOperation(pocketJob(), 'clear', ['f2'], tool(4), { stepover: 9.5 })).codes).toContain(
      'bite-too-wide',
    );
  });
});
