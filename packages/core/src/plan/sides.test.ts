import fc from 'fast-check';
import { jobWith, post, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { cutLength } from '../../testing/paths';
import { Feature } from '../part/plate/feature';
import { modelOf } from '../part/plate/model';
import { drawnFrom, seenFrom } from '../part/plate/side';
import { UPS, Up, back, isOnSide, turnBetween, turnPoint } from '../part/plate/turn';
import { pileOf, volumeOf } from '../stock/height/field';
import { newFeature } from '../part/plate/new';
import { addSetup, withoutSetup } from '../document/edit';
import { Job, Setup } from '../document/job';
import { joinPrograms } from './joined';
import { leavings } from './leavings';
import { leftBefore, proveProgram } from './prove';
import { planFindings, planSetup, postSetup } from './pipeline';
import { readJob } from './documents';
import { TAGS } from '../path/path';
import { Operation } from '../document/operation';
import { TOOLS } from '../shop/library';
import { groundOf, heightsOf } from './ground';

/** Top or underside up. */
const FLAT = UPS.filter((up) => !isOnSide(up));
const [TOP, SIDEWAYS, FORWARDS, HALF] = FLAT;

/** A plate 80 x 50 x 10 with a pocket 24 x 18 x 4 from above at X 25 Y 20 and a bore of 12 through at X 60 Y 30. */
function plate(): Job {
  const pocket = { type: 'rectangle', width: 24, height: 18, radius: 4 } as const;
  const job = jobWith(pocket, { x: 25, y: 20, depth: 4 });
  const bore = newFeature(job.part.features, 'hole', 'Bore', { type: 'round', diameter: 12 }, { x: 60, y: 30 });
  return { ...job, part: { ...job.part, features: [...job.part.features, bore] } };
}

/** The job with a second setup that lies otherwise and starts from what the first leaves. */
function turned(job: Job, up: Setup['up'], more: Partial<Setup> = {}): Job {
  const second = { ...job.setups[0], id: 's2', name: 'Below', up, operations: [], ...more };
  return { ...job, setups: [job.setups[0], { ...second, stock: { ...second.stock, shape: 'as left' as const } }] };
}

const inSecond = (job: Job, kind: string, targets: string[], number: number, params = {}): Job => {
  const [first, second] = job.setups;
  const { tools, setups } = withOperation({ ...job, setups: [second] }, kind, targets, tool(number), params);
  // `withOperation` works on the first setup there is.
  return { ...job, tools, setups: [first, { ...setups[0], operations: setups[0].operations }] };
};

describe('the part as it lies', () => {
  test('turned over, what goes through is seen where it comes out, what does not is gone', () => {
    const { part } = plate();
    expect(seenFrom(part, TOP)).toBe(part);
    const below = seenFrom(part, SIDEWAYS);
    expect(below.features.map((f) => f.id)).toEqual(['f1', 'f3']);
    const [hole] = modelOf(below).holes;
    expect(hole.centre.x).toBeCloseTo(80 - 60, 9);
    expect(hole.centre.y).toBeCloseTo(30, 9);
    const [forwards] = modelOf(seenFrom(part, FORWARDS)).holes;
    expect(forwards.centre.x).toBeCloseTo(60, 9);
    expect(forwards.centre.y).toBeCloseTo(50 - 30, 9);
  });

  test('what is cut from below is seen from there only, and broken edges stay on their side', () => {
    const { part } = plate();
    const [outline, pocket, bore] = part.features;
    const edge = { form: 'chamfer' as const, size: 0.5, angle: 90 };
    const below: Feature = { ...pocket, id: 'f4', side: 'underside' };
    const both = { ...part, features: [{ ...outline, edge }, pocket, { ...bore, edge }, below] };
    expect(seenFrom(both, TOP).features.map((f) => f.id)).toEqual(['f1', 'f2', 'f3']);
    const seen = seenFrom(both, FORWARDS);
    expect(seen.features.map((f) => f.id)).toEqual(['f1', 'f3', 'f4']);
    expect(seen.features.every((f) => !f.edge)).toBe(true);
  });

  test('turned there and back everything stands where it stood, patterns too', () => {
    const far = fc.double({ min: -40, max: 40, noNaN: true });
    fc.assert(
      fc.property(far, far, far, fc.constantFrom(...FLAT.slice(1)), (x, y, turn, up) => {
        const { part } = plate();
        const pattern = { type: 'circle' as const, count: 5, rows: 1, dx: 0, dy: 0, centreX: 30, centreY: 22 };
        const hole = newFeature(
          part.features,
          'hole',
          'Ring',
          { type: 'slot', length: 5, width: 3 },
          { x, y, turn, pattern },
        );
        const whole = { ...part, features: [...part.features, hole] };
        const seen = seenFrom(whole, up).features.find((f) => f.id === hole.id)!;
        const drawn = drawnFrom(seen, whole, up);
        expect(drawn.x).toBeCloseTo(x, 9);
        expect(drawn.y).toBeCloseTo(y, 9);
        expect(Math.cos(((drawn.turn - turn) * Math.PI) / 90)).toBeCloseTo(1, 9);
        expect(drawn.pattern).toEqual(pattern);
      }),
      { seed: 4, numRuns: 50 },
    );
  });

  test('two turns make one, and a turn and its way back none', () => {
    expect(turnBetween(TOP, SIDEWAYS)).toEqual({ takes: [0, 1, 2], flips: [true, false, true] });
    expect(turnBetween(SIDEWAYS, HALF)).toEqual({ takes: [0, 1, 2], flips: [false, true, true] });
    const [about, p] = [
      { x: 40, y: 25 },
      { x: 7, y: 31 },
    ];
    for (const from of FLAT) {
      for (const to of FLAT) {
        const there = turnPoint(turnBetween(TOP, from), p, about);
        expect(turnPoint(turnBetween(from, to), there, about)).toEqual(turnPoint(turnBetween(TOP, to), p, about));
        expect(turnBetween(to, from)).toEqual(back(turnBetween(from, to)));
      }
      const [hole] = modelOf(seenFrom(plate().part, from)).holes;
      const { x, y } = turnPoint(turnBetween(TOP, from), { x: 60, y: 30 }, about);
      expect(hole.centre.x).toBeCloseTo(x, 9);
      expect(hole.centre.y).toBeCloseTo(y, 9);
    }
    // A quarter to the left, seen from above, brings the right end to the back.
    expect(turnPoint(turnBetween(TOP, 'top, turned left'), { x: 80, y: 25 }, about)).toEqual({ x: 40, y: 65 });
  });

  test.each(['line', 'grid'] as const)('every copy of a %s comes to lie where it should', (type) => {
    const { part } = plate();
    const pattern = { type, count: 3, rows: 2, dx: 9, dy: 5, centreX: 0, centreY: 0 };
    const shape = { type: 'round' as const, diameter: 3 };
    const holes = newFeature(part.features, 'hole', 'Holes', shape, { x: 20, y: 12, pattern });
    const whole = { ...part, features: [part.features[0], holes] };
    const places = (up: Up) => modelOf(seenFrom(whole, up)).holes.map((h) => h.centre);
    for (const up of FLAT) {
      const want = places(TOP).map((p) => turnPoint(turnBetween(TOP, up), p, { x: 40, y: 25 }));
      const text = (all: { x: number; y: number }[]) => all.map((p) => `${p.x.toFixed(6)} ${p.y.toFixed(6)}`).sort();
      expect(text(places(up))).toEqual(text(want));
    }
  });

  test('job files say it, and refuse what is none', () => {
    const job = turned(plate(), SIDEWAYS);
    expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
    const odd = { ...job, setups: [{ ...job.setups[0], up: 'upright' }] };
    expect(readJob(JSON.parse(JSON.stringify(odd))).findings[0].place.field).toBe('setups.0.up');
  });
});

const CELL = 0.14;
const COARSE = 0.25;
/** First setup: the top faced, the pocket cut, the bore milled through. */
function firstCut(): Job {
  const faced = withOperation(plate(), 'face', [], tool(1));
  const pocketed = withOperation(faced, 'pocket', ['f2'], tool(7));
  return withOperation(pocketed, 'helical-bore', ['f3'], tool(7), { breakthrough: 6.2 });
}

function proveSetup(job: Job, setup: Setup) {
  const { programs, findings } = postSetup(job, setup, planSetup(job, setup));
  expect(findings).toEqual([]);
  const { left, findings: before } = leftBefore(job, setup, CELL);
  expect(before).toEqual([]);
  return proveProgram(job, setup, joinPrograms(programs).text, CELL, { left });
}

describe('stock that is carried on', () => {
  const pocketArea = 24 * 18 - (4 - Math.PI) * 16;
  const block = 84 * 54 * 17;
  const afterFirst = block - 84 * 54 * 1 - pocketArea * 4 - Math.PI * 36 * 16;

  test.each(FLAT.slice(1))('%s: what is left has the volume that closed forms give, each thing in its place', (up) => {
    const job = turned(firstCut(), up);
    const { field, on } = leftBefore(job, job.setups[1], COARSE).left!;
    expect(Math.abs(volumeOf(field, -1e6) / afterFirst - 1)).toBeLessThan(0.003);
    const { stock } = groundOf(job, job.setups[1]);
    const isOver = up.startsWith('underside');
    expect([stock.top, stock.bottom]).toEqual(isOver ? [6, -10] : [0, -16]);
    expect(heightsOf(job, job.setups[1])).toEqual({ top: stock.top, bottom: stock.bottom });
    const grid = { x0: field.x0, y0: field.y0, cell: COARSE / 2, nx: 2 * field.nx, ny: 2 * field.ny };
    for (const it of [field, on(grid)]) {
      const pileAt = (x: number, y: number) => {
        const p = turnPoint(turnBetween(TOP, up), { x, y }, { x: 40, y: 25 });
        return pileOf(it, Math.floor((p.y - it.y0) / it.cell) * it.nx + Math.floor((p.x - it.x0) / it.cell), -16);
      };
      // Turned over, the pocket is a void below: over it 6 mm of floor and 6 mm of stock.
      const [top, low] = pileAt(25, 20);
      expect([top, low].map((z) => Math.round(z * 1000) / 1000)).toEqual(isOver ? [6, -6] : [-4, -16]);
      expect(pileAt(60, 30)).toEqual([]);
      // The far corner of the pocket, and metal just beyond it.
      expect(pileAt(25 + 11, 20 - 5)).toEqual([top, low]);
      expect(pileAt(25 + 13, 20 - 5)).not.toEqual([top, low]);
      expect(pileAt(25 + 5, 20 - 10)).not.toEqual([top, low]);
    }
  });

  test.each(['top, turned left', 'top, turned right', 'underside, turned sideways and left'] as const)(
    '%s: a slot is cut in the second setup where it is drawn, beside what the first left',
    (up) => {
      const base = firstCut();
      const side = up.startsWith('top') ? undefined : ('underside' as const);
      const shape = { type: 'slot' as const, length: 20, width: 8 };
      const slot = newFeature(base.part.features, 'pocket', 'Slot', shape, { x: 60, y: 12, turn: 20, depth: 3, side });
      const drawn = { ...base, part: { ...base.part, features: [...base.part.features, slot] } };
      const faced = inSecond(turned(drawn, up), 'face', [], 1);
      const job = inSecond(side ? faced : turned(drawn, up), 'pocket', [slot.id], 7);
      const { findings, owner, field } = proveSetup(job, job.setups[1]);
      expect(findings).toEqual([]);
      const p = turnPoint(turnBetween(TOP, up), { x: 60, y: 12 }, { x: 40, y: 25 });
      const i = Math.floor((p.y - field.y0) / CELL) * field.nx + Math.floor((p.x - field.x0) / CELL);
      expect(owner[i]).toBeGreaterThan(0);
      expect(field.height[i]).toBeCloseTo(-3, 4);
    },
  );

  test('the underside is faced: 6 mm of all that stands, not of the bore that is open', () => {
    const job = inSecond(turned(firstCut(), SIDEWAYS), 'face', [], 1);
    const proof = proveSetup(job, job.setups[1]);
    const wanted = (84 * 54 - Math.PI * 36) * 6;
    expect(Math.abs((proof.removed * 1000) / wanted - 1)).toBeLessThan(0.005);
    expect(proof.findings).toEqual([]);
  });

  test('a hole from below breaks through into the pocket: only its floor is taken', () => {
    const base = firstCut();
    const hole = newFeature(
      base.part.features,
      'hole',
      'Drain',
      { type: 'round', diameter: 5 },
      {
        x: 25,
        y: 20,
        depth: 8,
        through: false,
        side: 'underside',
      },
    );
    const drawn = { ...base, part: { ...base.part, features: [...base.part.features, hole] } };
    const faced = inSecond(turned(drawn, FORWARDS), 'face', [], 1);
    const drilled = inSecond(faced, 'drill', [hole.id], 15);
    const before = proveSetup(faced, faced.setups[1]).removed;
    const after = proveSetup(drilled, drilled.setups[1]).removed;
    expect(((after - before) * 1000) / (Math.PI * 6.25 * 6)).toBeCloseTo(1, 1);
  });

  test('a cut from below that is too deep opens the pocket: a gouge at its line', () => {
    const base = firstCut();
    const deep = newFeature(
      base.part.features,
      'pocket',
      'Below',
      { type: 'rectangle', width: 20, height: 14, radius: 4 },
      {
        x: 25,
        y: 20,
        depth: 3,
        side: 'underside',
      },
    );
    const drawn = { ...base, part: { ...base.part, features: [...base.part.features, deep] } };
    const job = inSecond(inSecond(turned(drawn, SIDEWAYS), 'face', [], 1), 'pocket', [deep.id], 7);
    expect(proveSetup(job, job.setups[1]).findings).toEqual([]);
    const { programs } = postSetup(job, job.setups[1], planSetup(job, job.setups[1]));
    const text = programs[0].text.replace(/Z-9\./g, 'Z-13.');
    expect(text).not.toBe(programs[0].text);
    const { left } = leftBefore(job, job.setups[1], CELL);
    const found = proveProgram(job, job.setups[1], text, CELL, { left }).findings;
    expect(found.map((f) => f.code)).toContain('gouge');
  });

  test.each([
    ['a rapid through what the first setup left', 'rapid-through-stock', 'G0 X5 Y5\nG0 Z-1\n', 6],
    ['a cut too deep for the flutes', 'too-deep-for-flutes', 'G0 X-20 Y25\nG1 Z-15 F300\nG1 X90\n', 7],
    ['a cut below the work', 'below-stock', 'G0 X-20 Y25\nG1 Z-17 F300\nG1 X90\n', 7],
  ])('%s is found at its line', (_, code, body, line) => {
    const job = inSecond(turned(firstCut(), SIDEWAYS), 'face', [], 1);
    const tools = [...job.tools.filter((t) => t.number !== 4), { ...tool(4), fluteLength: 12 }];
    const text = `G21 G90 G54\nT4 M6\nS5000 M3\nG0 Z20\n${body}M30\n`;
    const { left } = leftBefore(job, job.setups[1], CELL);
    const { findings } = proveProgram({ ...job, tools }, job.setups[1], text, CELL, { left });
    expect(findings.filter((f) => f.code === code).map((f) => f.place.line)).toEqual([line]);
  });

  test('a hole from below that comes out over the wall of the pocket is told, one in its middle is not', () => {
    const job = inSecond(turned(firstCut(), FORWARDS), 'drill', [], 15);
    const { left } = leftBefore(job, job.setups[1], CELL);
    const codes = (x: number) => {
      const text = `G21 G90 G54\nT15 M6\nS3000 M3\nG0 X${x} Y${32}\nZ2\nG1 Z-14 F200\nG0 Z30\nM30\n`;
      const { findings } = proveProgram(job, job.setups[1], text, CELL, { left });
      return findings.filter((f) => f.code === 'drill-leaves-over-edge').map((f) => f.place.line);
    };
    // Zero is the stock's corner, 2 mm beside the part; the pocket reaches from X 13 to X 37 of the part.
    expect(codes(27)).toEqual([]);
    expect(codes(39)).toEqual([6]);
  });

  test('what was cut loose does not come along', () => {
    const job = turned(withOperation(plate(), 'contour', ['f1'], tool(4), { breakthrough: 6.2 }), SIDEWAYS);
    const { programs } = postSetup(job, job.setups[0], planSetup(job, job.setups[0]));
    const proof = proveProgram(job, job.setups[0], joinPrograms(programs).text, CELL);
    const { field, on } = leavings(job, groundOf(job, job.setups[0]), job.setups[1], proof);
    const around = pileOf(field, 0, NaN);
    expect(around).toEqual([]);
    expect(Math.abs(volumeOf(field, -1e6) / (80 * 50 * 17) - 1)).toBeLessThan(0.01);
    const { x0, y0, nx, ny, cell } = field;
    const finer = on({ x0, y0, cell: cell / 2, nx: 2 * nx, ny: 2 * ny });
    expect(pileOf(finer, 0, NaN)).toEqual([]);
    expect(Math.abs(volumeOf(finer, -1e6) / (80 * 50 * 17) - 1)).toBeLessThan(0.005);
  });

  test('where the first setup has no program, the second says so', () => {
    const job = turned(plate(), SIDEWAYS);
    expect(leftBefore(job, job.setups[1]).findings.map((f) => f.code)).toEqual(['earlier-setup']);
  });
});

describe('a later setup knows what an earlier one cut', () => {
  /** The plate with a tapped hole M6 through at X 60 Y 12, its core drilled in the first setup. */
  function drilled(): Job {
    const base = plate();
    const shape = { type: 'round' as const, diameter: 5 };
    const hole = newFeature(base.part.features, 'hole', 'Stud', shape, { x: 60, y: 12, through: true, thread: 'M6' });
    const drawn = { ...base, part: { ...base.part, features: [...base.part.features, hole] } };
    const flush = { ...drawn.setups[0].stock, top: 0, bottom: 0 };
    const job = { ...drawn, setups: [{ ...drawn.setups[0], stock: flush }] };
    return withOperation(job, 'drill', [hole.id], tool(15));
  }
  const m6 = TOOLS.find((t) => t.kind === 'tap' && t.diameter === 6)!;
  const planned = (job: Job) => planSetup(job, job.setups[1]);
  const codes = (job: Job) => planFindings(planned(job)).map((f) => f.code);

  test.each(FLAT)('a hole drilled in the first is tapped in the second: %s', (up) => {
    const job = drilled();
    const hole = job.part.features[job.part.features.length - 1].id;
    const second = (j: Job) => {
      const [first, own] = turned(j, up).setups;
      const { tools, setups } = withOperation({ ...j, setups: [own] }, 'tap', [hole], { ...m6, number: 9 });
      return { ...j, tools, setups: [first, setups[0]] };
    };
    expect(codes(second(job))).toEqual([]);
    const off = (o: Operation) => ({ ...o, on: false });
    const undrilled = { ...job, setups: [{ ...job.setups[0], operations: job.setups[0].operations.map(off) }] };
    expect(codes(second(undrilled))).toContain('hole-not-made');
  });

  test('what the first setup cleared is not cleared again, from above or from below', () => {
    const shape = { type: 'rectangle', width: 18, height: 12, radius: 4 } as const;
    const base = jobWith(shape, { through: true });
    const cleared = withOperation(base, 'clear', ['f2'], tool(7), { breakthrough: 6.2 });
    for (const up of [TOP, SIDEWAYS, 'top, turned left'] as const) {
      const again = inSecond(turned(cleared, up), 'clear', ['f2'], 7, { finish: false });
      const { path, findings } = planned(again).planned[0].plan;
      expect(findings.map((f) => f.code)).toContain('nothing-left');
      expect(cutLength(path)).toBe(0);
      const off = cleared.setups[0].operations.map((o) => ({ ...o, on: false }));
      const uncut = { ...again, setups: [{ ...again.setups[0], operations: off }, again.setups[1]] };
      expect(cutLength(planned(uncut).planned[0].plan.path)).toBeGreaterThan(200);
    }
  });

  test('a hole drilled from the other side is where a clearing goes down', () => {
    const shape = { type: 'rectangle', width: 30, height: 20, radius: 5 } as const;
    const base = jobWith(shape, { through: true, x: 40, y: 25 });
    const entry = newFeature(base.part.features, 'hole', 'Entry', { type: 'round', diameter: 8 }, { x: 40, y: 25 });
    const flush = { ...base.setups[0].stock, top: 0, bottom: 0 };
    const drawn = { ...base, part: { ...base.part, features: [...base.part.features, { ...entry, through: true }] } };
    const bored = withOperation(
      { ...drawn, setups: [{ ...base.setups[0], stock: flush }] },
      'drill',
      [entry.id],
      TOOLS.find((t) => t.kind === 'drill' && t.diameter === 8)!,
    );
    const job = inSecond(turned(bored, SIDEWAYS), 'clear', ['f2'], 7, { finish: false });
    const { path } = planned(job).planned[0].plan;
    expect(Math.hypot(path.x[0] - 40, path.y[0] - 25)).toBeLessThan(1);
    expect([...path.tag].filter((t) => TAGS[t] === 'entry')).toHaveLength(0);
  });
});

test('programs of both setups are told apart by name and number', () => {
  const job = inSecond(turned(firstCut(), SIDEWAYS), 'face', [], 1);
  const names = job.setups.map((s) => postSetup(job, s, planSetup(job, s)).programs[0].fileName);
  expect(new Set(names).size).toBe(2);
  expect(post(job).text).toContain('O1001');
});

test('a setup is added turned over, and taken out again; the first never starts from leavings', () => {
  const job = addSetup(plate());
  expect(job.setups.map((s) => [s.id, s.up, s.stock.shape])).toEqual([
    ['s1', undefined, 'box'],
    ['s2', SIDEWAYS, 'as left'],
  ]);
  expect(readJob(JSON.parse(JSON.stringify(job))).findings).toEqual([]);
  expect(addSetup(job).setups[2].up).toBe(TOP);
  expect(withoutSetup(job, 's1').setups.map((s) => s.stock.shape)).toEqual(['box']);
  expect(withoutSetup(withoutSetup(job, 's2'), 's1').setups).toHaveLength(1);
});
