import { Feature, Height, Job, Operation, Tool, heightText, placements, placesOf } from '@tidypath/core';

/** A value of an operation one can tap. */
export type Field =
  | { at: 'tool' }
  | { at: 'targets' }
  | { at: 'coolant' }
  | { at: 'repeat' }
  | { at: 'before' }
  | { at: 'name' }
  | { at: 'heights' }
  | { at: 'feeds' }
  | { at: 'bounds' }
  | { at: 'stretch' }
  | { at: 'begins' }
  | { at: 'bend' }
  | { at: 'speed'; key: 'rpm' | 'feed' | 'entryFeed' }
  | { at: 'param'; key: string }
  | { at: 'depth'; featureId: string };

export type Piece = string | { field: Field; text: string };

/** What a sentence is made from. */
export interface Subject {
  job: Job;
  operation: Operation;
  tool: Tool | undefined;
  targets: Feature[];
  /** mm -> text in the job's unit. */
  length: (mm: number) => string;
  feed: (mmPerMin: number) => string;
  number: (v: number) => string;
  percent: (share: number) => string;
  /** Number of layers the plan comes to, where it is known. */
  param: (key: string) => number;
  word: (key: string) => string;
}

export type Sentence = (s: Subject) => Piece[];

export const fieldKey = (f: Field) =>
  'key' in f ? `${f.at}.${f.key}` : f.at === 'depth' ? `depth.${f.featureId}` : f.at;

export const param = (key: string, text: string): Piece => ({ field: { at: 'param', key }, text });
export const tool = (s: Subject): Piece => ({
  field: { at: 'tool' },
  text: s.tool ? `T${s.tool.number} · ${s.tool.name}` : 'no tool',
});
export const speed = (s: Subject): Piece[] => [
  { field: { at: 'speed', key: 'rpm' }, text: `${s.number(s.operation.speeds.rpm)} rpm` },
  ' and ',
  { field: { at: 'speed', key: 'feed' }, text: s.feed(s.operation.speeds.feed) },
];
export const coolant = (s: Subject): Piece[] => [
  ', coolant ',
  { field: { at: 'coolant' }, text: s.operation.coolant },
  '.',
];

/** "the float pocket", "4 features", or what is missing. */
export const targets = (s: Subject): Piece => {
  const [first, ...more] = s.targets;
  const named = first && `${someOf(first, s.operation)}${first.name}`;
  return {
    field: { at: 'targets' },
    text: first ? (more.length ? `${named} and ${more.length} more` : named) : 'nothing yet',
  };
};

/** “3 places of ”, where some of a pattern are left alone. */
function someOf(feature: Feature, { leaves = [] }: Operation): string {
  const left = leaves.find((l) => l.feature === feature.id)?.places.length ?? 0;
  const kept = left > 0 ? Math.max(0, placesOf(feature).length - left) : 0;
  return left > 0 ? `${kept} ${kept === 1 ? 'place' : 'places'} of ` : '';
}

const heightPiece = ({ job }: Subject, height: Height): Piece => ({
  field: { at: 'heights' },
  text: heightText(height, job.part.features.find((f) => f.id === height.feature)?.name, job.unit),
});

/**
 * Where it begins, ends and goes aside, as far as that was asked.
 * @param isEndSaid whether the sentence has said already how deep it goes
 */
export const heights = (s: Subject, isEndSaid: boolean): Piece[] => {
  const { start, end, retract, reach, approach } = s.operation.heights ?? {};
  const said: [string, Piece][] = [
    ...(start ? [['begins at ', heightPiece(s, start)] as [string, Piece]] : []),
    ...(end && !isEndSaid ? [['ends at ', heightPiece(s, end)] as [string, Piece]] : []),
    ...(reach === 'tip' ? [['reaches it by ', { field: { at: 'heights' }, text: 'its tip' }] as [string, Piece]] : []),
    ...(retract ? [['goes aside at ', heightPiece(s, retract)] as [string, Piece]] : []),
    ...(approach === undefined
      ? []
      : [['is fed from ', { field: { at: 'heights' }, text: `${s.length(approach)} above` }] as [string, Piece]]),
  ];
  if (said.length === 0) return [];
  return [
    ' It ',
    ...said.flatMap(([verb, piece], i) => [i === 0 ? verb : `${i === said.length - 1 ? ' and ' : ', '}${verb}`, piece]),
    '.',
  ];
};

/** How deep the first feature goes, or what stands for it. */
export const depth = (s: Subject): Piece => {
  const { end } = s.operation.heights ?? {};
  if (end) return heightPiece(s, end);
  const [first] = s.targets;
  if (!first) return 'its floor';
  if (first.meaning === 'outline') return 'the underside';
  return { field: { at: 'depth', featureId: first.id }, text: first.through ? 'right through' : s.length(first.depth) };
};

