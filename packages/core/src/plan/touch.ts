/** How the zero of a setup is found on its stock: which faces are touched, where they are free, by hand or by a probe. */
import { Point, boundsOf, distance } from '../geometry/plane/point';
import { Region, contains } from '../geometry/plane/clip';
import type { FixtureBox } from '../geometry/space/box';
import type { Vec3 } from '../geometry/space/vec3';
import { Ground, beforeOf } from './ground';

export const FACES = ['left', 'right', 'front', 'back', 'top'] as const;
export type Face = (typeof FACES)[number];

/** A face that is touched. */
export interface Touch {
  axis: 'x' | 'y' | 'z';
  face: Face;
  /** Where it stands along its axis, work coordinates, mm. */
  at: number;
  /** A place on it that is free, work coordinates; its height is that of the lower end of what touches. */
  place: Vec3;
  /** Which way one goes to touch it. */
  way: 1 | -1;
  /** Whether it is round: touched beside its middle it stands a little elsewhere. */
  isRound?: boolean;
}

/** What a zero is found from. */
export interface Touches {
  touches: Touch[];
  /** Faces that can be touched nowhere: clamped, or too near to what holds. */
  blocked: Face[];
}

/** How far a zero may have been set wrong by hand, mm: a face is touched where it is met all the same. */
export const ROUGH = 3;
/** Room a probe takes: beside the face, round itself, how long its stylus is, and below it, mm. */
export const ROOM = { before: 10, round: 25, stylus: 25, under: 1 } as const;
/** How far below the top a side is touched, mm; the lower end of what touches goes no deeper than half of the stock. */
const DOWN = 4;
/** Places along a face that are tried, as shares of it: near its middle first. */
const SHARES = [0.5, 0.35, 0.65, 0.2, 0.8, 0.08, 0.92];
/** A side touched here is the outermost, mm. */
const SAME = 0.01;

/** Whether a stylus that comes straight down, and one that goes in beside it, meet nothing. */
const isFree = (fixtures: FixtureBox[], { x, y, z }: Vec3, ball: number): boolean =>
  fixtures.every((f) => {
    const off = Math.max(f.minX - x, x - f.maxX, f.minY - y, y - f.maxY);
    return off > (f.maxZ > z + ROOM.stylus ? ROOM.round : f.maxZ > z - ROOM.under ? ROOM.before + ball : -Infinity);
  });

const turned = (p: Point, isX: boolean): Point => (isX ? p : { x: p.y, y: p.x });

/** How far out the outline reaches on a line across; undefined where the line misses it. */
function reachAt(region: Region, across: number, isX: boolean, way: 1 | -1): number | undefined {
  const crossings = region.flatMap((ring) =>
    ring.flatMap((p, i) => {
      const [a, b] = [turned(p, isX), turned(ring[(i + 1) % ring.length], isX)];
      if (a.y > across === b.y > across) return [];
      return [a.x + ((b.x - a.x) * (across - a.y)) / (b.y - a.y)];
    }),
  );
  if (crossings.length === 0) return undefined;
  return way > 0 ? Math.min(...crossings) : Math.max(...crossings);
}

interface Sides {
  axis: 'x' | 'y';
  faces: [Face, Face];
}
const SIDES: Sides[] = [
  { axis: 'x', faces: ['left', 'right'] },
  { axis: 'y', faces: ['front', 'back'] },
];

/** The side nearest to the zero that is free somewhere, in part coordinates. */
function sideOf({ stock, fixtures, zero }: Ground, { axis, faces }: Sides, ball: number): Touch | undefined {
  const isX = axis === 'x';
  const box = boundsOf(stock.region.flat());
  const [low, high] = isX ? [box.minX, box.maxX] : [box.minY, box.maxY];
  const [from, to] = isX ? [box.minY, box.maxY] : [box.minX, box.maxX];
  const z = stock.top - Math.min(DOWN + ball / 2, (stock.top - stock.bottom) / 2);
  const sides = [
    { face: faces[0], at: low, way: 1 as const },
    { face: faces[1], at: high, way: -1 as const },
  ].sort((a, b) => Math.abs(a.at - zero[axis]) - Math.abs(b.at - zero[axis]));
  for (const { face, at, way } of sides)
    for (const share of SHARES) {
      const across = from + share * (to - from);
      const reaches = [-ROUGH, 0, ROUGH].map((by) => reachAt(stock.region, across + by, isX, way));
      const before = at - way * (ROOM.before + ball);
      const place = isX ? { x: at, y: across, z } : { x: across, y: at, z };
      const start = isX ? { ...place, x: before } : { ...place, y: before };
      const isAt = (reach: number | undefined) => Math.abs(reach! - at) <= SAME;
      if (reaches.includes(undefined) || !isAt(reaches[1]) || !isFree(fixtures, start, ball)) continue;
      return { axis, face, at, place, way, isRound: !reaches.every(isAt) };
    }
  return undefined;
}

/** A place on the top that is free, near the zero where one is. */
function topOf({ stock, fixtures, zero }: Ground, ball: number): Touch | undefined {
  const box = boundsOf(stock.region.flat());
  const places = SHARES.flatMap((u) =>
    SHARES.map((v) => ({ x: box.minX + u * (box.maxX - box.minX), y: box.minY + v * (box.maxY - box.minY) })),
  ).sort((a, b) => distance(a, zero) - distance(b, zero));
  const at = stock.top;
  const isMet = ({ x, y }: Point) =>
    [-ROUGH, ROUGH].every((by) => contains(stock.region, { x: x + by, y }) && contains(stock.region, { x, y: y + by }));
  const free = places.find((p) => isMet(p) && isFree(fixtures, { ...p, z: at }, ball));
  return free && { axis: 'z', face: 'top', at, place: { ...free, z: at }, way: -1 };
}

const toWork =
  (zero: Vec3) =>
  (t: Touch): Touch => ({
    ...t,
    at: t.at - zero[t.axis],
    place: { x: t.place.x - zero.x, y: t.place.y - zero.y, z: t.place.z - zero.z },
  });

/**
 * The faces the zero of a setup is found from, top first.
 * @param ball diameter of what touches, mm
 * @returns undefined where the stock is no fresh, upright piece: what was cut before, a casting, a lying bar or a leaning part
 */
export function touchesOf(ground: Ground, ball: number): Touches | undefined {
  const { stock, job, setup, flat } = ground;
  if (stock.lying || stock.casting || flat || beforeOf(job, setup)) return undefined;
  const found = [topOf(ground, ball), ...SIDES.map((s) => sideOf(ground, s, ball))];
  const touches = found.flatMap((t) => t ?? []).map(toWork(ground.zero));
  const axes = new Set(touches.map((t) => t.axis));
  const blocked: Face[] = [
    ...(axes.has('z') ? [] : (['top'] as const)),
    ...SIDES.flatMap(({ axis, faces }) => (axes.has(axis) ? [] : faces)),
  ];
  return { touches, blocked };
}
