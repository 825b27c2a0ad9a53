import Papa from 'papaparse';
import { Finding, finding, hasStop } from '../quantity/finding';
import { parseLength } from '../quantity/length';
import { parametersOf } from '../quantity/parameter';
import { LengthUnit, formatLength } from '../quantity/units';
import { freePocket } from './check';
import { Holder } from './holder';
import { TOOLS } from './library';
import { readItem } from './shelves';
import { TOOL_KINDS, Tool, ToolKind } from './tool';

const FORMAT = 'tidypath-tools';
const INFO = parametersOf(Tool);
/** Columns of a tool list, in the order they are written; lengths in mm. */
export const COLUMNS = ['id', ...Object.keys(INFO), 'holder'] as const;
const NEEDED = ['kind', 'name', 'diameter'];
const LARGEST_ROWS = 2000;

/** A tool list as CSV: one row a tool, lengths in mm, the holder by its name. */
export const toolsToCsv = (tools: Tool[]): string =>
  Papa.unparse(
    tools.map((t) => Object.fromEntries(COLUMNS.map((c) => [c, c === 'holder' ? t.holder.name : t[c as keyof Tool]]))),
    { columns: [...COLUMNS], newline: '\n' },
  ) + '\n';

/** A tool list as JSON, whole: holders, own data and all. */
export const toolsToJson = (tools: Tool[]): string =>
  JSON.stringify({ format: FORMAT, version: 1, tools }, null, 1) + '\n';

/** What taking a list in would do. */
export interface Preview {
  added: Tool[];
  changed: { before: Tool; after: Tool; fields: string[] }[];
  same: number;
  findings: Finding[];
}

const at = (f: Finding, line: number): Finding => ({ ...f, place: { ...f.place, line } });

/** A row's cell as the field wants it, or why it cannot be. */
function cell(column: string, text: string): { value: unknown } | { why: string } {
  const info = INFO[column];
  if (!info || info.choices || info.unit === undefined) {
    if (info && !info.choices && /^(true|yes|1|false|no|0)$/i.test(text) && column !== 'name')
      return { value: /^(true|yes|1)$/i.test(text) };
    return { value: text };
  }
  if (info.unit === 'length') {
    const read = parseLength(text, 'mm');
    return read.ok ? { value: read.mm } : { why: read.why };
  }
  const number = Number(text.replace(',', '.'));
  return Number.isFinite(number) ? { value: number } : { why: `“${text}” is not a number` };
}

/** What a column says nothing of: taken from a tool of the same kind in the starting rack, its lengths in proportion to the diameter. */
function defaultsFor(kind: ToolKind, diameter: number, holders: Holder[]): Tool {
  const like = TOOLS.find((t) => t.kind === kind) ?? TOOLS[0];
  const scale = diameter / like.diameter;
  const grown = (v: number) => Math.round(v * scale * 100) / 100;
  const stickOut = Math.max(5, grown(like.stickOut));
  return {
    ...like,
    diameter,
    tipDiameter: grown(like.tipDiameter),
    cornerRadius: grown(like.cornerRadius),
    shankDiameter: grown(like.shankDiameter),
    fluteLength: grown(like.fluteLength),
    stickOut,
    overallLength: Math.round((stickOut + 30) * 100) / 100,
    ownData: [],
    holder: holders.find((h) => h.id === like.holder.id) ?? like.holder,
  };
}

/** A whole new tool of a kind and size: every value started from the kind’s own proportions, in the first free pocket. */
export function newTool(kind: ToolKind, diameter: number, rack: Tool[], holders: Holder[], unit?: LengthUnit): Tool {
  const number = freePocket(rack);
  const like = defaultsFor(kind, diameter, holders);
  return {
    ...like,
    id: freshToolId(rack),
    number,
    name: `${formatLength(diameter, unit ?? 'mm')} ${INFO.kind.words![kind]}`,
    ...(unit === 'inch' && { unit }),
  };
}

/** An id no tool of the rack has. */
export function freshToolId(rack: { id: string }[]): string {
  const used = new Set(rack.map((t) => t.id));
  let n = rack.length + 1;
  while (used.has(`t${n}`)) n++;
  return `t${n}`;
}

interface Context {
  rack: Tool[];
  holders: Holder[];
  taken: Tool[];
}

function rowTool(
  row: Record<string, string>,
  line: number,
  { rack, holders, taken }: Context,
  findings: Finding[],
): Tool | undefined {
  const given: Record<string, unknown> = {};
  for (const [column, text] of Object.entries(row)) {
    if (!text?.trim() || column === 'holder') continue;
    const read = cell(column, text.trim());
    if ('why' in read) findings.push(finding('bad-cell', { column, why: read.why }, { line, field: column }));
    else given[column] = read.value;
  }
  for (const column of NEEDED)
    if (given[column] === undefined) findings.push(finding('missing-value', { column }, { line, field: column }));
  if (!TOOL_KINDS.includes(given.kind as ToolKind)) {
    if (given.kind !== undefined)
      findings.push(
        finding(
          'unknown-kind',
          { kind: String(given.kind), known: TOOL_KINDS.join(', ') },
          {
            line,
            field: 'kind',
          },
        ),
      );
    return undefined;
  }
  if (typeof given.diameter !== 'number') return undefined;
  const known =
    rack.find((t) => t.id === given.id) ??
    (given.id === undefined && given.number !== undefined
      ? rack.find((t) => t.number === given.number && t.name === given.name)
      : undefined);
  const base = known ?? {
    ...defaultsFor(given.kind as ToolKind, given.diameter, holders),
    id: freshToolId([...rack, ...taken]),
    number: freePocket([...rack, ...taken]),
  };
  const named = row.holder?.trim();
  const holder = named
    ? holders.find((h) => h.name.toLowerCase() === named.toLowerCase() || h.id === named)
    : base.holder;
  if (!holder)
    findings.push(
      finding(
        'unknown-holder',
        { holder: named, known: holders.map((h) => h.name).join(', ') },
        { line, field: 'holder' },
      ),
    );
  return holder && ({ ...base, ...given, holder } as Tool);
}

