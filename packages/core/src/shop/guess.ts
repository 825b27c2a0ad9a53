import { MM_PER_INCH } from '../quantity/units';
import { Form, Tool, formOf, isAxial } from './tool';

/** Words that name what a tool is, the more particular first. */
const WORDS: [RegExp, (t: Tool) => boolean][] = [
  [/\bspot|centre drill|center drill/i, (t) => t.kind === 'spot' || t.kind === 'centre-drill'],
  [/\bthread ?mill/i, is('thread')],
  [/\btap\b/i, is('tap')],
  [/\bream/i, (t) => t.kind === 'reamer'],
  [/\bdrill/i, (t) => formOf(t) === 'drill' && t.kind !== 'spot' && t.kind !== 'centre-drill'],
  [/\bbor(e|ing)\b/i, is('bore')],
  [/\bball|\bsphere/i, (t) => t.kind === 'ball'],
  [/\bchamfer|\bdeburr|\bengrav|\bv-?bit/i, is('cone')],
  [/\bface ?mill|\bfacing/i, (t) => t.kind === 'face'],
  [/\bmill|\bcutter|\bflute/i, is('mill')],
];

function is(form: Form) {
  return (t: Tool) => formOf(t) === form;
}

/** Sizes are written rounded to about this share. */
const ROUNDED = 0.01;
/** Sizes this near are the same, mm. */
const SAME = 0.03;

/** Diameter a remark speaks of, mm. */
function diameterIn(remark: string): number | undefined {
  const thread = /\bM(\d+(?:\.\d+)?)\b/.exec(remark);
  const mm =
    /(?:\bD|Ø|⌀|\bDIA(?:METER)?\.?)\s*=?\s*(\d+(?:\.\d+)?)/i.exec(remark) ?? /(\d+(?:\.\d+)?)\s*MM\b/i.exec(remark);
  const inch = /(?:(\d+)\/)?(\d*\.?\d+)\s*(?:IN\b|INCH|")/i.exec(remark);
  if (inch) return (inch[1] ? Number(inch[1]) / Number(inch[2]) : Number(inch[2])) * MM_PER_INCH;
  const number = (mm ?? thread)?.[1];
  return number === undefined ? undefined : Number(number);
}

/** Whether a remark gives another size, or names another kind of tool. */
export function speaksOfOther(remark: string, tool: Tool): boolean {
  const diameter = diameterIn(remark);
  if (diameter !== undefined && Math.abs(diameter - tool.diameter) > SAME + ROUNDED * tool.diameter) return true;
  const [said, own] = [wordOf(remark), wordOf(tool.name)];
  return !!said && !!own && said !== own && !(said === ANY_MILL && !isAxial(tool));
}

/** What is made, not what makes it. */
const WORK = /\b(hole|pocket|slot|wall|floor|outside|contour|profile|pattern|part|op)s?\b/i;

/** Whether a remark seems to be about a tool at all: it names a sort of tool and a size, and no work. */
export const speaksOfTool = (remark: string): boolean =>
  !!wordOf(remark) && diameterIn(remark) !== undefined && !WORK.test(remark);

const wordOf = (text: string) => WORDS.find(([word]) => word.test(text));
/** What any mill is called. */
const ANY_MILL = WORDS[WORDS.length - 1];

/**
 * The tool of a rack that a remark seems to speak of: the same size, and what it is called. Nothing where the remark gives no
 * size, or nothing of that size is there.
 */
export function guessTool(remark: string, rack: Tool[]): Tool | undefined {
  const diameter = diameterIn(remark);
  if (diameter === undefined) return undefined;
  const sized = rack.filter((t) => Math.abs(t.diameter - diameter) < SAME);
  const named = wordOf(remark);
  return (named ? sized.filter(named[1]) : sized)[0];
}
