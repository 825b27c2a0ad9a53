import 'reflect-metadata';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import startStep from 'occt-import-js';
import { TRUTH, boxTriangles, solidFile, stlOf } from '../../../../testing/solids';
import { joinedTriangles } from '../../../geometry/space/triangles';
import { Model, readModel } from './read';
import { GLIMPSE } from './step';
import { surfaceFile, surfaceIn } from './surface';

const BOX = boxTriangles(40, 30, 20);
const text = (s: string): Uint8Array => new TextEncoder().encode(s);
const codes = (model: Model) => [...model.findings, ...model.bodies.flatMap((b) => b.findings)].map((f) => f.code);

function textStl(loose: number[]): string {
  const facets = Array.from({ length: loose.length / 9 }, (_, t) => {
    const corner = (k: number) => `vertex ${loose.slice(9 * t + 3 * k, 9 * t + 3 * k + 3).join(' ')}`;
    return `facet normal 0 0 0\nouter loop\n${corner(0)}\n${corner(1)}\n${corner(2)}\nendloop\nendfacet`;
  });
  return `solid block\n${facets.join('\n')}\nendsolid block\n`;
}

function obj(loose: number[]): string {
  const corners = Array.from({ length: loose.length / 3 }, (_, i) => `v ${loose.slice(3 * i, 3 * i + 3).join(' ')}`);
  const faces = Array.from({ length: loose.length / 9 }, (_, t) => `f ${3 * t + 1}/1/1 ${3 * t + 2}//2 ${3 * t + 3}`);
  return `# block\n${corners.join('\n')}\n${faces.join('\n')}\n`;
}

function package3mf(loose: number[], unit: string, transform: string): Uint8Array {
  const vertex = (i: number) => `<vertex z="${loose[3 * i + 2]}" x="${loose[3 * i]}" y="${loose[3 * i + 1]}" />`;
  const triangle = (t: number) => `<triangle v1="${3 * t}" v2="${3 * t + 1}" v3="${3 * t + 2}" />`;
  const mesh = `<mesh><vertices>${Array.from({ length: loose.length / 3 }, (_, i) => vertex(i)).join('')}</vertices>
    <triangles>${Array.from({ length: loose.length / 9 }, (_, t) => triangle(t)).join('')}</triangles></mesh>`;
  const model = `<?xml version="1.0"?><model unit="${unit}"><resources>
    <object id="1" type="model" name="block">${mesh}</object>
    <object id="2" type="model"><components><component objectid="1" transform="${transform}"/></components></object>
    </resources><build><item objectid="2"/></build></model>`;
  return zipSync({ '3D/3dmodel.model': text(model), '[Content_Types].xml': text('<Types/>') });
}