/** Whether a list is longer than is taken at once; told where it is. */
function isTooLong(rows: number, findings: Finding[]): boolean {
  if (rows > LARGEST_ROWS)
    findings.push(finding('too-many-rows', { rows, most: LARGEST_ROWS }, { line: LARGEST_ROWS + 2 }));
  return rows > LARGEST_ROWS;
}

function fromCsv(
  text: string,
  rack: Tool[],
  holders: Holder[],
  findings: Finding[],
): { tool: unknown; line: number }[] {
  const parsed = Papa.parse<string[]>(text);
  const [first = [], ...rows] = parsed.data;
  const columns = first.map((c) => c.trim());
  columns
    .filter((c, i) => columns.indexOf(c) < i)
    .forEach((c) =>
      findings.push(
        finding(
          'same-column',
          { column: c },
          {
            line: 1,
            field: c,
          },
        ),
      ),
    );
  for (const column of columns)
    if (!COLUMNS.includes(column))
      findings.push(finding('unknown-column', { column, known: COLUMNS.join(', ') }, { line: 1, field: column }));
  const lacking = NEEDED.filter((c) => !columns.includes(c));
  if (lacking.length) {
    findings.push(
      finding(
        'missing-column',
        { lacking: lacking.join(', '), needed: NEEDED.join(', ') },
        { line: 1, field: lacking[0] },
      ),
    );
    return [];
  }
  for (const e of parsed.errors)
    if (e.code !== 'UndetectableDelimiter')
      findings.push(
        finding(
          'bad-row',
          { row: (e.row ?? 0) + 1, why: e.message },
          {
            line: (e.row ?? 0) + 1,
          },
        ),
      );
  if (!/\n[ \t]*$/.test(text)) findings.push(finding('list-no-end', {}, { line: rows.length + 1 }));
  const isEmpty = (row: string[]) => row.every((text) => text.trim() === '');
  if (isTooLong(rows.filter((row) => !isEmpty(row)).length, findings)) return [];
  const taken: Tool[] = [];
  return rows.flatMap((row, i) => {
    if (isEmpty(row)) return [];
    if (row.length !== columns.length) {
      findings.push(finding('row-cells', { cells: row.length, columns: columns.length }, { line: i + 2 }));
      return [];
    }
    const tool = rowTool(
      Object.fromEntries(columns.flatMap((c, k) => (COLUMNS.includes(c) ? [[c, row[k] ?? '']] : []))),
      i + 2,
      { rack, holders, taken },
      findings,
    );
    if (tool) taken.push(tool);
    return tool ? [{ tool, line: i + 2 }] : [];
  });
}

function fromJson(text: string, findings: Finding[]): { tool: unknown; line: number }[] {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    findings.push(finding('list-not-json', {}));
    return [];
  }
  const { format, version, tools } = (value ?? {}) as { format?: unknown; version?: unknown; tools?: unknown };
  if (format !== FORMAT || version !== 1 || !Array.isArray(tools)) {
    findings.push(finding('not-a-tool-list', {}));
    return [];
  }
  if (isTooLong(tools.length, findings)) return [];
  return tools.map((tool: unknown, i) => ({ tool, line: i + 1 }));
}

const changedFields = (a: Tool, b: Tool) =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (k) => JSON.stringify(a[k as keyof Tool]) !== JSON.stringify(b[k as keyof Tool]),
  );

/**
 * Reads a tool list, CSV or JSON, against a rack: what would be added, changed (with the fields) and left as it is. Rows that cannot be
 * taken are findings with their line; the others still can. Nothing is changed here.
 */
export function previewTools(text: string, rack: Tool[], holders: Holder[]): Preview {
  const findings: Finding[] = [];
  const rows = /^\s*[{[]/.test(text) ? fromJson(text, findings) : fromCsv(text, rack, holders, findings);
  const preview: Preview = { added: [], changed: [], same: 0, findings };
  const pockets = new Map(rack.map((t) => [t.number, t.id]));
  const ids = new Set<string>();
  for (const { tool, line } of rows) {
    const { item, findings: faults } = readItem('tools', tool);
    findings.push(...faults.map((f) => at(f, line)));
    if (!item || hasStop(faults)) continue;
    if (ids.has(item.id)) {
      findings.push(
        finding(
          'same-id',
          { item: item.name, id: item.id },
          {
            line,
            field: 'id',
          },
        ),
      );
      continue;
    }
    ids.add(item.id);
    if ((pockets.get(item.number) ?? item.id) !== item.id)
      findings.push(finding('row-same-pocket', { item: item.name, number: item.number }, { line, field: 'number' }));
    pockets.set(item.number, item.id);
    const before = rack.find((t) => t.id === item.id);
    const fields = before && changedFields(before, item);
    if (!before) preview.added.push(item);
    else if (fields!.length) preview.changed.push({ before, after: item, fields: fields! });
    else preview.same++;
  }
  return preview;
}
