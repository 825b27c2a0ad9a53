import { care, note, stop } from './words';

/** Findings of programs, as they are written and read. */
export const PROGRAM = {
  'program-too-large': care<{ file: string; kilobytes: number; most: number; controller: string }>(
    (d, say) =>
      `${d.file} has ${say.number(d.kilobytes, 1)} kB; ${d.controller} holds ${say.number(d.most, 1)}, and there is no place to split it`,
    'Send it block by block, or cut it by operations that lift out more often',
  ),
  'grip-not-told': care<{ operation: string }>(
    (d) => `The program does not say where “${d.operation}” comes: the clamps are taken to stay as they were`,
    'Put its remark back where the program waits for it',
  ),
  'arc-radius-too-small': stop<{ radius: number; chord: number }>(
    (d, say) => `An arc of radius ${say.mm(d.radius, 3)} cannot join points ${say.mm(d.chord, 3)} apart`,
    'Correct R, or give I and J',
  ),
  'arc-impossible': stop<{ off: number }>(
    (d, say) => `An arc ends ${say.mm(d.off, 3)} off its own circle`,
    'Correct I and J, or the end point',
  ),
  'turned-axis': stop<{ letter: string; value: number }>(
    (d) => `${d.letter}${d.value} turns an axis; the proof follows X, Y and Z only`,
    'Prove each position of the part as a setup of its own, or prove this program at the machine',
  ),
  'codes-clash': stop<{ one: number; other: number }>(
    (d) => `G${d.one} and G${d.other} stand in one block; which of them holds differs from control to control`,
    'Keep one of them, or write two blocks',
  ),
  'word-twice': stop<{ letter: string }>((d) => `${d.letter} stands twice in one block`, 'Keep the one that is meant'),
  'word-idle': stop<{ letter: string; value: number; isArc: boolean }>(
    (d) => `${d.letter}${d.value} is not followed on ${d.isArc ? 'an arc' : 'a straight move'}`,
    (d) => (d.isArc ? 'Write each turn as an arc of its own' : 'Take it out, or write the arc (G2, G3) that is meant'),
  ),
  'no-length-offset': stop<{ tool: number }>(
    (d) => `T${d.tool} cuts without its length offset (G43)`,
    'Write G43 with its H before its first move down',
  ),
  'length-left-out': care<{ tool: number }>(
    (d) => `T${d.tool} cuts without a length offset (G43), which this control does not add by itself`,
    'Write G43 with its H before the first move down, unless the zero is set by this very tool',
  ),
  'no-end': care(
    'The text is over, and nothing ends the program (M30 or M2)',
    'Look whether the rest of it is missing; else write M30 at its end',
  ),
  'runs-into': stop(
    'The program runs on into another: nothing ends it before the next one begins or a subprogram returns (M99)',
    'Write M30 at its end, before the subprograms',
  ),
  'word-misplaced': stop<{ letter: string; value: number }>(
    (d) => `${d.letter}${d.value} has no place in this block: nothing in it asks for ${d.letter}`,
    'Take it out, or write the code that it belongs to',
  ),
  'cycle-upside-down': stop<{ z: number; r: number }>(
    (d, say) => `A drilling cycle ends at Z ${say.mm(d.z, 3)}, above where it starts (R ${say.bare(d.r, 3)})`,
    'Give a Z below R',
  ),
  'cycle-without-peck': stop(
    'A pecking cycle without Q: how deep a peck goes is not said',
    'Give Q, or use the cycle that drills at one go (G81)',
  ),
  'program-too-long': stop<{ millions: number }>(
    (d) => `The program runs on for more than ${d.millions} million lines and motions; it is read up to here`,
    'Split it, or look for a subprogram or a cycle that is repeated too often',
  ),
  'block-skip': note(
    'A line marked with / is read as if the skip switch were off',
    'Set the switch the same way at the machine',
  ),
  'not-understood': stop<{ what: string }>(
    (d) => `“${d.what}” is not understood`,
    'Take it out, or prove this program at the machine; macros and expressions are not guessed',
  ),
  'block-too-long': stop<{ count: number }>(
    (d) => `${d.count} words stand in one block; no control reads that many`,
    'Write them as blocks of their own',
  ),
  'feed-zero': stop<{ feed: number }>((d) => `A feed of ${d.feed} does not move`, 'Give a feed above zero'),
  'offset-unknown': stop<{ name: string; offset: string }>(
    (d) => `${d.name} is used besides ${d.offset}; where its zero lies is not known`,
    'Say where it lies, or write a program for each offset',
  ),
  'other-length': care<{ tool: number; h: number }>(
    (d) => `T${d.tool} is given the length of another tool (H${d.h})`,
    'Use the H of the tool itself, unless this is meant',
  ),
  'compensation-does-not-fit': stop<{ radius: number }>(
    (d, say) => `A cutter of radius ${say.mm(d.radius, 3)} does not fit into what is programmed here`,
    'Take a smaller cutter, or round the corner by more than its radius',
  ),
  'not-followed': stop<{ what: string; code: string }>(
    (d) => `${d.what} (${d.code})`,
    'Post the program without it, or prove it at the machine',
  ),
  'offset-set': care(
    'The program sets offsets itself (G10); the proof uses the ones you gave',
    'Check them at the machine',
  ),
  'no-tool-number': care('A tool change without a tool number', 'Name the tool (T) before or on the line of M6'),
  'way-unknown': care<{ what: string; z: number }>(
    (d, say) => `${d.what} with the tool at Z ${say.mm(d.z, 2)}: this way is not proved`,
    'Go home in Z first',
  ),
  'no-feed-in-inverse-time': stop(
    'A cutting move in inverse time (G93) without its own F',
    'Give F on every cutting line, or go back to G94',
  ),
  'feed-odd': care<{ feed: number; turn: number }>(
    (d, say) => `A feed of ${say.feed(d.feed, 2)} is ${say.mm(d.turn, 5)} a turn: nobody could mean that`,
    'Look whether it is in mm a minute (G94) or in mm a turn (G95), and at its decimal point',
  ),
  'wait-odd': care<{ seconds: number; most: number }>(
    (d, say) => `The program waits ${say.number(d.seconds, 0)} s; more than ${d.most} s are hardly meant`,
    'P without a decimal point is milliseconds, with one seconds: look which is meant',
  ),
  'feed-mode-alone': stop<{ inTurns: boolean }>(
    (d) =>
      `A cut after G${d.inTurns ? 95 : 94} without a new F: the old number now means mm ${d.inTurns ? 'a turn' : 'a minute'}`,
    'Give F in the same block as G94 or G95',
  ),
  'no-feed': stop('A cutting move before any feed is given', 'Give a feed (F) before the first cut'),
  'spindle-off': stop(
    'A cutting move while the spindle stands still',
    'Start the spindle (S and M3) before the first cut of each tool: a change stops it',
  ),
  'no-offset': care(
    'No work offset is named before the first cut',
    'Name one (G54 to G59), so that nobody relies on what was left in the control',
  ),
  'no-tool': care('A cut before any tool is named', 'Say which tool it is'),
  'no-speed': stop('A cutting move while the spindle is told no speed', 'Give a speed (S) before the first cut'),
  'wrong-turn': stop<{ tool: number; toLeft: boolean }>(
    (d) =>
      `T${d.tool} cuts turning to the ${d.toLeft ? 'right' : 'left'}, and the spindle turns the other way (${d.toLeft ? 'M4' : 'M3'})`,
    (d) => `Start it with ${d.toLeft ? 'M3' : 'M4'}`,
  ),
  'no-start': stop('An arc from an unknown place', 'Move to a known X and Y first'),
  'cycle-incomplete': stop('A drilling cycle without its depth (Z) or start height (R)', 'Give both on its first line'),
  'cycle-too-often': stop<{ times: number; most: number }>(
    (d) => `A drilling cycle ${d.times} times over`,
    (d) => `Ask for ${d.most} holes at most in one block`,
  ),
  'no-motion': stop('The program moves nothing', 'Check that this is a milling program'),
  'no-work-offset': stop<{ controller: string; workOffset: string; known: string }>(
    (d) => `${d.controller} has no work offset ${d.workOffset}`,
    (d) => `Choose one of ${d.known}`,
  ),
  'no-cycle': stop<{ step: string; needed: string; controller: string }>(
    (d) => `“${d.step}” needs a control that can ${d.needed}; ${d.controller} has no cycle for it`,
    'Mill it instead, do it by hand, or post for another control',
  ),
  'other-machine': stop<{ controller: string; isBeam: boolean; step: string }>(
    (d) => `${d.controller} ${d.isBeam ? 'switches a beam; it' : 'has no words for a beam: it'} cannot run “${d.step}”`,
    (d) => `Post for ${d.isBeam ? 'a mill or a router' : 'a sheet cutter'}, or take the operation out`,
  ),
  'no-subprograms': care<{ controller: string }>(
    (d) => `The program is to call subprograms, which ${d.controller} does not: every copy is written out`,
    'Switch subprograms off, or post for another control',
  ),
  'no-compensation': stop<{ step: string; controller: string }>(
    (d) => `“${d.step}” leaves compensation to the control; ${d.controller} has none`,
    'Let it be worked out here, or post for another control',
  ),
  'no-coolant': stop<{ step: string; coolant: string; controller: string; known: string }>(
    (d) => `“${d.step}” asks for ${d.coolant}, which ${d.controller} cannot switch`,
    (d) => `Choose off or one of: ${d.known}`,
  ),
  'subprogram-missing': stop<{ call: number }>(
    (d) => `Subprogram O${d.call} is not in this text`,
    'Put it into the same file, behind the end of the program',
  ),
  'subprogram-deep': stop<{ call: number }>(
    (d) => `Subprogram O${d.call} is called too deep`,
    'Let subprograms call each other at most eight deep',
  ),
  'subprogram-long': stop<{ call: number }>(
    'The program runs on and on',
    'Look for a subprogram that is called again and again',
  ),
};
