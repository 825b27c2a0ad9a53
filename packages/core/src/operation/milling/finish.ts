import { IsOptional } from 'class-validator';
import { fitArcs } from '../../geometry/plane/arcfit';
import { Chain, chainLength, flatten, reversed, startedAtShare, startedOnLongest } from '../../geometry/plane/chain';
import { Region, Ring, contains } from '../../geometry/plane/clip';
import { Point, distance } from '../../geometry/plane/point';
import { suggestFinish } from '../../cutting/entries';
import { Finding, finding } from '../../quantity/finding';
import { Choice, Parameter, Toggle } from '../../quantity/parameter';
import { Tool } from '../../shop/tool';
import { begunAt } from './laps';
import { followWithLead, leadFor, quarter, wearing } from './leads';
import { PlanContext } from '../operation';
import { PathBuilder } from '../../path/path';

const FINISH_DIRECTIONS = ['as roughed', 'climb', 'conventional'] as const;
export type FinishDirection = (typeof FINISH_DIRECTIONS)[number];

/** A value of operations that finish walls: which way the finish runs. */
export const FINISH_DIRECTION = {
  label: 'Direction of the finish',
  help: 'As roughed, or its own: climbing leaves the better wall where roughing runs conventionally.',
  choices: FINISH_DIRECTIONS,
  absent: 'as roughed',
  matters: (p: { finish: boolean }) => p.finish,
};

/** A value of operations that finish walls: whether that is all they do. */
export const FINISH_ALONE = {
  label: 'Finish alone',
  help: 'Nothing is cleared first: another operation left the walls for it, with a tool of its own.',
  absent: false,
  matters: (p: { finish: boolean }) => p.finish,
};

/** Whether an operation finishes what another has cleared, and does nothing else. */
export const finishesAlone = (p: { finish: boolean; finishAlone?: boolean }): boolean => p.finish && !!p.finishAlone;

/** For a value that only clearing looks at: it does not matter where the finish is all there is, and is sound all the same. */
export const whileClearing = <P extends { finish: boolean; finishAlone?: boolean }>(matters?: (p: P) => boolean) => ({
  always: matters ?? true,
  matters: (p: P): boolean => !finishesAlone(p) && (matters?.(p) ?? true),
});

/** Whether a finish runs conventionally, after roughing that does or does not. */
export const finishesConventionally = (asked: FinishDirection | undefined, roughed: boolean): boolean =>
  !asked || asked === 'as roughed' ? roughed : asked === 'conventional';

/** Values of the laps that finish the walls of what was cleared. */
export class FinishParams {
  @Toggle({ label: 'Finish the walls', help: 'Laps along the walls at full depth, after the clearing.' })
  finish!: boolean;
  @Parameter({
    label: 'For the finish',
    help: 'Metal the clearing leaves for the finish laps.',
    unit: 'length',
    min: 0.01,
    max: 5,
    step: 0.05,
    matters: (p: FinishParams) => p.finish,
  })
  finishStock!: number;
  @Parameter({
    label: 'Finish laps',
    help: 'They share the metal left for the finish.',
    unit: 'count',
    min: 1,
    max: 5,
    step: 1,
    matters: (p: FinishParams) => p.finish,
  })
  finishLaps!: number;
  @Toggle({
    label: 'Spring lap',
    help: 'The last lap once more at the same size, for what the cutter bent away.',
    matters: (p: FinishParams) => p.finish,
  })
  spring!: boolean;
  @Parameter({
    label: 'Overlap',
    help: 'How far a finish lap runs on past its start, so that no mark stays there.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.5,
    matters: (p: FinishParams) => p.finish,
  })
  overlap!: number;
  @Parameter({
    label: 'Off the floor',
    help: 'How far above the floor the finish laps run, so that the end of the cutter does not drag on it.',
    unit: 'length',
    min: 0,
    max: 5,
    step: 0.01,
    matters: (p: FinishParams) => p.finish,
  })
  floorGap!: number;
  @Parameter({
    label: 'Feed of the finish',
    help: 'Of the finish laps, as a share of the feed; slower in inside corners, so that they take no more metal a minute there.',
    unit: 'share',
    min: 0.1,
    max: 2,
    step: 0.1,
    matters: (p: FinishParams) => p.finish,
  })
  finishFeed!: number;
  @Parameter({
    label: 'Start moved on',
    help: 'Where finish laps begin: this share of the way round from the middle of the longest straight.',
    unit: 'share',
    min: 0,
    max: 1,
    step: 0.05,
    matters: (p: FinishParams) => p.finish,
  })
  finishStart!: number;
  @IsOptional()
  @Toggle(FINISH_ALONE)
  finishAlone?: boolean;
  @IsOptional()
  @Choice(FINISH_DIRECTION)
  finishDirection?: FinishDirection;
  @IsOptional()
  @Toggle({
    label: 'Wear in the control',
    help: 'The last lap is compensated: the control takes up the wear of the cutter from its diameter offset, 0 for a new one.',
    absent: false,
    matters: (p: FinishParams) => p.finish,
  })
  wear?: boolean;
}

/** What the control compensates of a clearing: the wear of its finish. */
export const finishCompensates = ({ finish, wear }: FinishParams) => (finish && wear ? ('wear' as const) : undefined);

