import 'reflect-metadata';
import fc from 'fast-check';
import { TRUTH, True, prism, solidOf, terraces } from '../../../testing/solids';
import { asCircle, chainBounds } from '../../geometry/plane/chain';
import { Feature, sideOf } from '../plate/feature';
import { modelOf, surfaceAt } from '../plate/model';
import { instancesOf } from '../plate/shapes';
import { seenFrom } from '../plate/side';
import { FACE_UPS } from '../plate/turn';
import { facesOfSolid } from './faces/faces';
import { bodyIn, boxOf, lyingAs, onPlace } from './lying';
import { understood, waysUp } from './sides';

const PLAIN = [
  ...['gauge-housing', 'probe-bracket', 'cover-plate', 'drain-step', 'hub-flange', 'thin-tray', 'latch-body'],
  ...['rod-fork', 'slide-block', 'seat-angle'],
];
const NEAR = 2e-3;
const near = (a: number | undefined, b: number | undefined, within = NEAR) => Math.abs((a ?? 0) - (b ?? 0)) < within;

/** One feature for each place of a pattern. */
const singles = (features: Feature[]) =>
  features.flatMap((feature) =>
    instancesOf(feature).map((chain) => {
      const b = chainBounds(chain);
      return {
        feature,
        x: (b.minX + b.maxX) / 2,
        y: (b.minY + b.maxY) / 2,
        wide: b.maxX - b.minX,
        high: b.maxY - b.minY,
        round: asCircle(chain),
      };
    }),
  );

type Single = ReturnType<typeof singles>[number];

const sameSide = (t: True, f: Feature) =>
  sideOf(f) === t.side ||
  (t.through === true && ['top', 'underside'].includes(t.side) && ['top', 'underside'].includes(sideOf(f)));

function isMade(t: True, { feature, x, y, wide, high, round }: Single): boolean {
  if (!sameSide(t, feature)) return false;
  const isDeep = t.through ? feature.through : near(feature.depth, t.depth, 1e-3);
  if (t.kind === 'step') return feature.meaning === 'pocket' && isDeep;
  if (!isDeep || !near(x, t.x) || !near(y, t.y)) return false;
  if (t.kind === 'hole' || t.kind === 'boss') {
    const leans = JSON.stringify(feature.lean) === JSON.stringify(t.lean);
    const mouth = JSON.stringify(feature.counterbore) === JSON.stringify(t.counterbore);
    const sunk = t.countersink ? near(feature.edge?.size, (t.countersink.diameter - t.diameter!) / 2) : true;
    const ends = (['from', 'ends'] as const).every((k) => t[k] === undefined || near(feature[k], t[k], 1e-3));
    return round !== undefined && near(2 * round.radius, t.diameter, 1e-3) && mouth && sunk && leans && ends;
  }
  const isRound =
    t.corner === undefined || (feature.shape.type === 'rectangle' && near(feature.shape.radius, t.corner));
  const [a, b] = t.kind === 'slot' && wide < high ? [high, wide] : [wide, high];
  const isSlot = t.kind !== 'slot' || feature.shape.type === 'slot';
  const isSized = near(a, t.width) && near(b, t.height) && near(feature.taper, t.taper);
  return feature.meaning === 'pocket' && isSized && isRound && isSlot;
}

/** A broken edge in words. */
function brokenAs(feature: Feature): string {
  const [{ x, y }] = singles([feature]);
  const { form, size } = feature.edge!;
  return `${form === 'round' ? 'fillet' : 'chamfer'} ${size} ${x} ${y} ${sideOf(feature)}`;
}

