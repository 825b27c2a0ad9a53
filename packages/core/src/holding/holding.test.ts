import { SINGLE } from '../part/plate/feature';
import { modelOf } from '../part/plate/model';
import { newFeature } from '../part/plate/new';
import type { Feature, Shape } from '../part/plate/feature';
import { boundsOf } from '../geometry/plane/point';
import { contains } from '../geometry/plane/clip';
import { outlineOf } from '../geometry/space/box';
import { circle, flatten, splitRound } from '../geometry/plane/chain';
import { checked } from '../quantity/validate';
import { covered, heldBy, heldFindings, sideForce, strengthOf } from './held';
import { Strength, Work } from './holding';
import { HOLDINGS, holdingOf } from './registry';

/** A block of 80 x 50 x 20 with 5 mm of stock below it, or something else. */
function work(more: Partial<Work> = {}, features: Feature[] = []): Work {
  const outline = newFeature(
    [],
    'outline',
    'Block',
    { type: 'rectangle', width: 80, height: 50, radius: 0 },
    { x: 40, y: 25 },
  );
  const part = { kind: 'plate' as const, thickness: 20, features: [outline, ...features] };
  const model = modelOf(part);
  const stock = { region: model.outline, top: 0, bottom: -25 };
  return { model, features: part.features, stock, outline: model.outline, parts: 1, ...more };
}

const hole = (x: number, y: number, more: Partial<Feature> = {}): Feature =>
  newFeature([], 'hole', 'Bolt', { type: 'round', diameter: 6.6 } as Shape, { id: 'h1', x, y, through: true, ...more });

function put(kind: string, params: Record<string, unknown> = {}, on = work()) {
  const starts = holdingOf(kind)!.starts(on) as Record<string, unknown>;
  const holding = { id: 'h', kind, name: 'It', params: { ...starts, ...params } };
  const held = heldBy([holding], on);
  return { held, placed: held[0].placed, codes: heldFindings(held).map((f) => f.code), strength: strengthOf(held)! };
}

test.each(HOLDINGS.map((k) => k.kind))('%s starts with values its own class takes', (kind) => {
  const { Params, starts } = holdingOf(kind)!;
  const foil = work({}, [hole(20, 20, { counterbore: { diameter: 1.2, depth: 0.1 } })]);
  const thin = { ...foil, model: { ...foil.model, thickness: 0.05 }, stock: { ...foil.stock, bottom: -0.05 } };
  const huge = { ...work(), outline: [[0, 9000].flatMap((y) => [0, 9000].map((x) => ({ x: y ? 9000 - x : x, y })))] };
  for (const on of [work(), work({}, [hole(20, 20)]), thin, huge])
    expect(checked(Params, starts(on), 'params')).toEqual([]);
});

describe('a vise', () => {
  test('of 20 kN with smooth jaws stands 3.0 kN sideways twice over', () => {
    const { strength } = put('vise', { force: 20, friction: 0.15 });
    expect(strength.slip / 2).toBeCloseTo(3000, 9);
    expect(strength.working.join()).toContain('6 kN');
  });

  test.each([
    // Own simplification of friction pairs: the least grip that holds, by force of the vise, cut, and height above the jaws.
    [8, 900, 40, 7.75],
    [8, 900, 60, 19.36],
    [8, 500, 60, 3.43],
    [20, 2000, 60, 15],
  ])('of %d kN under %d N, %d mm above its jaws, must grip %d mm', (force, cut, above, grip) => {
    const square = {
      ...work(),
      outline: [
        [0, 60].flatMap((x) =>
          x
            ? [
                { x, y: 0 },
                { x, y: 60 },
              ]
            : [{ x, y: 0 }],
        ),
      ],
    };
    square.outline[0].push({ x: 0, y: 60 });
    const may = (g: number) => {
      const { strength } = put('vise', { force, grip: g, friction: 0.15, jawWidth: 60 }, square);
      return sideForce(strength, square.stock.bottom + g + above) / 2;
    };
    expect(may(grip + 0.3)).toBeGreaterThan(cut);
    expect(may(grip - 0.3)).toBeLessThan(cut);
  });

  test('stands with its fixed jaw where it is asked to, the jaws’ tops as high as it grips', () => {
    const { placed } = put('vise', { fixedJaw: 'left', grip: 6, jawHeight: 40, jawThickness: 18, jawWidth: 60 });
    const [fixed, moving] = placed.bodies;
    expect(fixed).toMatchObject({ minX: -18, maxX: 0, minY: -5, maxY: 55, minZ: -59, maxZ: -19 });
    expect(moving).toMatchObject({ minX: 80, maxX: 98 });
    expect(placed.under).toEqual({ what: 'parallels', height: 34 });
    expect(placed.contacts.map((c) => [c.from.x, c.into.x])).toEqual([
      [0, 1],
      [80, -1],
    ]);
  });

  test('refuses work it does not open for, a grip over its jaws, and work beside it', () => {
    expect(put('vise', { opens: 40 }).codes).toEqual(['vise-too-small']);
    expect(put('vise', { grip: 50, jawHeight: 40 }).codes).toEqual(['grip-over-jaw']);
    expect(put('vise', { off: 110, jawWidth: 125 }).codes).toEqual(['jaws-miss']);
    const { Params, starts } = holdingOf('vise')!;
    const findings = checked(Params, { ...starts(work()), friction: -0.1 }, 'setups.0.holding.0.params');
    expect(findings).toHaveLength(1);
    expect(findings[0].place.field).toBe('setups.0.holding.0.params.friction');
  });
});

