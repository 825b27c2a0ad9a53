/** What is gone through at the machine before and during the first part: from the machine, the route, the proof and what was accepted. */
import type { Job, Setup } from '../document/job';
import type { Operation } from '../document/operation';
import { handOf } from '../operation/hand/by-hand';
import { kindOf } from '../operation/registry';
import type { Finding } from '../quantity/finding';
import { formatLength, lengthNumber } from '../quantity/units';
import { Tool, formOf } from '../shop/tool';
import type { Plunge } from './plunges';
import { acceptedKey, shortRoot } from './root';

export const CHECK_GROUPS = ['before', 'machine', 'tools', 'first run', 'accepted', 'stops'] as const;
export type CheckGroup = (typeof CHECK_GROUPS)[number];

/** One thing to see to, and what to do where it is not so. */
export interface CheckItem {
  /** Stays the same as long as the item does. */
  id: string;
  group: CheckGroup;
  text: string;
  ifNot: string;
}

/** What a checklist is made from. */
export interface ToCheck {
  job: Job;
  setup: Setup;
  root: string;
  accepted: Finding[];
  /** Numbers of the tools the program calls. */
  called: number[];
  plunges: Plunge[];
}

/** A length register may be off by so much against the sheet, mm. */
const LENGTH_OFF = 0.1;
/** Diameters a tool sticks out from which on its first contact is watched. */
const LONG = 5;

type Item = [id: string, text: string, ifNot: string];
const inGroup = (group: CheckGroup, items: Item[]): CheckItem[] =>
  items.map(([id, text, ifNot]) => ({ id, group, text, ifNot }));

const before = ({ setup, root }: ToCheck): Item[] => [
  [
    'guard',
    'Guard shut, eye protection on; whoever learns is not alone',
    'Do not start: the rules of the shop come first',
  ],
  [
    'program',
    `The program on the screen says ${shortRoot(root)} here and there: it is this release`,
    'Load it again from this page; a file that was edited is another program',
  ],
  [
    'zero',
    `${setup.workOffset}: zero touched off, its axes tried away from the part: plus goes the way the sheet shows`,
    'Set the zero again; no proof sees a wrong one',
  ],
  [
    'held',
    'The work sits down all round and is clamped as the sheet shows',
    'Clean the seats, clamp again, touch off again',
  ],
];

function machine({ job }: ToCheck): Item[] {
  const { machine: m } = job;
  const items: Item[] = [];
  if (m.toolPockets === 1)
    items.push([
      'by-hand',
      'Tools are changed by hand: each is the one asked for, its length set',
      'Stop, put in the right one, set its length',
    ]);
  if (m.rapids === 'bent')
    items.push([
      'bent',
      'Rapids of this machine bend: nothing stands beside their straight lines',
      'Raise the clearance, or take it away',
    ]);
  if (job.setups.some((s) => s.operations.some((o) => o.on && o.coolant === 'through')))
    items.push([
      'filter',
      'Coolant comes through the spindle: filter clean, pressure there',
      'Do not drill deep without it',
    ]);
  return items;
}

function tools({ job, called }: ToCheck): Item[] {
  const wanted = [...new Set(called)].flatMap((n) => job.tools.find((t) => t.number === n) ?? []);
  const off = formatLength(LENGTH_OFF, job.unit);
  return wanted.map((t): Item => [
    `tool-${t.number}`,
    `T${t.number} ${t.name}: sharp, in ${t.holder.name}, ${formatLength(t.stickOut, job.unit)} out, length within ${off} of the sheet`,
    'Set it again; a length that is off is a crash or a scrapped part',
  ]);
}

/** What an operation wants watched when it runs the first time. */
function watched(tool: Tool | undefined, name: string): [string, string] | undefined {
  if (!tool) return undefined;
  if (formOf(tool) === 'tap')
    return [
      `“${name}”: the hole is deep enough and clear; the ${tool.leftHand ? 'left' : 'right'} hand is meant`,
      'Stop before it; drill deeper or change the tap',
    ];
  if (tool.stickOut > LONG * tool.diameter)
    return [`“${name}”: the long tool meets the metal quietly`, 'Hold the feed; stick it out less, or take less'];
  return undefined;
}

/** Whether an operation sets the part free of what held it. */
const setsFree = ({ part }: Job, { targets, kind }: Operation): boolean =>
  kindOf(kind)?.frees?.(part.features.filter((f) => targets.includes(f.id))) ?? false;

function firstRun({ job, setup }: ToCheck): Item[] {
  const items: Item[] = [
    ['rapid', 'Rapids reduced, single block on, a finger on feed hold', 'Set them first'],
    [
      'dry',
      `Dry run ${formatLength(20, job.unit)} above the part looks as the picture does`,
      'Stop and look for the zero, the lengths, the program',
    ],
  ];
  for (const o of setup.operations.filter((one) => one.on)) {
    if (handOf(o)) {
      items.push([
        `hand-${o.id}`,
        `“${o.name}”: done, everything clear again`,
        'Keep out until the spindle stands still',
      ]);
      continue;
    }
    const found = watched(
      job.tools.find((t) => t.id === o.toolId),
      o.name,
    );
    if (found) items.push([`watch-${o.id}`, ...found]);
    if (setsFree(job, o))
      items.push([
        `loose-${o.id}`,
        `“${o.name}”: what comes loose at its end cannot jam or fly`,
        'Hold the feed before its last layer',
      ]);
  }
  return items;
}

const accepted = ({ accepted: all }: ToCheck): Item[] =>
  all.map((f) => [`accepted-${acceptedKey(f).slice(0, 12)}`, `Was accepted: ${f.message}`, f.remedy]);

const stops = ({ plunges, job }: ToCheck): Item[] =>
  plunges.map(({ tool, line, at, to }) => {
    const n = (v: number) => lengthNumber(v, job.unit);
    return [
      `stop-${tool}`,
      `T${tool}, line ${line}: hold at X ${n(at.x)} Y ${n(at.y)}; the tip is ${n(at.z)} above zero, to go in Z ${n(to - at.z)}`,
      'Do not go on: length, zero or program is another',
    ];
  });

const MAKERS: Record<CheckGroup, (of: ToCheck) => Item[]> = {
  before,
  machine,
  tools,
  'first run': firstRun,
  accepted,
  stops,
};

/** The checklist of a release, group by group; the same for the same release. */
export const checklistOf = (of: ToCheck): CheckItem[] =>
  CHECK_GROUPS.flatMap((group) => inGroup(group, MAKERS[group](of)));
