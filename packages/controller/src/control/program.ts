/** A program as a control knows it: its blocks in the order they run, and where it waits. */
import { Lines, Motions, wordsOf } from '@tidypath/core';

/** A block that runs: one line of the text, once. */
export interface Block {
  /** From 1. */
  line: number;
  /** Its motions, up to the second, not with it. */
  from: number;
  to: number;
  /** Where the program waits once it has run: always, or with the switch for it. */
  waits?: 'always' | 'asked';
}

/** A program without the lines that the skip switch leaves out; lines keep their numbers. */
export const withoutSkipped = (text: string): string => text.replace(/^[ \t]*\/[^\n]*/gm, '');

const WAITS: Record<number, Block['waits']> = { 0: 'always', 1: 'asked' };

function waitsAt(line: string): Block['waits'] {
  const code = wordsOf(line).words.find(({ letter, value }) => letter === 'M' && value in WAITS);
  return code && WAITS[code.value];
}

/**
 * The blocks of a program in the order they run.
 * @param ran lines in that order, as read
 */
export function blocksOf(text: string, motions: Motions, ran: readonly number[]): Block[] {
  const lines = new Lines(text);
  const waits = new Map<number, Block['waits']>();
  let next = 0;
  return ran.map((line) => {
    const from = next;
    while (next < motions.count && motions.line[next] === line) next++;
    if (!waits.has(line)) waits.set(line, waitsAt(lines.at(line - 1)));
    const at = waits.get(line);
    return { line, from, to: next, ...(at && { waits: at }) };
  });
}

/** The first block on a line or after it, where one may begin again: outside subprograms a line runs once. -1 where there is none. */
export const blockAt = (blocks: readonly Block[], line: number): number => blocks.findIndex((b) => b.line >= line);
