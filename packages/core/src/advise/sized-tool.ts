import { THREADS, parseThread, threadSizes } from '../cutting/threads';
import { OperationKind } from '../operation/operation';
import { parseLength } from '../quantity/length';
import { LengthUnit, formatLength } from '../quantity/units';
import { newTool } from '../shop/exchange';
import { Holder } from '../shop/holder';
import { TRADES, Tool, ToolKind, formOf } from '../shop/tool';

/** What somebody typed where a tool is chosen. */
export type SizeWanted = { ok: true; diameter: number; pitch?: number; thread?: string } | { ok: false; why: string };

/** Sizes this near to each other are the same, mm. */
const SAME = 0.005;
/** So many kinds of tools, the most usual ones in the rack, are offered. */
const MOST_KINDS = 5;
/** Share of a thread's minor diameter that a mill for it takes, and the step it comes in, mm. */
const IN_THREAD = { share: 0.75, step: 0.5 } as const;

/** Reads the size of a tool: a length (`7`, `17/64`, `#7 in`), or a thread (`M8`, `1/4-20`) for tools that make one. */
export function readSize(text: string, unit: LengthUnit, isThread: boolean): SizeWanted {
  const read = isThread ? parseThread(text) : undefined;
  if (read?.ok) return { ok: true, diameter: read.thread.major, pitch: read.thread.pitch, thread: read.thread.name };
  if (read) return { ok: false, why: read.why };
  const length = parseLength(text, unit);
  return length.ok && length.mm >= 0.05
    ? { ok: true, diameter: length.mm }
    : { ok: false, why: length.ok ? 'at least 0.05 mm' : length.why };
}

/** Whether a kind of operation is done with tools that make a thread. */
export const makesThreads = (kind: OperationKind, rack: Tool[]) =>
  rack.some((t) => kind.suits(t)) &&
  rack.filter((t) => kind.suits(t)).every((t) => ['tap', 'thread'].includes(formOf(t)));

/** Whether a tool is of the typed size: of a thread, its pitch too. */
export function isSize(tool: Tool, { diameter, pitch }: Extract<SizeWanted, { ok: true }>): boolean {
  if (formOf(tool) === 'thread') return pitch === undefined || Math.abs(tool.pitch - pitch) < SAME;
  return Math.abs(tool.diameter - diameter) < SAME && (pitch === undefined || Math.abs(tool.pitch - pitch) < SAME);
}

/** Tools of the typed size that an operation could be done with, one of each kind the rack has most of for it, ready to be kept. */
export function sizedTools(
  kind: OperationKind,
  wanted: Extract<SizeWanted, { ok: true }>,
  rack: Tool[],
  holders: Holder[],
  unit: LengthUnit,
): Tool[] {
  const count = new Map<ToolKind, number>();
  for (const t of rack) if (kind.suits(t)) count.set(t.kind, (count.get(t.kind) ?? 0) + 1);
  const usual = [...count.keys()].sort((a, b) => count.get(b)! - count.get(a)!).slice(0, MOST_KINDS);
  return usual.map((trade) => sized(trade, wanted, rack, holders, unit)).filter((t) => kind.suits(t));
}

function sized(
  kind: ToolKind,
  { diameter, pitch, thread }: Extract<SizeWanted, { ok: true }>,
  rack: Tool[],
  holders: Holder[],
  unit: LengthUnit,
): Tool {
  if (pitch === undefined || !thread) return newTool(kind, diameter, rack, holders, unit);
  const label = TRADES[kind].label;
  if (formOf({ kind }) === 'tap')
    return { ...newTool(kind, diameter, rack, holders, unit), pitch, name: `${thread} ${label}` };
  const { internalMinor } = threadSizes(
    THREADS.find((t) => t.name === thread) ?? { name: thread, series: 'custom', major: diameter, pitch, form: 60 },
  );
  const across = Math.max(
    IN_THREAD.step,
    Math.floor((IN_THREAD.share * internalMinor) / IN_THREAD.step) * IN_THREAD.step,
  );
  return {
    ...newTool(kind, across, rack, holders, unit),
    pitch,
    name: `${formatLength(across, unit)} ${label} for ${thread}`,
  };
}
