import { jobWith, post, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { Feature, Shape } from '../../part/plate/feature';
import { Boundary } from '../../geometry/plane/boundary';
import { regionOf } from '../../part/plate/model';
import { Grid } from '../../stock/height/field';
import { newFeature } from '../../part/plate/new';
import { planSetup } from '../pipeline';
import { profileHeight } from '../../shop/tool';

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 5 };
const cutter = tool(31);

const lowest = (height: Float32Array) => height.reduce((low, h) => (h > -9 ? Math.min(low, h) : low), 0);

const middleOf = (f: Grid, i: number): [number, number] => [
  f.x0 + ((i % f.nx) + 0.5) * f.cell,
  f.y0 + (Math.floor(i / f.nx) + 0.5) * f.cell,
];

const lineJob = (shape: Shape, more: Partial<Feature> = {}) =>
  withStock(jobWith(shape, { meaning: 'line', ...more }), flush);

const text: Shape = { type: 'text', text: 'Tide 4', height: 9 };
const star: Shape = {
  type: 'chain',
  closed: true,
  vertices: Array.from({ length: 10 }, (_, i) => {
    const r = i % 2 ? 3 : 7;
    return { x: r * Math.cos((i * Math.PI) / 5), y: r * Math.sin((i * Math.PI) / 5), bulge: 0 };
  }),
};

