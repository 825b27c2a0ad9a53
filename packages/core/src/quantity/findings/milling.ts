import { Spot, care, note, stop } from './words';

/** Findings of operations that mill. */
export const MILLING = {
  'other-angle': stop<{ angle: number; tool: string; pointAngle: number }>(
    (d, say) => `The chamfer is drawn with ${say.number(d.angle, 1)}°; ${d.tool} has ${say.number(d.pointAngle, 1)}°`,
    'Choose a tool of that angle, or change the drawn one',
  ),
  'chamfer-too-wide': stop<{ size: number; tipOffset: number; past: number; tool: string }>(
    (d, say) =>
      `A chamfer of ${say.mm(d.size, 2)} with the tip ${say.mm(d.tipOffset, 2)} below runs ${say.mm(d.past, 2)} past the flank of ${d.tool}`,
    'Let the tip hang less far below, or choose a larger tool',
  ),
  'bite-too-wide': stop<{ stepover: number; tool: string; most: number }>(
    (d, say) => `A bite of ${say.mm(d.stepover, 2)} is nearly a full slot for ${d.tool}`,
    (d, say) => `Ask for ${say.mm(d.most, 1)} or less; a tenth of the diameter is usual`,
  ),
  'left-standing': care<{ area: number; feature: string; near: Spot }>(
    (d, say) => `${say.area(d.area, 1)} of “${d.feature}” could be reached and still stands near ${say.at(d.near, 1)}`,
    'Take a smaller turn or another bite, or clear what is left with a smaller tool',
  ),
  'nothing-left': note<{ feature: string; tool: string }>(
    (d) => `There is nothing left of “${d.feature}” for ${d.tool}`,
    'Switch the operation off',
  ),
  'no-room-to-enter': stop<{ tool: string; feature: string }>(
    (d) => `${d.tool} has no room to ramp into “${d.feature}” and does not cut to its centre`,
    'Drill a hole there first, or choose a smaller or a centre-cutting tool',
  ),
  'side-unclear': stop<{ feature: string; isClosed: boolean; side: string }>(
    (d) =>
      `“${d.feature}” is ${d.isClosed ? 'closed: it has an inside and an outside' : 'open: it has a left and a right'}, so “${d.side}” means nothing for it`,
    (d) => (d.isClosed ? 'Choose outside or inside' : 'Choose left, right or on the line'),
  ),
  'nothing-to-run-around': stop<{ feature: string }>(
    (d) => `“${d.feature}” encloses no area to run around`,
    'Close the outline',
  ),
  'finish-deep': note<{ depth: number }>(
    (d, say) => `The finish lap is ${say.mm(d.depth, 1)} deep, more than the flutes; the upper part was cut before`,
    'Finish at each layer, or check the proof for rubbing',
  ),
  'no-stretch': stop(
    'The part of the line it is to run along has no length, or its line is not closed',
    'Pick two places on the line that are apart, or take all of it',
  ),
  'deeper-than-stock': care<{ operation: string; below: number }>(
    (d, say) => `“${d.operation}” goes ${say.mm(d.below, 1)} below the stock`,
    'Break through less, or make sure nothing is beneath it',
  ),
  'contour-too-small': stop<{ tool: string; feature: string }>(
    (d) => `${d.tool} does not fit along “${d.feature}”`,
    'Choose a smaller tool, or hold the ends back less',
  ),
  'no-lead-for-compensation': stop(
    'There is no room to lead onto the wall; the lap starts on it, where the control cannot take up its compensation',
    'Choose another start, a smaller lead or a smaller tool',
  ),
  'no-lead': note(
    'There is no room to lead onto the wall; the lap starts on it',
    'Choose another start, a smaller lead or a smaller tool',
  ),
  'lead-too-short': stop<{ radius: number; lead: number }>(
    (d, say) =>
      `The control switches its compensation on a straight longer than the radius of the cutter, ${say.mm(d.radius, 2)}; the lead has ${say.mm(d.lead, 2)}`,
    'Make the lead longer, or lead on by an arc',
  ),
  'edge-too-tight': stop<{ tool: string; room: number; feature: string }>(
    (d, say) => `${d.tool} needs ${say.mm(d.room, 2)} inside “${d.feature}” to run along its edge`,
    'Let the tip hang less far below, or choose a tool with a smaller tip',
  ),
  'edge-nowhere': care<{ feature: string }>(
    (d) => `“${d.feature}” lies on a level: there is no edge along it`,
    'Choose the wall itself: the pocket, boss, hole or outside whose edge it is',
  ),
  'edge-hits-floor': stop('The tip would touch the bottom of the hole', 'Let the tip hang less far below'),
  'edge-left-out': care<{ tool: string; near: Spot }>(
    (d, say) =>
      `Part of the edge has no room for ${d.tool}: it would touch a wall or floor near ${say.at(d.near, 2)}, so it is left out`,
    'Let the tip hang less far below, choose a slimmer tool, or break this edge by hand',
  ),
  'nothing-enclosed': stop<{ feature: string }>(
    (d) => `“${d.feature}” encloses nothing to carve`,
    'Engrave its lines, or choose closed ones',
  ),
  'groove-too-wide': stop<{ tool: string; width: number; diameter: number }>(
    (d, say) => `${d.tool} cannot leave a groove ${say.mm(d.width, 2)} wide: it is ${say.mm(d.diameter, 2)}`,
    'Ask for less, or choose a wider tool',
  ),
  'engraving-too-deep': stop<{ operation: string; depth: number; tool: string; fluteLength: number }>(
    (d, say) =>
      `“${d.operation}” goes ${say.mm(d.depth, 2)} deep; the edges of ${d.tool} are ${say.mm(d.fluteLength, 2)} long`,
    'Go less deep, or choose a longer tool',
  ),
  'engraved-through': care<{ feature: string }>((d) => `“${d.feature}” goes right through the part`, 'Go less deep'),
  'wider-than-cone': care<{ feature: string; tool: string; deepest: number }>(
    (d, say) => `“${d.feature}” is wider than ${d.tool}: its middle stays ${say.mm(d.deepest, 2)} deep`,
    'Give the depth it should have, or clear the middle as a pocket first',
  ),
  'stepover-too-wide': stop<{ stepover: number; diameter: number }>(
    (d, say) => `A stepover of ${say.mm(d.stepover, 3)} leaves ridges: the cutter is ${say.mm(d.diameter, 3)} wide`,
    'Step over less than the cutter diameter',
  ),
  'finish-starts-on-wall': note(
    'There is no room to lead onto a wall; the finish lap starts on it',
    'A smaller tool leaves room',
  ),
  'posts-between': stop<{ stepover: number; most: number; tool: string }>(
    (d, say) => `Passes of ${d.tool} that bite ${say.mm(d.stepover, 2)} leave posts and ridges between them`,
    (d, say) => `Bite ${say.mm(d.most, 2)} at most, half its diameter; or clear at a steady load`,
  ),
  'pocket-too-small': stop<{
    feature: string;
    diameter: number;
    tool: string;
    needs: number;
    isThere: boolean;
    number: number;
    fitting: string;
    most: number;
  }>(
    (d, say) =>
      `“${d.feature}” is ${say.mm(d.diameter, 2)} wide at its widest; ${d.tool} with its allowance needs ${say.mm(d.needs, 2)}`,
    (d, say) =>
      d.isThere
        ? `T${d.number}, ${d.fitting}, fits; or choose another under ${say.mm(d.most, 2)}`
        : `Choose a tool under ${say.mm(d.most, 2)}`,
  ),
  'corner-left': care<{ area: number; feature: string }>(
    (d, say) => `${say.area(d.area, 1)} of “${d.feature}” stays: its corners are tighter than the cutter`,
    'Clear the rest with a smaller tool',
  ),
  'other-radius': stop<{ size: number; tool: string; cornerRadius: number }>(
    (d, say) => `A rounding of ${say.mm(d.size, 2)} is drawn; ${d.tool} leaves ${say.mm(d.cornerRadius, 2)}`,
    'Choose a tool of that radius, or change the drawn one',
  ),
  'slot-narrow': stop<{ feature: string; width: number; tool: string; over: number }>(
    (d, say) => `“${d.feature}” is ${say.mm(d.width, 2)} wide; ${d.tool} is ${say.mm(d.over, 2)} wider`,
    (d, say) => `Choose a cutter of ${say.mm(d.width, 2)} or less`,
  ),
  'slot-wide': stop<{ feature: string; width: number; least: number }>(
    (d, say) => `“${d.feature}” is ${say.mm(d.width, 2)} wide: laps along its walls would leave metal between them`,
    (d, say) => `Loop along it, choose a cutter of ${say.mm(d.least, 1)} or more, or clear it as a pocket`,
  ),
  'no-room-for-loops': care<{ feature: string; width: number; tool: string; most: number }>(
    (d, say) =>
      `“${d.feature}” is ${say.mm(d.width, 2)} wide: too little room beside ${d.tool} for loops, so it is cut in layers`,
    (d, say) => `Choose a cutter of ${say.mm(d.most, 1)} or less`,
  ),
  'not-a-slot': stop<{ feature: string }>(
    (d) => `“${d.feature}” is neither a slot nor an open line`,
    'Clear it as a pocket',
  ),
  'tab-places': stop<{ places: string }>(
    (d) => `“${d.places}” does not say where tabs stand`,
    'Write percents of the way round, such as 10 40 75',
  ),
  'tabs-too-wide': stop<{ count: number; width: number; length: number }>(
    (d, say) => `${d.count} tabs of ${say.mm(d.width, 1)} leave nothing to cut on a line of ${say.mm(d.length, 1)}`,
    'Ask for fewer or narrower tabs',
  ),
  'tab-round-corner': note<{ width: number }>(
    (d, say) => `A tab of ${say.mm(d.width, 1)} is wider than the side it stands on and goes round a corner`,
    'Move it, or make the tabs narrower',
  ),
  'no-chamfer': stop<{ operation: string }>(
    (d) => `What “${d.operation}” works on shows no chamfer`,
    'Give it one on the Part stage, or here',
  ),
  'no-rounding': stop<{ operation: string }>(
    (d) => `What “${d.operation}” works on shows no rounding`,
    'Give it one on the Part stage, or here',
  ),
};
