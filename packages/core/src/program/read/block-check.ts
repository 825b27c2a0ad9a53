import { Finding, finding } from '../../quantity/finding';
import { CYCLE_CODES } from './codes';
import { Word } from './words';

/** Letters that are read; N and O only name a place in the text. */
const READ = new Set('DFGHIJKLMNOPQRSTXYZ');
const TURNED = new Set('ABC');
/** Letters that may stand in a block more than once. */
const SEVERAL = new Set('GM');

/** Codes of which a block can hold one only: each takes the other's place. */
const GROUPS: ((code: number) => boolean)[] = [
  (code) => [0, 1, 2, 3].includes(code) || code in CYCLE_CODES,
  (code) => code === 90 || code === 91,
  (code) => code === 20 || code === 21,
  (code) => code === 17 || code === 18 || code === 19,
  (code) => code === 40 || code === 41 || code === 42,
];

const bitOf = (letter: string) => 1 << (letter.charCodeAt(0) - 65);
/** Most blocks have none of these. */
const MAYBE_MISPLACED = [...'OHLPQ'].reduce((bits, letter) => bits | bitOf(letter), 0);

function letterFault({ letter, value }: Word): Finding | undefined {
  if (READ.has(letter) || (TURNED.has(letter) && value === 0)) return undefined;
  if (TURNED.has(letter)) return finding('turned-axis', { letter, value });
  return finding('not-understood', { what: `${letter}${value}` });
}

function groupFault(words: Word[]): Finding | undefined {
  const codes = [...new Set(words.filter((w) => w.letter === 'G').map((w) => w.value))];
  for (const belongs of GROUPS) {
    const [one, other] = codes.filter(belongs);
    if (other !== undefined) return finding('codes-clash', { one, other });
  }
  return undefined;
}

/** Letters that mean something only with a code that asks for them, and the codes that do not. */
const ASKED_FOR = new Set('HLPQ');
const ASK_NOTHING = new Set([0, 1, 17, 18, 19, 20, 21, 40, 54, 55, 56, 57, 58, 59, 61, 80, 90, 91, 94, 95, 98, 99]);

/** A letter where no code asks for it: a number of a program within a block, a peck without its cycle. */
function placeFault(words: Word[], inCycle: boolean): Finding | undefined {
  const program = words.find((w) => w.letter === 'O');
  const asks = inCycle || words.some((w) => w.letter === 'M' || (w.letter === 'G' && !ASK_NOTHING.has(w.value)));
  const idle = asks ? undefined : words.find((w) => ASKED_FOR.has(w.letter));
  const word = (program && words.some((w) => !'ON'.includes(w.letter)) ? program : undefined) ?? idle;
  return word && finding('word-misplaced', { letter: word.letter, value: word.value });
}

/**
 * What would be read wrongly in a block: letters nobody reads or nothing asks for, a letter given twice, codes that exclude each other.
 * @param inCycle whether a drilling cycle holds
 */
export function blockFault(words: Word[], inCycle: boolean): Finding | undefined {
  let [seen, codes] = [0, 0];
  for (const word of words) {
    const fault = letterFault(word);
    if (fault) return fault;
    if (word.letter === 'G') codes++;
    if (SEVERAL.has(word.letter)) continue;
    const bit = bitOf(word.letter);
    if (seen & bit) return finding('word-twice', { letter: word.letter });
    seen |= bit;
  }
  return (
    (seen & MAYBE_MISPLACED ? placeFault(words, inCycle) : undefined) ?? (codes > 1 ? groupFault(words) : undefined)
  );
}

/** A centre or a radius where nothing is turned, or turns of an arc: some controls act on them, others take no notice. */
export function idleWord(words: Word[], isArc: boolean): Finding | undefined {
  const word = words.find((w) => (isArc ? 'PL' : 'IJKR').includes(w.letter));
  if (!word || (isArc && words.some((w) => w.letter === 'M'))) return undefined;
  return finding('word-idle', { letter: word.letter, value: word.value, isArc });
}
