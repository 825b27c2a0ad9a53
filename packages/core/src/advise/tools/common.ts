import polylabel from 'polylabel';
import { lifts } from '../../cutting/lift';
import { suggest } from '../../cutting/suggest';
import { Situation, Suggestion } from '../../cutting/suggestion';
import { Region, area, difference, intersection, offset, ringArea, thinned, union } from '../../geometry/plane/clip';
import { AroundFloor } from '../../part/plate/around-floor';
import { Feature } from '../../part/plate/feature';
import { PartModel, regionOf } from '../../part/plate/model';
import { Tool, kindLabel, onlyFaces } from '../../shop/tool';
import { Job } from '../../document/job';
import { situationOf } from '../../plan/situation';

export type Role = 'does it' | 'roughs' | 'opens' | 'starts' | 'sizes' | 'threads' | 'breaks the edge';

/** A tool of the rack for a feature, with why. */
export interface Advice {
  /** How much wider the widest place it works in is than the tool, mm, where that is known. */
  room?: number;
  /** What stays in the inside corners of an outside, mm². */
  rest?: number;
  /** Whether a wall is higher than its flutes are long. */
  isStepped?: boolean;
  /** Whether it fills a neck of the room it works in, and a lap along the pocket's own line opens it. */
  opensNeck?: boolean;
  tool: Tool;
  role: Role;
  /** Kind of operation it would do it with, where there is one. */
  kind?: string;
  /** Estimated time in cut, minutes, where it can be said. */
  minutes?: number;
  /** Why it suits, and what speaks against it. */
  reasons: string[];
  cautions: string[];
  /** What it would bite, mm; for tools fed along their axis nothing that matters. */
  bite: { ae: number; ap: number };
  suggestion: Suggestion;
  rank: number;
}

export interface Advised {
  ranked: Advice[];
  /** Tools of the right kind that cannot, and why. */
  unfit: { tool: Tool; why: string }[];
  /** The size to buy where nothing of the rack does it. */
  buy?: string;
}

export interface Asked {
  job: Job;
  feature: Feature;
  model: PartModel;
  /** How deep an outline is to be cut, mm; through where left out. */
  depth?: number;
  long: (mm: number) => string;
}

/** Chords of offsets made only to see what a cutter reaches, mm. */
export const COARSE = 0.02;
/** Share of an area that may be left standing and still counts as reached. */
export const REACHED = 0.002;
/** How much worse a tool ranks: chips have no room, it turns on the spot in corners, it leaves metal for another,
 * a wall shows the steps of its short flutes. */
export const WORSE = { chips: 1.6, tight: 1.4, rest: 3, bends: 1.5, steps: 3 } as const;
/** Cutter sizes that are made everywhere, mm. */
export const STOCK_SIZES = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 16, 20, 25];

export const cutOf = (
  a: Asked,
  bite: { ae: number; ap: number },
  tool: Tool,
): { situation: Situation; suggestion: Suggestion; bite: Advice['bite'] } => {
  const situation = situationOf(a.job, tool, { ...bite, peakAe: tool.diameter });
  return { situation, suggestion: suggest(situation), bite };
};

/** A neck that is narrower than a cutter by less is one it fills, mm a side. */
const NECK = 0.05;

/** A cutter that hangs out over an open side is to have so much room besides, mm: what it leaves on walls, and more. */
const HANGING = 0.5;

/** Narrowest and widest of a region as cutters see them: the largest circle inside, and what a cutter of radius r cannot reach. */
export function reachOf({ region: exact, open }: Pick<AroundFloor, 'region' | 'open'>) {
  const closed = exact.map((points) => points.map((p) => [p.x, p.y]));
  const inside = closed.length ? 2 * polylabel(closed, 0.05).distance : 0;
  const precision = Math.min(COARSE, inside / 400);
  const region = thinned(exact, precision);
  const whole = area(region);
  const room = open.length > 0 ? union(region, thinned(open, precision)) : region;
  const known = new Map<number, number>();
  const left = (r: number): number => {
    const found = known.get(r);
    if (found !== undefined) return found;
    const reached = intersection(offset(offset(room, -r, precision / 4), r, precision / 4), region);
    const share = reached.length ? Math.max(0, 1 - area(reached) / whole) : 1;
    known.set(r, share);
    return share;
  };
  /** How many rooms the middle of a cutter of radius r has, and how many things stand in them. */
  const rooms = (r: number): string => {
    const rings = offset(room, -r, precision / 4);
    const outer = rings.filter((ring) => ringArea(ring) > 0).length;
    return outer > 0 ? `${outer}, ${rings.length - outer}` : '';
  };
  /** Whether there is a neck a cutter of radius r fills: what leaves so much on walls does not get through, and a lap along them cuts on both sides at once. */
  const hasNeck = (r: number, leave: number): boolean => {
    const wide = rooms(r + leave);
    return wide !== '' && wide !== rooms(r - NECK);
  };
  /** Whether a cutter so wide finds room: within the region, or hanging out over what is open. */
  const takes = (d: number) => d < inside || (open.length > 0 && left(d / 2 + HANGING) <= REACHED);
  return { area: whole, widest: inside, left, takes, hasNeck };
}

