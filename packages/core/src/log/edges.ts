/** How long the edges of a tool really last in a material: from those that were changed. */
import { maths } from '../quantity/maths';
import type { LogRow } from './entry';
import type { Use } from './facts';
import type { EdgeEnd } from './seen';

/** An edge that was changed. */
export interface ChangedEdge {
  /** Share of its life it was computed to have used. */
  used: number;
  /** Whether it was worn; else it was changed in good time. */
  worn: boolean;
}

/** How life falls with wear: its third power counts, as the largest count most. */
const POWER = 3;
/** From so many changed edges on something is proposed. */
export const ENOUGH_EDGES = 3;

/**
 * By how much an edge lasts longer than is said of it: ((1 + Σ w³)/(1 + number worn))^⅓, which begins at 1 and is moved by what is seen.
 * One that was changed in good time says only that it lasted so long.
 */
export function lifeFactor(edges: readonly ChangedEdge[]): number {
  const lasted = edges.reduce((sum, { used }) => sum + maths.pow(used, POWER), 0);
  const worn = edges.filter((e) => e.worn).length;
  return maths.pow((1 + lasted) / (1 + worn), 1 / POWER);
}

/** How the edges of a tool have fared. */
export interface EdgeHistory {
  tool: string;
  name: string;
  /** Those that were changed, with what they had cut most of; broken ones say nothing of wear. */
  changed: (ChangedEdge & { materialId: string; material: string; at: string })[];
  /** Share of a life the one in it has used, as the card says it; by what it cut. */
  used: number;
  /** What it cuts now. */
  materialId: string;
}

interface Edge extends EdgeHistory {
  byMaterial: Map<string, number>;
}

/** How the run of an entry left the edge of a tool; undefined where it stays. */
const endOf = ({ seen = [] }: LogRow, { operations }: Use): EdgeEnd | undefined =>
  seen.find((s) => s.edge !== undefined && operations.includes(s.operation))?.edge;

const mostOf = (shares: Map<string, number>): string => [...shares].sort(([, a], [, b]) => b - a)[0][0];

function end(edge: Edge, how: EdgeEnd, at: string, names: Map<string, string>): void {
  const materialId = mostOf(edge.byMaterial);
  const material = names.get(materialId)!;
  if (how !== 'broken') edge.changed.push({ used: edge.used, worn: how === 'worn', materialId, material, at });
  edge.used = 0;
  edge.byMaterial.clear();
}

/** Of every tool that real runs used. @param rows that stand, the oldest first */
export function edgeHistories(rows: readonly LogRow[]): EdgeHistory[] {
  const edges = new Map<string, Edge>();
  const names = new Map<string, string>();
  for (const row of rows) {
    if (row.kind === 'simulated') continue;
    const { materialId, material, uses } = row.facts;
    names.set(materialId, material);
    for (const use of uses) {
      const { tool, name } = use;
      const edge = edges.get(tool) ?? { tool, name, changed: [], used: 0, materialId, byMaterial: new Map() };
      const share = use.share * row.parts;
      edge.used += share;
      edge.byMaterial.set(materialId, (edge.byMaterial.get(materialId) ?? 0) + share);
      Object.assign(edge, { name, materialId });
      const how = endOf(row, use);
      if (how) end(edge, how, row.at, names);
      edges.set(tool, edge);
    }
  }
  return [...edges.values()].map(({ byMaterial: _, ...history }) => history);
}
