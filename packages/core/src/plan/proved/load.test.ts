import { atSuggestedSpeeds, jobWith, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { powerAt } from '../../machine/machine';
import { MACHINES, MATERIALS } from '../../shop/library';
import { Tool } from '../../shop/tool';
import { proveProgram } from '../prove';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 10 };
const centre = MACHINES.find((m) => m.id === 'fulmar')!;
const bare = withStock(jobWith(undefined, {}, 30), flush);

/** Proves lines over a block of 80 x 50 with its zero on the top in the middle. */
function proved(lines: string, cutter: Partial<Tool>, material = 'steel-alloy', machine = centre, cell = 0.1) {
  const mill = { ...tool(4), ...cutter, number: 1, id: 't1', ownData: [] };
  const setup = { ...bare.setups[0], zero: { ...bare.setups[0].zero, point: 'centre' as const }, fixtures: [] };
  const job = { ...bare, tools: [mill], machine, material: MATERIALS.find((m) => m.id === material)!, setups: [setup] };
  const text = `G21 G90 G17 G54\nT1 M6\nS3000 M3\nG43 H1\n${lines}\nG0 Z50\nM30\n`;
  const proof = proveProgram(job, setup, text, cell);
  const load = [
    'power',
    'stalls',
    'grip',
    'bends',
    'break',
    'chip',
    'rubs',
    'may-break',
    'above',
    'twists',
    'may-twist',
    'chips',
  ];
  const told = proof.findings.filter((f) => load.some((w) => f.code.startsWith(w)));
  return {
    proof,
    told,
    codes: told.map((f) => f.code),
    kW: (i: number) => proof.samples.load[i] * powerAt(machine, 3000),
  };
}

/** Straight passes along X, from beside the block to beyond it. */
const pass = (y: number, z: number, feed: number, speed = 3000) =>
  `S${speed}\nG0 X-60 Y${y}\nG0 Z${z}\nG1 X60 F${feed}\nG0 Z20`;

const WIDE = { diameter: 16, flutes: 4, shankDiameter: 16, fluteLength: 40, stickOut: 50, helix: 38 };
const THIN = { diameter: 3, flutes: 3, shankDiameter: 6, fluteLength: 9, stickOut: 25, helix: 38 };

test('a cutter that asks for more than the spindle has stops the release, at its line, with the feed that cures it', () => {
  const { told, codes } = proved(pass(-19, -20, 12000), WIDE);
  expect(codes.some((c) => c === 'power-over' || c === 'stalls')).toBe(true);
  const [first] = told.filter((f) => f.level === 'stop');
  expect(first.place.line).toBe(8);
  const { feed } = told.find((f) => f.code === 'power-over' || f.code === 'stalls')!.data as { feed: number };
  expect(proved(pass(-19, -20, feed), WIDE).codes.filter((c) => c.startsWith('power') || c === 'stalls')).toEqual([]);
});

test('a thin cutter breaks at a few percent of the spindle: it is judged by its root', () => {
  const { proof, codes } = proved(pass(0, -3, 300), THIN);
  expect(Math.max(...proof.samples.load)).toBeLessThan(0.1);
  expect(codes.some((c) => c === 'breaks' || c === 'may-break')).toBe(true);
  expect(proved(pass(0, -0.6, 150), THIN).codes).toEqual([]);
});

test('the feed of aluminium in alloy steel is told, and no longer released', () => {
  const lines = pass(-19, -8, 3500, 6000);
  expect(proved(lines, WIDE, 'alu-6082').told.filter((f) => f.level === 'stop')).toEqual([]);
  expect(proved(lines, WIDE, 'steel-alloy').told.some((f) => f.level === 'stop')).toBe(true);
});

describe('power from what is taken away', () => {
  const TEN = {
    diameter: 10,
    flutes: 4,
    shankDiameter: 10,
    fluteLength: 25,
    stickOut: 40,
    helix: 30,
    centreCutting: true,
  };
  const most = (p: ReturnType<typeof proved>) => Math.max(...Array.from(p.proof.samples.load, (_, i) => p.kW(i)));

  test('a plunge has power, by its volume', () => {
    const p = proved('G0 X0 Y0\nG0 Z1\nG1 Z-5 F300', TEN, 'steel-alloy');
    const [kc11, mc, fz] = [1800, 0.25, 300 / 3000 / 4];
    const wanted = (((Math.PI * 25 * 300) / 60) * kc11 * fz ** -mc) / 1e6;
    expect(Math.abs(most(p) / wanted - 1)).toBeLessThan(0.05);
  });

  test('so has a straight pass, within two percent of the relation', () => {
    const p = proved(pass(-21, -5, 600), TEN, 'steel-alloy', centre, 0.05);
    const [kc11, mc, fz, ae] = [1800, 0.25, 600 / 3000 / 4, 9];
    const phi = Math.acos(1 - (2 * ae) / 10);
    const wanted = (5 * ae * 600 * kc11 * ((2 * fz * ae) / (10 * phi)) ** -mc) / 60e6;
    const sorted = Array.from(p.proof.samples.load, (_, i) => p.kW(i)).sort((a, b) => a - b);
    expect(Math.abs(sorted[Math.floor(sorted.length * 0.6)] / wanted - 1)).toBeLessThan(0.02);
  });
});

