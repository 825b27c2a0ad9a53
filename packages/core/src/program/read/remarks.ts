import { MOVE } from '../../path/motions';
import type { ReadProgram } from './reader';

/** A tool a program calls, and what it says about it. */
export interface CalledTool {
  number: number;
  remark: string;
  /** Line of its first change. */
  line: number;
  /** Whether the remark stands in a list of tools, or on the line of the change itself. */
  isNamed: boolean;
}

/** So many lines before a tool change, its remark may stand. */
const BEFORE = 3;

/** The tools a program calls, each with the remark that stands with it: at its change, or in a list that names it. */
export function calledTools({ motions: m, comments, tools }: ReadProgram): CalledTool[] {
  return tools.map((number) => {
    const change = m.type.findIndex((type, i) => type === MOVE.toolChange && m.tool[i] === number);
    const line = m.line[change];
    const named = new RegExp(`^T0*${number}\\b[\\s:=-]*`, 'i');
    const listed = comments.find((c) => named.test(c.text))?.text.replace(named, '');
    const near = comments.filter((c) => c.line >= line - BEFORE && c.line <= line + 1);
    const own = listed ?? near.find((c) => c.line === line)?.text;
    return { number, remark: own ?? near[near.length - 1]?.text ?? '', line, isNamed: own !== undefined };
  });
}