/** The finish laps and what they take, or that there are none. */
export const finish = (s: Subject): Piece[] => {
  if (s.word('finish') !== 'true') return [', with ', param('finish', 'no finish lap')];
  const laps = s.param('finishLaps') || 1;
  const spring: Piece[] = s.word('spring') === 'true' ? [' and ', param('spring', 'a spring lap')] : [];
  return [
    ', then ',
    param('finish', laps === 1 ? 'a finish lap' : 'finish laps'),
    ...spring,
    ' taking ',
    param('finishStock', s.length(s.param('finishStock'))),
  ];
};

const SIDES: Record<string, string> = { left: 'left of', right: 'right of', 'on the line': 'along' };
/** “outside”, “left of”: the side of a line. */
export const sideText = (side: string) => SIDES[side] ?? side;

/** All of an operation that finishes what another has cleared. */
export const finishAlone = (s: Subject): Piece[] => [
  'With ',
  tool(s),
  ', finish ',
  ...('side' in s.operation.params ? [param('side', sideText(s.word('side'))), ' '] : []),
  targets(s),
  ', where ',
  param('finishStock', s.length(s.param('finishStock'))),
  ' was ',
  param('finishAlone', 'left for it'),
  ', ',
  param('direction', s.word('direction')),
  ', at ',
  ...speed(s),
  ...coolant(s),
];

/** Whether an operation finishes and does nothing else. */
export const isFinishAlone = (s: Subject): boolean => s.word('finish') === 'true' && s.word('finishAlone') === 'true';

const REPEAT_WORDS = {
  single: '',
  line: 'in a line',
  grid: 'in a grid',
  circle: 'around a centre',
  mirror: 'as in a mirror',
} as const;

/** How often it is done, where it is done more than once. */
export const repeat = ({ operation }: Subject): Piece[] => {
  if (!operation.repeat) return [];
  const { pattern, mirror, without = [] } = operation.repeat;
  const total = placements(pattern).length - without.length;
  const often = pattern.type === 'single' ? 'once' : `${total} times ${REPEAT_WORDS[pattern.type]}`;
  return [
    ' Done ',
    { field: { at: 'repeat' }, text: mirror === 'none' ? often : `${often} and mirrored ${mirror}` },
    '.',
  ];
};

/** Feeds asked for apart. */
export const feeds = (s: Subject): Piece[] => {
  const { lead, plunge, last } = s.operation.feeds ?? {};
  const said = [
    ['led in at ', lead],
    ['straight down at ', plunge],
    ['the deepest layer at ', last],
  ].filter((f): f is [string, number] => f[1] !== undefined);
  if (said.length === 0) return [];
  return [
    ' Apart: ',
    ...said.flatMap(([verb, v], i): Piece[] => [
      `${i ? ', ' : ''}${verb}`,
      { field: { at: 'feeds' }, text: s.feed(v) },
    ]),
    '.',
  ];
};

/** The line it stays within, and what it keeps away from. */
export const bounds = (s: Subject): Piece[] => {
  const { within, keepAway = [] } = s.operation;
  const nameOf = (id: string) => s.job.part.features.find((f) => f.id === id)?.name ?? 'something that is gone';
  const piece = (text: string): Piece => ({ field: { at: 'bounds' }, text });
  const said: Piece[][] = [
    ...(within ? [['stays within ', piece(nameOf(within.feature))]] : []),
    ...(keepAway.length ? [['keeps away from ', piece(keepAway.map((k) => nameOf(k.feature)).join(', '))]] : []),
  ];
  return said.length ? [' It ', ...said.flatMap((p, i) => (i ? [' and ', ...p] : p)), '.'] : [];
};

/** Where laps begin, where that was picked. */
export const begins = ({ operation: { begins: spots = [] } }: Subject): Piece[] => {
  if (spots.length === 0) return [];
  const text = spots.length === 1 ? 'a start point' : `${spots.length} start points`;
  return [' Laps begin at ', { field: { at: 'begins' }, text }, '.'];
};

const PAUSES = {
  planned: 'the program stops',
  optional: 'the program may stop',
  'tool change': 'the tool is changed anew',
  remark: 'the program says',
};

/** Where the program waits for somebody before it. */
export const pause = ({ operation: { before } }: Subject): Piece[] => {
  if (!before) return [];
  const text = PAUSES[before.stop];
  return [' Before it ', { field: { at: 'before' }, text }, before.note ? `: ${before.note}.` : '.'];
};

/** How far it breaks through, where anything is a through hole. */
export const through = (s: Subject): Piece[] =>
  s.targets.some((t) => t.through) && !s.operation.heights?.end
    ? [', breaking through by ', param('breakthrough', s.length(s.param('breakthrough')))]
    : [];
