import fc from 'fast-check';
import { jobWith, prove as proveJob, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { proveProgram } from '../prove';
import { Job } from '../../document/job';
import { planSetup, postSetup } from '../pipeline';
import { readProgram } from '../../program/read/reader';
import { LEVEL_DEFAULTS, LevelAsk, levelFeed } from '../../judge/level';
import { peaksOf } from '../../judge/peaks';

/** A plate 80 x 50 x 10, its zero on the front left top corner, a 10 mm end mill as T4. */
const plain = withOperation(jobWith(undefined), 'face', [], tool(4));
const job: Job = {
  ...plain,
  setups: [
    {
      ...plain.setups[0],
      zero: { on: 'stock', point: 'front left', height: 'top' },
      stock: { ...plain.setups[0].stock, left: 0, right: 0, front: 0, back: 0, top: 0 },
    },
  ],
};
const HEAD = 'G21 G90 G17 G94 G54\nT4 M6\nS8000 M3\nG43 H4 Z30\nG0 X-12 Y-4\n';
/** A side cut 1 mm wide, a slot across, and a side cut 0.5 mm wide on the way back. */
const BODY =
  'G1 Z-5 F900\nX92 F1600\nG0 Z30\nX-12 Y25\nG1 Z-5\nX92\nG0 Z30\nX92 Y54.5\nG1 Z-5\nX-12 (BACK)\nG0 Z30\nM30\n';
const proved = (text: string) => proveProgram(job, job.setups[0], text, 0.14);

const proof = proved(HEAD + BODY);
const input = (text = HEAD + BODY, of = proof) => ({
  text,
  motions: of.read.motions,
  samples: of.samples,
  tools: new Map(job.tools.map((t) => [t.number, t])),
  material: job.material,
  machine: job.machine,
});
const feedAt = (text: string, line: number) => {
  const { motions: m } = readProgram(text, { homeZ: 100, unit: 'mm' });
  return m.feed[m.line.indexOf(line)];
};
const [SIDE, SLOT, BACK] = [7, 11, 15];

describe('heaviest moments', () => {
  test('the worst first, with its line and cause', () => {
    const [first] = peaksOf(proof.samples, proof.read.motions, 'engagement');
    expect(first.value).toBeCloseTo(180, 0);
    expect(first.cause).toBe('slot');
    expect(proof.read.motions.line[first.motion]).toBe(SLOT);
    for (const measure of ['rate', 'chip', 'load', 'force', 'bend'] as const) {
      const peaks = peaksOf(proof.samples, proof.read.motions, measure, 3);
      expect(peaks.length).toBeGreaterThan(0);
      peaks.forEach((p, i) => i && expect(p.value).toBeLessThanOrEqual(peaks[i - 1].value));
    }
  });

  test('a corner and a way in are told as such', () => {
    const cut = withOperation(
      jobWith({ type: 'rectangle', width: 40, height: 30, radius: 5 }),
      'pocket',
      ['f2'],
      tool(7),
      { stepover: 1.5, finish: false },
    );
    const { samples, read } = proveJob(cut, 0.14);
    const causes = peaksOf(samples, read.motions, 'engagement', 40).map((p) => p.cause);
    expect(causes).toEqual(expect.arrayContaining(['entry', 'corner']));
  });

  test('chip, force and bending follow from the engaged angle and the feed', () => {
    const at = proof.samples.motion.findIndex((m, i) => proof.read.motions.line[m] === SIDE && i > 40);
    const fz = 1600 / 8000 / tool(4).flutes;
    const chip = fz * Math.sin(Math.acos(1 - (2 * 1) / 10));
    // The grid tells a bite of 1 mm to a tenth.
    expect(Math.abs(proof.samples.chip[at] / chip - 1)).toBeLessThan(0.06);
    expect(proof.samples.force[at]).toBeGreaterThan(0);
    expect(proof.samples.bend[at]).toBeGreaterThan(0);
  });
});

describe('levelling the feed', () => {
  test('slower in the slot, faster in the thin cut, and only F words change', () => {
    const { text, changed, findings } = levelFeed(input());
    expect(findings).toEqual([]);
    expect(changed).toBeGreaterThanOrEqual(2);
    expect(feedAt(text, SLOT)).toBeLessThan(feedAt(text, SIDE));
    expect(feedAt(text, BACK)).toBeGreaterThan(feedAt(text, SIDE));
    const bare = (t: string) => t.replace(/ ?F[\d.]+/g, '');
    expect(bare(text)).toBe(bare(HEAD + BODY));
    expect(text).toMatch(/X-12 F\d+ \(BACK\)/);
  });

  test('the chip comes out as thick as asked wherever the limits allow it', () => {
    const { text } = levelFeed(input(), { chip: 0.8, power: 1, least: 0.01, most: 20 });
    const after = proved(text);
    const chips = [SIDE, SLOT, BACK].map((line) => {
      const of = Array.from(after.samples.chip).filter(
        (c, i) => after.read.motions.line[after.samples.motion[i]] === line && c > 0,
      );
      return Math.max(...of);
    });
    for (const chip of chips) expect(chip / chips[0]).toBeGreaterThan(0.85);
    for (const chip of chips) expect(chip / chips[0]).toBeLessThan(1.18);
  });

  test('whatever is asked: limits hold, force does not grow, the way stays the same', () => {
    const ask = fc.record({
      chip: fc.double({ min: 0.3, max: 2, noNaN: true }),
      power: fc.double({ min: 0.1, max: 1, noNaN: true }),
      least: fc.double({ min: 0.1, max: 1, noNaN: true }),
      most: fc.double({ min: 1, max: 3, noNaN: true }),
    });
    const { motions } = readProgram(HEAD + BODY, { homeZ: 100, unit: 'mm' });
    fc.assert(
      fc.property(ask, (asked: LevelAsk) => {
        const { text } = levelFeed(input(), asked);
        const { motions: m } = readProgram(text, { homeZ: 100, unit: 'mm' });
        expect([m.x, m.y, m.z].map((a) => Array.from(a))).toEqual(
          [motions.x, motions.y, motions.z].map((a) => Array.from(a)),
        );
        for (let i = 0; i < m.count; i++) {
          if (m.type[i] === 0 || m.feed[i] === motions.feed[i]) continue;
          expect(m.feed[i]).toBeLessThanOrEqual(Math.min(job.machine.maxFeed, asked.most * motions.feed[i] + 1e-6));
          expect(m.feed[i]).toBeGreaterThanOrEqual(asked.least * motions.feed[i] - 110);
        }
      }),
      { seed: 8, numRuns: 60 },
    );
  });

  test('the spindle stays below what is asked', () => {
    const greatest = Math.max(...proof.samples.load);
    const { text } = levelFeed(input(), { ...LEVEL_DEFAULTS, power: greatest / 2, least: 0.1 });
    expect(Math.max(...proved(text).samples.load)).toBeLessThanOrEqual((greatest / 2) * 1.01);
  });

  test('inch programs stay in inches; feeds in time or by the turn are left alone', () => {
    const inches =
      'G20\n' +
      HEAD.replace('G21 ', '').replace('Z30', 'Z1.2').replace('X-12 Y-4', 'X-.5 Y-.1575') +
      'G1 Z-.2 F35\nX3.6 F63\nG0 Z1.2\nX-.5 Y1\nG1 Z-.2\nX3.6\nM30\n';
    const of = proved(inches);
    const { text } = levelFeed(input(inches, of));
    const feeds = [...text.matchAll(/F([\d.]+)/g)].map((f) => Number(f[1]));
    expect(Math.max(...feeds)).toBeLessThan(140);
    for (const odd of ['G93\nG1 X5 F2\n', 'G95 G1 X5 F.1\n', 'M98 P5\n'])
      expect(levelFeed(input(HEAD + odd)).findings.map((f) => f.code)).toEqual(['not-levelled']);
  });
});

describe('step by step', () => {
  test('time and metal by operation; a step that cuts air says so at its line', () => {
    const once = withOperation(
      jobWith({ type: 'rectangle', width: 30, height: 20, radius: 5 }),
      'pocket',
      ['f2'],
      tool(7),
    );
    const twice = withOperation(once, 'pocket', ['f2'], tool(7));
    const { programs } = postSetup(twice, twice.setups[0], planSetup(twice, twice.setups[0]));
    const [{ text, sections }] = programs;
    const { steps, findings, removed, read } = proveProgram(twice, twice.setups[0], text, 0.14, { sections });
    expect(steps).toHaveLength(2);
    expect(steps[0].removed).toBeCloseTo(removed, 3);
    expect(steps[1].removed).toBe(0);
    const idle = findings.filter((f) => f.code === 'removed-nothing');
    expect(idle).toHaveLength(1);
    expect(idle[0].place).toMatchObject({ operation: steps[1].operationId });
    expect(idle[0].place.line).toBe(read.motions.line[steps[1].motion]);
    expect(idle[0].place.line).toBeGreaterThanOrEqual(sections[1].line);
  });
});
