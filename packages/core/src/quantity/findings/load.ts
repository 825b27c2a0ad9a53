import { care, stop } from './words';

/** What every finding of a load knows besides its figure: for how long, s, and the feed that keeps it within its bound, mm/min. */
interface Load {
  tool: string;
  seconds: number;
  feed: number;
}

type Share = Load & { percent: number };
type Bend = Load & { by: number; most: number };
type Chip = Load & { chip: number; most: number };
type Stress = Share & { force: number };

/** Findings of the load a program puts on spindle, tool and grip. */
export const LOAD = {
  'power-high': care<Share>(
    (d, say) =>
      `${d.tool} takes ${say.number(d.percent, 0)} % of the spindle’s power for ${say.number(d.seconds, 1)} s`,
    (d, say) => `${say.feed(d.feed, 0)} keeps 85 % here; or take a thinner layer, a lighter bite`,
  ),
  'power-over': stop<Share>(
    (d, say) =>
      `${d.tool} asks for ${say.number(d.percent, 0)} % of the spindle’s power for ${say.number(d.seconds, 1)} s`,
    (d, say) => `${say.feed(d.feed, 0)} keeps 85 % here; or take a thinner layer, a lighter bite, a stronger machine`,
  ),
  'power-sustained': stop<Share>(
    (d, say) =>
      `${d.tool} asks for ${say.number(d.percent, 0)} % of what the spindle gives for longer, for ${say.number(d.seconds, 1)} s`,
    (d, say) => `${say.feed(d.feed, 0)} keeps 85 % of it; or take a thinner layer, a lighter bite`,
  ),
  stalls: stop<Share>(
    (d, say) => `The spindle stops under ${d.tool}: ${say.number(d.percent, 0)} % of its torque`,
    (d, say) => `${say.feed(d.feed, 0)} keeps 85 % here; or take a thinner layer, a lighter bite`,
  ),
  'grip-high': care<Share>(
    (d, say) =>
      `${d.tool} uses ${say.number(d.percent, 0)} % of what its holder grips, for ${say.number(d.seconds, 1)} s: it may creep out`,
    (d, say) => `${say.feed(d.feed, 0)} keeps 80 % here; or take a holder that grips more`,
  ),
  'grip-over': stop<Share>(
    (d, say) =>
      `${d.tool} slips in its holder: ${say.number(d.percent, 0)} % of its grip for ${say.number(d.seconds, 1)} s`,
    (d, say) => `${say.feed(d.feed, 0)} keeps 80 % here; or take a holder that grips more`,
  ),
  'bends-much': care<Bend>(
    (d, say) =>
      `${d.tool} bends ${say.mm(d.by, 3)}, more than ${say.mm(d.most, 3)}, for ${say.number(d.seconds, 1)} s: a mark, or a wall out by as much`,
    (d, say) => `${say.feed(d.feed, 0)} keeps it here; or take a shorter or thicker tool, a lighter bite`,
  ),
  'bends-too-much': stop<Bend>(
    (d, say) =>
      `${d.tool} bends ${say.mm(d.by, 3)}, more than twice ${say.mm(d.most, 3)}, for ${say.number(d.seconds, 1)} s: the wall is out by as much`,
    (d, say) => `${say.feed(d.feed, 0)} keeps it here; or take a shorter or thicker tool, a lighter bite`,
  ),
  'chips-crowd': care<Share & { flutes: number }>(
    (d, say) =>
      `The chips of ${d.tool} fill ${say.number(d.percent / 2, 0)} % of the room between its ${d.flutes} flutes, for ${say.number(d.seconds, 1)} s`,
    (d, say) => `${say.feed(d.feed, 0)} leaves half of it free; or take fewer flutes, a lighter bite`,
  ),
  'may-break': care<Stress>(
    (d, say) =>
      `${d.tool} may break: ${say.number(d.force, 0)} N bring its root to ${say.number(d.percent, 0)} % of what it stands, for ${say.number(d.seconds, 1)} s`,
    (d, say) => `${say.feed(d.feed, 0)} halves that; or take a thinner layer, a shorter tool`,
  ),
  breaks: stop<Stress>(
    (d, say) =>
      `${d.tool} breaks: ${say.number(d.force, 0)} N bring its root to ${say.number(d.percent, 0)} % of what it stands`,
    (d, say) => `${say.feed(d.feed, 0)} halves what it stands; or take a thinner layer, a shorter tool`,
  ),
  'may-twist-off': care<Share>(
    (d, say) =>
      `${d.tool} may twist off: its torque brings it to ${say.number(d.percent, 0)} % of what it stands (estimate)`,
    (d, say) => `A drill at ${say.feed(d.feed, 0)} is at half of that; a tap wants a larger hole, a sharp edge, oil`,
  ),
  'twists-off': stop<Share>(
    (d, say) => `${d.tool} twists off: its torque is ${say.number(d.percent, 0)} % of what it stands (estimate)`,
    (d, say) => `A drill at ${say.feed(d.feed, 0)} is at half of that; a thread so coarse wants milling`,
  ),
  'chips-pack': care<{ tool: string; times: number; most: number }>(
    (d, say) =>
      `${d.tool} goes ${say.number(d.times, 1)} diameters deep without coming out: its flutes pack beyond ${say.number(d.most, 0)}`,
    'Peck with full retracts, or take a drill with coolant through it',
  ),
  'chip-thick': care<Chip>(
    (d, say) =>
      `${d.tool} takes chips of ${say.mm(d.chip, 3)} for ${say.number(d.seconds, 1)} s; its edges carry ${say.mm(d.most, 3)}`,
    (d, say) => `${say.feed(d.feed, 0)} keeps it here, or more speed at this feed`,
  ),
  'chip-too-thick': stop<Chip>(
    (d, say) =>
      `${d.tool} takes chips of ${say.mm(d.chip, 3)} for ${say.number(d.seconds, 1)} s; its edges carry ${say.mm(d.most, 3)} and chip`,
    (d, say) => `${say.feed(d.feed, 0)} keeps it here, or more speed at this feed`,
  ),
  rubs: care<{ tool: string; percent: number }>(
    (d, say) =>
      `${d.tool} rubs for ${say.number(d.percent, 0)} % of its time in cut: its chips are thinner than its edges are round`,
    'Feed it faster, turn it slower, or let it bite wider',
  ),
  'above-balance': stop<{ tool: string; rpm: number; most: number }>(
    (d, say) => `${d.tool} turns ${say.number(d.rpm, 0)} rpm; its holder is balanced for ${say.number(d.most, 0)}`,
    'Turn it slower, or take a holder balanced for more',
  ),
};
