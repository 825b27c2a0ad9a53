import { Point } from '../geometry/point';
import { Finding, care, stop } from '../quantity/finding';
import { formatNumber } from '../quantity/units';
import { MOVE, Motions } from '../program/motions';
import { Machine } from '../shop/machine';
import { Samples } from '../simulate/samples';

/** A load of the spindle up to this share is within what it is rated for and what the grid of the proof tells apart. */
const RATED = 1.1;
/** From here on it stalls. */
const STALLS = 1.5;
/** Room for rounding of speeds and feeds that were converted. */
const EXACT = 1 + 1e-3;

/** The motion at which something is worst, tool by tool. */
class WorstByTool {
  private readonly found = new Map<number, { motion: number; by: number; value: number; index: number }>();

  add(tool: number, motion: number, by: number, value: number, index = motion): void {
    if (by > (this.found.get(tool)?.by ?? 0)) this.found.set(tool, { motion, by, value, index });
  }

  tell(make: (tool: number, worst: { motion: number; value: number; index: number }) => Finding): Finding[] {
    return [...this.found].map(([tool, worst]) => make(tool, worst));
  }
}

/** Cuts at a spindle speed the machine has not got, or at a feed it cannot run. */
function beyondMachine(m: Motions, { name, minRpm, maxRpm, maxFeed }: Machine): Finding[] {
  const [speeds, feeds] = [new WorstByTool(), new WorstByTool()];
  for (let i = 1; i < m.count; i++) {
    if (m.type[i] === MOVE.rapid || m.type[i] >= MOVE.dwell) continue;
    if (m.rpm[i] > maxRpm * EXACT) speeds.add(m.tool[i], i, m.rpm[i] / maxRpm, m.rpm[i]);
    else if (m.rpm[i] > 0 && m.rpm[i] < minRpm / EXACT) speeds.add(m.tool[i], i, minRpm / m.rpm[i], m.rpm[i]);
    if (m.feed[i] > maxFeed * EXACT) feeds.add(m.tool[i], i, m.feed[i] / maxFeed, m.feed[i]);
  }
  const place = (motion: number) => ({ line: m.line[motion], motion });
  return [
    ...speeds.tell((tool, { motion, value }) =>
      stop(
        'speed-beyond',
        `T${tool} asks for ${formatNumber(value, 0)} rpm; ${name} runs ${formatNumber(minRpm, 0)} to ${formatNumber(maxRpm, 0)}`,
        'Give a speed the machine has, and the feed that goes with it',
        place(motion),
      ),
    ),
    ...feeds.tell((tool, { motion, value }) =>
      care(
        'feed-beyond',
        `T${tool} asks for a feed of ${formatNumber(value, 0)} mm/min; ${name} runs ${formatNumber(maxFeed, 0)} at most`,
        'Give the feed it can run: chips and time are others than written',
        place(motion),
      ),
    ),
  ];
}

/** Moments that ask more of the spindle than it can give. */
function overloads(s: Samples, m: Motions, zero: Point): Finding[] {
  const loads = new WorstByTool();
  for (let i = 0; i < s.count; i++)
    if (s.load[i] > RATED) loads.add(m.tool[s.motion[i]], s.motion[i], s.load[i], s.load[i], i);
  return loads.tell((tool, { motion, value, index }) => {
    const at = { x: s.x[index], y: s.y[index], z: s.z[index] };
    return (value > STALLS ? stop : care)(
      'overload',
      `T${tool} asks ${formatNumber(value * 100, 0)} % of the spindle near X ${formatNumber(at.x - zero.x, 1)} Y ${formatNumber(at.y - zero.y, 1)}`,
      'Take a smaller bite or a lower feed there, or level the feed',
      { line: m.line[motion], motion, at },
    );
  });
}

/** Where a program drives spindle and axes beyond what the machine can, the worst place of each tool. */
export function driven(samples: Samples, motions: Motions, machine: Machine, zero: Point): Finding[] {
  return [...beyondMachine(motions, machine), ...overloads(samples, motions, zero)];
}