describe('engraving', () => {
  test('lettering proves clean, and the groove is as deep as asked', () => {
    const proof = prove(withOperation(lineJob(text), 'engrave', ['f2'], cutter, { depth: 0.3, layer: 0.15 }), 0.05);
    expect(proof.codes).toEqual([]);
    expect(lowest(proof.field.height)).toBeCloseTo(-0.3, 2);
  });

  test('to a width: a straight groove takes away its cross section times its length', () => {
    const shape: Shape = {
      type: 'chain',
      closed: false,
      vertices: [
        { x: -20, y: 0, bulge: 0 },
        { x: 20, y: 0, bulge: 0 },
      ],
    };
    const proof = prove(
      withOperation(lineJob(shape), 'engrave', ['f2'], cutter, { by: 'width', width: 1, layer: 1 }),
      0.02,
    );
    const depth = profileHeight(cutter, 0.5);
    expect(proof.codes).toEqual([]);
    const ends = (Math.PI * depth * (0.5 ** 2 + 0.5 * 0.1 + 0.1 ** 2)) / 3;
    expect(proof.removed * 1000).toBeCloseTo(((1 + 0.2) / 2) * depth * 40 + ends, 0);
  });

  test('carving comes to sharp corners and nowhere outside the line', () => {
    const proof = prove(
      withOperation(lineJob(star), 'engrave', ['f2'], cutter, { what: 'what they enclose', depth: 3 }),
      0.05,
    );
    expect(proof.codes).toEqual([]);
    expect(proof.removed).toBeGreaterThan(0);
  });

  test.each<[string, Shape, number]>([
    ['a bar', { type: 'rectangle', width: 8, height: 3, radius: 0 }, 3],
    ['a star', star, 3.2],
    ['a disc', { type: 'round', diameter: 3 }, 3],
  ])('carving %s leaves no ridge along the middle', (_, shape, depth) => {
    const job = withOperation(lineJob(shape), 'engrave', ['f2'], cutter, {
      what: 'what they enclose',
      depth,
      step: 0.2,
    });
    const { field, codes } = prove(job, 0.05);
    expect(codes).toEqual([]);
    const edge = new Boundary(regionOf(job.part.features[1]));
    const ridges: number[] = [];
    field.height.forEach((h, i) => {
      const into = edge.distance(...middleOf(field, i));
      // As deep as the flank of the cone reaches that touches the edge; its flat tip reaches on to the middle.
      if (into > 0.1) ridges.push(h + Math.min(depth, profileHeight(cutter, into)));
    });
    expect(ridges.length).toBeGreaterThan(2000);
    expect(Math.max(...ridges)).toBeLessThan(0.06);
  });

  test('what closed lines enclose leaves lines within lines standing', () => {
    const job = lineJob({ type: 'text', text: 'O', height: 7 });
    const [shallow, deep] = [0.2, 0.4].map((depth) =>
      prove(withOperation(job, 'engrave', ['f2'], cutter, { what: 'what they enclose', depth, step: 0.15 }), 0.1),
    );
    expect(shallow.findings).toEqual([]);
    expect(shallow.removed).toBeLessThan(deep.removed);
  });

  test('a chequer stays inside its field', () => {
    const field: Shape = { type: 'rectangle', width: 30, height: 16, radius: 0 };
    const proof = prove(
      withOperation(lineJob(field), 'engrave', ['f2'], cutter, { what: 'a chequer', depth: 0.4, layer: 0.4 }),
      0.05,
    );
    expect(proof.codes).toEqual([]);
    const { field: f } = proof;
    const low = f.height.map((h, i) => (h < -0.01 && h > -9 ? Math.abs(f.x0 + ((i % f.nx) + 0.5) * f.cell - 40) : 0));
    expect(low.reduce((a, b) => Math.max(a, b), 0)).toBeLessThanOrEqual(15.01);
  });

  test('on the floor of a pocket it starts from the floor', () => {
    const base = withStock(jobWith({ type: 'rectangle', width: 50, height: 30, radius: 8 }, { depth: 3 }), flush);
    const label = newFeature(base.part.features, 'line', 'Label', text, { x: 40, y: 25 });
    const job = { ...base, part: { ...base.part, features: [...base.part.features, label] } };
    const cleared = withOperation(job, 'pocket', ['f2'], tool(7), { layer: 3 });
    const proof = prove(withOperation(cleared, 'engrave', ['f3'], cutter), 0.05);
    expect(proof.codes).toEqual([]);
    expect(lowest(proof.field.height)).toBeCloseTo(-3.2, 2);
  });

  test('letters whose corners are rounded by half the groove prove clean, and turn nowhere on the spot', () => {
    const letters = withOperation(lineJob({ type: 'text', text: 'LEM', height: 9 }), 'engrave', ['f2'], cutter, {
      by: 'width',
      width: 1,
      layer: 1,
      corners: 'rounded',
    });
    const proof = prove(letters, 0.05);
    expect(proof.codes).toEqual([]);
    const { path } = planSetup(letters, letters.setups[0]).planned[0].plan;
    const radii = [...path.kind].flatMap((k, i) =>
      k > 1 ? Math.hypot(path.x[i] - path.cx[i], path.y[i] - path.cy[i]) : [],
    );
    expect(radii.filter((r) => Math.abs(r - 0.5) < 1e-6).length).toBeGreaterThan(3);
  });

  test('a value that is not shown has no effect', () => {
    const path = (params: object) => {
      const job = withOperation(lineJob(text), 'engrave', ['f2'], cutter, { ...params });
      return planSetup(job, job.setups[0]).planned[0].plan.path;
    };
    expect(path({ width: 2, pitch: 1, step: 0.5, angle: 70 })).toEqual(path({}));
  });

  test('open lines to carve, a groove wider than the tool, too deep, letters nobody drew: told', () => {
    const codes = (shape: Shape, params: object) =>
      post(withOperation(lineJob(shape), 'engrave', ['f2'], cutter, { ...params })).codes;
    expect(codes({ type: 'text', text: 'L', height: 5 }, { what: 'what they enclose' })).toContain('nothing-enclosed');
    expect(codes(text, { by: 'width', width: 5 })).toContain('groove-too-wide');
    expect(codes(text, { depth: 4 })).toContain('engraving-too-deep');
    expect(codes({ type: 'text', text: 'A→', height: 5 }, {})).toContain('no-such-letter');
    expect(codes({ type: 'round', diameter: 20 }, { what: 'what they enclose', depth: 3.25 })).toContain(
      'engraving-too-deep',
    );
  });
});
