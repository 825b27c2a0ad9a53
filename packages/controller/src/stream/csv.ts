/** What was measured while a program ran, as text: of this machine or of a real one. */
import type { StreamRow } from '../control/events';

/** Columns, in the order they are written; read in any order. */
const COLUMNS = ['t_s', 'x_mm', 'y_mm', 'z_mm', 'load_pct', 'vib_um'] as const;
const FIELDS = ['t', 'x', 'y', 'z', 'load', 'vibration'] as const;
/** Decimals each is written with. */
const DECIMALS = [1, 3, 3, 3, 1, 2] as const;
/** Longer ones are no recording of a program: a day at ten rows a second. */
const MOST_ROWS = 864_000;

/** Rows as CSV. */
export const streamCsv = (rows: readonly StreamRow[]): string =>
  [COLUMNS.join(','), ...rows.map((r) => FIELDS.map((f, i) => r[f].toFixed(DECIMALS[i])).join(','))].join('\n') + '\n';

/** What a stream is refused for. */
export class StreamFault extends Error {
  constructor(
    /** From 1. */
    readonly line: number,
    message: string,
  ) {
    super(`Line ${line}: ${message}`);
  }
}

/**
 * Reads a stream.
 * @throws StreamFault where a column is missing, a figure is none, or time does not rise
 */
export function readStream(text: string): StreamRow[] {
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/);
  const names = lines[0].split(',').map((n) => n.trim());
  const missing = COLUMNS.filter((c) => !names.includes(c));
  if (missing.length > 0)
    throw new StreamFault(1, `There is no column ${missing.join(', ')}; it wants ${COLUMNS.join(', ')}`);
  const at = COLUMNS.map((c) => names.indexOf(c));
  const rows: StreamRow[] = [];
  lines.slice(1).forEach((line, i) => {
    if (line.trim() === '') return;
    const row = rowOf(line.split(','), at, i + 2);
    const before = rows[rows.length - 1];
    if (before && !(row.t > before.t))
      throw new StreamFault(i + 2, `Time goes from ${before.t} to ${row.t} s: it has to rise`);
    if (rows.length >= MOST_ROWS) throw new StreamFault(i + 2, `More than ${MOST_ROWS} rows`);
    rows.push(row);
  });
  return rows;
}

function rowOf(cells: string[], at: number[], line: number): StreamRow {
  const values = at.map((k, c) => {
    const cell = cells[k]?.trim() ?? '';
    const value = Number(cell);
    if (cell === '' || !Number.isFinite(value)) throw new StreamFault(line, `“${cell}” is no number for ${COLUMNS[c]}`);
    return value;
  });
  return Object.fromEntries(FIELDS.map((f, i) => [f, values[i]])) as unknown as StreamRow;
}
