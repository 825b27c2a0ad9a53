import fc from 'fast-check';
import { HOLDERS, MACHINES, MATERIALS, TOOLS } from '../shop/library';
import { Material } from '../shop/material';
import { Machine } from '../machine/machine';
import { Tool, formOf, isAxial, isBeam } from '../shop/tool';
import { biteWorking, deepestLayer, suggestBite, suggestSteadyBite } from './bite';
import { boldnessWord, inRange, ownAt } from './boldness';
import { atPeak, cutState, thinnestChip } from './cut';
import { departure } from './departure';
import { suggestEntry, suggestFinish } from './entries';
import { lifts } from './lift';
import { GRIP_SHARE, POWER_SHARE, bendLimit, feedsAllowed } from './limits';
import { suggest } from './suggest';
import { Situation } from './suggestion';

const mills = MACHINES.filter((x) => x.kind !== 'lathe');
const [bench, , mid] = MACHINES;
const [alu] = MATERIALS;
const steel = MATERIALS[3];
const numbered = (n: number) => TOOLS.find((t) => t.number === n)!;
const cut = (
  tool: Tool,
  material: Material,
  machine: Machine,
  ae: number,
  ap: number,
  more: Partial<Situation> = {},
): Situation => ({
  tool,
  material,
  machine,
  ae,
  ap,
  ...more,
});

/** Any tool of the rack, cut down to any stick-out, with any bite in any material on any machine at any boldness. */
const situation = fc
  .record({
    tool: fc.constantFrom(...TOOLS),
    material: fc.constantFrom(...MATERIALS),
    machine: fc.constantFrom(...mills),
    holder: fc.constantFrom(...HOLDERS),
    aeShare: fc.double({ min: 0.005, max: 1, noNaN: true }),
    peakShare: fc.double({ min: 0, max: 1, noNaN: true }),
    apShare: fc.double({ min: 0.01, max: 1, noNaN: true }),
    stick: fc.double({ min: 1, max: 3, noNaN: true }),
    boldness: fc.double({ min: 0, max: 1, noNaN: true }),
    asked: fc.record({
      rpm: fc.option(fc.integer({ min: 50, max: 40000 }), { nil: undefined }),
      feed: fc.option(fc.integer({ min: 20, max: 20000 }), { nil: undefined }),
    }),
  })
  .map(({ tool, holder, aeShare, peakShare, apShare, stick, ...rest }): Situation => ({
    ...rest,
    tool: { ...tool, holder, stickOut: tool.stickOut * stick },
    ae: tool.diameter * aeShare,
    peakAe: tool.diameter * Math.max(aeShare, peakShare),
    ap: tool.fluteLength * apShare,
  }));

describe('no suggestion is outside a limit', () => {
  test('of machine, holder, spindle, bending, grip or rubbing, for anything one can ask', () => {
    fc.assert(
      fc.property(situation, (s) => {
        const found = suggest(s);
        const { rpm, feed } = found;
        expect(rpm).toBeLessThanOrEqual(s.machine.maxRpm);
        expect(rpm).toBeGreaterThanOrEqual(s.machine.minRpm);
        expect(feed).toBeGreaterThan(0);
        if (found.possible || formOf(s.tool) !== 'tap') expect(feed).toBeLessThanOrEqual(s.machine.maxFeed + 1e-9);
        expect(found.entryFeed).toBeLessThanOrEqual(feed + 1e-9);
        if (s.asked?.feed && formOf(s.tool) !== 'tap') expect(feed).toBeLessThanOrEqual(s.asked.feed + 1e-9);
        const state = cutState(atPeak({ ...s, rpm, feed }));
        // A tap has one torque: where the spindle or the holder does not carry it, no speed helps.
        if (formOf(s.tool) === 'tap' && !found.possible) return;
        expect(state.power).toBeLessThanOrEqual(state.powerAvailable * POWER_SHARE * (1 + 1e-9));
        expect(state.deflection).toBeLessThanOrEqual(bendLimit({}).most * (1 + 1e-9));
        expect(state.grip).toBeLessThanOrEqual(GRIP_SHARE * (1 + 1e-9));
        if (!found.possible) expect(found.limitText.length).toBeGreaterThan(20);
        else {
          expect(rpm).toBeLessThanOrEqual(s.tool.holder.balancedRpm + 0.5);
          if (formOf(s.tool) !== 'tap')
            expect(cutState({ ...s, rpm, feed }).largestChip).toBeGreaterThanOrEqual(
              thinnestChip(s.tool, s.material) * (1 - 1e-6),
            );
        }
        expect(found.chain.filter((c) => c.governs).length).toBeGreaterThan(0);
      }),
      { numRuns: 1500, seed: 11 },
    );
  });

  test('every tool of the rack has a possible cut at its suggested bite on the machining centre', () => {
    for (const material of MATERIALS)
      for (const tool of TOOLS.filter((t) => formOf(t) !== 'tap' && !isBeam(t))) {
        const s = cut(tool, material, mid, 0, 0, suggestBite(tool, material, mid));
        expect([tool.name, material.name, suggest(s).possible]).toEqual([tool.name, material.name, true]);
      }
  });
});