/** How near a lap may come to what stands beside it, mm. */
const CLEAR = 0.004;

/** Whether a lap of a cutter of radius r along the line of a pocket, whatever stands within, touches nothing but its floor: of one with upright walls. */
export function isLapClear(pocket: Feature, floor: Region, r: number): boolean {
  if (pocket.taper) return false;
  const own = regionOf(pocket);
  const lap = difference(offset(own, -(r - CLEAR / 4)), offset(own, -(r + CLEAR / 4)));
  return area(intersection(lap, offset(difference(own, floor), r - CLEAR))) === 0;
}

export function chipRoom(a: Asked, tool: Tool, reasons: string[], cautions: string[]): number {
  const { mostFlutes, name } = a.job.material;
  const flutes = tool.flutes === 1 ? '1 flute' : `${tool.flutes} flutes`;
  if (tool.flutes <= mostFlutes) {
    reasons.push(`${flutes}: room for the chips of ${name}`);
    return 1;
  }
  cautions.push(`${flutes} leave little room for the chips of ${name}; ${mostFlutes} or fewer are better`);
  return WORSE.chips;
}

export function bending(a: Asked, situation: Situation, suggestion: Suggestion, cautions: string[]): number {
  if (suggestion.limit !== 'bending') return 1;
  const [best] = lifts(situation, { tools: [], holders: [] }).filter((l) => l.change.stickOut);
  cautions.push(`it bends: ${a.long(situation.tool.stickOut)} stick out${best ? `; ${best.what.toLowerCase()}` : ''}`);
  return WORSE.bends;
}

/** What a mill cannot be taken for beside the geometry: what it was made for speaks against it. */
export const notForWalls = (tool: Tool): string | undefined =>
  onlyFaces(tool) ? `a ${kindLabel(tool)} is made for level faces` : undefined;

/** What it counts against a tool for a wall that its flutes are shorter than the wall is high. */
export function steppedWall(a: Asked, tool: Tool, depth: number, cautions: string[]): number {
  if (tool.fluteLength >= depth) return 1;
  cautions.push(`flutes of ${a.long(tool.fluteLength)}: a wall of ${a.long(depth)} shows their steps`);
  return WORSE.steps;
}

/**
 * Why a mill cannot get down to a depth, if it cannot.
 * @param wall how high the walls are that it runs along there, mm
 */
export function tooShort(a: Asked, tool: Tool, depth: number, wall = depth): string | undefined {
  if (depth > tool.stickOut) return `sticks out ${a.long(tool.stickOut)}, ${a.long(depth)} are needed`;
  if (wall > tool.fluteLength && tool.shankDiameter >= tool.diameter)
    return `flutes of ${a.long(tool.fluteLength)} for ${a.long(wall)}: the shank would rub`;
  return undefined;
}

/** Flutes longer than so many diameters are hardly made: deeper down a mill reaches with a neck. */
const LONG_FLUTES = 4;
/** No neck is longer, in diameters: more would break. */
const LONGEST_NECK = 15;

/**
 * The mill to buy for walls.
 * @param most the widest that fits, mm
 * @param depth how deep the walls are, mm
 * @param corner radius at their foot, mm
 * @param room widest that goes in at all, mm: where none so deep gets into the corners, the first that is made
 */
export const buyMill = (a: Asked, most: number, depth: number, corner = 0, room = most): string | undefined => {
  const fitting = STOCK_SIZES.filter((d) => d <= most).pop();
  if (fitting === undefined) return undefined;
  const made = STOCK_SIZES.find((d) => depth <= LONGEST_NECK * d) ?? fitting;
  const size = made < room ? Math.max(fitting, made) : fitting;
  const what =
    corner >= size / 2
      ? `Ball mill ${a.long(size)}`
      : corner > 0
        ? `Bull mill ${a.long(size)} with a corner of ${a.long(corner)}`
        : `End mill ${a.long(size)}`;
  const deep = a.long(Math.ceil(depth + 1));
  const long = depth > LONG_FLUTES * size ? `with flutes or a thinner neck for ${deep}` : `flutes of ${deep} or more`;
  const leaves = size > fitting ? ` (it leaves a radius of ${a.long(size / 2)} in the corners)` : '';
  return `${what}, up to ${a.job.material.mostFlutes} flutes, ${long}${leaves}`;
};
