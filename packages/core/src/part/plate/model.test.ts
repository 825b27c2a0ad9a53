import fc from 'fast-check';
import { newFeature } from './new';
import { chainBounds, chainLength, signedArea } from '../../geometry/plane/chain';
import { area, contains } from '../../geometry/plane/clip';
import { edgeDrop, edgeHeight } from './edges';
import { EdgeForm, Feature, Part, SINGLE, Shape } from './feature';
import { modelOf, regionOf, solidAt, surfaceAt } from './model';
import { svgPath } from './outline-path';
import { instancesOf, linesOf } from './shapes';

const SEED = { seed: 31, numRuns: 60 };
const size = fc.double({ min: 1, max: 60, noNaN: true });
const square = { type: 'rectangle', width: 30, height: 30, radius: 0 } as const;
const rod = { type: 'round', diameter: 6 } as const;

const outline = (width = 100, height = 60): Feature =>
  newFeature([], 'outline', 'Plate', { type: 'rectangle', width, height, radius: 0 }, { x: width / 2, y: height / 2 });

function partOf(...more: [Feature['meaning'], Shape, Partial<Feature>?][]): Part {
  const features = [outline()];
  for (const [meaning, shape, values] of more)
    features.push(newFeature(features, meaning, `A ${meaning}`, shape, { x: 50, y: 30, ...values }));
  return { kind: 'plate', thickness: 10, features };
}

const codesOf = (part: Part) => modelOf(part).findings.map((f) => f.code);

describe('shapes about their own centre', () => {
  const only = (shape: Shape) => linesOf(shape)[0];

  test('a rectangle with round corners has the area and length of the formulas, however round', () => {
    fc.assert(
      fc.property(size, size, fc.double({ min: 0, max: 40, noNaN: true }), (width, height, radius) => {
        const r = Math.min(radius, width / 2, height / 2);
        const chain = only({ type: 'rectangle', width, height, radius });
        expect(signedArea(chain)).toBeCloseTo(width * height - (4 - Math.PI) * r * r, 6);
        expect(chainLength(chain)).toBeCloseTo(2 * (width + height) - (8 - 2 * Math.PI) * r, 6);
      }),
      SEED,
    );
  });

  test('a slot is as long and as wide as it says, with half circles for ends; no slot is wider than long', () => {
    fc.assert(
      fc.property(size, size, (length, width) => {
        const chain = only({ type: 'slot', length, width });
        const long = Math.max(length, width);
        expect(signedArea(chain)).toBeCloseTo((long - width) * width + (Math.PI * width * width) / 4, 6);
        const { minX, maxX, minY, maxY } = chainBounds(chain);
        expect([maxX - minX, maxY - minY].map((v) => v.toFixed(6))).toEqual([long, width].map((v) => v.toFixed(6)));
      }),
      SEED,
    );
  });

  test('a polygon is measured across its flats and stands on one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 20 }), size, (sides, across) => {
        const chain = only({ type: 'polygon', sides, across });
        expect(signedArea(chain)).toBeCloseTo((sides * across * across * Math.tan(Math.PI / sides)) / 4, 6);
        const lowest = chain.vertices.filter((v) => Math.abs(v.y + across / 2) < 1e-9);
        expect(lowest).toHaveLength(2);
      }),
      SEED,
    );
  });

  test('turned and moved, shapes keep their area; patterns multiply it', () => {
    fc.assert(
      fc.property(
        size,
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.integer({ min: 1, max: 6 }),
        (d, turn, n) => {
          const shape = { type: 'slot', length: 2 * d, width: d } as const;
          const pattern = { type: 'line', count: n, rows: 1, dx: 200, dy: 30, centreX: 0, centreY: 0 } as const;
          const one = signedArea(only(shape));
          const feature = newFeature([], 'pocket', 'Slots', shape, { x: 7, y: -3, turn, pattern });
          expect(instancesOf(feature)).toHaveLength(n);
          expect(area(regionOf(feature)) / (n * one)).toBeCloseTo(1, 2);
        },
      ),
      SEED,
    );
  });

  test('copies round a centre stand at equal angles, each turned with it', () => {
    const pattern = { type: 'circle', count: 8, rows: 1, dx: 0, dy: 0, centreX: 10, centreY: 5 } as const;
    const feature = newFeature([], 'hole', 'Ring', rod, { x: 40, y: 5, pattern });
    instancesOf(feature).forEach((chain, i) => {
      const { minX, maxX, minY, maxY } = chainBounds(chain);
      const a = (2 * Math.PI * i) / 8;
      expect((minX + maxX) / 2).toBeCloseTo(10 + 30 * Math.cos(a), 9);
      expect((minY + maxY) / 2).toBeCloseTo(5 + 30 * Math.sin(a), 9);
    });
  });

  test('a picture of an outline goes on with arcs and is closed', () => {
    const path = svgPath(only({ type: 'rectangle', width: 20, height: 10, radius: 3 }));
    expect(path.match(/A/g)).toHaveLength(4);
    expect(path).toMatch(/^M.*Z$/);
  });
});