test('a tap its spindle or its holder does not carry is told, one they carry is not', () => {
  const tap = TOOLS.find((t) => t.kind === 'tap' && t.pitch === 1)!;
  const coarse: Tool = { ...tap, diameter: 20, pitch: 2.5, shankDiameter: 16 };
  const on = (t: Tool, machine: Machine) => suggest(cut(t, steel, machine, 0, 0));
  expect(on(tap, mid)).toMatchObject({ possible: true });
  expect(on(coarse, bench)).toMatchObject({ possible: false });
  const weak = { ...tap, holder: { ...tap.holder, gripTorque: 5 } };
  expect(on(weak, mid)).toMatchObject({ possible: false, limit: 'grip' });
});

describe('limits are monotone', () => {
  const feedOf = (s: Situation) => suggest({ ...s, asked: undefined }).feed;
  const rateOf = (s: Situation) => {
    const { rpm, feed } = suggest({ ...s, asked: undefined });
    return cutState({ ...s, rpm, feed }).removalRate;
  };
  const loose = (v: number) => v * 1.011 + 0.02;

  test('a longer stick-out or a wider worst place never raises the feed, a deeper layer never what spindle and grip allow', () => {
    fc.assert(
      fc.property(situation, fc.double({ min: 1, max: 2, noNaN: true }), (s, more) => {
        if (isAxial(s.tool) || formOf(s.tool) === 'cone' || s.tool.cornerRadius > 0) return;
        const now = feedOf(s);
        // Bending may allow more again in a deeper layer: its load moves up the flutes.
        const cut = { ...s, rpm: 2000, feed: 500 };
        const [flat, deep] = [cut, { ...cut, ap: Math.min(s.tool.fluteLength, s.ap * more) }].map(feedsAllowed);
        expect(deep['spindle power']).toBeLessThanOrEqual(flat['spindle power'] * (1 + 1e-9));
        expect(deep.grip).toBeLessThanOrEqual(flat.grip * (1 + 1e-9));
        expect(feedOf({ ...s, tool: { ...s.tool, stickOut: s.tool.stickOut * more } })).toBeLessThanOrEqual(loose(now));
        expect(feedOf({ ...s, peakAe: Math.min(s.tool.diameter, s.peakAe! * more) })).toBeLessThanOrEqual(loose(now));
      }),
      { numRuns: 400, seed: 5 },
    );
  });

  test('a stronger spindle, a faster axis or a better grip never lowers the removal rate', () => {
    fc.assert(
      fc.property(situation, fc.double({ min: 1, max: 3, noNaN: true }), (s, more) => {
        const now = rateOf(s);
        const spindle = s.machine.spindle.map((p) => ({ ...p, kW: p.kW * more }));
        expect(loose(rateOf({ ...s, machine: { ...s.machine, spindle } }))).toBeGreaterThanOrEqual(now);
        expect(
          loose(rateOf({ ...s, machine: { ...s.machine, maxFeed: s.machine.maxFeed * more } })),
        ).toBeGreaterThanOrEqual(now);
        const holder = { ...s.tool.holder, gripTorque: s.tool.holder.gripTorque * more };
        expect(loose(rateOf({ ...s, tool: { ...s.tool, holder } }))).toBeGreaterThanOrEqual(now);
      }),
      { numRuns: 400, seed: 6 },
    );
  });

  test('boldness never lowers speed or chip', () => {
    fc.assert(
      fc.property(situation, fc.double({ min: 0, max: 1, noNaN: true }), (s, other) => {
        const [a, b] = [s.boldness!, other].sort((x, y) => x - y);
        expect(loose(rateOf({ ...s, boldness: b }))).toBeGreaterThanOrEqual(rateOf({ ...s, boldness: a }));
      }),
      { numRuns: 300, seed: 7 },
    );
  });
});

