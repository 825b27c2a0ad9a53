/** Where the work stands on the table, and what of the machine's travel its paths take. */
import { placesOfStations } from '../document/stations';
import { Setup } from '../document/job';
import { boundsOf, Bounds, Point } from '../geometry/plane/point';
import { travelOf } from '../machine/axes';
import { Machine } from '../machine/machine';
import { Path } from '../path/path';
import { Finding, finding } from '../quantity/finding';
import { LengthUnit, formatLength } from '../quantity/units';
import { holderLength } from '../shop/holder';
import { Tool, isBeam } from '../shop/tool';
import { bodiesEverywhere, stockEverywhere } from './everywhere';
import { Ground, bodiesOf } from './ground';

/** The middle of the table in part coordinates: under the middle of the stock, but for how far that was set aside. */
export function tableMiddle({ setup, stock }: Pick<Ground, 'setup' | 'stock'>): Point {
  const { minX, maxX, minY, maxY } = boundsOf(stockEverywhere(setup, stock).region.flat());
  const { x = 0, y = 0 } = setup.onTable ?? {};
  return { x: (minX + maxX) / 2 - x, y: (minY + maxY) / 2 - y };
}

/** A path and the tool that runs it. */
export interface Reaching {
  tool: Tool;
  path: Pick<Path, 'x' | 'y' | 'z'>;
}

/** What of the travel is left, mm; less than nothing where it does not reach. */
export interface Reach {
  left: number;
  right: number;
  front: number;
  back: number;
  /** By tool, the nose at its lowest and at its highest. */
  tools: { tool: Tool; down: number; up: number }[];
  /** How far aside the work would stand with as much left on both sides of each axis, and all that holds it on the table. */
  best: Point;
}

const spread = (paths: Reaching[], axis: 'x' | 'y' | 'z'): [number, number] => {
  let [low, high] = [Infinity, -Infinity];
  for (const { path } of paths)
    for (const v of path[axis]) if (Number.isFinite(v)) [low, high] = [Math.min(low, v), Math.max(high, v)];
  return [low, high];
};

/** The nearest to a shift with which something from `low` to `high` of its middle stays on the table; the middle where it is too large. */
function onTable(shift: number, [low, high]: [number, number], size: number | undefined): number {
  if (!size || high - low > size) return size ? -(low + high) / 2 : shift;
  return Math.min(size / 2 - high, Math.max(-size / 2 - low, shift));
}

/** All that stands on the table, from the middle of the stock. */
function standing({ setup, stock, held }: Ground): Bounds {
  const { x, y } = tableMiddle({ setup: { ...setup, onTable: undefined }, stock });
  const points = [
    ...stockEverywhere(setup, stock).region.flat(),
    ...bodiesEverywhere(setup, bodiesOf(held)).flatMap((b) => [
      { x: b.minX, y: b.minY },
      { x: b.maxX, y: b.maxY },
    ]),
  ];
  const { minX, maxX, minY, maxY } = boundsOf(points);
  return { minX: minX - x, maxX: maxX - x, minY: minY - y, maxY: maxY - y };
}

/** What a machine's travel leaves round the paths of a setup; undefined where there is nothing to run. */
export function reachOf(machine: Machine, ground: Ground, paths: Reaching[]): Reach | undefined {
  const run = paths.filter((p) => p.path.x.length > 0 && !isBeam(p.tool));
  if (run.length === 0) return undefined;
  const { setup, stock } = ground;
  const places = placesOfStations(setup);
  const along = (axis: 'x' | 'y'): [number, number] => {
    const [low, high] = spread(run, axis);
    const at = places.map((p) => p[axis]);
    return [low + Math.min(...at), high + Math.max(...at)];
  };
  const [x, y] = [along('x'), along('y')];
  const middle = tableMiddle(ground);
  const { x: dx = 0, y: dy = 0 } = setup.onTable ?? {};
  const half = { x: travelOf(machine.axes.x) / 2, y: travelOf(machine.axes.y) / 2 };
  const { minX, maxX, minY, maxY } = standing(ground);
  const best = {
    x: onTable(middle.x + dx - (x[0] + x[1]) / 2, [minX, maxX], machine.tableX),
    y: onTable(middle.y + dy - (y[0] + y[1]) / 2, [minY, maxY], machine.tableY),
  };
  const tools = [...new Set(run.map((p) => p.tool))].map((tool) => {
    const [low, high] = spread(
      run.filter((p) => p.tool === tool),
      'z',
    );
    const nose = tool.stickOut + holderLength(tool.holder) + setup.riser - stock.bottom;
    const lowest = machine.noseToTable - travelOf(machine.axes.z);
    return { tool, down: low + nose - lowest, up: machine.noseToTable - high - nose };
  });
  return {
    left: x[0] - middle.x + half.x,
    right: half.x - (x[1] - middle.x),
    front: y[0] - middle.y + half.y,
    back: half.y - (y[1] - middle.y),
    tools,
    best: { x: best.x || 0, y: best.y || 0 },
  };
}

/** What is left of the travel, in a line. */
export function reachText({ left, right, front, back }: Reach, unit: LengthUnit): string {
  const mm = (v: number) => formatLength(Math.round(v), unit);
  const side = (name: string, room: number) => (room < 0 ? `${mm(-room)} too little ${name}` : `${mm(room)} ${name}`);
  return `Left of its travel: ${side('to the left', left)}, ${side('to the right', right)}, ${side('to the front', front)}, ${side('to the back', back)}.`;
}

/** A place so much better is worth moving to, and so much over the table worth telling, mm. */
const WORTH = { move: 10, over: 1 };

/** Whether the best place is worth moving to. */
export const isBetter = ({ best }: Reach, { onTable: now }: Setup): boolean =>
  Math.max(Math.abs(best.x - (now?.x ?? 0)), Math.abs(best.y - (now?.y ?? 0))) > WORTH.move;

/** Tools that have no room to be changed over the work, and what holds it that reaches beyond the table. */
export function reachFindings(machine: Machine, ground: Ground, tools: Tool[]): Finding[] {
  const { setup, stock, held } = ground;
  const top = Math.max(stock.top, ...bodiesOf(held).map((b) => b.maxZ)) - stock.bottom + setup.riser;
  const found: Finding[] = tools
    .filter((tool) => !isBeam(tool))
    .flatMap((tool) => {
      const room = machine.noseToTable - tool.stickOut - holderLength(tool.holder) - top;
      const needs = machine.changeRoom ?? 0;
      if (room >= needs) return [];
      return [finding('no-room-to-change', { tool: tool.name, room, needs }, { tool: tool.id, field: 'riser' })];
    });
  const { minX, maxX, minY, maxY } = standing(ground);
  const { x = 0, y = 0 } = setup.onTable ?? {};
  const over = (low: number, high: number, aside: number, size = 0) =>
    size > 0 ? Math.max(high + aside, -low - aside) - size / 2 : 0;
  const beyond = { x: over(minX, maxX, x, machine.tableX), y: over(minY, maxY, y, machine.tableY) };
  if (Math.max(beyond.x, beyond.y) > WORTH.over)
    found.push(finding('off-table', { x: Math.max(0, beyond.x), y: Math.max(0, beyond.y) }, { field: 'onTable' }));
  return found;
}