describe('the model of a part', () => {
  test('a pocket is a floor at its depth, a boss in it stands at its own, the rest of the top at 0', () => {
    const part = partOf(['pocket', square, { depth: 6 }], ['boss', rod, { depth: 2 }]);
    const model = modelOf(part);
    expect(model.findings).toEqual([]);
    expect(surfaceAt(model, { x: 50, y: 30 })).toBe(-2);
    expect(surfaceAt(model, { x: 60, y: 30 })).toBe(-6);
    expect(surfaceAt(model, { x: 10, y: 10 })).toBe(0);
    const floor = model.floors.find((f) => f.z === -6)!;
    expect(area(floor.region)).toBeCloseTo(900 - Math.PI * 9, 1);
  });

  test('where metal stands below a height: the outline less the floors at or below it', () => {
    const model = modelOf(partOf(['pocket', square, { depth: 6 }], ['pocket', rod, { x: 15, through: true }]));
    const top = area(model.outline);
    expect(area(solidAt(model, 0))).toBeCloseTo(top - 900 - Math.PI * 9, 1);
    expect(area(solidAt(model, -6))).toBeCloseTo(top - 900 - Math.PI * 9, 1);
    expect(area(solidAt(model, -7))).toBeCloseTo(top - Math.PI * 9, 1);
    expect(contains(solidAt(model, -7), { x: 50, y: 30 })).toBe(true);
  });

  test('a hole with a counterbore has a mouth; one no wider or no shallower than the hole is refused', () => {
    const hole = (diameter: number, depth: number) => partOf(['hole', rod, { counterbore: { diameter, depth } }]);
    const model = modelOf(hole(11, 3));
    expect(model.floors.map((f) => f.z)).toEqual([-3]);
    expect(area(model.floors[0].region)).toBeCloseTo((Math.PI * 121) / 4, 1);
    expect(codesOf(hole(6, 3))).toEqual(['counterbore-no-mouth']);
    expect(codesOf(hole(11, 10))).toEqual(['counterbore-no-mouth']);
  });

  test.each<[string, Parameters<typeof partOf>[0], string]>([
    ['a hole that is not round', ['hole', square], 'hole-not-round'],
    ['a pocket without depth', ['pocket', square, { depth: 0 }], 'no-depth'],
    ['a pocket deeper than the part', ['pocket', square, { depth: 12 }], 'deeper-than-part'],
    [
      'an edge as high as its wall',
      ['pocket', square, { depth: 1, edge: { form: 'round', size: 2, angle: 90 } }],
      'edge-too-high',
    ],
    ['letters that are not there', ['line', { type: 'text', text: 'A☃', height: 5 }], 'no-such-letter'],
    ['a line for a pocket', ['pocket', chainOf(false, [0, 0], [20, 0], [20, 9])], 'open-chain'],
    ['a bow tie', ['pocket', chainOf(true, [0, 0], [20, 10], [20, 0], [0, 10])], 'self-crossing'],
    ['nothing but a line there and back', ['pocket', chainOf(true, [0, 0], [20, 0], [10, 0])], 'no-area'],
  ])('%s is told and does not stop the rest', (_, feature, code) => {
    const part = partOf(feature, ['pocket', rod, { x: 20, depth: 3 }]);
    expect(codesOf(part)).toEqual([code]);
    const { findings, floors } = modelOf(part);
    expect(findings[0].place.feature).toBe(part.features[1].id);
    expect(findings[0].remedy).toBeTruthy();
    expect(floors.some((f) => f.feature === part.features[2].id)).toBe(true);
  });

  test('a part without an outside says so', () => {
    const { features } = partOf(['pocket', square]);
    expect(codesOf({ kind: 'plate', thickness: 10, features: features.slice(1) })).toEqual(['no-outline']);
    const ignored = features.map((f) => ({ ...f, meaning: 'ignore' as const }));
    expect(codesOf({ kind: 'plate', thickness: 10, features: ignored })).toEqual(['no-outline']);
  });
});

