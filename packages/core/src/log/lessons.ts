/** What the log teaches: values proposed with their evidence, which somebody takes over, and may take back. */
import { formatNumber } from '../quantity/units';
import type { Machine } from '../machine/machine';
import type { EdgesLast, OwnData, Tool } from '../shop/tool';
import { ENOUGH_EDGES, EdgeHistory, edgeHistories, lifeFactor } from './edges';
import type { LogRow } from './entry';
import type { RanCut } from './facts';
import { Seen, isGoodCut, isTold } from './seen';
import { ENOUGH_RUNS, fitTime } from './time';

export const LESSONS = ['time', 'life', 'own'] as const;
export type LessonKind = (typeof LESSONS)[number];

/** What of a machine is learnt from its runs. */
export interface TimeValues {
  extraTime: number;
  toolChangeSeconds: number;
  /** Where they are from. */
  note?: string;
}

/** What stands in something of the shop and can be learnt. */
interface Place<I, V> {
  shelf: 'machines' | 'tools';
  /** @param of the material it is about; empty where it is about none */
  read(item: I, of: string): V | undefined;
  /** The thing with a value, or without. */
  write(item: I, of: string, value: V | undefined): I;
  text(value: V | undefined): string;
  isSame(a: V, b: V): boolean;
}

const within = (share: number, a: number, b: number) => Math.abs(a / b - 1) < share;

const TIME: Place<Machine, TimeValues> = {
  shelf: 'machines',
  read: ({ extraTime = 0, toolChangeSeconds, extraTimeNote: note }) => ({ extraTime, toolChangeSeconds, note }),
  write: (machine, _, value) => {
    const { note, ...values } = value!;
    const { extraTimeNote, ...rest } = { ...machine, ...values, extraTimeNote: note };
    return extraTimeNote ? { ...rest, extraTimeNote } : rest;
  },
  text: (value) =>
    `moves ${formatNumber(Math.abs(100 * value!.extraTime), 1)} % ${value!.extraTime < 0 ? 'less' : 'more'} than computed, ${formatNumber(value!.toolChangeSeconds, 1)} s a tool change`,
  isSame: (a, b) =>
    Math.abs(a.extraTime - b.extraTime) < 5e-4 && Math.abs(a.toolChangeSeconds - b.toolChangeSeconds) < 0.05,
};

/** A list without what it has of a material, with something of it where there is any. */
const withOf = <V extends { materialId: string }>(list: V[], of: string, value: V | undefined): V[] => [
  ...list.filter((v) => v.materialId !== of),
  ...(value ? [value] : []),
];

const LIFE: Place<Tool, EdgesLast> = {
  shelf: 'tools',
  read: ({ lasts = [] }, of) => lasts.find((l) => l.materialId === of),
  write: (tool, of, value) => ({ ...tool, lasts: withOf(tool.lasts ?? [], of, value) }),
  text: (value) =>
    value ? `edges last ${formatNumber(value.factor, 2)} of the life on its card` : 'edges last as its card says',
  isSame: (a, b) => within(0.01, a.factor, b.factor),
};

const OWN: Place<Tool, OwnData> = {
  shelf: 'tools',
  read: ({ ownData }, of) => ownData.find((d) => d.materialId === of),
  write: (tool, of, value) => ({ ...tool, ownData: withOf(tool.ownData, of, value) }),
  text: (value) =>
    value
      ? `${formatNumber(value.surfaceSpeed, 0)} m/min, ${formatNumber(value.chip, 3)} mm a tooth`
      : 'the range of the material',
  isSame: (a, b) => within(0.05, a.surfaceSpeed, b.surfaceSpeed) && within(0.05, a.chip, b.chip),
};

const PLACES = { time: TIME, life: LIFE, own: OWN };
/** Where a kind of lesson stands. */
export const placeOf = (what: LessonKind) => PLACES[what] as Place<Machine | Tool, unknown>;

/** What the log says of one thing, as plain data. */
export interface Teaching {
  what: LessonKind;
  item: string;
  of: string;
  /** "Edges of End mill 6 in Low-carbon steel". */
  about: string;
  /** Undefined where too little is logged. */
  value?: TimeValues | EdgesLast | OwnData;
  evidence: string;
  /** Of edges, the share of the life on the card that each had used. */
  lasted?: number[];
}

/** The same for the same thing. */
export const teachingId = ({ what, item, of }: Pick<Teaching, 'what' | 'item' | 'of'>): string =>
  [what, item, of].filter(Boolean).join(' ');

/** What the log teaches of one thing, as it is shown. */
export interface Lesson extends Pick<Teaching, 'what' | 'item' | 'about' | 'evidence' | 'lasted'> {
  id: string;
  now: string;
  /** Left out where there is too little, or nothing else than what stands there. */
  proposed?: string;
  /** Whether what stands there is what the log says. */
  isSo: boolean;
  /** What was taken over last and not taken back. */
  taken?: { at: string; who: string; evidence: string; before: string };
}

