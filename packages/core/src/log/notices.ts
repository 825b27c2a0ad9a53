/** What somebody should hear of the log without looking for it. */
import { Finding, finding } from '../quantity/finding';
import type { Tool } from '../shop/tool';
import { edgesLast } from '../cutting/edge-life';
import { edgeHistories } from './edges';
import { LogRow, SCRAP_CAUSES } from './entry';

/** So many times its time, so many runs in a row. */
const SLOW = { times: 2, runs: 3 };
/** Parts scrapped for one cause. */
const SCRAPPED = 2;
/** Share of its life from which an edge is looked at. */
const INSPECT = 0.8;
/** Days that are looked at for what is used, and used a month. */
const DAYS = 30;
const DAY = 24 * 3600_000;

/** Rows by the setup of the job they ran, the oldest first. */
function bySetup(rows: readonly LogRow[]): LogRow[][] {
  const found = new Map<string, LogRow[]>();
  for (const row of rows) {
    const key = `${row.jobId} ${row.setupName}`;
    found.set(key, [...(found.get(key) ?? []), row]);
  }
  return [...found.values()];
}

function slow(rows: LogRow[]): Finding[] {
  const last = rows.filter((r) => r.seconds !== undefined && r.computed > 0).slice(-SLOW.runs);
  if (last.length < SLOW.runs || !last.every((r) => r.seconds! >= SLOW.times * r.computed)) return [];
  const { jobName: job, setupName: setup, computed } = last[0];
  return [
    finding('log-slow', { job, setup, runs: SLOW.runs, least: Math.min(...last.map((r) => r.seconds!)), computed }),
  ];
}

function scrapped(all: LogRow[], since: number): Finding[] {
  const rows = all.filter((r) => Date.parse(r.at) >= since);
  if (rows.length === 0) return [];
  const parts = rows.reduce((sum, r) => sum + r.parts, 0);
  const { jobName: job, setupName: setup } = rows[0];
  return SCRAP_CAUSES.flatMap((cause) => {
    const bad = rows.reduce((sum, r) => sum + (r.cause === cause ? r.scrapped : 0), 0);
    return bad >= SCRAPPED ? [finding('log-scrap', { job, setup, cause, scrapped: bad, parts, days: DAYS })] : [];
  });
}

function edges(rows: readonly LogRow[], tools: readonly Tool[], since: number): Finding[] {
  const lasts = (id: string, materialId: string) => {
    const tool = tools.find((t) => t.id === id);
    return tool ? edgesLast(tool, { id: materialId }) : 1;
  };
  const used = new Map<string, number>();
  for (const row of rows)
    if (Date.parse(row.at) >= since)
      for (const { tool, share } of row.facts.uses)
        used.set(tool, (used.get(tool) ?? 0) + (share * row.parts) / lasts(tool, row.facts.materialId));
  return edgeHistories(rows).flatMap(({ tool, name, used: share, materialId }) => {
    const spent = share / lasts(tool, materialId);
    const month = used.get(tool) ?? 0;
    return [
      ...(spent >= INSPECT ? [finding('log-edge-ends', { tool: name, share: spent }, { tool })] : []),
      ...(month >= 1 ? [finding('log-edges-used', { tool: name, edges: month, days: DAYS }, { tool })] : []),
    ];
  });
}

/**
 * What the log has to tell.
 * @param rows that stand, the oldest first
 * @param now ms since 1970
 */
export function noticesOf(rows: readonly LogRow[], tools: readonly Tool[], now: number): Finding[] {
  const real = rows.filter((r) => r.kind !== 'simulated');
  const since = now - DAYS * DAY;
  return [...bySetup(real).flatMap((of) => [...slow(of), ...scrapped(of, since)]), ...edges(real, tools, since)];
}