describe('the limit that governs is named', () => {
  const limit = (s: Situation) => suggest(s).limit;
  const t4 = numbered(4);
  test.each([
    ['spindle speed', cut(numbered(10), alu, bench, 1, 0.5)],
    ['spindle power', cut(t4, alu, bench, 10, 8)],
    ['machine feed', cut(numbered(2), alu, { ...mid, maxFeed: 900 }, 2, 4)],
    ['bending', cut({ ...numbered(7), stickOut: 60 }, steel, mid, 4, 8)],
    ['grip', cut({ ...numbered(23), stickOut: 30, holder: { ...HOLDERS[0], gripTorque: 6 } }, steel, mid, 6, 12)],
    ['holder balance', cut({ ...numbered(9), holder: HOLDERS.find((h) => h.id === 'drill-chuck')! }, alu, mid, 1, 1)],
    ['slowest spindle', cut(numbered(2), steel, MACHINES[1], 0.5, 0.2)],
    ['range', cut(numbered(2), steel, mid, 2, 3)],
    ['asked', cut(t4, alu, mid, 3, 5, { asked: { feed: 500 } })],
    ['pitch', cut(numbered(39), steel, mid, 0, 0)],
  ])('%s', (expected, s) => expect(limit(s)).toBe(expected));

  test('with its own step of the working, and each input has a place', () => {
    const found = suggest(cut(t4, alu, bench, 10, 8));
    expect(found.working.map((w) => w.what)).toContain('Limit: spindle power');
    expect(found.working.every((w) => w.source && w.formula && w.result)).toBe(true);
    expect(found.chain.find((c) => c.id === 'spindle power')).toMatchObject({ governs: true, on: 'feed' });
  });
});

