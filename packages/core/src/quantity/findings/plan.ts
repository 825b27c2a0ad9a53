import { care, note, stop } from './words';

/** Findings of a job as a whole. */
export const PLAN = {
  'not-posted': stop('No program could be written', 'Cure what the Cut stage reports first'),
  'casting-missing': stop(
    'The casting has no mesh yet',
    'Open its STL file on the Hold stage, or choose another shape',
  ),
  'casting-unreadable': stop<{ casting: string }>(
    (d) => `The mesh of “${d.casting}” cannot be read`,
    'Open another STL file on the Hold stage, or choose another shape',
  ),
  'tube-bore': stop('The bore of the tube is as wide as the tube', 'Correct its diameters'),
  'bar-material': care<{ bar: string; material: string }>(
    (d) => `“${d.bar}” is not of ${d.material}`,
    'Choose a bar of the job’s material, or take the bar out',
  ),
  'bar-differs': care<{ bar: string; x: number; y: number; z: number }>(
    (d, say) =>
      `The blank measures ${say.bare(d.x, 2)} × ${say.bare(d.y, 2)} × ${say.mm(d.z, 2)}: “${d.bar}” does not give that any more`,
    'Choose the bar and how it is laid again',
  ),
  'bar-too-short': stop<{ bar: string; blank: number; length: number; most?: number }>(
    (d, say) => `The blank is ${say.mm(d.blank, 1)} long; “${d.bar}” has no room for it in its ${say.mm(d.length, 0)}`,
    (d) =>
      d.most
        ? `${d.most} parts fit in its length; cut the rest from further blanks`
        : 'Choose a longer bar, or lay it another way',
  ),
  'bars-too-few': care<{ bar: string; parts: number; blanks: number; bars: number; pieces: number; fit: number }>(
    (d, say) =>
      `${say.number(d.parts, 0)} parts do not fit the bars at hand: ${say.number(d.blanks, 0)} blanks take ${say.number(d.bars, 0)} of “${d.bar}”, there are ${say.number(d.pieces, 0)}`,
    (d, say) => `Buy ${say.number(d.bars - d.pieces, 0)} more, or make ${say.number(d.fit, 0)}`,
  ),
  lathe: stop<{ machine: string }>((d) => `${d.machine} turns; these operations mill`, 'Choose a mill or a router'),
  'beam-only': stop<{ operation: string; machine: string }>(
    (d) => `“${d.operation}” needs a spindle; ${d.machine} cuts sheet with a beam`,
    'Cut it out with a beam, switch it off, or choose a mill or a router',
  ),
  'same-number': stop<{ tool: string; other: string; number: number }>(
    (d) => `${d.tool} and ${d.other} are both T${d.number}`,
    'Give one of them another number',
  ),
  'compensation-mixed': stop<{ tool: string }>(
    (d) =>
      `${d.tool} is compensated by its wear in one operation and by all of its radius in another; its register can hold only one`,
    'Compensate it the same way everywhere',
  ),
  'no-operations': stop('The route is empty', 'Add an operation'),
  'plan-too-long': stop<{ operation: string; millions: number }>(
    (d) => `“${d.operation}” would take more than ${d.millions} million moves with these values`,
    'Bite wider, take deeper layers, or divide the work',
  ),
  'nothing-to-cut': note<{ operation: string }>(
    (d) => `“${d.operation}” finds nothing to cut with these values`,
    'Check how deep it goes and what it leaves, or switch it off',
  ),
  'missing-feature': stop<{ operation: string; id: string }>(
    (d) => `“${d.operation}” works on a feature that is gone (${d.id})`,
    'Choose its features again',
  ),
  'feature-unseen': stop<{ operation: string; feature: string; side: string }>(
    (d) => `“${d.operation}” works on “${d.feature}”, which is not seen as the part lies: it is cut with the ${d.side}`,
    (d) => `Move it to a setup with the ${d.side}, or choose its features again`,
  ),
  'side-never-up': care<{ side: string; features: string }>(
    (d) => `No setup has the ${d.side}: ${d.features} cannot be cut`,
    (d) => `Add a setup with the ${d.side}`,
  ),
  'leaning-needs-block': stop<{ shape: string }>(
    (d) =>
      d.shape === 'as left'
        ? 'What an earlier setup leaves is known by its heights, and cannot be set to lean: at an angle only a fresh block is'
        : `A ${d.shape} cannot be set to lean: at an angle only a fresh block is`,
    'Choose a box as its stock: as large as the piece is then, its own pockets still full',
  ),
  'after-leaning': stop<{ before: string }>(
    (d) => `What “${d.before}” leaves was cut at an angle: its heights cannot be set level again`,
    'Choose fresh stock here, or cut the leaning features in a job of their own, last',
  ),
  'leaning-from-top': stop(
    'A sine plate is used here with the top of the part up, as drawn',
    'Have the top up, not turned round, or draw the part the way it is to lie',
  ),
  'leaning-alone': stop('On a sine plate one part is cut at a time', 'Take one part alone, in one vise alone'),
  'spindle-range': stop<{ operation: string; rpm: number; machine: string; minRpm: number; maxRpm: number }>(
    (d) => `“${d.operation}” asks for ${d.rpm} rpm; ${d.machine} runs ${d.minRpm} to ${d.maxRpm}`,
    'Take the suggested speed',
  ),
  'feed-range': stop<{ operation: string; feed: number; machine: string; maxFeed: number }>(
    (d, say) => `“${d.operation}” asks for ${say.feed(d.feed, 0)}; ${d.machine} feeds up to ${say.bare(d.maxFeed, 0)}`,
    'Take the suggested feed',
  ),
  slender: note<{ tool: string; out: number; diameter: number; layer: number; stickOut: number; would: number }>(
    (d, say) =>
      `${d.tool} sticks out ${say.mm(d.out, 1)}, ${say.number(d.out / d.diameter, 1)} diameters: it bends, so its layers are ${say.mm(d.layer, 2)} thin`,
    (d, say) =>
      `At ${say.mm(d.stickOut, 1)} they could be ${say.mm(d.would, 2)}, ${say.number(d.would / d.layer, 0)} times fewer: stick it out less, or take a thicker tool`,
  ),
  'wall-rough': care<{ operation: string; ra: number; asked: number; feed: number }>(
    (d, say) =>
      `“${d.operation}” leaves walls of Ra ${say.number(d.ra, 2)} µm by its feed; Ra ${say.number(d.asked, 2)} is asked for`,
    (d, say) =>
      `${say.feed(d.feed, 0)} at this speed leaves that; or slow the finish laps alone, or take a larger cutter`,
  ),
  'unknown-controller': stop<{ controllerId: string }>(
    (d) => `No controller is called “${d.controllerId}”`,
    'Choose one from the shop',
  ),
  'program-number-twice': stop<{ setup: string; other: string; number: number }>(
    (d) =>
      `“${d.setup}” and “${d.other}” would both be program ${d.number}: one would lie over the other at the control`,
    'Give one of them another number on the Release page',
  ),
  'earlier-setup': stop<{ before: string }>(
    (d) => `What “${d.before}” leaves is not known: it has no program yet`,
    'Cure what that setup reports first, or give this one stock of its own',
  ),
  'missing-toolId': stop<{ operation: string }>((d) => `“${d.operation}” has no tool`, 'Choose one from the rack'),
  'missing-kind': stop<{ operation: string }>((d) => `“${d.operation}” has no kind that is known`, 'Delete it'),
};
