/** An edited program beside the one it was made from, line by line. */
import { diffArrays } from 'diff';
import { Block, Word, wordsOf } from './words';

/** A line that says something. */
export interface Said extends Block {
  /** Counted from 1. */
  line: number;
}

/** The same line in both; alone in one where it was put in or taken out. */
export interface Pair {
  own?: Said;
  edited?: Said;
  /** Where it stands in the edited one; what was taken out, at the line before. */
  line: number;
}

type Both = Omit<Pair, 'line'>;

/** So many lines may be put in, taken out or changed: beyond that it is another program. */
const MOST_EDITS = 1500;
/** And it is so many times as long at most. */
const MOST_LONGER = 2;
/** Words that are changed, put in or left out without making it another line. */
const LOOSE = 'FS';

const isNumber = ({ letter }: Word) => letter === 'N';

const linesIn = (text: string) => text.split('\n').length;

const readLines = (text: string): Said[] =>
  text.split('\n').flatMap((raw, i) => {
    const block = wordsOf(raw);
    const words = block.words.filter((w) => !isNumber(w));
    const says = words.length > 0 || block.comments.length > 0 || block.fault !== undefined;
    return says ? [{ ...block, words, line: i + 1 }] : [];
  });

/** What a line says, however it is written: line numbers, blanks, capitals and trailing zeros do not count. */
const essence = (said: Said): string => textOf(said, said.words);

/** The same without what may be changed at the control on every line. */
const place = (said: Said): string =>
  textOf(
    said,
    said.words.filter((w) => !LOOSE.includes(w.letter)),
  );

const textOf = ({ comments, skipped, fault }: Said, words: Word[]): string =>
  [
    skipped ? '/' : '',
    ...words.map((w) => w.letter + w.value),
    ...comments.map((c) => `(${c.toUpperCase()})`),
    fault ?? '',
  ].join(' ');

export const isStop = ({ words }: Block): boolean =>
  words.some(({ letter, value }) => letter === 'M' && (value === 0 || value === 1));

/** The letters of a line; lines of the same form are the same line with other numbers. */
const formOf = (said: Said): string => {
  const letters = said.words.map((w) => w.letter).filter((l) => !LOOSE.includes(l));
  return [isStop(said) ? 'stop' : '', ...letters, said.comments.length].join(' ');
};

/** Lines that went, and those that came in their place. */
function paired(went: Said[], came: Said[]): Both[] {
  const pairs: Both[] = [];
  let next = 0;
  for (const own of went) {
    const k = came.findIndex((edited, i) => i >= next && formOf(edited) === formOf(own));
    if (k < 0) pairs.push({ own });
    else {
      pairs.push(...came.slice(next, k).map((edited) => ({ edited })), { own, edited: came[k] });
      next = k + 1;
    }
  }
  return [...pairs, ...came.slice(next).map((edited) => ({ edited }))];
}

/** Whether both lines of a pair say the same. */
export const isSame = ({ own, edited }: Both): boolean => !!own && !!edited && essence(own) === essence(edited);

/**
 * The lines of a program and of what it became, side by side in order; lines that say nothing are left out.
 * @returns undefined where too little of it is left
 */
export function aligned(own: string, edited: string): Pair[] | undefined {
  if (linesIn(edited) > MOST_LONGER * linesIn(own) + MOST_EDITS) return undefined;
  const [mine, theirs] = [own, edited].map(readLines);
  const parts = diffArrays(mine.map(place), theirs.map(place), { maxEditLength: MOST_EDITS });
  if (!parts) return undefined;
  const pairs: Both[] = [];
  let [i, j] = [0, 0];
  let went: Said[] = [];
  let came: Said[] = [];
  const settle = () => {
    pairs.push(...paired(went, came));
    [went, came] = [[], []];
  };
  for (const { added, removed, value } of parts) {
    const n = value.length;
    if (removed) went.push(...mine.slice(i, (i += n)));
    else if (added) came.push(...theirs.slice(j, (j += n)));
    else {
      settle();
      for (let k = 0; k < n; k++) pairs.push({ own: mine[i++], edited: theirs[j++] });
    }
  }
  settle();
  const kept = pairs.filter((p) => p.own && p.edited).length;
  if (kept * 2 <= mine.length) return undefined;
  let line = 1;
  return pairs.map((p) => ({ ...p, line: (line = p.edited?.line ?? line) }));
}
