import polylabel from 'polylabel';
import { Region, area, difference, intersection, islands, offset } from '../../geometry/plane/clip';
import { Point } from '../../geometry/plane/point';
import { Finding, finding } from '../../quantity/finding';
import { Tool, cutsWalls } from '../../shop/tool';
import { PlanContext } from '../operation';

/** Diameter of the largest circle inside a region, mm, and its middle. */
export function widest(region: Region): { diameter: number; at: Point } {
  let best = { diameter: 0, at: { x: 0, y: 0 } };
  for (const island of islands(region)) {
    const pole = polylabel(
      island.map((r) => r.map((p) => [p.x, p.y])),
      0.01,
    );
    if (2 * pole.distance > best.diameter) best = { diameter: 2 * pole.distance, at: { x: pole[0], y: pole[1] } };
  }
  return best;
}

/** What is kept may be as thin as this, mm, to be a wall all the same. */
const THINNEST = 0.4;
const HAIR = 0.05;

/**
 * An area with all that lies so near round it and can be got to from it: what lies behind a thin wall is not.
 * @param by how far round it, mm
 * @param keep what must stay
 */
export function roundAbout(wanted: Region, by: number, keep: Region): Region {
  const near = offset(wanted, by);
  const beyond = difference(difference(near, keep), offset(wanted, HAIR));
  if (area(beyond) < HAIR) return near;
  const steps = Math.ceil(by / THINNEST);
  let reached = wanted;
  for (let k = 0; k < steps; k++) reached = difference(offset(reached, by / steps), keep);
  const behind = difference(beyond, offset(reached, HAIR));
  const surely = offset(offset(behind, -HAIR), 2 * HAIR);
  return surely.length > 0 ? difference(near, surely) : near;
}

/** The tool does not fit into an area at all: says by how much, and what would. */
export function tooNarrow(
  { tool, operation, rack }: Pick<PlanContext, 'tool' | 'operation' | 'rack'>,
  feature: { id: string; name: string },
  region: Region,
  allowance: number,
): Finding {
  const { diameter, at } = widest(region);
  const most = diameter - 2 * allowance;
  const fitting = rack
    .filter((t) => cutsWalls(t) && t.diameter < most)
    .reduce<Tool | undefined>((a, t) => (a && a.diameter >= t.diameter ? a : t), undefined);
  return finding(
    'pocket-too-small',
    {
      feature: feature.name,
      diameter,
      tool: tool.name,
      needs: tool.diameter + 2 * allowance,
      isThere: fitting !== undefined,
      number: fitting?.number ?? 0,
      fitting: fitting?.name ?? '',
      most,
    },
    { operation: operation.id, feature: feature.id, tool: tool.id, field: 'toolId', at },
  );
}

/** Smaller corners than this stay unmentioned, mm². */
export const WORTH_TELLING = 0.5;

/** Slivers thinner than this are what offsets are off by, mm. */
const SLIVER = 0.1;

/** What a cutter that runs round a region leaves in its inside corners. */
export function insideCorners(region: Region, radius: number): Region {
  const left = difference(offset(offset(region, radius), -radius), region);
  return intersection(offset(offset(left, -SLIVER / 2), SLIVER), left);
}

/** What a cutter cannot reach, so that nobody finds it on the part. */
export function cornersLeft(
  { operation }: Pick<PlanContext, 'operation'>,
  feature: { id: string; name: string },
  wanted: Region,
  reached: Region,
): Finding[] {
  const left = difference(wanted, reached).filter((r) => r.length > 2);
  const standing = area(left);
  if (standing < WORTH_TELLING) return [];
  const at = left.reduce((a, b) => (Math.abs(area([b])) > Math.abs(area([a])) ? b : a))[0];
  return [
    finding(
      'corner-left',
      { area: standing, feature: feature.name },
      { operation: operation.id, feature: feature.id, at },
    ),
  ];
}
