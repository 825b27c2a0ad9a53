import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { MACHINES } from '../../shop/library';
import { Job } from '../../document/job';
import { proveProgram } from '../prove';
import { planSetup } from '../pipeline';
import { TAGS } from '../../path/path';

const beam = tool(43);
const table = MACHINES.find((m) => m.kind === 'sheet cutter')!;

/** A sheet of 4 mm with a window in the plate. */
function sheet(params: Record<string, unknown> = {}, window = 20): Job {
  const job = jobWith({ type: 'round', diameter: window }, { meaning: 'hole', through: true }, 4);
  const wide = withStock(job, { left: 10, right: 10, front: 10, back: 10, top: 0, bottom: 0 });
  return withOperation(
    { ...wide, machine: table, controllerId: table.controllerId },
    'cut-out',
    ['f1', 'f2'],
    beam,
    params,
  );
}

const round = Math.PI * 20;
const kerf = (length: number, away: number) => (length + away) * beam.diameter * 4;

describe('cutting out with a beam', () => {
  test('proves clean, takes a kerf of metal, and knows no Z', () => {
    const proof = prove(sheet({ lead: 2 }), 0.05);
    expect(proof.codes).toEqual([]);
    expect(proof.text).not.toMatch(/Z/);
    const leads = 2 * (Math.PI / 2) * 2 * beam.diameter * 4;
    const wanted = kerf(round, -Math.PI * beam.diameter) + kerf(260, Math.PI * beam.diameter) + leads;
    expect(proof.removed * 1000).toBeGreaterThan(wanted * 0.98);
    expect(proof.removed * 1000).toBeLessThan(wanted * 1.02);
  });

  test('inside before outside, each pierced in its scrap and the beam off between', () => {
    const { text } = prove(sheet(), 0.2);
    const on = text.split('\n').flatMap((l, i) => (l.includes('M3') ? [i] : []));
    const off = text.split('\n').flatMap((l, i) => (l.endsWith('M5') ? [i] : []));
    expect(on).toHaveLength(2);
    expect(off.length).toBeGreaterThanOrEqual(2);
    expect(on[0]).toBeLessThan(off[0]);
    expect(off[0]).toBeLessThan(on[1]);
    const job = sheet();
    const { path } = planSetup(job, job.setups[0]).planned[0].plan;
    const pierces = Array.from({ length: path.count }, (_, i) => i).filter((i) => TAGS[path.tag[i]] === 'entry');
    const [hole, outside] = pierces.map((i) => ({ x: path.x[i], y: path.y[i] }));
    expect(Math.hypot(hole.x - 40, hole.y - 25)).toBeLessThan(10 - beam.diameter / 2);
    expect(outside.x < -0.6 || outside.x > 80.6 || outside.y < -0.6 || outside.y > 50.6).toBe(true);
  });

  test('micro-joints hold the part: pierced anew behind each, and that much less is cut', () => {
    const whole = prove(sheet({ lead: 2 }), 0.1);
    const held = prove(sheet({ lead: 2, joints: 4, jointWidth: 1 }), 0.1);
    expect(held.codes).toEqual([]);
    expect(held.text.match(/M3/g)).toHaveLength(6);
    expect((whole.removed - held.removed) * 1000).toBeCloseTo(
      4 * (1 + (1 - Math.PI / 4) * beam.diameter) * beam.diameter * 4,
      -1,
    );
    expect(prove(sheet({ joints: 2, jointsOn: 'every line' }), 0.2).text.match(/M3/g)).toHaveLength(6);
  });

  test('the pierce takes its time', () => {
    const seconds = (pierce: number) => prove(sheet({ pierce }), 0.2).clock.total * 60;
    expect(seconds(2) - seconds(0)).toBeCloseTo(4, 1);
  });

  test('a cut without the beam, and a beam left on over the sheet, are found', () => {
    const job = sheet();
    const { text } = post(job);
    const codes = (changed: string) => proveProgram(job, job.setups[0], changed, 0.2).findings.map((f) => f.code);
    expect(codes(text.replace(/S1000 M3/, ''))).toContain('spindle-off');
    expect(codes(text.replace(/M5/, ''))).toContain('rapid-through-stock');
  });

  test('too thick, narrower than the kerf, no room for a lead, joints too wide, milling on it: told', () => {
    const thick = { ...sheet(), part: { ...sheet().part, thickness: 15 } };
    expect(post(thick).codes).toContain('too-thick');
    expect(post(sheet({}, 1)).codes).toContain('narrower-than-kerf');
    expect(post(sheet({}, 1.4)).codes).toContain('pierced-on-line');
    expect(post(sheet({ joints: 40, jointWidth: 10 })).codes).toContain('joints-too-wide');
    expect(post(withOperation(sheet(), 'pocket', ['f2'], tool(7))).codes).toContain('beam-only');
    expect(post({ ...sheet(), controllerId: 'hobby' }).codes).toContain('other-machine');
  });
});
