import { putAtHand } from '../../quantity/files';
import { solidFile, terraces } from '../../../testing/solids';
import { Feature, Solid } from '../plate/feature';
import { newFeature } from '../plate/new';
import { revised } from '../plate/revised';
import { placements } from '../plate/placed';
import { facesAgain } from './again';
import { joinedFeature, splitFeature } from './corrected';
import { facesOfSolid } from './faces/faces';
import { readModel } from './read/read';
import { takenSolid } from './take';
import { toldFeature } from './told';

function taken(mesh: Parameters<typeof facesOfSolid>[0]): Solid {
  const made = takenSolid(facesOfSolid(mesh), { body: 0, unit: 'mm', up: 'top' }, undefined);
  putAtHand(made.surface);
  return made.part;
}
const solid = (name: string) => taken(readModel(solidFile(`${name}.stl`)).bodies[0].mesh);
/** Its place, shape and depth. */
const geometry = ({ meaning, shape, x, y, depth, through, side }: Feature) => ({
  meaning,
  shape,
  x,
  y,
  depth,
  through,
  side,
});

describe('a feature told from a face', () => {
  const tray = solid('thin-tray');
  const found = (part: Solid, name: string) => part.features.find((f) => f.name === name)!;
  const floorOf = (part: Solid, name: string) => found(part, name).faces![0];

  test.each(['Pocket', 'Pocket, 2'])('%s: the floor of what was found says the same, on its side', (name) => {
    const told = toldFeature(tray, floorOf(tray, name), 'pocket')!;
    expect(geometry(told)).toEqual(geometry(found(tray, name)));
    expect([...told.faces!].sort()).toEqual([...found(tray, name).faces!].sort());
    expect(told.told).toBe(true);
    expect(tray.features.map((f) => f.id)).not.toContain(told.id);
    expect(tray.features.map((f) => f.name)).not.toContain(told.name);
  });

  test('the wall of a bore is a hole, with all of its depth', () => {
    const told = toldFeature(tray, found(tray, 'Hole 12').faces![0], 'hole')!;
    expect(told).toMatchObject({ shape: { type: 'round', diameter: 12 }, x: 45, y: 30, through: true });
  });

  test('the top of what stands is a boss', () => {
    const stands = taken(
      terraces([
        [-10, -10, -10],
        [-10, -4, -10],
        [-10, -10, 0],
      ]),
    );
    const boss = stands.features.find((f) => f.meaning === 'boss' && f.depth === 4)!;
    expect(geometry(toldFeature(stands, boss.faces![0], 'boss')!)).toEqual(geometry(boss));
  });

  test('what a face cannot make is no feature', () => {
    expect(toldFeature(tray, found(tray, 'Hole 12').faces![0], 'boss')).toBeUndefined();
    expect(toldFeature(tray, floorOf(tray, 'Pocket'), 'hole')).toBeUndefined();
    expect(toldFeature(tray, floorOf(tray, 'Pocket, 2'), 'boss')).toBeUndefined();
    expect(toldFeature(tray, 9999, 'pocket')).toBeUndefined();
    const corners = found(tray, 'Pocket').faces!.map((face) => toldFeature(tray, face, 'hole'));
    expect(corners.filter(Boolean)).toEqual([]);
    expect(toldFeature({ ...tray, surface: { ...tray.surface, sha256: '0'.repeat(64) } }, 1, 'pocket')).toBeUndefined();
  });
});

describe('a pattern', () => {
  const flange = solid('hub-flange');
  const round = flange.features.find((f) => f.pattern.type === 'circle')!;
  const apart = splitFeature(flange, round);

  test('is split into its places, each with its own faces', () => {
    const n = round.pattern.count;
    expect(apart).toHaveLength(n);
    expect(apart.map((f) => f.pattern.type)).toEqual(Array<string>(n).fill('single'));
    expect(apart.flatMap((f) => f.faces!).sort((a, b) => a - b)).toEqual(round.faces);
    apart.forEach((f) => expect(f.faces).toHaveLength(round.faces!.length / n));
    expect(new Set(apart.map((f) => f.id)).size).toBe(n);
    const { centreX, centreY } = round.pattern;
    const far = ({ x, y }: Feature) => Math.hypot(x - centreX, y - centreY);
    apart.forEach((f) => expect(far(f)).toBeCloseTo(far(round), 3));
  });

  test('on another side too', () => {
    const housing = solid('gauge-housing');
    const beside = housing.features.filter((f) => f.side && f.faces && placements(f.pattern).length > 1);
    expect(beside.length).toBeGreaterThan(0);
    for (const feature of beside)
      expect(
        splitFeature(housing, feature)
          .flatMap((f) => f.faces!)
          .sort((a, b) => a - b),
      ).toEqual(feature.faces);
  });

  test('equal ones are joined into one again, others are not', () => {
    const two = joinedFeature(apart[0], apart[1])!;
    expect(two.pattern).toMatchObject({ type: 'line', count: 2 });
    expect(two.id).toBe(apart[0].id);
    const whole = apart.slice(2).reduce<Feature | undefined>((all, f) => all && joinedFeature(all, f), two);
    expect(whole?.pattern.type ?? 'none in between').toBe('none in between');
    expect(joinedFeature(apart[0], { ...apart[1], shape: { type: 'round', diameter: 4 } })).toBeUndefined();
    expect(joinedFeature(apart[0], { ...apart[1], through: false, depth: 5 })).toBeUndefined();
    expect(joinedFeature(apart[0], apart[0])).toBeUndefined();
  });
});

test('pockets of one depth that touch are one outline; those that do not touch are two', () => {
  const pocket = (x: number, width: number) =>
    newFeature([], 'pocket', 'Pocket', { type: 'rectangle', width, height: 20, radius: 0 }, { x, y: 10, depth: 4 });
  const at = (x: number, width: number) => ({ ...pocket(x, width), id: `at${x}` });
  const joined = joinedFeature(at(10, 20), at(25, 12))!;
  expect(joined.shape).toMatchObject({ type: 'chain', closed: true });
  expect((joined.shape as unknown as { vertices: unknown[] }).vertices).toHaveLength(4);
  expect(joinedFeature(at(10, 20), at(50, 12))).toBeUndefined();
  expect(joinedFeature(at(10, 20), { ...at(25, 12), depth: 3 })).toBeUndefined();
});

describe('a newer revision', () => {
  const rows = [
    [0, 0, 0, 0],
    [0, -6, 0, 0],
    [0, 0, 0, 0],
  ];
  const before = taken(terraces(rows));
  const deeper = taken(terraces(rows.map((row) => row.map((z) => (z === -6 ? -7 : z)))));
  const pocket = before.features.find((f) => f.meaning === 'pocket')!;
  const told: Feature = { ...pocket, name: 'As I say', depth: 6, told: true };
  const corrected = { ...before, features: before.features.map((f) => (f === pocket ? told : f)) };

  test('keeps what was told where its faces are', () => {
    const again = taken(terraces(rows));
    const { part, changes } = revised(corrected, again, facesAgain(corrected, again));
    expect(changes).toEqual([]);
    expect(part.features.filter((f) => f.meaning === 'pocket')).toEqual([told]);
  });

  test('and takes what is found where they are no more', () => {
    const { part } = revised(corrected, deeper, facesAgain(corrected, deeper));
    expect(part.features.filter((f) => f.meaning === 'pocket').map((f) => [f.depth, f.told])).toEqual([[7, undefined]]);
  });
});