/** Values by which metal is left on walls. */
type Leaving = { finish: boolean; finishAlone?: boolean; finishStock: number; wallAllowance: number };

/** Metal a clearing leaves on its walls, for its own finish or for a later one, mm. */
export const leftFor = (p: Leaving) => (p.finish && !p.finishAlone ? p.finishStock : 0) + p.wallAllowance;

/**
 * The bite of an operation that finishes alone: what was left for it, over all the depth.
 * @param deep how deep it goes, mm, where that is known
 */
export const finishBite = (p: Leaving, deep: number | undefined, most: number) => ({
  ae: p.finishStock,
  ap: Math.min(deep ?? most, most),
  peakAe: p.finishStock,
  leaves: leftFor(p),
});

/** Where finishing starts from for a tool. */
export const finishDefaults = (tool: Tool): FinishParams => ({
  finish: true,
  finishStock: suggestFinish(tool).allowance,
  finishLaps: 1,
  spring: false,
  overlap: 0,
  floorGap: 0,
  finishFeed: 1,
  finishStart: 0,
});

/** Laps are rebuilt from chords as true arcs within this, mm. */
const FIT = 0.002;

/** What the finish laps of one feature run along. */
export interface Walls {
  feature: { id: string };
  /** Metal left on the walls when all is done, mm. */
  allowance: number;
  /** Z of the floor. */
  floor: number;
  conventional: boolean;
  /** Where the cutter's centre may go, and those of its rings that run along walls, with so much metal left on them, mm. */
  at(leave: number): { free: Region; rings: Ring[] };
}

/** Finish laps along the walls of what was cleared, led on and off by arcs where there is room. */
export function finishWalls(path: PathBuilder, context: PlanContext, params: FinishParams, roughed: Walls): Finding[] {
  const walls = {
    ...roughed,
    conventional: finishesConventionally(params.finishDirection, roughed.conventional),
  };
  const { finishLaps: count, finishStock, spring, floorGap } = params;
  const z = walls.floor + floorGap;
  const leaves = Array.from({ length: count }, (_, i) => walls.allowance + (finishStock * (count - 1 - i)) / count);
  if (spring) leaves.push(walls.allowance);
  const findings = leaves.flatMap((leave) => {
    const { free, rings } = walls.at(leave);
    const isLast = leave === walls.allowance;
    return rings.flatMap((ring) =>
      lapAlong(path, context, walls, free, ring, z, { ...params, wear: isLast && params.wear }),
    );
  });
  return findings.filter((f, i) => findings.findIndex((g) => g.code === f.code) === i);
}

/** A closed chain that runs on past its start, as an open one. */
function overlapped(chain: Chain, by: number): Chain {
  if (by <= 0) return chain;
  const again: Chain['vertices'] = [];
  let left = Math.min(by, chainLength(chain));
  const points = flatten(chain, FIT);
  for (let i = 0; left > 0; i++) {
    const [a, b] = [points[i % points.length], points[(i + 1) % points.length]];
    const length = distance(a, b);
    const t = Math.min(1, left / length);
    again.push({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, bulge: 0 });
    left -= length;
  }
  const { vertices } = chain;
  return { closed: false, vertices: [...vertices, { ...vertices[0], bulge: 0 }, ...again] };
}

function lapAlong(
  path: PathBuilder,
  { tool, machine, operation, top, approach, clearance }: PlanContext,
  { feature, conventional }: Walls,
  free: Region,
  ring: Ring,
  z: number,
  { overlap, finishFeed, finishStart, finishStock, finishLaps, wear }: FinishParams,
): Finding[] {
  const { entryFeed } = operation.speeds;
  const feed = Math.min(machine.maxFeed, operation.speeds.feed * finishFeed);
  const fitted = fitArcs(ring, FIT);
  const way = conventional ? reversed(fitted) : fitted;
  const { begins } = operation;
  const started = begins?.length ? begunAt(way, begins) : startedAtShare(startedOnLongest(way), finishStart);
  const chain = overlapped(started, overlap);
  const side = conventional ? 'right' : 'left';
  const form = wear ? wearing(tool.diameter / 4) : quarter(tool.diameter / 4);
  const lead = leadFor(chain, form, side, (p: Point) => contains(free, p));
  const at = lead?.on.vertices[0] ?? chain.vertices[0];
  const begun = path.count;
  if (path.z < clearance) path.rapid(path.x, path.y, clearance);
  path.rapid(at.x, at.y, clearance).rapid(at.x, at.y, top + approach);
  path.line(at.x, at.y, z, lead ? feed : entryFeed, lead ? 'lead' : 'entry');
  if (lead) followWithLead(path, chain, lead, z, feed, wear ? side : undefined);
  else path.follow(chain, z, feed, 'cut');
  path.slowInside(begun, side, (tool.diameter - finishStock / finishLaps) / 2);
  path.rapid(path.x, path.y, clearance);
  const place = { operation: operation.id, feature: feature.id, at: { x: at.x, y: at.y } };
  if (lead) return [];
  return [finding(wear ? 'no-lead-for-compensation' : 'finish-starts-on-wall', {}, place)];
}
