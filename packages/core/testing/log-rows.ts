/** Entries of a log for tests. */
import type { LogRow } from '../src/log/entry';

const DAY = 24 * 3600_000;

/** Adds entries one day apart, each of one part whose tool uses a tenth of a life in steel. */
export function logOf(...entries: Partial<LogRow>[]): LogRow[] {
  const start = Date.parse('2026-03-02T08:00:00Z');
  return entries.map((more, i): LogRow => ({
    ...{ id: `${i}`.padStart(32, '0'), kind: 'production', parts: 1, scrapped: 0, remark: '', releaseId: 'r1' },
    ...{ at: new Date(start + i * DAY).toISOString(), who: 'Lio', jobId: 'j1', jobName: 'Plate', setupName: 'Top' },
    ...{ number: 1, machineId: 'whimbrel', machine: 'Whimbrel', computed: 600 },
    facts: {
      ...{ dwell: 0, moves: 570, changes: 2, materialId: 'steel', material: 'Mild steel', names: { o1: 'Pocket 1' } },
      uses: [{ tool: 't4', name: 'End mill 10', share: 0.1, operations: ['o1'] }],
      cuts: [{ operation: 'o1', tool: 't4', speed: 120, chip: 0.05, light: false }],
    },
    ...more,
  }));
}
