import { asCircle, chainBounds, signedArea } from '../../geometry/plane/chain';
import { area } from '../../geometry/plane/clip';
import { stlOf } from '../../geometry/space/stl';
import { volumeOf } from '../../geometry/space/triangles';
import { putAtHand } from '../../quantity/files';
import { solidFile, terraces } from '../../../testing/solids';
import { plate } from '../../../testing/parts';
import { Part, Solid } from '../plate/feature';
import { newFeature } from '../plate/new';
import { facesOfSolid } from '../solid/faces/faces';
import { readModel } from '../solid/read/read';
import { surfaceOf } from '../solid/surface-of';
import { takenSolid } from '../solid/take';
import { drawnFeatures, drawnSection } from './drawn';
import { importDrawing } from './drawing';
import { dxfText, svgText } from './written';

const outline = plate();
const features = [
  outline,
  newFeature(
    [outline],
    'pocket',
    'Pocket “Ä” & <b>',
    { type: 'slot', length: 30, width: 12 },
    { x: 40, y: 25, turn: 20 },
  ),
  newFeature([outline], 'hole', 'Hole', { type: 'round', diameter: 6.6 }, { x: 10, y: 10 }),
];
const part: Part = { kind: 'plate', thickness: 10, features };

function taken(mesh: Parameters<typeof facesOfSolid>[0]): Solid {
  const made = takenSolid(facesOfSolid(mesh), { body: 0, unit: 'mm', up: 'top' }, undefined);
  putAtHand(made.surface);
  return made.part;
}

describe('a drawing that is written', () => {
  const drawn = drawnFeatures(part, 'top');
  const sizes = (text: string) =>
    importDrawing(text).features.map((f) => (f.shape.type === 'chain' ? Math.abs(signedArea(f.shape)) : 0));

  test.each([
    ['DXF in mm', (d: typeof drawn) => dxfText(d, 'mm'), 'mm'],
    ['DXF in inches', (d: typeof drawn) => dxfText(d, 'inch'), 'inch'],
    ['SVG', svgText, 'mm'],
  ])('%s is read again as it was drawn, arcs as arcs', (_, write, unit) => {
    const text = write(drawn);
    const read = importDrawing(text);
    expect(read.findings).toEqual([]);
    expect(read.unit).toBe(unit);
    expect(read.features).toHaveLength(3);
    const was = drawn.map((d) => Math.abs(signedArea(d.chain))).sort((a, b) => a - b);
    sizes(text)
      .sort((a, b) => a - b)
      .forEach((v, i) => expect(v).toBeCloseTo(was[i], 2));
    const round = read.features.find((f) => f.meaning === 'hole')!;
    const hole = asCircle(round.shape as never)!;
    expect(hole.radius).toBeCloseTo(3.3, 4);
    const pocket = read.features.find((f) => f.meaning === 'pocket')!;
    expect((pocket.shape as unknown as { vertices: unknown[] }).vertices.length).toBeLessThanOrEqual(6);
  });

  test('layers are the names of the features, as far as the form knows letters', () => {
    expect(dxfText(drawn, 'mm')).toContain('POCKET_A_B_');
    expect(svgText(drawn)).toContain('<g id="Pocket “Ä” &amp; &lt;b&gt;">');
  });

  test('nothing drawn is an empty drawing all the same', () => {
    expect(importDrawing(dxfText([], 'mm')).findings.map((f) => f.code)).toEqual(['dxf-empty']);
    expect(importDrawing(svgText([])).findings.map((f) => f.code)).toEqual(['svg-empty']);
  });
});

describe('a section', () => {
  // 20 wide in X: 10 of it 20 high, 10 of it 12 high; 10 deep.
  const stepped = taken(terraces([[0, -8]], 20));
  const [long, deep, high] = [40, 20, 20];

  test('is what the plane cuts, from wherever it is looked at', () => {
    const areaOf = (axis: 'x' | 'y' | 'z', at: number) =>
      area(drawnSection(stepped, { axis, at })!.map((d) => d.chain.vertices));
    expect(areaOf('x', 5)).toBeCloseTo(deep * high, 3);
    expect(areaOf('x', 30)).toBeCloseTo(deep * (high - 8), 3);
    expect(areaOf('y', 5)).toBeCloseTo(long * high - 20 * 8, 3);
    expect(areaOf('z', -4)).toBeCloseTo(20 * deep, 3);
    expect(areaOf('z', -12)).toBeCloseTo(long * deep, 3);
    expect(drawnSection(stepped, { axis: 'z', at: 3 })).toEqual([]);
  });

  test('from the front it stands upright, its top at 0', () => {
    const [{ chain }] = drawnSection(stepped, { axis: 'y', at: 5 })!;
    expect(chainBounds(chain)).toMatchObject({ minX: 0, maxX: long, minY: -high, maxY: 0 });
  });

  test('a hole is cut as a circle', () => {
    const solid = taken(readModel(solidFile('hub-flange.stl')).bodies[0].mesh);
    const rounds = drawnSection(solid, { axis: 'z', at: -20 })!.flatMap((d) => asCircle(d.chain) ?? []);
    expect(rounds.some((r) => Math.abs(r.radius - 15) < 0.01)).toBe(true);
  });

  test('a plate is cut level alone', () => {
    expect(drawnSection(part, { axis: 'x', at: 1 })).toBeUndefined();
    expect(drawnSection(part, { axis: 'z', at: -9 })).toHaveLength(2);
  });
});

test('a solid is written as STL and read again the same', () => {
  const solid = taken(readModel(solidFile('drain-step.stl')).bodies[0].mesh);
  const surface = surfaceOf(solid)!;
  const again = readModel(stlOf(surface), { unit: 'mm' }).bodies[0].mesh;
  expect(again.corners.length).toBe(surface.corners.length);
  expect(volumeOf(again) / volumeOf(surface)).toBeCloseTo(1, 6);
});