describe('soft jaws', () => {
  test('leave the work’s outline free and close round it', () => {
    const { placed, codes } = put('soft jaws', { grip: 6, gap: 3, jawThickness: 40, clearance: 0 });
    expect(codes).toEqual([]);
    const walls = placed.bodies.filter((b) => b.maxZ === -19);
    const isJaw = (x: number, y: number) => walls.some((b) => contains([outlineOf(b)], { x, y }));
    expect([isJaw(40, 25), isJaw(40, -5), isJaw(-5, 10), isJaw(79, 49)]).toEqual([false, true, true, false]);
    expect(isJaw(-5, 25)).toBe(false);
    expect(placed.bodies.filter((b) => b.maxZ === -25)).toHaveLength(2);
    expect(placed.fixed!.maxZ).toBe(-19);
    const round = { ...work(), outline: [flatten(circle(0, 0, 30), 0.001)] };
    expect(put('soft jaws', {}, round).placed.contacts.length).toBeGreaterThan(50);
    expect(placed.contacts.map((c) => [c.from.y, c.into.y])).toEqual([
      [50, -1],
      [0, 1],
    ]);
  });

  test('too small for the work say so', () => {
    expect(put('soft jaws', { jawWidth: 70 }).codes).toEqual(['jaws-too-small']);
    expect(put('soft jaws', { jawThickness: 20 }).codes).toEqual(['jaws-too-small']);
  });
});

describe('a V-block', () => {
  /** A disc of 60 with a flat that lies to the front or to the left. */
  function disc(at: 'front' | 'left'): Work {
    const whole = circle(0, 0, 30);
    const [from, to] = at === 'front' ? [0.8, 0.7] : [0.55, 0.45];
    const ring = flatten(splitRound(whole, from, to), 0.01);
    const on = work({}, []);
    return { ...on, outline: [ring] };
  }

  test('touches a disc where its faces are tangent, its root on the middle', () => {
    const round = { ...work(), outline: [flatten(circle(0, 0, 30), 0.001)] };
    const { placed } = put('v-block', { angle: 90, grip: 8 }, round);
    const [left, right] = placed.contacts;
    const touch = 30 * Math.SQRT1_2;
    for (const [c, sign] of [
      [left, -1],
      [right, 1],
    ] as const) {
      expect((c.from.x + c.to.x) / 2).toBeCloseTo(sign * touch, 0);
      expect((c.from.y + c.to.y) / 2).toBeCloseTo(touch, 0);
    }
    const block = outlineOf(placed.bodies[0]);
    expect(block[1].x).toBeCloseTo(0, 1);
    expect(block[1].y).toBeCloseTo(30 * Math.SQRT2, 1);
    for (const p of round.outline[0]) expect(contains([block], { x: p.x * 0.999, y: p.y * 0.999 })).toBe(false);
  });

  test('is aligned by the one flat where that lies on the moving jaw, and says so where it does not', () => {
    expect(put('v-block', {}, disc('front')).codes).toEqual([]);
    expect(put('v-block', {}, disc('left')).codes).toEqual(['flat-not-on-jaw']);
    expect(put('v-block', { fixedJaw: 'right' }, disc('left')).codes).toEqual([]);
  });

  test('presses twice: a V of 90° stands 2.41·μ·F', () => {
    const round = { ...work(), outline: [flatten(circle(0, 0, 30), 0.001)] };
    expect(put('v-block', { force: 10, friction: 0.2, angle: 90 }, round).strength.slip).toBeCloseTo(
      0.2 * 10000 * (1 + Math.SQRT2),
      6,
    );
  });
});