describe('understood', () => {
  test.each(PLAIN.flatMap((name) => (['step', 'stl'] as const).map((form) => [name, form] as const)))(
    '%s from %s: all it was built with, and nothing else',
    async (name, form) => {
      const { thickness, features } = understood(await solidOf(name, form));
      expect(thickness).toBeCloseTo(TRUTH[name].size[2], 3);
      const found = singles(features.filter((f) => f.meaning !== 'outline' && f.meaning !== 'edge'));
      const built = TRUTH[name].features.filter((t) => !['chamfer', 'fillet', 'taper', 'free'].includes(t.kind));
      for (const t of built) expect([t, found.filter((f) => isMade(t, f)).length]).toEqual([t, 1]);
      expect(found).toHaveLength(built.length);
      const broken = features.flatMap((f) => (f.edge && f.meaning !== 'hole' ? [brokenAs(f)] : []));
      const asBuilt = TRUTH[name].features.filter((t) => t.kind === 'chamfer' || t.kind === 'fillet');
      expect(broken.sort()).toEqual(asBuilt.map((t) => `${t.kind} ${t.size} ${t.x} ${t.y} ${t.side}`).sort());
      const [outside] = singles(features.filter((f) => f.meaning === 'outline'));
      expect(outside.wide).toBeCloseTo(TRUTH[name].size[0], 3);
      expect(outside.high).toBeCloseTo(TRUTH[name].size[1], 3);
    },
  );

  test.each(PLAIN)('%s: the side it was drawn from is the likeliest to be up', async (name) => {
    expect(waysUp(await solidOf(name, 'stl'))[0].side).toBe('top');
  });

  test('of any block of columns the features say how high it is everywhere', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.constantFrom(0, -3, -5, -9), { minLength: 5, maxLength: 5 }), {
          minLength: 4,
          maxLength: 4,
        }),
        (tops) => {
          const high = Math.max(...tops.flat());
          const { features, thickness } = understood(onPlace(facesOfSolid(terraces(tops))));
          const seen = seenFrom({ kind: 'plate', thickness, features }, 'top');
          const model = modelOf(seen);
          tops.forEach((row, j) =>
            row.forEach((z, i) => {
              const said = surfaceAt(model, { x: 10 * i + 5.3, y: 10 * j + 4.6 });
              expect([tops, i, j, said]).toEqual([tops, i, j, z - high]);
            }),
          );
        },
      ),
      { seed: 18, numRuns: 25 },
    );
  });

  test('what no feature makes is told by face', async () => {
    const solid = await solidOf('probe-bracket', 'stl');
    const { left } = understood(solid);
    expect(left.map((l) => l.why)).toEqual(['slope']);
    const bowls = understood(await solidOf('rain-cup', 'step'));
    expect(bowls.left.every((l) => l.why === 'free')).toBe(true);
    expect(bowls.features.map((f) => f.meaning)).toEqual(['outline']);
  });

  test('a wall behind an overhang belongs to nothing that is cut from above', async () => {
    const { features } = understood(await solidOf('slide-block', 'stl'));
    const faces = (name: string) => features.find((f) => f.name === name)!.faces!;
    const slot = faces('Step');
    expect(slot.length).toBe(4);
    // The two walls below the overhang and its two undersides are reached from the left alone.
    expect(faces('Step, 3').filter((i) => !slot.includes(i)).length).toBeGreaterThanOrEqual(4);
  });

  test('a hole ends where it comes out, and its other end is its mouth from below', async () => {
    const { features, thickness } = understood(await solidOf('seat-angle', 'stl'));
    const [seat, ...others] = features.filter((f) => f.meaning === 'hole');
    expect(seat).toMatchObject({ through: true, from: 28, counterbore: { depth: 33.4 } });
    expect(seat.ends).toBeUndefined();
    // Two through the leg, 12 of the 80 to the other side; one into the pocket, whose far wall is none of its own.
    expect(others.map((f) => [f.side, f.through, f.ends ?? f.depth])).toEqual([
      ['front', false, 20],
      ['left', true, 12],
    ]);
    const below = seenFrom({ kind: 'plate', thickness, features }, FACE_UPS.underside).features.find(
      (f) => f.id === seat.id,
    );
    expect(below).toMatchObject({ from: undefined, ends: 12, counterbore: undefined });
    expect(modelOf(seenFrom({ kind: 'plate', thickness, features }, FACE_UPS.left)).holes.map((h) => h.depth)).toEqual([
      12, 12,
    ]);
  });

  test('walls of a dovetail are open at their ends alone', async () => {
    const { left } = understood(await solidOf('seat-angle', 'step'));
    expect(left.map((l) => l.why)).toEqual(['along', 'along']);
  });

  test('the wall of a cam is a wall, whatever curve it follows', () => {
    const ring = Array.from({ length: 90 }, (_, k) => {
      const [a, r] = [(Math.PI * k) / 45, 24 + 6 * Math.cos((Math.PI * k) / 45)];
      return { x: 40 + r * Math.cos(a), y: 40 + r * Math.sin(a) };
    });
    const { features, left } = understood(onPlace(facesOfSolid(prism(ring, 12))));
    expect(features.map((f) => f.meaning)).toEqual(['outline']);
    expect(left).toEqual([]);
  });

  test('a slot in a tongue is open to all that the outside clears beside it', () => {
    const low = [-15, -15, -15];
    const tongue = onPlace(facesOfSolid(terraces([low, [0, -10, 0], [0, -10, 0], low])));
    const upright = onPlace(lyingAs(tongue, bodyIn(boxOf(tongue)), FACE_UPS.left));
    const slots = understood(upright).features.filter((f) => f.meaning === 'pocket');
    expect(slots).toMatchObject([{ side: 'back', depth: 10, shape: { width: 42, height: 10 } }]);
  });

  test('a comb lies on its back, not on its end, though its end shows as many faces', () => {
    const comb = Array.from({ length: 9 }, (_, k) => Array.from({ length: 12 }, () => (k % 2 ? 4 : 22)));
    const [best, ...others] = waysUp(facesOfSolid(terraces(comb)));
    expect(best.side).toBe('top');
    expect(others[0].score).toBeLessThan(0.9 * best.score);
  });

  test('equal holes are one feature with its pattern', async () => {
    const { features } = understood(await solidOf('hub-flange', 'stl'));
    const circle = features.find((f) => f.pattern.type === 'circle')!;
    expect(circle.pattern).toMatchObject({ count: 6, centreX: 55, centreY: 55 });
    expect(circle.faces).toHaveLength(6);
  });
});
