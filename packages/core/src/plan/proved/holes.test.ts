import { atSuggestedSpeeds, jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { chainBounds } from '../../geometry/plane/chain';
import { newFeature } from '../../part/plate/new';
import { instancesOf } from '../../part/plate/shapes';
import { planSetup } from '../pipeline';
import { Job } from '../../document/job';
import { Feature, SINGLE } from '../../part/plate/feature';
import { TOOLS } from '../../shop/library';
import { KINDS } from '../../operation/registry';
import { threadRadii } from '../../operation/hole/thread-mill';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 8 };

/** A plate with holes; each operation named by kind and tool. */
function holes(diameter: number, more: Partial<Feature>, ...route: [string, number, Record<string, unknown>?][]): Job {
  const base = withStock(jobWith({ type: 'round', diameter }, { meaning: 'hole', through: true, ...more }), flush);
  return route.reduce((job, [kind, number, params]) => withOperation(job, kind, ['f2'], tool(number), params), base);
}

const clean = (job: Job, cell = 0.1) => prove(job, cell).codes.filter((c) => c !== 'below-stock');
const ROW = { ...SINGLE, type: 'line' as const, count: 3, dx: 12 };

describe('cycles', () => {
  test('a drilled and tapped row proves clean; taps go in and out in step with the spindle', () => {
    const job = holes(4.2, { thread: 'M5', x: 20, pattern: ROW }, ['drill', 13], ['drill', 14], ['tap', 37]);
    const proof = prove(job, 0.1);
    expect(proof.codes.filter((c) => c !== 'below-stock')).toEqual([]);
    const [, feed, rpm] = [
      0,
      ...['F', 'S'].map((l) => Number(new RegExp(`.*${l}([\\d.]+)`, 's').exec(proof.text)![1])),
    ];
    expect(feed).toBeCloseTo(rpm * 0.8, 1);
    expect(proof.text).toMatch(/G99 G84 X.*\n.*\n.*G98 X/);
  });

  test('holes between which a clamp stands are left at the clearance, others just above the metal', () => {
    const job = holes(5, { x: 20, pattern: ROW }, ['drill', 15]);
    const clamp = {
      id: 'c',
      kind: 'block' as const,
      name: 'Clamp',
      x: 24,
      y: 15,
      z: -10,
      width: 3,
      depth: 40,
      height: 16,
    };
    const withClamp = { ...job, setups: [{ ...job.setups[0], fixtures: [clamp] }] };
    const hops = (j: Job) => planSetup(j, j.setups[0]).planned[0].plan.cycle!.holes.map((h) => h.hop);
    expect([hops(job), hops(withClamp)]).toEqual([
      [1, 1, 10],
      [10, 1, 10],
    ]);
    expect(clean(withClamp)).toEqual([]);
  });

  test('pecks that get shorter are written out; equal ones are the control’s own', () => {
    const text = (lessen: number) => post(holes(5, {}, ['drill', 15, { method: 'peck', peck: 4, lessen }])).text;
    expect(text(0)).toContain('G83');
    expect(text(0.2)).not.toContain('G83');
    const depths = [...text(0.2).matchAll(/G1 Z(-?[\d.]+)/g)].map((m) => Number(m[1]));
    const steps = depths.map((z, i) => (i ? depths[i - 1] : 1) - z).slice(0, -1);
    expect(steps[0]).toBeCloseTo(4, 3);
    expect(steps[1]).toBeCloseTo(3.2, 3);
    expect(clean(holes(5, {}, ['drill', 15, { method: 'peck', peck: 4, lessen: 0.2 }]))).toEqual([]);
  });

  test('a stop before each hole stops spindle and coolant and starts them again', () => {
    const job = holes(4.2, { thread: 'M5', x: 20, pattern: ROW }, ['drill', 14], ['tap', 37, { stops: 'before each' }]);
    const proof = prove(job, 0.1);
    expect(proof.codes.filter((c) => c !== 'below-stock')).toEqual([]);
    expect(proof.text.match(/M9\n.*M5\n\(BLOW.*\n.*M0\n.*S\d+ M3\n.*M8/g)).toHaveLength(3);
  });

  test.each([0.3, 1, 8])('a through hole is reamed over %s mm of stock that the drill only pierced', (bottom) => {
    const job = withStock(holes(6, {}, ['drill', 15, { breakthrough: 0 }], ['ream', 35]), { bottom });
    expect(clean(atSuggestedSpeeds(job))).toEqual([]);
    const blind = withStock(holes(6, { through: false, depth: 8 }, ['drill', 15], ['ream', 35]), { bottom });
    expect(clean(atSuggestedSpeeds(blind))).toEqual([]);
  });

  test('reaming: in and out at the feed, to size', () => {
    const job = holes(6, {}, ['drill', 15], ['ream', 35]);
    expect(clean(job, 0.05)).toEqual([]);
    expect(post(job).text).toMatch(/G85 .*R1\. F/);
  });

  test('a boring head opens a milled hole to the size it is set to, stopping before it lifts if asked', () => {
    const job = holes(
      24,
      {},
      ['helical-bore', 4, { wallAllowance: 0.3, finish: false }],
      ['bore', 36, { out: 'stop and lift' }],
    );
    expect(clean(job)).toEqual([]);
    expect(post(job).text).toMatch(/G86 /);
  });

  test('a left-hand tap turns the other way', () => {
    const left = { ...tool(37), id: 'left', leftHand: true };
    const job = withOperation(holes(4.2, { thread: 'M5' }, ['drill', 14]), 'tap', ['f2'], left);
    expect(post(job).text).toMatch(/M4\n[^]*G74/);
  });

  test.each<[string, number, Partial<Feature>, [string, number, Record<string, unknown>?][], string]>([
    ['a tap without a hole', 4.2, { thread: 'M5' }, [['tap', 37]], 'hole-not-made'],
    [
      'a tap where no thread is named',
      4.2,
      {},
      [
        ['drill', 14],
        ['tap', 37],
      ],
      'no-thread',
    ],
    [
      'another thread',
      5,
      { thread: 'M6' },
      [
        ['drill', 15],
        ['tap', 37],
      ],
      'other-thread',
    ],
    [
      'a hole the tap would break in',
      3.3,
      { thread: 'M5' },
      [
        ['drill', 33],
        ['tap', 37],
      ],
      'tap-hole',
    ],
    [
      'a hole whose thread holds little',
      4.6,
      { thread: 'M5' },
      [
        ['drill', 14],
        ['tap', 37],
      ],
      'tap-thin',
    ],
    [
      'a hole for cutting under a forming tap',
      4.2,
      { thread: 'M5' },
      [
        ['drill', 14],
        ['tap', 38],
      ],
      'forming-hole',
    ],
    [
      'more thread than the hole gives',
      4.2,
      { thread: 'M5', through: false, depth: 8 },
      [
        ['drill', 14],
        ['tap', 37, { threadDepth: 7 }],
      ],
      'tap-too-deep',
    ],
    [
      'a reamer of another size',
      5,
      {},
      [
        ['drill', 14],
        ['ream', 35],
      ],
      'ream-other-size',
    ],
    [
      'a reamer before the drill',
      6,
      {},
      [
        ['ream', 35],
        ['drill', 15],
      ],
      'hole-not-made',
    ],
    [
      'a head set to another size',
      26,
      {},
      [
        ['helical-bore', 4],
        ['bore', 36],
      ],
      'head-not-set',
    ],
    [
      'a counterbore nobody drew',
      5,
      {},
      [
        ['drill', 15],
        ['counterbore', 9],
      ],
      'no-counterbore',
    ],
    [
      'a countersink narrower than its hole',
      5,
      {},
      [
        ['drill', 15],
        ['countersink', 22, { size: 'to a diameter', diameter: 4 }],
      ],
      'countersink-small',
    ],
  ])('%s is told', (_, diameter, more, route, code) => {
    expect(post(holes(diameter, more, ...route)).codes).toContain(code);
  });

  test('a control without tapping says so before anything is written', () => {
    const job = { ...holes(4.2, { thread: 'M5' }, ['drill', 14], ['tap', 37]), controllerId: 'hobby' };
    const { text, codes } = post({
      ...job,
      setups: [
        { ...job.setups[0], operations: job.setups[0].operations.map((o) => ({ ...o, coolant: 'off' as const })) },
      ],
    });
    expect([text, codes]).toEqual(['', expect.arrayContaining(['no-cycle'])]);
  });
});

describe('mouths of holes', () => {
  const head = { counterbore: { diameter: 10, depth: 5.5 } };

  test.each([
    ['straight down', 4],
    ['on helices', 7],
  ])('a counterbore %s proves clean', (_, number) => {
    const job = holes(5, head, ['drill', 15], ['counterbore', number]);
    expect(clean(job, 0.05)).toEqual([]);
    expect(post(job).text.includes('G82')).toBe(number === 4);
  });

  test('a drawn countersink is made, and missed where it is not', () => {
    const edge = { edge: { form: 'chamfer' as const, size: 1.5, angle: 90 } };
    expect(clean(holes(5, edge, ['drill', 15], ['countersink', 22]), 0.05)).toEqual([]);
    expect(clean(holes(5, edge, ['drill', 15]), 0.05)).toEqual(['metal-left']);
    expect(clean(holes(5, {}, ['drill', 15], ['countersink', 22, { diameter: 7 }]), 0.05)).toEqual([]);
  });
});

describe('thread milling', () => {
  test('inside: M14x1 with many teeth and with one, right and left, up and down', () => {
    for (const number of [40, 41])
      for (const hand of ['right', 'left'])
        for (const direction of ['climb', 'conventional']) {
          const job = holes(
            13,
            { thread: 'M14x1', through: number === 41 },
            ['helical-bore', 7],
            ['thread-mill', number, { hand, direction, passes: 2 }],
          );
          expect(clean(job)).toEqual([]);
        }
  });

  /** A threaded boss so far to the right in a pocket so wide, which is cleared. */
  function spigot(width: number, right = 0, height = 46): Job {
    const pocket = withStock(jobWith({ type: 'rectangle', width, height, radius: 6 }, { depth: 8 }), flush);
    const boss: Feature = {
      ...pocket.part.features[1],
      id: 'f3',
      name: 'Boss',
      meaning: 'boss',
      shape: { type: 'round', diameter: 14 },
      x: 40 + right,
      depth: 0,
      thread: 'M14x1',
    };
    const job = { ...pocket, part: { ...pocket.part, features: [...pocket.part.features, boss] } };
    return atSuggestedSpeeds(withOperation(job, 'clear', ['f2'], tool(4), { stepover: 2 }));
  }
  const threaded = (job: Job) => withOperation(job, 'thread-mill', ['f3'], tool(40), { threadDepth: 5 });

  test('around a boss: only the thread’s own depth is taken', () => {
    expect(clean(threaded(spigot(70)))).toEqual([]);
  });

  test('around a boss it waits where there is room, and says where there is none', () => {
    // 12 mm from the boss to the right wall: the mill passes, but cannot wait there.
    expect(clean(threaded(spigot(70, 16)))).toEqual([]);
    expect(post(threaded(spigot(70, 19))).codes).toContain('thread-no-room');
    expect(post(threaded(spigot(32, 0, 32))).codes).toContain('thread-no-room');
  });

  test('a tooth breaks an edge by its flank', () => {
    const job = withStock(jobWith({ type: 'rectangle', width: 40, height: 30, radius: 10 }, { depth: 4 }), flush);
    const cleared = atSuggestedSpeeds(withOperation(job, 'clear', ['f2'], tool(4), { stepover: 2 }));
    const before = prove(cleared, 0.05).removed;
    const broken = withOperation(cleared, 'chamfer', ['f2'], tool(40), { width: 0.6, tipOffset: 0 });
    const proof = prove(atSuggestedSpeeds(broken), 0.05);
    expect(proof.codes).toEqual([]);
    // 0.6 mm wide under 120° it is 0.6/tan 60° = 0.346 high, all round the pocket and a little more in its corners.
    const around = 2 * (20 + 10) + 2 * Math.PI * 10;
    expect((proof.removed - before) * 1000).toBeCloseTo(around * 0.104 + (2 * Math.PI * 0.6 * 0.104 * 2) / 3, -0.2);
  });

  test('passes take equal areas and end at the full depth; the fit moves only the last', () => {
    const thread = { name: 'M20', series: 'custom' as const, major: 20, pitch: 2, form: 60 as const };
    const radii = threadRadii({ thread, inside: true, hole: undefined }, tool(40), 3, 0.02);
    expect(radii[2]).toBeCloseTo(5.02, 6);
    const minor = (20 - 1.082532 * 2 - 10) / 2;
    const depths = radii.map((r) => (r - minor) ** 2);
    expect(depths[1] - depths[0]).toBeCloseTo(depths[0], 6);
    expect(depths[2] - depths[1]).toBeCloseTo(depths[0], 6);
  });

  test.each<[string, Record<string, unknown>, Partial<Feature>, number, string]>([
    [
      'a mill wider than the hole',
      {},
      { thread: 'M10', shape: { type: 'round', diameter: 8.5 } },
      40,
      'thread-mill-wide',
    ],
    ['a mill of another pitch', {}, { thread: 'M14x1.5' }, 41, 'other-pitch'],
    [
      'a thread deeper than the hole',
      { threadDepth: 9.8 },
      { thread: 'M14x1', through: false, depth: 9 },
      40,
      'thread-too-deep',
    ],
    ['a hole of another size', {}, { thread: 'M16x1' }, 40, 'thread-hole'],
  ])('%s is told', (_, params, more, number, code) => {
    const job = holes(13, more, ['helical-bore', 9], ['thread-mill', number, params]);
    expect(post(job).codes).toContain(code);
  });
});

describe('edges', () => {
  const chamfered = { form: 'chamfer' as const, size: 1, angle: 90 };
  const part = (more: Partial<Feature>, outline: Partial<Feature> = {}) => {
    const job = withStock(
      jobWith({ type: 'rectangle', width: 40, height: 25, radius: 6 }, { depth: 5, ...more }),
      flush,
    );
    const [plate, pocket] = job.part.features;
    return { ...job, part: { ...job.part, features: [{ ...plate, ...outline }, pocket] } };
  };

  test('drawn chamfers of a pocket and of the outside come out to size', () => {
    const job = part({ edge: chamfered }, { edge: { ...chamfered, size: 0.5 } });
    const cleared = withOperation(job, 'pocket', ['f2'], tool(4));
    const proof = prove(withOperation(cleared, 'chamfer', ['f1', 'f2'], tool(22)), 0.05);
    expect(proof.codes).toEqual([]);
    expect(prove(cleared, 0.05).codes).toContain('metal-left');
  });

  test('a deburred edge that is not drawn is no gouge, and its width has the asked volume', () => {
    const cleared = withOperation(part({}), 'pocket', ['f2'], tool(4));
    const before = prove(cleared, 0.05).removed;
    const proof = prove(withOperation(cleared, 'chamfer', ['f2'], tool(22), { width: 0.8 }), 0.05);
    expect(proof.codes).toEqual([]);
    const around = 2 * (28 + 13) + 2 * Math.PI * 6;
    expect((proof.removed - before) * 1000).toBeCloseTo(around * 0.32 + (2 * Math.PI * 0.8 ** 3) / 6, -0.2);
  });

  test('a closed line drawn as an edge is broken as the wall under it is: by chamfer and by rounding', () => {
    const job = part({});
    const { features } = job.part;
    const line = (id: string, of: number): Feature => ({ ...features[of], id, name: id, meaning: 'edge', depth: 0 });
    const drawn = { ...job, part: { ...job.part, features: [...features, line('f3', 1), line('f4', 0)] } };
    const cleared = withOperation(drawn, 'pocket', ['f2'], tool(4));
    const before = prove(cleared, 0.05).removed;
    const chamfered = withOperation(cleared, 'chamfer', ['f3'], tool(22), { width: 0.8 });
    const proof = prove(chamfered, 0.05);
    expect(proof.codes).toEqual([]);
    const around = 2 * (28 + 13) + 2 * Math.PI * 6;
    expect((proof.removed - before) * 1000).toBeCloseTo(around * 0.32 + (2 * Math.PI * 0.8 ** 3) / 6, -0.2);
    expect(prove(withOperation(chamfered, 'round-edge', ['f4'], tool(30)), 0.1).codes).toEqual([]);
  });

  test('one edge of a step is chamfered along an open line, whichever way it was drawn, and nothing beside it', () => {
    const step = part({ shape: { type: 'rectangle', width: 120, height: 20, radius: 0 }, y: 45, depth: 4 });
    const broken = (from: number, to: number, edge?: Feature['edge']): Job => {
      const ends = [from, to].map((x) => ({ x, y: 35, bulge: 0 }));
      const line = newFeature(step.part.features, 'edge', 'Edge', { type: 'chain', vertices: ends, closed: false }, {});
      return { ...step, part: { ...step.part, features: [...step.part.features, { ...line, ...(edge && { edge }) }] } };
    };
    const cleared = (job: Job) => withOperation(job, 'pocket', ['f2'], tool(4));
    const before = prove(cleared(step), 0.05).removed;
    const { minX, maxX } = chainBounds(instancesOf(step.part.features[0])[0]);
    for (const [from, to] of [
      [minX, maxX],
      [maxX, minX],
    ]) {
      const proof = prove(withOperation(cleared(broken(from, to, chamfered)), 'chamfer', ['f3'], tool(22)), 0.05);
      expect(proof.codes).toEqual([]);
      expect((proof.removed - before) * 1000).toBeCloseTo((maxX - minX) / 2, -0.2);
    }
    // It comes down beside the part, not on its corner: a spot drill would wander there.
    const wide = { form: 'chamfer' as const, size: 1.5, angle: 90 };
    expect(prove(withOperation(cleared(broken(minX, maxX, wide)), 'chamfer', ['f3'], tool(13)), 0.1).codes).toEqual([]);
    // Left out, the proof asks for it.
    expect(prove(cleared(broken(minX, maxX, chamfered)), 0.05).codes).toContain('metal-left');
    const level = broken(minX, maxX).part.features.map((f) => (f.id === 'f3' ? { ...f, y: -20 } : f));
    const flat = cleared({ ...step, part: { ...step.part, features: level } });
    expect(post(withOperation(flat, 'chamfer', ['f3'], tool(22), { size: 'one width' })).codes).toContain(
      'edge-nowhere',
    );
  });

  test('edges rounded with a corner-rounding mill', () => {
    const job = part({}, { edge: { form: 'round', size: 3, angle: 90 } });
    const pocket = withOperation(job, 'pocket', ['f2'], tool(4));
    expect(prove(withOperation(pocket, 'round-edge', ['f1'], tool(30)), 0.1).codes).toEqual([]);
  });

  test.each<[string, number, Record<string, unknown>, Partial<Feature>, string]>([
    ['a line on a level', 22, { size: 'one width' }, { meaning: 'edge' as const }, 'edge-nowhere'],
    ['no drawn edge', 22, { size: 'as drawn' }, {}, 'no-chamfer'],
    ['another angle', 22, {}, { edge: { ...chamfered, angle: 60 } }, 'other-angle'],
    ['a width the flank has not', 22, { width: 4, tipOffset: 3, size: 'one width' }, {}, 'chamfer-too-wide'],
    ['a floor the tip would touch', 22, { width: 0.5, tipOffset: 3, size: 'one width' }, { depth: 2 }, 'edge-left-out'],
  ])('%s is told', (_, number, params, more, code) => {
    expect(post(withOperation(part(more), 'chamfer', ['f2'], tool(number), params)).codes).toContain(code);
  });
});

test('every tool of the shop’s library finds an operation that it suits', () => {
  expect(TOOLS.filter((t) => !KINDS.some((k) => k.suits(t))).map((t) => t.name)).toEqual([]);
});

test('a tap deeper than its flutes is told at planning where its shank would not follow', () => {
  const hole = { meaning: 'hole' as const, through: true, thread: 'M5' };
  const drilled = withOperation(jobWith({ type: 'round', diameter: 4.2 }, hole, 10), 'drill', ['f2'], tool(14));
  const codes = (more: object) => post(withOperation(drilled, 'tap', ['f2'], { ...tool(37), ...more })).codes;
  expect(codes({})).not.toContain('tap-short');
  expect(codes({ fluteLength: 8, shankDiameter: 6 })).toContain('tap-short');
  expect(codes({ fluteLength: 8, shankDiameter: 3.5 })).not.toContain('tap-short');
});
