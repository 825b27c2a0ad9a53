import { MOVE } from '../path/motions';
import { ReadProgram } from '../program/read/reader';
import { Finding, finding } from '../quantity/finding';
import { Tool } from '../shop/tool';
import { maths } from '../quantity/maths';

/** Values this near to each other are the same. */
const SAME = 0.005;

/** What one tool runs at in a program: every value with the line it first stands for. */
interface Run {
  rpm: Map<number, number>;
  feed: Map<number, number>;
  coolant: Map<string, number>;
}

/** What each tool of a program runs at while it feeds. */
function runsOf({ motions: m, coolants }: ReadProgram): Map<number, Run> {
  const runs = new Map<number, Run>();
  const note = <T>(seen: Map<T, number>, value: T, line: number) => void (seen.has(value) || seen.set(value, line));
  let next = 0;
  let word = '';
  for (let i = 0; i < m.count; i++) {
    for (; next < coolants.length && coolants[next].motion <= i; next++) word = coolants[next].word;
    if (m.type[i] !== MOVE.line && m.type[i] !== MOVE.arcCw && m.type[i] !== MOVE.arcCcw) continue;
    if (!runs.has(m.tool[i])) runs.set(m.tool[i], { rpm: new Map(), feed: new Map(), coolant: new Map() });
    const run = runs.get(m.tool[i])!;
    note(run.rpm, m.rpm[i], m.line[i]);
    note(run.feed, m.feed[i], m.line[i]);
    note(run.coolant, word, m.line[i]);
  }
  return runs;
}

/** The value that is farthest from all that are known, with the nearest of them. */
function farthest(values: Map<number, number>, known: Map<number, number>) {
  const ratio = (a: number, b: number) => (a > 0 && b > 0 ? Math.abs(maths.log(a / b)) : a === b ? 0 : Infinity);
  const all = [...values].map(([value, line]) => {
    const own = [...known.keys()].reduce((a, b) => (ratio(value, b) < ratio(value, a) ? b : a));
    return { value, line, own, by: ratio(value, own) };
  });
  const worst = all.reduce((a, b) => (b.by > a.by ? b : a));
  return worst.by > SAME ? worst : undefined;
}

/** Speeds, feeds and coolant of an edited or foreign program that the job's own program does not have: one finding a tool and cause. */
export function differences(program: ReadProgram, own: ReadProgram, tools: Map<number, Tool>): Finding[] {
  const planned = runsOf(own);
  return [...runsOf(program)].flatMap(([number, run]) => {
    const known = planned.get(number);
    const tool = tools.get(number);
    if (!known || !tool) return [];
    const findings: Finding[] = [];
    const speed = farthest(run.rpm, known.rpm);
    if (speed)
      findings.push(
        finding(
          'speed-differs',
          { tool: tool.name, rpm: speed.value, own: speed.own },
          { line: speed.line, tool: tool.id },
        ),
      );
    const feed = farthest(run.feed, known.feed);
    if (feed)
      findings.push(
        finding(
          'feed-differs',
          { tool: tool.name, feed: feed.value, own: feed.own },
          { line: feed.line, tool: tool.id },
        ),
      );
    for (const [word, line] of run.coolant) {
      if (known.coolant.has(word)) continue;
      const planned = [...known.coolant.keys()].filter(Boolean).join(', ');
      findings.push(finding('coolant-differs', { tool: tool.name, word, own: planned }, { line, tool: tool.id }));
      break;
    }
    return findings;
  });
}