describe('what presses from above', () => {
  test('straps cover what they lie on, toe clamps do not', () => {
    const on = work({}, [hole(4, 25)]);
    const straps = put('straps', { where: 'left and right', count: 1, over: 10 }, on);
    expect(covered(on, straps.placed.bodies)).toEqual(['Bolt']);
    expect(covered(on, put('toes', {}, on).placed.bodies)).toEqual([]);
    expect(put('straps', { count: 2, force: 5, friction: 0.15 }, on).strength).toMatchObject({
      slip: 2 * 0.15 * 20000,
      lift: 20000,
    });
    expect(put('straps', { where: 'all round', count: 1 }, on).placed.bodies).toHaveLength(8);
  });

  test('screws stand in their holes, on their counterbores, and ask for the holes first', () => {
    const counterbore = { diameter: 11, depth: 6 };
    const on = work({}, [hole(20, 20, { counterbore, pattern: { ...SINGLE, type: 'line', count: 2, dx: 40 } })]);
    const { placed, codes, strength } = put('screws', { height: 5, force: 4 }, on);
    expect(codes).toEqual([]);
    expect(placed.needs).toBe('h1');
    const heads = placed.bodies.slice(1);
    expect(heads.map((b) => [(b.minX + b.maxX) / 2, b.minZ, b.maxZ].map((v) => Math.round(v * 100) / 100))).toEqual([
      [20, -6, -1],
      [60, -6, -1],
    ]);
    expect(strength.lift).toBe(8000);
    expect(put('screws').codes).toEqual(['no-screw-holes']);
  });

  test('pins say where the work stands; the first is where a zero can be', () => {
    const on = work({}, [hole(20, 20)]);
    const { placed, held } = put('pins', { height: 8 }, on);
    const { minX, maxX } = placed.fixed!;
    expect((minX + maxX) / 2).toBeCloseTo(20, 6);
    expect(placed.bodies[0]).toMatchObject({ minZ: -25, maxZ: -17 });
    expect(strengthOf(held)).toBeUndefined();
    expect(put('pins').codes).toEqual(['no-pin-holes']);
  });
});

test('what is stuck holds by its area: the largest side force is said', () => {
  const { strength, placed } = put('stuck', { by: 'vacuum', share: 0.5, shear: 0.02, pull: 0.07, spoil: 0.3 });
  expect(strength.slip).toBeCloseTo(80 * 50 * 0.5 * 0.02, 9);
  expect(strength.working[0]).toMatch(/largest side force/);
  expect(placed.bodies[0].maxZ).toBeCloseTo(-25.3, 9);
});

test('tabs and a skin hold by what is left of the metal', () => {
  expect(put('left on', { by: 'tabs', count: 4, width: 3, height: 1, shears: 150 }).strength.slip).toBeCloseTo(1800, 9);
  expect(put('left on', { by: 'a skin', height: 0.1, shears: 100 }).strength.slip).toBeCloseTo(260 * 0.1 * 100, 9);
});

describe('a chuck on the table', () => {
  const round = { ...work(), outline: [flatten(circle(10, 5, 30), 0.001)] };

  test('closes on what is round, centred on it', () => {
    const { placed, codes, strength } = put('chuck', { turn: 90, grip: 8, force: 12, friction: 0.15 }, round);
    expect(codes).toEqual([]);
    const { minX, maxX, minY, maxY } = placed.fixed!;
    expect([(minX + maxX) / 2, (minY + maxY) / 2].map((v) => Math.round(v * 10) / 10)).toEqual([10, 5]);
    expect(boundsOf(outlineOf(placed.bodies[1])).minY).toBeCloseTo(35, 1);
    expect(strength.slip).toBeCloseTo(5400, 6);
  });

  test('says where the work is larger than it, or not round', () => {
    expect(put('chuck', { diameter: 50 }, round).codes).toEqual(['chuck-too-small']);
    expect(put('chuck').codes).toContain('chuck-not-round');
  });
});

test('an indexer holds the left end along X, a tailstock the right', () => {
  const { placed, codes } = put('indexer', { grip: 20, diameter: 125, height: 100, tail: 2 });
  expect(codes).toEqual([]);
  const [head, front, , over, centre, tail] = placed.bodies;
  expect(head).toMatchObject({ minX: -40, maxX: 0, maxZ: 50 });
  // Round the gripped end, not in it.
  expect(front).toMatchObject({ minX: 0, maxX: 20, maxY: 0, maxZ: 50 });
  expect(over).toMatchObject({ minX: 0, maxX: 20, minZ: 0, maxZ: 50 });
  expect([centre.minX, tail.minX]).toEqual([80, 95]);
  expect(put('indexer', { diameter: 40 }).codes).toEqual(['chuck-too-small']);
  expect(put('indexer', { tail: 0 }).placed.bodies).toHaveLength(4);
});

test('what holds adds up', () => {
  const on = work({}, [hole(20, 20)]);
  const each = ['straps', 'toes'].map((kind) => put(kind, {}, on).strength);
  const holdings = ['straps', 'toes'].map((kind) => ({
    id: kind,
    kind,
    name: kind,
    params: holdingOf(kind)!.starts(on) as Record<string, unknown>,
  }));
  const both = strengthOf(heldBy(holdings, on)) as Strength;
  expect(both.slip).toBeCloseTo(each[0].slip + each[1].slip, 9);
  expect(both.working).toHaveLength(4);
});