describe('both ways round', () => {
  test('a machine that feeds no faster keeps the chip by turning slower', () => {
    const free = suggest(cut(numbered(5), alu, mid, 2, 5));
    const capped = suggest(cut(numbered(5), alu, mid, 2, 5, { asked: { feed: 800 } }));
    expect(capped.feed).toBeLessThanOrEqual(800);
    expect(capped.rpm).toBeLessThan(free.rpm);
    const careful = suggest(cut(numbered(5), alu, mid, 2, 5, { boldness: 0 }));
    expect(capped.feed / capped.rpm).toBeGreaterThan((careful.feed / careful.rpm) * 0.97);
  });

  test('a speed that was given is kept within hard limits', () => {
    expect(suggest(cut(numbered(5), alu, mid, 2, 5, { asked: { rpm: 12000 } })).rpm).toBe(12000);
    expect(suggest(cut(numbered(5), alu, mid, 2, 5, { asked: { rpm: 30000 } })).rpm).toBe(12000);
  });

  test('chip from feed and feed from chip invert each other', () => {
    fc.assert(
      fc.property(situation, (s) => {
        if (isAxial(s.tool)) return;
        const { rpm, feed } = suggest(s);
        const state = cutState({ ...s, rpm, feed });
        expect(state.chipLoad * rpm * s.tool.flutes).toBeCloseTo(feed, 9);
        const twice = cutState({ ...s, rpm, feed: 2 * feed });
        expect(twice.largestChip).toBeCloseTo(2 * state.largestChip, 9);
      }),
      { numRuns: 200, seed: 8 },
    );
  });

  test('inch and metric agree: the same cut worked in inches', () => {
    const [D, ae, ap, rpm, ipm] = [0.5, 0.1, 0.25, 4000, 32];
    const tool = { ...numbered(21), diameter: D * 25.4 };
    const state = cutState({
      tool,
      material: steel,
      machine: mid,
      rpm,
      feed: ipm * 25.4,
      ae: ae * 25.4,
      ap: ap * 25.4,
    });
    expect(state.surfaceSpeed / 0.3048).toBeCloseTo((Math.PI * D * rpm) / 12, 9);
    expect(state.chipLoad / 25.4).toBeCloseTo(ipm / (rpm * 4), 12);
    expect(state.removalRate / 16.387064).toBeCloseTo(ae * ap * ipm, 9);
  });
});

test('in an inch job feeds fall on tenths of an inch a minute, still within every limit', () => {
  for (const tool of [numbered(4), numbered(20), numbered(21)]) {
    const s = cut(tool, steel, mid, 2, 3);
    const { feed } = suggest({ ...s, unit: 'inch' });
    expect((feed / 25.4) * 10).toBeCloseTo(Math.round((feed / 25.4) * 10), 4);
    expect(feed).toBeLessThanOrEqual(suggest(s).chain.find((c) => c.governs && c.on === 'feed')!.allows);
    expect(
      lifts({ ...s, unit: 'inch' }, { tools: TOOLS, holders: HOLDERS }).every(
        (l) => !/ mm/.test(l.what.replace(/T\d+.*/, '')),
      ),
    ).toBe(true);
  }
});

test('a tap’s feed is its pitch a turn, exactly, on every machine', () => {
  for (const machine of mills)
    for (const tool of TOOLS.filter((t) => formOf(t) === 'tap')) {
      const { rpm, feed, entryFeed } = suggest(cut(tool, steel, machine, 0, 0));
      expect(feed).toBe(rpm * tool.pitch);
      expect(entryFeed).toBe(feed);
    }
});

test('the shop’s own data stand before the range, and say so', () => {
  const tool = {
    ...numbered(5),
    ownData: [{ materialId: steel.id, surfaceSpeed: 140, chip: 0.05, note: 'rain-cup job' }],
  };
  const found = suggest(cut(tool, steel, mid, 2, 3));
  expect(found.rpm).toBe(Math.floor(140_000 / (Math.PI * 10) / 10) * 10);
  expect(found.working[0]).toMatchObject({ source: 'The shop’s own data: rain-cup job' });
  expect(suggest(cut(tool, alu, mid, 2, 3)).working[0].source).toMatch(/handbook/);
  expect(
    suggest(cut(tool, { ...alu, millingSpeed: { ...alu.millingSpeed, carbide: { from: 100, to: 200 } } }, mid, 2, 3))
      .working[0].source,
  ).toBe('The shop’s own value');
});

describe('boldness', () => {
  test('starts below the sheet and ends at its bold end, never beyond', () => {
    const range = { from: 100, to: 200 };
    expect([0, 0.3, 1, 7].map((b) => inRange(range, b))).toEqual([70, 100, 200, 200]);
    expect([0, 0.5, 1].map((b) => ownAt(100, b))).toEqual([70, 100, 110].map((v) => expect.closeTo(v, 9)));
    expect([0, 0.3, 0.5, 0.8, 1].map(boldnessWord)).toEqual([
      'first cut on an unknown machine',
      'careful',
      'settled',
      'brisk',
      'pushing',
    ]);
  });
});