const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`;
const dayOf = (at: string) => at.slice(0, 10);
/** Older runs say little of a machine as it is. */
const MOST_RUNS = 200;

/**
 * The time of a machine, from the real one where it has enough timed runs, else from the simulated one.
 * @param rows that stand, the oldest first
 * @param said seconds of a tool change before anything was learnt
 */
export function timeTeaching(rows: readonly LogRow[], machine: Machine, said: number): Teaching {
  const all = rows.filter((r) => r.machineId === machine.id && r.seconds !== undefined).slice(-MOST_RUNS);
  const [real, simulated] = [true, false].map((is) => all.filter((r) => (r.kind !== 'simulated') === is));
  const isReal = real.length >= ENOUGH_RUNS || real.length > simulated.length;
  const runs = isReal ? real : simulated;
  const { extraTime, toolChangeSeconds, outliers } = fitTime(
    runs.map(({ seconds, facts: { dwell, moves, changes } }) => ({ seconds: seconds!, dwell, moves, changes })),
    said,
  );
  const from = `${many(runs.length, 'run', 'runs')} of the ${isReal ? 'machine' : 'simulated machine'}`;
  const value = {
    extraTime: Math.round(extraTime * 1000) / 1000,
    toolChangeSeconds: Math.round(toolChangeSeconds * 10) / 10,
    note: runs.length > 0 ? `from the log: ${from} until ${dayOf(runs[runs.length - 1].at)}` : '',
  };
  const unfit = outliers.length > 0 ? `, ${outliers.length} of which fitted nothing` : '';
  const isEnough = runs.length >= ENOUGH_RUNS;
  return {
    ...{ what: 'time', item: machine.id, of: '', about: `Time of ${machine.name}` },
    ...(isEnough && { value }),
    evidence: isEnough ? `${from}${unfit}` : `${from}; something is proposed from ${ENOUGH_RUNS} timed ones on`,
  };
}

function lifeTeachings({ tool, name, changed }: EdgeHistory): Teaching[] {
  return [...new Set(changed.map((e) => e.materialId))].map((of): Teaching => {
    const edges = changed.filter((e) => e.materialId === of);
    const { material, at } = edges[edges.length - 1];
    const told = edges.map((e) => `${e.worn ? 'worn' : 'changed in good time'} at ${formatNumber(e.used, 2)}`);
    const evidence = `${many(edges.length, 'edge', 'edges')} of the life on its card: ${told.slice(-6).join(', ')}`;
    const isEnough = edges.length >= ENOUGH_EDGES;
    const factor = Math.round(100 * lifeFactor(edges)) / 100;
    const note = `from the log: ${edges.length} edges until ${dayOf(at)}`;
    return {
      ...{ what: 'life', item: tool, of, about: `Edges of ${name} in ${material}` },
      ...(isEnough && { value: { materialId: of, factor, note } }),
      evidence: isEnough ? evidence : `${evidence}; something is proposed from ${ENOUGH_EDGES} on`,
      lasted: edges.map((e) => e.used),
    };
  });
}

/** How a cut went in a run. */
interface Went {
  cut: RanCut;
  seen: Seen;
  row: LogRow;
}

/** From so many runs that went well on a cut is proposed. */
const ENOUGH_GOOD = 2;
const isSame = (a: RanCut, b: RanCut) => within(0.05, a.speed, b.speed) && within(0.05, a.chip, b.chip);

/** Speed and chip of the cut that ran last and well every time; a light bite stands more than others, and says nothing of them. */
function ownTeaching(item: string, name: string, of: string, went: Went[]): Teaching | undefined {
  const [last] = went.filter(({ seen }) => isGoodCut(seen)).slice(-1);
  if (!last) return undefined;
  const same = went.filter(({ cut }) => isSame(cut, last.cut));
  const [parts, bad] = [
    same.reduce((sum, { row }) => sum + row.parts - row.scrapped, 0),
    same.filter(({ seen }) => !isGoodCut(seen)).length,
  ];
  const told = `${many(parts, 'part', 'parts')} in ${many(same.length, 'run', 'runs')} until ${dayOf(last.row.at)}`;
  const isEnough = same.length >= ENOUGH_GOOD && bad === 0 && parts > 0;
  const value = {
    materialId: of,
    surfaceSpeed: Math.round(last.cut.speed * 10) / 10,
    chip: Math.round(last.cut.chip * 1e4) / 1e4,
    note: `from the log: ${told}`,
  };
  const why = bad > 0 ? `, ${bad} of which did not go well` : '';
  const few = same.length < ENOUGH_GOOD ? `; something is proposed from ${ENOUGH_GOOD} runs on` : '';
  const ran = isEnough ? '' : ` at ${OWN.text(value)}`;
  return {
    ...{ what: 'own', item, of, about: `Own data of ${name} in ${last.row.facts.material}` },
    ...(isEnough && { value }),
    evidence: `${told}${why}${ran}${few}`,
  };
}

function ownTeachings(rows: readonly LogRow[]): Teaching[] {
  const found = new Map<string, { tool: string; name: string; of: string; went: Went[] }>();
  for (const row of rows) {
    if (row.kind === 'simulated') continue;
    for (const seen of row.seen ?? []) {
      const cut = row.facts.cuts.find((c) => c.operation === seen.operation);
      if (!cut || cut.light || !isTold(seen)) continue;
      const of = row.facts.materialId;
      const name = row.facts.uses.find((u) => u.tool === cut.tool)?.name ?? cut.tool;
      const key = `${cut.tool} ${of}`;
      const known = found.get(key) ?? { tool: cut.tool, name, of, went: [] };
      known.went.push({ cut, seen, row });
      found.set(key, known);
    }
  }
  return [...found.values()].flatMap(({ tool, name, of, went }) => ownTeaching(tool, name, of, went) ?? []);
}

/** What the log says of tools. @param rows that stand, the oldest first */
export const toolTeachings = (rows: readonly LogRow[]): Teaching[] => [
  ...edgeHistories(rows).flatMap(lifeTeachings),
  ...ownTeachings(rows),
];
