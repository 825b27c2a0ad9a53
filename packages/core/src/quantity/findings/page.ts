import { FINDINGS } from '../finding';
import type { Say } from './say';
import { Level, Words } from './words';

const LEVELS: [Level, string][] = [
  ['stop', 'Stops: they forbid release'],
  ['care', 'Cares: they want a look'],
  ['note', 'Notes: for information'],
];

/** Puts the name of what is spoken of in the place of its value. */
const NAMES: Say = {
  number: String,
  mm: String,
  bare: String,
  area: String,
  volume: String,
  feed: String,
  at: String,
};

/** All wordings of a text: one, or two where something that is not told in it decides. */
function wordings(text: (data: object, say: Say) => string): string[] {
  const asked = new Set<string>();
  const named = (not: Set<string>) =>
    new Proxy({}, { get: (_, key: string) => (asked.add(key), not.has(key) ? '' : `‹${key}›`) });
  const usual = text(named(new Set()), NAMES);
  const deciding = new Set([...asked].filter((key) => !usual.includes(`‹${key}›`)));
  return deciding.size ? [usual, text(named(deciding), NAMES)] : [usual];
}

function row(code: string, words: Words<object>): string {
  const cell = (text: (data: object, say: Say) => string) => wordings(text).join(' — or — ').replace(/\|/g, '\\|');
  return `| \`${code}\` | ${cell(words.message)} | ${cell(words.remedy)} |`;
}

/** The page of all findings, as Markdown. */
export function findingsPage(): string {
  const all = Object.entries(FINDINGS) as [string, Words<object>][];
  const tables = LEVELS.map(([level, title]) => {
    const rows = all.filter(([, words]) => words.level === level).sort(([a], [b]) => (a < b ? -1 : 1));
    return [`## ${title}`, '', '| code | what it says | what to do |', '| --- | --- | --- |']
      .concat(rows.map(([code, words]) => row(code, words)))
      .join('\n');
  });
  return [
    '# Findings',
    `Everything the product tells of what it is given, ${all.length} codes in all; each names its place as well. Made from ` +
      'the table in `packages/core/src/quantity/findings` by `npm run findings`; words in ‹ › are filled in.',
    ...tables,
    '',
  ].join('\n\n');
}