describe('readModel', () => {
  test.each([
    ['binary STL', stlOf(BOX)],
    ['text STL', text(textStl(BOX))],
    ['OBJ', text(obj(BOX))],
    [
      '3MF in cm, moved and turned',
      package3mf(
        BOX.map((v) => v / 10),
        'centimeter',
        '0 1 0 -1 0 0 0 0 1 7 8 9',
      ),
    ],
    ['the form it is kept in', surfaceFile(joinedTriangles(BOX))],
  ])('%s of one block', (_, file) => {
    const { bodies, findings } = readModel(file);
    expect(findings).toEqual([]);
    expect(bodies).toHaveLength(1);
    const [{ size, volume, mesh }] = bodies;
    expect([...size].sort((a, b) => a - b).map((v) => v.toFixed(4))).toEqual(['20.0000', '30.0000', '40.0000']);
    expect(volume).toBeCloseTo(24_000, 3);
    expect(mesh.points).toHaveLength(3 * 8);
    expect(bodies[0].findings).toEqual([]);
  });

  test('STEP keeps its faces, whatever its schema is called', async () => {
    const file = new TextDecoder().decode(solidFile('thin-tray.step'));
    expect(file).toContain('AP242');
    for (const schema of ['AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF', 'AUTOMOTIVE_DESIGN']) {
      const said = file.replace(/FILE_SCHEMA[\s\S]*?;/, `FILE_SCHEMA(('${schema}'));`);
      const { bodies, unit } = readModel(text(said), { step: await startStep() });
      expect(unit).toBe('mm');
      bodies[0].size.forEach((v, k) => expect(v).toBeCloseTo(TRUTH['thin-tray'].size[k], 6));
      const faces = Object.values(TRUTH['thin-tray'].faces!).reduce((s, n) => s + n, 0);
      expect(new Set(bodies[0].mesh.face).size).toBe(faces);
    }
  });

  test('and as its oldest schema has it: with contexts, a design and a source of its own kind', async () => {
    const file = new TextDecoder().decode(solidFile('thin-tray.step'));
    const written: [RegExp, string][] = [
      [/FILE_SCHEMA[\s\S]*?;/, "FILE_SCHEMA(('CONFIG_CONTROL_DESIGN'));"],
      [/(?<=PROTOCOL_DEFINITION\('international standard',\s*)'\w+',\d+/, "'config_control_design',1994"],
      [/Managed model based 3d engineering/, 'configuration controlled 3d designs of mechanical parts and assemblies'],
      [/(?<= )PRODUCT_CONTEXT\(/, 'MECHANICAL_CONTEXT('],
      [/PRODUCT_DEFINITION_CONTEXT\(/, 'DESIGN_CONTEXT('],
      [
        /PRODUCT_DEFINITION_FORMATION\('','',#7\)/,
        "PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE('','',#7,.MADE.)",
      ],
    ];
    const old = written.reduce((said, [from, to]) => {
      expect(said).toMatch(from);
      return said.replace(from, to);
    }, file);
    const { bodies } = readModel(text(old), { step: await startStep() });
    bodies[0].size.forEach((v, k) => expect(v).toBeCloseTo(TRUTH['thin-tray'].size[k], 6));
  });

  test('a glimpse of it is as large and has the same faces, of fewer triangles', async () => {
    const file = solidFile('gauge-housing.step');
    const fine = readModel(file, { step: await startStep() }).bodies[0];
    const found = (await startStep()).ReadStepFile(file, GLIMPSE);
    const coarse = readModel(file, { step: { ReadStepFile: () => found } }).bodies[0];
    coarse.size.forEach((v, k) => expect(Math.abs(v / fine.size[k] - 1)).toBeLessThan(0.01));
    expect(new Set(coarse.mesh.face)).toEqual(new Set(fine.mesh.face));
    expect(coarse.mesh.corners.length).toBeLessThan(fine.mesh.corners.length / 3);
  });

  test('STEP in inches comes out in mm', async () => {
    const file = new TextDecoder().decode(solidFile('thin-tray.step'));
    const inches = file.replace(
      /#(\d+) = \( LENGTH_UNIT\(\) NAMED_UNIT\(\*\) SI_UNIT\(\.MILLI\.,\.METRE\.\) \);/,
      (_, n: string) =>
        `#9001 = ( LENGTH_UNIT() NAMED_UNIT(*) SI_UNIT(.MILLI.,.METRE.) );\n#9002 = LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#9001);\n#9003 = DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.);\n#${n} = ( CONVERSION_BASED_UNIT('INCH',#9002) LENGTH_UNIT() NAMED_UNIT(#9003) );`,
    );
    expect(inches).toContain('INCH');
    const { bodies } = readModel(text(inches), { step: await startStep() });
    expect(bodies[0].size[0]).toBeCloseTo(90 * 25.4, 3);
  });

  test('a unit is taken where the file names none, and asked for where it cannot be mm', () => {
    expect(readModel(stlOf(BOX), { unit: 'inch' }).bodies[0].size[0]).toBeCloseTo(40 * 25.4, 3);
    expect(codes(readModel(stlOf(boxTriangles(1.5, 1, 0.8))))).toEqual(['model-unit']);
    expect(codes(readModel(stlOf(boxTriangles(1.5, 1, 0.8)), { unit: 'inch' }))).toEqual([]);
  });

  test('says what is wrong with a body, and what is left of it', () => {
    const open = BOX.slice(0, -9);
    expect(codes(readModel(stlOf(open)))).toEqual(['model-open']);
    const turned = BOX.flatMap((_, i) =>
      i % 9 === 0 ? [0, 2, 1].flatMap((k) => BOX.slice(i + 3 * k, i + 3 * k + 3)) : [],
    );
    const found = readModel(stlOf(turned));
    expect(codes(found)).toEqual(['model-inside-out']);
    expect(found.bodies[0].volume).toBeCloseTo(24_000, 3);
    expect(codes(readModel(stlOf([...BOX, 0, 0, 0, 1, 0, 0, 1, 0, 0])))).toEqual(['model-flat-triangles']);
    expect(codes(readModel(stlOf(boxTriangles(40, 30, 20).slice(0, 18))))).toContain('model-no-volume');
    expect(codes(readModel(stlOf(boxTriangles(0.01, 0.01, 0.008)), { unit: 'mm' }))).toEqual(['model-size']);
    expect(codes(readModel(stlOf(boxTriangles(20_000, 300, 200)), { unit: 'mm' }))).toEqual(['model-size']);
  });

  test('several bodies, the largest first; a hollow belongs to what is round it', () => {
    const beside = boxTriangles(10, 10, 10).map((v, i) => (i % 3 === 0 ? v + 100 : v));
    const two = readModel(stlOf([...beside, ...BOX]));
    expect(codes(two)).toEqual(['model-bodies']);
    expect(two.bodies.map((b) => Math.round(b.volume))).toEqual([24_000, 1000]);
    const within = boxTriangles(10, 10, 10).map((v) => v + 5);
    const hollow = within.flatMap((_, i) =>
      i % 9 === 0 ? [0, 2, 1].flatMap((k) => within.slice(i + 3 * k, i + 3 * k + 3)) : [],
    );
    const one = readModel(stlOf([...BOX, ...hollow]));
    expect(codes(one)).toEqual([]);
    expect(one.bodies.map((b) => Math.round(b.volume))).toEqual([23_000]);
  });

  test.each([
    ['words', text('Dear shop, please find the model attached.'), 'model-unreadable'],
    ['nothing', new Uint8Array(), 'model-unreadable'],
    ['a STEP file cut short', solidFile('thin-tray.step').slice(0, 9000), 'step-cut-short'],
    ['a STEP file with nothing in it', text('ISO-10303-21;\nEND-ISO-10303-21;\n'), 'step-unreadable'],
    ['text STL cut short', text(textStl(BOX).slice(0, 700)), 'mesh-cut-short'],
    ['OBJ with a corner that is no number', text('v 0 0 0\nv 1 0 x\n'), 'obj-line'],
    ['OBJ with a face that names no corner', text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n'), 'obj-line'],
    ['half a package', package3mf(BOX, 'millimeter', '').slice(0, 300), 'model-package-unreadable'],
    ['a package with nothing to build', zipSync({ 'a.model': text('<model/>') }), 'model-package-unreadable'],
  ])('refuses %s', async (_, file, code) => {
    const found = readModel(file, { step: await startStep() });
    expect(codes(found)).toEqual([code]);
    expect(found.bodies).toEqual([]);
  });

  test('a file that could not be kept is not read', () =>
    expect(codes(readModel(new Uint8Array(200_000_000)))).toEqual(['model-too-large']));

  test('a lying count is no binary STL', () => {
    const file = stlOf(BOX);
    new DataView(file.buffer).setUint32(80, 4_000_000_000, true);
    expect(codes(readModel(file))).toEqual(['model-unreadable']);
  });

  test('broken files end in bodies or in a finding, never in an error', () => {
    const files = [
      stlOf(BOX),
      text(textStl(BOX)),
      text(obj(BOX)),
      package3mf(BOX, 'inch', ''),
      surfaceFile(joinedTriangles(BOX)),
    ];
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: files.length - 1 }),
        fc.array(fc.tuple(fc.double({ min: 0, max: 0.999, noNaN: true }), fc.integer({ min: 0, max: 255 })), {
          minLength: 1,
          maxLength: 12,
        }),
        fc.double({ min: 0.2, max: 1, noNaN: true }),
        (which, changes, share) => {
          const file = files[which].slice(0, Math.ceil(share * files[which].length));
          for (const [at, value] of changes) file[Math.floor(at * file.length)] = value;
          const found = readModel(file, { unit: 'mm' });
          return found.bodies.length > 0 || found.findings.some((f) => f.level === 'stop');
        },
      ),
      { seed: 18, numRuns: 100 },
    );
  });

  test('broken STEP files end in bodies or in a finding', async () => {
    const whole = solidFile('thin-tray.step');
    const seeds = Array.from({ length: 20 }, (_, k) => k + 1);
    for (const seed of seeds) {
      const file = whole.slice();
      for (let k = 0; k < 6; k++) file[(seed * 7919 * (k + 3)) % file.length] = 35 + ((seed * (k + 11)) % 60);
      const found = readModel(file, { step: await startStep({ print: () => {}, printErr: () => {} }) });
      expect(found.bodies.length > 0 || found.findings.some((f) => f.level === 'stop')).toBe(true);
    }
  });
});

describe('the form a solid is kept in', () => {
  test('comes back digit by digit, faces too', () => {
    const mesh = joinedTriangles(
      BOX.map((v) => v / 3),
      undefined,
      (t) => t >> 1,
    );
    const back = surfaceIn(surfaceFile(mesh))!;
    expect(back.points).toEqual(mesh.points);
    expect(back.corners).toEqual(mesh.corners);
    expect(back.face).toEqual(mesh.face);
  });

  test('is refused where it is not whole', () => {
    const file = surfaceFile(joinedTriangles(BOX));
    expect(surfaceIn(file.slice(0, -1))).toBeUndefined();
    expect(surfaceIn(stlOf(BOX))).toBeUndefined();
  });
});