function chainOf(closed: boolean, ...points: [number, number][]): Shape {
  return { type: 'chain', closed, vertices: points.map(([x, y]) => ({ x, y, bulge: 0 })) };
}

describe('broken edges', () => {
  const form = fc.record({
    form: fc.constantFrom('chamfer' as const, 'round' as const),
    size: fc.double({ min: 0.1, max: 5, noNaN: true }),
    angle: fc.double({ min: 30, max: 140, noNaN: true }),
  });

  test('from its drop at the wall it rises to the surface and never falls', () => {
    fc.assert(
      fc.property(form, fc.double({ min: -20, max: 0, noNaN: true }), (f: EdgeForm, top) => {
        const at = (into: number) => edgeHeight({ top, form: f }, into);
        expect(at(0)).toBeCloseTo(top - edgeDrop(f), 9);
        expect(at(f.size)).toBe(top);
        let last = -Infinity;
        for (let k = 0; k <= 20; k++) {
          const z = at((f.size * k) / 20);
          expect(z).toBeGreaterThanOrEqual(last);
          last = z;
        }
      }),
      SEED,
    );
  });

  test('a chamfer of 90° is as high as it is wide; a rounding is a quarter circle', () => {
    expect(edgeDrop({ form: 'chamfer', size: 2, angle: 90 })).toBeCloseTo(2, 9);
    expect(edgeDrop({ form: 'chamfer', size: 2, angle: 60 })).toBeCloseTo(2 * Math.sqrt(3), 9);
    const round = { top: 0, form: { form: 'round' as const, size: 3, angle: 90 } };
    for (const into of [0, 0.5, 1.7, 3]) expect((3 - into) ** 2 + (edgeHeight(round, into) + 3) ** 2).toBeCloseTo(9, 9);
  });

  test('the edge of a pocket lies outside its wall, at the height of what surrounds it', () => {
    const edge = { form: 'chamfer' as const, size: 1, angle: 90 };
    const part = partOf(['pocket', square, { depth: 4 }], ['pocket', rod, { depth: 6, edge }]);
    const [it] = modelOf(part).edges;
    expect([it.metalInside, it.top]).toEqual([false, -4]);
    const boss = modelOf(partOf(['pocket', square, { depth: 6 }], ['boss', rod, { depth: 2, edge }])).edges[0];
    expect([boss.metalInside, boss.top]).toEqual([true, -2]);
  });
});

describe('a notch', () => {
  const disc = newFeature([], 'outline', 'Disc', { type: 'round', diameter: 80 }, { x: 0, y: 0 });
  const notched = (more: Partial<Feature>, size = 30) => {
    const notch = newFeature([disc], 'notch', 'Notch', { type: 'slot', length: size, width: 12 }, { x: 40, ...more });
    return modelOf({ kind: 'plate', thickness: 8, features: [disc, notch] });
  };
  const whole = Math.PI * 1600;

  test('trims the outside, each copy of it; a rounded mouth takes a little more', () => {
    const [one, four] = [notched({}), notched({ pattern: { ...SINGLE, type: 'circle', count: 4 } })];
    const taken = whole - area(one.outline);
    expect(one.findings).toEqual([]);
    expect(taken).toBeGreaterThan(100);
    expect(Math.abs(whole - area(four.outline) - 4 * taken)).toBeLessThan(1);
    const rounded = notched({ mouth: 2 });
    expect(area(one.outline) - area(rounded.outline)).toBeGreaterThan(0.5);
    expect(area(one.outline) - area(rounded.outline)).toBeLessThan(6);
  });

  test('what trims nothing is told, and a mouth there is no room for', () => {
    expect(notched({ x: 0 }).findings.map((f) => f.code)).toEqual(['notch-not-across']);
    expect(notched({ x: 200 }).findings.map((f) => f.code)).toEqual(['notch-not-across']);
    expect(notched({ x: 0 }, 100).findings.map((f) => f.code)).toEqual(['notch-not-across']);
    expect(notched({ mouth: 30 }).findings.map((f) => [f.code, f.place.field])).toEqual([['notch-mouth', 'mouth']]);
  });
});
