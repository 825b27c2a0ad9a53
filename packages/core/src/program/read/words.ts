/** A letter with its number. */
export interface Word {
  letter: string;
  value: number;
  hasPoint: boolean;
}

/** One line of a program. */
export interface Block {
  words: Word[];
  comments: string[];
  /** Marked with / to be left out when the skip switch is on. */
  skipped: boolean;
  /** What could not be read; then the line has no words. */
  fault?: string;
}

const NUMBER = /[ \t]*[+-]?(?:\d+\.?\d*|\.\d+)/y;
/** Nothing to read: blanks, tape marks, a byte order mark. */
const BLANK = ' \t\r%\uFEFF';
/** As much of what cannot be read as is shown. */
const SHOWN = 12;

/** Splits a line into words and remarks (in brackets, or behind a semicolon). */
export function wordsOf(raw: string): Block {
  const block: Block = { words: [], comments: [], skipped: false };
  let i = 0;
  while (i < raw.length) {
    const c = raw[i];
    if (BLANK.includes(c)) i++;
    else if (c === ';') {
      block.comments.push(raw.slice(i + 1).trim());
      break;
    } else if (c === '(') {
      const end = raw.indexOf(')', i);
      block.comments.push(raw.slice(i + 1, end < 0 ? undefined : end).trim());
      if (end < 0) break;
      i = end + 1;
    } else if (c === '/' && block.words.length === 0) {
      block.skipped = true;
      i++;
    } else {
      NUMBER.lastIndex = i + 1;
      // A colon at the start of a line numbers a program, as O does.
      const isLetter = /[A-Za-z]/.test(c) || (c === ':' && block.words.length === 0);
      const number = isLetter ? NUMBER.exec(raw)?.[0] : undefined;
      if (number === undefined) return { ...block, words: [], fault: raw.slice(i, i + SHOWN).trim() };
      block.words.push({
        letter: c === ':' ? 'O' : c.toUpperCase(),
        value: Number(number),
        hasPoint: number.includes('.'),
      });
      i += 1 + number.length;
    }
  }
  return block;
}