describe('what would lift a limit', () => {
  const shop = { tools: TOOLS, holders: HOLDERS };
  test('a long tool wants to be shorter; the gain is what that cut would give', () => {
    const s = cut({ ...numbered(7), stickOut: 60 }, steel, mid, 4, 8);
    const found = lifts(s, shop);
    const shorter = found.find((l) => l.change.stickOut)!;
    const again = suggest({ ...s, tool: { ...s.tool, stickOut: shorter.change.stickOut! } });
    expect(again.feed).toBe(shorter.suggestion.feed);
    expect(shorter.gain).toBeGreaterThan(1.03);
    expect(found.map((l) => l.gain)).toEqual([...found.map((l) => l.gain)].sort((a, b) => b - a));
  });

  test('a holder that is not balanced for the speed wants another', () => {
    const s = cut({ ...numbered(9), holder: HOLDERS.find((h) => h.id === 'drill-chuck')! }, alu, mid, 1, 1);
    expect(lifts(s, shop).some((l) => l.change.holderId)).toBe(true);
  });

  test('nothing is offered that gains nothing', () => {
    for (const l of lifts(cut(numbered(2), steel, mid, 2, 3), shop)) expect(l.gain).toBeGreaterThanOrEqual(1.03);
  });
});

describe('departure from the suggestion', () => {
  const s = cut(numbered(5), alu, mid, 2, 5);
  const found = suggest(s);
  test('says how far and what it costs', () => {
    const d = departure(s, found, { rpm: found.rpm * 1.2, feed: found.feed / 2 });
    expect(d.time).toBeCloseTo(2, 9);
    expect(d.life).toBeCloseTo(0.482, 3);
    expect(d.text).toMatch(/feed 50 % below the suggested, time in cut × 2; speed 20 % over, edge life × 0.482/);
    expect(departure(s, found, found).text).toBe('as suggested');
  });
  test.each([
    ['machine feed', { rpm: 12000, feed: 12000 }],
    ['rubbing', { rpm: found.rpm, feed: found.feed / 30 }],
    ['spindle speed', { rpm: 12000, feed: 800 }],
  ])('names %s', (limit, chosen) => expect(departure(s, found, chosen).governs).toBe(limit));
});

test('entries: steeper in soft metal, shallow for an open centre; finishing leaves 0.1 to 0.4', () => {
  expect(suggestEntry(numbered(4), alu).angle).toBe(2.5);
  expect(
    suggestEntry(
      numbered(4),
      MATERIALS.find((m) => m.id === 'stainless')!,
    ).angle,
  ).toBe(1);
  expect(suggestEntry(numbered(25), alu)).toMatchObject({ angle: 1.5, diameter: 14 });
  expect([3, 10, 40].map((diameter) => suggestFinish({ ...numbered(4), diameter }).allowance)).toEqual([0.1, 0.2, 0.4]);
  expect(suggestFinish(numbered(4), 0.00025).chipLoad).toBeCloseTo(0.1, 9);
});

test('boldness moves bite and layer, wide and steady; settled is as it was, and no layer passes what carries it', () => {
  const end = numbered(4);
  for (const machine of mills)
    for (const how of ['wide', 'steady'] as const) {
      const at = (b: number) => (how === 'wide' ? suggestBite : suggestSteadyBite)(end, steel, machine, b);
      const [first, settled, pushing] = [0, 0.5, 1].map(at);
      expect(first.ae).toBeLessThan(settled.ae);
      expect(settled.ae).toBeLessThan(pushing.ae);
      expect(first.ap).toBeLessThanOrEqual(settled.ap);
      expect(pushing.ap).toBeLessThanOrEqual(
        deepestLayer(end, steel, machine, how === 'wide' ? end.diameter : pushing.ae) + 0.051,
      );
      const said = biteWorking(how, end, steel, machine, 0.5);
      expect(said.map((w) => parseFloat(w.result))).toEqual([settled.ae, settled.ap]);
    }
});
