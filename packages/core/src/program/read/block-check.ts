import { CYCLE_CODES } from './codes';
import { Word } from './words';

/** What in a block would be read wrongly, said before it is read. */
export interface BlockFault {
  code: string;
  message: string;
  remedy: string;
}

/** Letters that are read; N and O only name a place in the text. */
const READ = new Set('DFGHIJKLMNOPQRSTXYZ');
const TURNED = new Set('ABC');
/** Letters that may stand in a block more than once. */
const SEVERAL = new Set('GM');
const AT_THE_MACHINE = 'Take it out, or prove this program at the machine; macros and expressions are not guessed';

/** Codes of which a block can hold one only: each takes the other's place. */
const GROUPS: ((code: number) => boolean)[] = [
  (code) => [0, 1, 2, 3].includes(code) || code in CYCLE_CODES,
  (code) => code === 90 || code === 91,
  (code) => code === 20 || code === 21,
  (code) => code === 17 || code === 18 || code === 19,
  (code) => code === 40 || code === 41 || code === 42,
];

function letterFault({ letter, value }: Word): BlockFault | undefined {
  if (READ.has(letter) || (TURNED.has(letter) && value === 0)) return undefined;
  if (TURNED.has(letter))
    return {
      code: 'turned-axis',
      message: `${letter}${value} turns an axis; the proof follows X, Y and Z only`,
      remedy: 'Prove each position of the part as a setup of its own, or prove this program at the machine',
    };
  return { code: 'not-understood', message: `“${letter}${value}” is not understood`, remedy: AT_THE_MACHINE };
}

function groupFault(words: Word[]): BlockFault | undefined {
  const codes = [...new Set(words.filter((w) => w.letter === 'G').map((w) => w.value))];
  for (const belongs of GROUPS) {
    const [one, other] = codes.filter(belongs);
    if (other !== undefined)
      return {
        code: 'codes-clash',
        message: `G${one} and G${other} stand in one block; which of them holds differs from control to control`,
        remedy: 'Keep one of them, or write two blocks',
      };
  }
  return undefined;
}

/** What would be read wrongly in a block: letters nobody reads, a letter given twice, codes that exclude each other. */
export function blockFault(words: Word[]): BlockFault | undefined {
  let [seen, codes] = [0, 0];
  for (const word of words) {
    const fault = letterFault(word);
    if (fault) return fault;
    if (word.letter === 'G') codes++;
    if (SEVERAL.has(word.letter)) continue;
    const bit = 1 << (word.letter.charCodeAt(0) - 65);
    if (seen & bit)
      return {
        code: 'word-twice',
        message: `${word.letter} stands twice in one block`,
        remedy: 'Keep the one that is meant',
      };
    seen |= bit;
  }
  return codes > 1 ? groupFault(words) : undefined;
}

/** A centre or a radius where nothing is turned, or turns of an arc: some controls act on them, others take no notice. */
export function idleWord(words: Word[], isArc: boolean): BlockFault | undefined {
  const word = words.find((w) => (isArc ? 'PL' : 'IJKR').includes(w.letter));
  if (!word || (isArc && words.some((w) => w.letter === 'M'))) return undefined;
  return {
    code: 'word-idle',
    message: `${word.letter}${word.value} is not followed on ${isArc ? 'an arc' : 'a straight move'}`,
    remedy: isArc ? 'Write each turn as an arc of its own' : 'Take it out, or write the arc (G2, G3) that is meant',
  };
}
