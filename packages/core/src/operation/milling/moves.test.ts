import fc from 'fast-check';
import { circle, flatten, pieces, reversed } from '../../geometry/plane/chain';
import { Chain } from '../../geometry/plane/chain';
import { expandCycle } from '../cycle';
import { helixDown, rampDown } from '../entry';
import { layersBetween } from '../layers';
import { LeadForm, followWithLead, leadFor, quarter } from './leads';
import { DrillCycle } from '../operation';
import { ARC_CCW, ARC_CW, LINE, Path, PathBuilder, RAPID, TAGS, sweepOf } from '../../path/path';

const square: Chain = {
  closed: true,
  vertices: [
    { x: 0, y: 0, bulge: 0 },
    { x: 40, y: 0, bulge: 0 },
    { x: 40, y: 20, bulge: 0 },
    { x: 0, y: 20, bulge: 0 },
  ],
};
const rows = (p: Path) =>
  Array.from({ length: p.count }, (_, i) => ({
    kind: p.kind[i],
    tag: TAGS[p.tag[i]],
    x: p.x[i],
    y: p.y[i],
    z: p.z[i],
    feed: p.feed[i],
  }));

describe('the path builder', () => {
  test('drops moves that go nowhere, keeps full circles', () => {
    const path = new PathBuilder()
      .rapid(0, 0, 5)
      .rapid(0, 0, 5)
      .line(0, 0, 5, 100, 'cut')
      .arc(5, 0, 0, 0, 5, false, 100, 'cut')
      .build();
    expect(rows(path).map((r) => r.kind)).toEqual([RAPID, ARC_CCW]);
  });

  test('follows a chain with its arcs as arcs', () => {
    const ring = circle(0, 0, 10);
    const path = new PathBuilder().rapid(10, 0, 0);
    path.follow(ring, -2, 300, 'cut');
    const built = path.build();
    expect(rows(built).slice(1)).toEqual([
      { kind: ARC_CCW, tag: 'cut', x: expect.closeTo(-10, 9), y: expect.closeTo(0, 9), z: -2, feed: 300 },
      { kind: ARC_CCW, tag: 'cut', x: expect.closeTo(10, 9), y: expect.closeTo(0, 9), z: -2, feed: 300 },
    ]);
    expect([built.cx[1], built.cy[1]]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
  });

  test('the sweep of an arc is signed and never more than a turn', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.05, max: 6.2, noNaN: true }),
        fc.boolean(),
        (start, sweep, clockwise) => {
          const end = start + (clockwise ? -sweep : sweep);
          const found = sweepOf(
            clockwise ? ARC_CW : ARC_CCW,
            Math.cos(start),
            Math.sin(start),
            Math.cos(end),
            Math.sin(end),
            0,
            0,
          );
          expect(found).toBeCloseTo(clockwise ? -sweep : sweep, 6);
        },
      ),
      { numRuns: 200, seed: 21 },
    );
    expect(sweepOf(ARC_CCW, 1, 0, 1, 0, 0, 0)).toBeCloseTo(2 * Math.PI, 9);
    expect(sweepOf(ARC_CW, 1, 0, 1, 0, 0, 0)).toBeCloseTo(-2 * Math.PI, 9);
  });
});

describe('entries', () => {
  test('a helix never falls steeper than its angle, ends level and where it began', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 0.2, max: 12, noNaN: true }),
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        (radius, depth, degrees) => {
          const angle = (degrees * Math.PI) / 180;
          const path = new PathBuilder().rapid(radius, 0, 0);
          helixDown(path, { x: 0, y: 0, radius }, 0, -depth, angle, false, 100);
          const moves = rows(path.build());
          for (let i = 1; i < moves.length; i++) {
            const fall = moves[i - 1].z - moves[i].z;
            expect(fall).toBeLessThanOrEqual(Math.PI * radius * Math.tan(angle) + 1e-9);
            expect(moves[i].tag).toBe('entry');
          }
          const [before, last] = moves.slice(-2);
          expect([before.z, last.z]).toEqual([-depth, -depth]);
          expect(last.x).toBeCloseTo(radius, 9);
        },
      ),
      { numRuns: 100, seed: 22 },
    );
  });

  test('a ramp along a chain keeps its angle, cuts no deeper a lap than it may, and ends at its first point, at depth', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 15, noNaN: true }),
        fc.double({ min: 1, max: 10, noNaN: true }),
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        (depth, degrees, most) => {
          const path = new PathBuilder().rapid(0, 0, 0);
          rampDown(path, square, 0, -depth, (degrees * Math.PI) / 180, 100, most);
          const moves = rows(path.build());
          const aLap = square.vertices.length;
          for (let i = aLap; i < moves.length; i++)
            expect(moves[i - aLap].z - moves[i].z).toBeLessThanOrEqual(most + 1e-9);
          for (let i = 1; i < moves.length; i++) {
            const flat = Math.hypot(moves[i].x - moves[i - 1].x, moves[i].y - moves[i - 1].y);
            expect((moves[i - 1].z - moves[i].z) / flat).toBeLessThanOrEqual(
              Math.tan((degrees * Math.PI) / 180) + 1e-9,
            );
          }
          expect(moves[moves.length - 1]).toMatchObject({ x: 0, y: 0, z: -depth });
        },
      ),
      { numRuns: 100, seed: 23 },
    );
  });
});

