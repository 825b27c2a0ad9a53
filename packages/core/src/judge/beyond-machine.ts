import { Finding, finding } from '../quantity/finding';
import { MOVE, Motions } from '../path/motions';
import { Machine } from '../machine/machine';

/** Room for rounding of speeds and feeds that were converted. */
const EXACT = 1 + 1e-3;

/** For each tool the motion that goes farthest beyond what the machine can. */
class WorstByTool {
  private readonly found = new Map<number, { motion: number; by: number }>();

  add(tool: number, motion: number, by: number): void {
    if (by > (this.found.get(tool)?.by ?? EXACT)) this.found.set(tool, { motion, by });
  }

  tell(make: (motion: number) => Finding): Finding[] {
    return [...this.found.values()].map(({ motion }) => make(motion));
  }
}

/** Cuts at a spindle speed the machine has not got, or at a feed it cannot run: the worst place of each tool. */
export function beyondMachine(m: Motions, { name, minRpm, maxRpm, maxFeed }: Machine): Finding[] {
  const [speeds, feeds] = [new WorstByTool(), new WorstByTool()];
  for (let i = 1; i < m.count; i++) {
    if (m.type[i] === MOVE.rapid || m.type[i] >= MOVE.dwell) continue;
    if (m.rpm[i] > 0) speeds.add(m.tool[i], i, Math.max(m.rpm[i] / maxRpm, minRpm / m.rpm[i]));
    feeds.add(m.tool[i], i, m.feed[i] / maxFeed);
  }
  const place = (motion: number) => ({ line: m.line[motion], motion });
  return [
    ...speeds.tell((i) =>
      finding('speed-beyond', { tool: m.tool[i], rpm: m.rpm[i], machine: name, minRpm, maxRpm }, place(i)),
    ),
    ...feeds.tell((i) =>
      finding('feed-beyond', { tool: m.tool[i], feed: m.feed[i], machine: name, maxFeed }, place(i)),
    ),
  ];
}
