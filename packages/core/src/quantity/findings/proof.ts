import { Spot, care, note, stop } from './words';

/** Findings of what a program does to the piece. */
export const PROOF = {
  'speed-beyond': stop<{ tool: number; rpm: number; machine: string; minRpm: number; maxRpm: number }>(
    (d, say) =>
      `T${d.tool} asks for ${say.number(d.rpm, 0)} rpm; ${d.machine} runs ${say.number(d.minRpm, 0)} to ${say.number(d.maxRpm, 0)}`,
    'Give a speed the machine has, and the feed that goes with it',
  ),
  'feed-beyond': care<{ tool: number; feed: number; machine: string; maxFeed: number }>(
    (d, say) =>
      `T${d.tool} asks for a feed of ${say.feed(d.feed, 0)}; ${d.machine} runs ${say.bare(d.maxFeed, 0)} at most`,
    'Give the feed it can run: chips and time are others than written',
  ),
  'speed-differs': care<{ tool: string; rpm: number; own: number }>(
    (d, say) => `${d.tool} turns at ${say.number(d.rpm, 0)} rpm; the job’s own program says ${say.number(d.own, 0)}`,
    'Run it so only where that is meant; else take the posted program',
  ),
  'feed-differs': care<{ tool: string; feed: number; own: number }>(
    (d, say) =>
      `${d.tool} feeds ${say.feed(d.feed, 1)}; the nearest feed of the job’s own program is ${say.feed(d.own, 1)}`,
    'Run it so only where that is meant; else take the posted program',
  ),
  'coolant-differs': care<{ tool: string; word: string; own: string }>(
    (d) =>
      `${d.tool} cuts ${d.word ? `with ${d.word}` : 'without coolant'}; the job’s own program ${d.own ? `has ${d.own}` : 'cuts dry'}`,
    'Run it so only where that is meant; else take the posted program',
  ),
  'tool-differs': care<{ number: number; remark: string; tool: string }>(
    (d) => `T${d.number} is “${d.remark}” in the program, and ${d.tool} here`,
    'Make sure which one is meant: the proof was made with the one here',
  ),
  'not-levelled': note(
    'Feeds in time or by the turn, and subprograms that share a feed, are not levelled',
    'Write the program in mm/min and at length',
  ),
  gouge: stop<{ by: number; where: Spot; volume: number }>(
    (d, say) => `Cuts ${say.mm(d.by, 2)} into the part at ${say.at(d.where)}, ${say.volume(d.volume, 1)} in all`,
    'Correct the depth, the side or the tool of this move',
  ),
  'stock-short': care<{ by: number; where: Spot; volume: number }>(
    (d, say) =>
      `The stock does not fill the part: it is ${say.mm(d.by, 2)} short at ${say.at(d.where)}, ${say.volume(d.volume, 1)} in all`,
    'Take a larger piece, or move the part in it',
  ),
  'set-upright': note<{ within: number; volume: number }>(
    (d, say) =>
      `The piece was set on another side since it was cut: its walls are known to ${say.mm(d.within, 2)}, its volume changed by ${say.number(100 * d.volume, 2)} %`,
    'Nothing: faces cut in this setup are exact',
  ),
  'metal-left': care<{ volume: number; inFeature: boolean; by: number; where: Spot }>(
    (d, say) =>
      `${say.volume(d.volume, 1)} still stands ${d.inFeature ? 'in a feature' : 'on the top'}, up to ${say.mm(d.by, 2)} high at ${say.at(d.where)}`,
    'Add an operation for it, or use a smaller tool',
  ),
  'left-as-asked': note<{ volume: number; wall: number; floor: number }>(
    (d, say) =>
      `${say.volume(d.volume, 1)} still stands in a feature, as asked: ${say.mm(d.wall, 2)} on its walls, ${say.mm(d.floor, 2)} on its floor`,
    'Nothing, if something else finishes it',
  ),
  'removed-nothing': care(
    'This step removed nothing',
    'Look whether an earlier step already cut it, whether it runs too high, or switch it off',
  ),
  'tool-idle': care<{ tool: number; isFed: boolean }>(
    (d) => (d.isFed ? `T${d.tool} cuts nothing but air` : `T${d.tool} is changed in and never cuts`),
    (d) =>
      d.isFed
        ? 'Look at its depths and its zero, and whether another tool did its work before'
        : 'Take the change out, or look for what is missing of its work',
  ),
  'unknown-tool': stop<{ tool: number }>(
    (d) => (d.tool ? `The rack has no tool ${d.tool}` : 'It is not known which tool cuts here'),
    'Say what tool it is, or add it to the job',
  ),
  'tap-out-of-step': stop<{ tool: string; feed: number; rpm: number; wanted: number }>(
    (d, say) =>
      `${d.tool} is fed ${say.feed(d.feed, 1)}; at ${say.number(d.rpm, 0)} rpm its pitch asks for ${say.bare(d.wanted, 1)}`,
    'Feed it its pitch a turn',
  ),
  'fixture-hit': stop<{ part: string; fixture: string; near: Spot }>(
    (d, say) => `${d.part} hits “${d.fixture}” near ${say.at(d.near)}`,
    'Move the fixture, raise the clearance, or keep the operation away from it',
  ),
  'change-in-metal': stop<{ tool: string; near: Spot }>(
    (d, say) => `The tool is changed while ${d.tool} stands in the work near ${say.at(d.near)}`,
    'Retract above the work before the change',
  ),
  'change-low': care<{ tool: string; near: Spot }>(
    (d, say) => `The tool is changed with ${d.tool} lower than the top of the work, near ${say.at(d.near)}`,
    'Go to a safe height first, unless the change itself is sure to go there',
  ),
  'spindle-stops-down': stop<{ tool: string; near: Spot }>(
    (d, say) => `The spindle stands while ${d.tool} is still down in the work near ${say.at(d.near)}`,
    'Stop the spindle (M5) when the tool is out',
  ),
  'thread-out-of-pitch': stop<{ tool: string; rise: number; pitch: number }>(
    (d, say) =>
      `${d.tool} rises ${say.mm(d.rise, 3)} a turn; its teeth stand ${say.mm(d.pitch, 3)} apart and cut each other’s thread away`,
    'Let the helix rise its pitch in every turn, or take a thread mill of that pitch or with one row of teeth',
  ),
  'table-hit': stop<{ tool: string; by: number; near: Spot }>(
    (d, say) => `${d.tool} goes ${say.mm(d.by, 2)} into the table near ${say.at(d.near)}`,
    'Raise the work, or cut less deep',
  ),
  'beyond-travel': stop<{ axis: string; by: number; machine: string; isUp: boolean; isZ: boolean }>(
    (d, say) =>
      `${d.axis} goes ${say.mm(d.by, 2)} beyond the travel of ${d.machine}${d.isUp ? ' upwards' : ''}, as the work stands on the table`,
    (d) =>
      d.isUp
        ? 'Lower the height it goes to, the work or the holder'
        : d.isZ
          ? 'Use a longer tool, or raise the work'
          : 'Take the best place the Hold stage proposes, turn the work, or use a larger machine',
  ),
  'fed-through-air': note<{ tool: string; drop: number; near: Spot; seconds: number }>(
    (d, say) =>
      `${d.tool} is fed ${say.mm(d.drop, 2)} down through air near ${say.at(d.near)}, ${say.number(d.seconds, 0)} s`,
    'Come down by a rapid to just above the metal',
  ),
  'drill-leaves-over-edge': care<{ tool: string; near: Spot; percent: number }>(
    (d, say) =>
      `${d.tool} breaks out near ${say.at(d.near)} with only ${say.number(d.percent, 0)} % of its rim at once: it will catch`,
    'Drill this hole before what lies below it is cut, or feed it out slowly',
  ),
  'drill-over-edge': care<{ tool: string; percent: number; near: Spot }>(
    (d, say) =>
      `${d.tool} enters with ${say.number(d.percent, 0)} % of its rim on metal near ${say.at(d.near)}: it will wander`,
    'Mill a flat for it first, or move the hole',
  ),
  'too-deep-for-flutes': stop<{ tool: string; depth: number; fluteLength: number }>(
    (d, say) => `${d.tool} stands ${say.mm(d.depth, 2)} deep in metal; its flutes are ${say.mm(d.fluteLength, 2)} long`,
    'Go less deep at once, or take a tool with longer flutes',
  ),
  'tip-drags': note<{ tool: string }>(
    (d) => `The tip of ${d.tool} drags through metal: at its centre the edge stands still`,
    'Leave less for it, tilt the work, or take a tool with a flat end for level floors',
  ),
  'below-stock': note<{ tool: string; by: number }>(
    (d, say) => `${d.tool} goes ${say.mm(d.by, 2)} below the stock`,
    'Make sure there is nothing beneath it',
  ),
  'rapid-through-stock': stop<{ depth: number; near: Spot }>(
    (d, say) => `A rapid runs ${say.mm(d.depth, 2)} deep through metal near ${say.at(d.near)}`,
    'Retract higher before this move, or feed it',
  ),
  'holder-hit': stop<{ tool: string; by: number; near: Spot; least: number }>(
    (d, say) => `The holder of ${d.tool} runs ${say.mm(d.by, 2)} into metal near ${say.at(d.near)}`,
    (d, say) => `Let the tool stick out ${say.mm(d.least, 2)} or more`,
  ),
  'nose-hit': stop<{ tool: string; by: number; near: Spot }>(
    (d, say) => `The spindle nose over ${d.tool} runs ${say.mm(d.by, 2)} into metal near ${say.at(d.near)}`,
    'Let the tool stick out further, or take a longer holder',
  ),
  'shank-rub': stop<{ tool: string; by: number; near: Spot }>(
    (d, say) => `The shank of ${d.tool} runs ${say.mm(d.by, 2)} into metal near ${say.at(d.near)}`,
    'Take a tool with longer flutes or a thinner shank',
  ),
  'look-too-long': stop(
    'The cutter passes some places too often for a closer look at them; from here on the proof is as coarse as its grid',
    'Look for a move that goes far too far or for ever so small pecks, or prove it in parts',
  ),
  'proof-too-long': stop(
    'The cutter passes over more metal than can be looked at in hours; the program is proved up to here',
    'Look for a move that goes far too far, or prove it in parts',
  ),
};