describe('leads', () => {
  const free = () => true;

  test('a quarter circle meets the wall tangentially, on the side asked for', () => {
    const left = leadFor(square, quarter(4), 'left', free)!;
    expect(left.on.vertices[0]).toMatchObject({ x: expect.closeTo(-4, 9), y: expect.closeTo(4, 9) });
    expect(left.off.vertices[1]).toMatchObject({ x: expect.closeTo(4, 9), y: expect.closeTo(-4, 9) });
    expect(left.on.vertices[0].bulge).toBeCloseTo(Math.tan(Math.PI / 8), 9);
    const right = leadFor(square, quarter(4), 'right', free)!;
    expect(right.on.vertices[0]).toMatchObject({ x: expect.closeTo(-4, 9), y: expect.closeTo(-4, 9) });
  });

  test('straights at an angle, straights in line, and arcs with room before them', () => {
    const from = (form: LeadForm) => leadFor(square, form, 'left', free)!.on.vertices[0];
    expect(from({ form: 'line', size: 5, angle: 90 })).toMatchObject({
      x: expect.closeTo(0, 9),
      y: expect.closeTo(5, 9),
    });
    expect(from({ form: 'tangent', size: 5, angle: 90 })).toMatchObject({
      x: expect.closeTo(-5, 9),
      y: expect.closeTo(0, 9),
    });
    expect(from({ form: 'arc', size: 4, angle: 90, straight: 3 })).toMatchObject({
      x: expect.closeTo(-4, 9),
      y: expect.closeTo(7, 9),
    });
  });

  test('it shrinks until it fits, and says when nothing fits', () => {
    const near = leadFor(square, quarter(8), 'left', (p) => p.y < 2.5)!;
    expect(near.on.vertices[0].y).toBeLessThan(2.5);
    expect(leadFor(square, quarter(8), 'left', () => false)).toBeUndefined();
  });

  test('leading on, round and off is one unbroken path', () => {
    const lead = leadFor(square, quarter(4), 'left', free)!;
    const path = new PathBuilder().rapid(lead.on.vertices[0].x, lead.on.vertices[0].y, -1);
    followWithLead(path, square, lead, -1, 200);
    const moves = rows(path.build());
    expect(moves.map((m) => m.tag)).toEqual(['rapid', 'lead', 'cut', 'cut', 'cut', 'cut', 'lead']);
    expect(moves[1]).toMatchObject({ x: 0, y: 0 });
    expect(moves[6].x).toBeCloseTo(lead.off.vertices[1].x, 9);
    expect([...pieces(reversed(square))]).toHaveLength(4);
    expect(flatten(square)).toHaveLength(4);
  });
});

describe('layers and cycles', () => {
  test('layers are equal, none thicker than asked, the last exactly at the bottom', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0.01, max: 40, noNaN: true }),
        fc.double({ min: 0.05, max: 20, noNaN: true }),
        (top, depth, most) => {
          const levels = layersBetween(top, top - depth, most);
          expect(levels[levels.length - 1]).toBe(top - depth);
          levels.forEach((z, i) => expect((i === 0 ? top : levels[i - 1]) - z).toBeLessThanOrEqual(most + 1e-6));
        },
      ),
      { numRuns: 200, seed: 24 },
    );
  });

  const cycle = (more: Partial<DrillCycle>): DrillCycle => ({
    kind: 'drill',
    holes: [
      { x: 1, y: 2, z: -6, hop: 10 },
      { x: 5, y: 2, z: -6, hop: 10 },
    ],
    start: 1,
    clearance: 10,
    peck: 0,
    lessen: 0,
    dwell: 0,
    feed: 90,
    stops: 'none',
    ...more,
  });

  test('a straight cycle: over, down to the start, feed to the bottom, up', () => {
    expect(rows(expandCycle(cycle({ holes: [{ x: 1, y: 2, z: -6, hop: 10 }] }))).map((r) => [r.kind, r.z])).toEqual([
      [RAPID, 10],
      [RAPID, 1],
      [LINE, -6],
      [RAPID, 10],
    ]);
  });

  test('pecks go back to the start and come back short of where they were; chip breaks only lift a little', () => {
    const peck = rows(expandCycle(cycle({ kind: 'peck', peck: 3.5 }))).map((r) => r.z);
    expect(peck.slice(0, 7)).toEqual([10, 1, -2.5, 1, -2, -6, 10]);
    const chip = rows(expandCycle(cycle({ kind: 'chip-break', peck: 3.5 }))).map((r) => r.z);
    expect(chip.slice(0, 6)).toEqual([10, 1, -2.5, -2.2, -6, 10]);
  });

  test('every move between holes is at the clearance', () => {
    for (const r of rows(expandCycle(cycle({ kind: 'peck', peck: 2 })))) if (r.kind === LINE) expect(r.feed).toBe(90);
    const moves = rows(expandCycle(cycle({})));
    for (let i = 1; i < moves.length; i++)
      if (moves[i].x !== moves[i - 1].x) expect([moves[i].z, moves[i - 1].z]).toEqual([10, 10]);
  });
});
