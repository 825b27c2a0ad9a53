/** What a part costs, in words. */
import { COST_LINES, Cost } from './cost';

const money = (amount: number) => amount.toFixed(2);

const list = (words: string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;

/** "metal 5.55, machining 12.10, edges 1.02". */
export const costLinesText = ({ lines }: Cost): string =>
  COST_LINES.flatMap((line) => (lines[line] === undefined ? [] : [`${line} ${money(lines[line])}`])).join(', ');

/** "18.67", or "at least 18.67" where something is not known. */
export const costText = ({ known, missing }: Cost): string => `${missing.length > 0 ? 'at least ' : ''}${money(known)}`;

/** What is not known of a price, in a sentence; empty where all is. */
export const missingText = ({ missing }: Cost): string =>
  missing.length === 0 ? '' : `Not counted, as it is not known: ${list(missing)}.`;

/** What a part costs, in a sentence: "One of 10 costs 23.40: metal 5.55, machining 12.10." */
export function costSentence(cost: Cost): string {
  const { batch } = cost;
  const one = batch === 1 ? 'A single one' : `One of ${batch}`;
  const of = costLinesText(cost);
  return [`${one} costs ${costText(cost)}${of && `: ${of}`}.`, missingText(cost)].filter(Boolean).join(' ');
}

/** What a part of the batch that is wanted costs, and what it costs in smaller and larger ones, where that makes a difference. */
export function costSentences(costs: Cost[], batch = 1): string[] {
  const own = costs.find((c) => c.batch === batch) ?? costs[0];
  const others = costs.filter((c) => c !== own && money(c.known) !== money(own.known));
  const one = (c: Cost) => `${c.batch === 1 ? 'made singly' : `of ${c.batch}`} ${costText(c)}`;
  return [costSentence(own), ...(others.length > 0 ? [`One ${list(others.map(one))}.`] : [])];
}