describe('a light bite is judged alike on any grid', () => {
  const WALL = { diameter: 10, flutes: 4, shankDiameter: 10, fluteLength: 25, helix: 30 };
  // A wall that leans, and one along the grid, each finished by a quarter of a millimetre.
  const lean = (13 * Math.PI) / 180;
  const at = (along: number, off: number) =>
    `X${(along * Math.cos(lean) - off * Math.sin(lean)).toFixed(4)} Y${(along * Math.sin(lean) + off * Math.cos(lean)).toFixed(4)}`;
  const leaning = (off: number, feed: number) =>
    `S3000\nG0 ${at(-80, off)}\nG0 Z-10\nG1 ${at(80, off)} F${feed}\nG0 Z20`;
  const WALLS = {
    straight: pass(-29.75, -10, 600),
    leaning: [...[-40, -34, -28, -22].map((off) => leaning(off, 2)), leaning(-21.75, 600)].join('\n'),
  };

  // On a fine grid 0.0983 and 0.105 mm, where 0.1 is the limit.
  test.each(Object.entries(WALLS))('%s', (_, lines) => {
    for (const cell of [0.1, 0.2, 0.3, 0.4]) {
      const bends = (stickOut: number) =>
        proved(lines, { ...WALL, stickOut }, 'steel-alloy', centre, cell).codes.filter((c) => c.startsWith('bends'));
      expect([cell, bends(86), bends(88)]).toEqual([cell, [], ['bends-much']]);
    }
  });
});

describe('on light machines, at the suggested speeds, what goes down takes no more than the spindle has', () => {
  const shape = { type: 'rectangle', width: 34, height: 24, radius: 8 } as const;
  const base = withStock(jobWith(shape, { depth: 4 }, 6), { ...flush, bottom: 0 });
  test.each([
    ['whimbrel', 'steel-low', 3, 'pocket', 'f2', { entry: 'plunge' }],
    ['sanderling', 'alu-6082', 4, 'pocket', 'f2', { entry: 'plunge' }],
    ['sanderling', 'steel-low', 3, 'contour', 'f1', { tabs: 'ramped', descent: 'straight', side: 'on the line' }],
    ['sanderling', 'alu-6082', 4, 'contour', 'f1', { tabs: 'rectangular', descent: 'straight' }],
  ])('%s, %s, T%i: %s %s %o', (machineId, materialId, number, kind, target, params) => {
    const machine = MACHINES.find((m) => m.id === machineId)!;
    const material = MATERIALS.find((m) => m.id === materialId)!;
    const job = atSuggestedSpeeds(withOperation({ ...base, machine, material }, kind, [target], tool(number), params));
    const [setup] = job.setups;
    const operations = setup.operations.map((o) => ({ ...o, coolant: 'off' as const }));
    const { codes } = prove({ ...job, setups: [{ ...setup, operations }] }, 0.2);
    expect(codes.filter((c) => ['power-high', 'power-over', 'stalls'].includes(c))).toEqual([]);
  });
});

describe('drills and taps', () => {
  const DRILL: Partial<Tool> = {
    kind: 'drill',
    diameter: 3,
    flutes: 2,
    pointAngle: 118,
    shankDiameter: 3,
    fluteLength: 40,
    stickOut: 45,
    helix: 30,
    material: 'hss',
    throughCoolant: false,
  };
  const hole = (z: number, feed: number) => `S2000\nG0 X0 Y0\nG0 Z2\nG1 Z${z} F${feed}\nG0 Z20`;

  test('a feed a turn far beyond the range twists a drill off; the usual one is quiet', () => {
    expect(proved(hole(-8, 90), DRILL).codes).toEqual([]);
    expect(proved(hole(-8, 2200), DRILL).codes.some((c) => /twist/.test(c))).toBe(true);
  });

  test('a deep hole in one go packs the flutes; pecked with full retracts it does not, with chip-breaking lifts it does', () => {
    const deep = (cycle: string) => `S2000\nG0 X0 Y0\nG0 Z5\n${cycle}\nG80\nG0 Z20`;
    expect(proved(deep('G81 Z-24 R2 F90'), DRILL).codes).toEqual(['chips-pack']);
    expect(proved(deep('G83 Z-24 R2 Q3 F90'), DRILL).codes).toEqual([]);
    expect(proved(deep('G73 Z-24 R2 Q3 F90'), DRILL).codes).toEqual(['chips-pack']);
    expect(proved(deep('G81 Z-16 R2 F90'), DRILL).codes).toEqual([]);
    expect(proved(deep('G81 Z-24 R2 F90'), { ...DRILL, throughCoolant: true }).codes).toEqual([]);
  });

  test('holes beside each other are each their own', () => {
    const row = 'S2000\nG0 X0 Y0\nG0 Z5\nG81 Z-10 R2 F90\nX8\nX16\nX24\nG80\nG0 Z20';
    expect(proved(row, DRILL).codes).toEqual([]);
  });
});
