import { Spot, care, note, stop } from './words';

/** Findings of operations: their tools, holes and sheets. */
export const OPERATION = {
  'narrower-than-kerf': stop<{ feature: string; kerf: number }>(
    (d, say) => `“${d.feature}” is narrower than the kerf of ${say.mm(d.kerf, 2)}`,
    'Take a finer beam, or leave it out',
  ),
  'pierced-on-line': note<{ feature: string }>(
    (d) => `“${d.feature}” has no room for a lead: it is pierced on its line`,
    'Take a shorter lead',
  ),
  'joints-too-wide': stop<{ joints: number; jointWidth: number; length: number }>(
    (d, say) =>
      `${d.joints} joints of ${say.mm(d.jointWidth, 2)} leave nothing to cut on a line of ${say.mm(d.length, 1)}`,
    'Ask for fewer or narrower joints',
  ),
  'too-thick': stop<{ thickness: number; tool: string; fluteLength: number }>(
    (d, say) => `The sheet is ${say.mm(d.thickness, 2)}; ${d.tool} cuts up to ${say.mm(d.fluteLength, 2)}`,
    'Take another beam, or a thinner sheet',
  ),
  'too-deep-for-stick-out': stop<{ operation: string; depth: number; tool: string; stickOut: number; least: number }>(
    (d, say) =>
      `“${d.operation}” goes ${say.mm(d.depth, 2)} deep; ${d.tool} sticks out ${say.mm(d.stickOut, 2)}, so its holder would hit`,
    (d, say) => `Let it stick out at least ${say.mm(d.least, 2)}, or take a longer tool`,
  ),
  'bound-gone': stop<{ feature: string }>(
    (d) => `It is to stay within or away from “${d.feature}”, which is not there any more or encloses nothing`,
    'Pick another line, or none',
  ),
  'height-gone': stop<{ feature: string }>(
    (d) =>
      d.feature
        ? `A height is taken from “${d.feature}”, which is not there any more`
        : 'A height is taken from a feature, and there is none',
    'Pick the height anew, or leave it to the feature',
  ),
  'start-below-end': stop<{ start: number; end: number; feature: string }>(
    (d, say) =>
      `It would begin at Z ${say.mm(d.start, 2)} and end on “${d.feature}” at Z ${say.mm(d.end, 2)}: no lower than it begins`,
    'Begin higher, or end lower',
  ),
  'end-in-part': stop<{ feature: string; below: number }>(
    (d, say) => `It would end ${say.mm(d.below, 2)} below the floor of “${d.feature}”, in the part`,
    'End at the floor or above it, or give the feature its depth on the Part stage',
  ),
  'retract-low': stop<{ retract: number; from: number }>(
    (d, say) => `It would go aside at Z ${say.mm(d.retract, 2)}, below Z ${say.mm(d.from, 2)}, from where it is fed`,
    'Go aside higher, or begin lower',
  ),
  'layer-too-deep': stop<{ operation: string; layer: number; tool: string; fluteLength: number }>(
    (d, say) =>
      `A layer of “${d.operation}” is ${say.mm(d.layer, 2)} thick; the flutes of ${d.tool} are ${say.mm(d.fluteLength, 2)} long`,
    (d, say) => `Cut in layers of ${say.mm(d.fluteLength, 2)} or less, or take a tool with longer flutes`,
  ),
  'shank-beside-wall': care<{ operation: string; depth: number; fluteLength: number }>(
    (d, say) =>
      `“${d.operation}” goes ${say.mm(d.depth, 2)} deep with flutes of ${say.mm(d.fluteLength, 2)}: the shank runs beside the wall`,
    'Take a tool with longer flutes or a relieved shank',
  ),
  'wrong-tool': stop<{ operation: string; tool: string; kind: string }>(
    (d) => `“${d.operation}” cannot be done with ${d.tool}, a ${d.kind}`,
    'Choose another tool from the rack',
  ),
  'no-target': stop<{ operation: string; meanings: string }>(
    (d) => `“${d.operation}” has nothing to work on`,
    (d) => `Choose a feature: ${d.meanings}`,
  ),
  'left-out': note<{ feature: string; meaning: string; operation: string }>(
    (d) => `“${d.feature}” is a ${d.meaning}, so “${d.operation}” leaves it out`,
    () => `Change its meaning on the Part stage, or take it off this operation`,
  ),
  'cannot-plunge': stop<{ tool: string }>(
    (d) => `${d.tool} does not cut to its centre, so it cannot go straight down`,
    'Enter by a helix or a ramp, start in the open, or choose a centre-cutting tool',
  ),
  'head-not-set': stop<{ tool: string; set: number; at: Spot; wanted: number }>(
    (d, say) => `${d.tool} is set to ${say.mm(d.set, 3)}; the hole at ${say.at(d.at)} is ${say.mm(d.wanted, 3)}`,
    (d, say) => `Set the head to ${say.mm(d.wanted, 3)} and give the tool that diameter`,
  ),
  'no-counterbore': stop<{ at: Spot }>(
    (d, say) => `The hole at ${say.at(d.at)} has no counterbore`,
    'Give it one on the Part stage',
  ),
  'counterbore-narrow': stop<{ tool: string; over: number; at: Spot; diameter: number }>(
    (d, say) => `${d.tool} is ${say.mm(d.over, 2)} wider than the counterbore at ${say.at(d.at)}`,
    (d, say) => `Choose a cutter of ${say.mm(d.diameter, 2)} or less`,
  ),
  'counterbore-not-drilled': stop<{ tool: string; at: Spot }>(
    (d, say) => `${d.tool} does not cut to its centre, and the hole at ${say.at(d.at)} is not drilled yet`,
    'Drill it first, or choose a centre-cutting cutter',
  ),
  'no-countersink': stop<{ at: Spot }>(
    (d, say) => `The hole at ${say.at(d.at)} shows no chamfer`,
    'Give it one on the Part stage, or give the diameter here',
  ),
  'countersink-small': stop<{ wanted: number; at: Spot }>(
    (d, say) => `A countersink of ${say.mm(d.wanted, 2)} at ${say.at(d.at)} is no wider than its hole`,
    'Ask for a larger diameter',
  ),
  'countersink-reach': stop<{ wanted: number; at: Spot; tool: string; tipDiameter: number; diameter: number }>(
    (d, say) =>
      `A countersink of ${say.mm(d.wanted, 2)} at ${say.at(d.at)} is out of reach of ${d.tool}: its flank runs from ${say.bare(d.tipDiameter, 2)} to ${say.mm(d.diameter, 2)}`,
    'Choose another tool, or mill the edge around the hole',
  ),
  'countersink-angle': stop<{ at: Spot; angle: number; tool: string; pointAngle: number }>(
    (d, say) =>
      `The chamfer at ${say.at(d.at)} is drawn with ${say.number(d.angle, 1)}°; ${d.tool} has ${say.number(d.pointAngle, 1)}°`,
    'Choose a tool of that angle, or change the drawn one',
  ),
  'spot-narrow': stop<{ spotDiameter: number; tool: string; pilot: number }>(
    (d, say) =>
      `A spot of ${say.mm(d.spotDiameter, 2)} is no wider than the pilot of ${d.tool}, ${say.mm(d.pilot, 2)}: its flank would not touch`,
    'Spot wider, or take a spot drill with a point',
  ),
  'spot-too-wide': stop<{ spotDiameter: number; tool: string }>(
    (d, say) => `A spot of ${say.mm(d.spotDiameter, 2)} is wider than ${d.tool}`,
    'Ask for a smaller spot or take a larger tool',
  ),
  'drill-too-large': stop<{ tool: string; diameter: number; at: Spot }>(
    (d, say) => `${d.tool} is larger than a hole of ${say.mm(d.diameter, 3)} at ${say.at(d.at)}`,
    'Choose a smaller drill',
  ),
  'pocket-shallow': stop<{ tool: string; at: Spot }>(
    (d, say) =>
      `The pocket at ${say.at(d.at)} is too shallow to be opened by ${d.tool}: its point would mark the floor`,
    'Take a smaller drill, or let the mill go in by itself',
  ),
  'hole-larger': note<{ tool: string; left: number; diameter: number; at: Spot }>(
    (d, say) => `${d.tool} leaves ${say.mm(d.left, 3)} in the hole of ${say.mm(d.diameter, 3)} at ${say.at(d.at)}`,
    'Bore, ream or mill it to size afterwards',
  ),
  'bore-too-small': stop<{ tool: string; diameter: number; at: Spot; most: number }>(
    (d, say) => `${d.tool} leaves no room for a helix in a hole of ${say.mm(d.diameter, 3)} at ${say.at(d.at)}`,
    (d, say) => `Choose a cutter of ${say.mm(d.most, 1)} or less, or drill it`,
  ),
  'open-centre': note<{ tool: string }>(
    (d) => `${d.tool} does not cut to its centre: keep the slope shallow`,
    'A centre-cutting tool bears a steeper helix',
  ),
  'hole-not-made': stop<{ tool: string; at: Spot; operation: string }>(
    (d, say) =>
      `${d.tool} needs a hole that is there: the one at ${say.at(d.at)} is not made before “${d.operation}”, or not deep enough`,
    'Drill it first, by an operation earlier in the route',
  ),
  'ream-other-size': stop<{ tool: string; makes: number; at: Spot; wanted: number }>(
    (d, say) => `${d.tool} makes ${say.mm(d.makes, 3)}; the hole at ${say.at(d.at)} is ${say.mm(d.wanted, 3)}`,
    'Choose the reamer of the hole’s size, and drill the hole with the allowance it needs',
  ),
  'forming-hole': stop<{ diameter: number; at: Spot; tool: string; wanted: number }>(
    (d, say) =>
      `A hole of ${say.mm(d.diameter, 2)} at ${say.at(d.at)} does not suit ${d.tool}: it presses the thread and wants ${say.mm(d.wanted, 2)}`,
    (d, say) => `Drill ${say.mm(d.wanted, 2)}, or take a cutting tap`,
  ),
  'tap-hole': stop<{ diameter: number; at: Spot; percent: number; tool: string }>(
    (d, say) =>
      `A hole of ${say.mm(d.diameter, 2)} at ${say.at(d.at)} leaves ${say.number(d.percent, 0)} % of the thread’s height: ${d.tool} would break`,
    'Drill it to the tap’s size',
  ),
  'tap-thin': care<{ diameter: number; at: Spot; percent: number }>(
    (d, say) =>
      `A hole of ${say.mm(d.diameter, 2)} at ${say.at(d.at)} leaves ${say.number(d.percent, 0)} % of the thread’s height: it holds little`,
    'Drill it smaller, or make a larger thread',
  ),
  'no-thread': stop<{ at: Spot }>(
    (d, say) => `The hole at ${say.at(d.at)} has no thread`,
    'Name its thread on the Part stage, as M5',
  ),
  'other-thread': stop<{ tool: string; thread: string; major: number; pitch: number }>(
    (d, say) => `${d.tool} does not make ${d.thread} (${say.bare(d.major, 2)} x ${say.mm(d.pitch, 3)})`,
    'Choose the tap of that thread',
  ),
  'tap-too-deep': stop<{ threadDepth: number; at: Spot; room: number }>(
    (d, say) =>
      `${say.mm(d.threadDepth, 2)} of full thread do not fit in the hole at ${say.at(d.at)}: with the tap’s lead it gives ${say.mm(d.room, 2)}`,
    'Make the hole deeper or the thread shorter',
  ),
  'tap-short': stop<{ tool: string; flutes: number; at: Spot; deep: number }>(
    (d, say) =>
      `${d.tool} goes ${say.mm(d.deep, 2)} deep at ${say.at(d.at)} with flutes of ${say.mm(d.flutes, 2)}: its shank is thicker than the hole`,
    'Take a tap with longer flutes or a thinner shank, or ask for a shorter thread',
  ),
  'tap-feed': stop<{ rpm: number; tool: string; wanted: number; feed: number }>(
    (d, say) =>
      `At ${d.rpm} rpm ${d.tool} moves ${say.feed(d.wanted, 1)}, not ${say.bare(d.feed, 1)}: it would tear the thread`,
    (d, say) => `Set the feed to ${say.feed(d.wanted, 1)}`,
  ),
  'other-pitch': stop<{ tool: string; isComb: boolean; makes: number; thread: string; wanted: number }>(
    (d, say) =>
      `${d.tool} ${d.isComb ? 'makes only' : 'makes at most'} ${say.mm(d.makes, 3)} of pitch; ${d.thread} has ${say.mm(d.wanted, 3)}`,
    'Choose a mill of that pitch',
  ),
  'thread-no-room': stop<{ tool: string; thread: string; at: Spot; room: number; wanted: number }>(
    (d, say) =>
      `${d.tool} needs ${say.mm(d.wanted, 1)} around the middle of ${d.thread} at ${say.at(d.at)}; the part leaves ${say.mm(d.room, 1)}`,
    'Take a smaller thread mill, or a die',
  ),
  'thread-mill-wide': stop<{ tool: string; diameter: number; at: Spot; most: number }>(
    (d, say) => `${d.tool} does not go into the hole of ${say.mm(d.diameter, 2)} at ${say.at(d.at)}`,
    (d, say) => `Choose a mill under ${say.mm(d.most, 2)}, or tap it`,
  ),
  'thread-hole': care<{ at: Spot; diameter: number; thread: string; internalMinor: number; internalMinorMost: number }>(
    (d, say) =>
      `The hole at ${say.at(d.at)} is ${say.mm(d.diameter, 3)}; ${d.thread} wants ${say.bare(d.internalMinor, 3)} to ${say.mm(d.internalMinorMost, 3)}`,
    'Bore it to size first',
  ),
  'thread-too-deep': stop<{ threadDepth: number; room: number }>(
    (d, say) => `${say.mm(d.threadDepth, 2)} of thread do not fit: there is room for ${say.mm(d.room, 2)}`,
    'Make the hole deeper or the thread shorter',
  ),
  'thread-form': care<{ thread: string; form: number; tool: string }>(
    (d) => `${d.thread} has flanks of ${d.form}°; make sure the teeth of ${d.tool} have them too`,
    'Check the mill, and the thread with a gauge',
  ),
  'feature-no-thread': stop<{ feature: string }>(
    (d) => `“${d.feature}” names no thread`,
    'Name its thread on the Part stage, as M42x1',
  ),
  'copy-off-stock': care<{ feature: string; at: Spot }>(
    (d, say) => `“${d.feature}” at ${say.at(d.at)} lies beside the stock`,
    'Correct how often or how far, or widen the stock',
  ),
  'copy-on-another': care<{ feature: string; at: Spot }>(
    (d, say) => `“${d.feature}” at ${say.at(d.at)} falls on another`,
    'Correct how often, or the step',
  ),
};
