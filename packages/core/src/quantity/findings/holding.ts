import { Spot, care, note, stop } from './words';

/** Findings of what holds the work. */
export const HOLDING = {
  'vise-too-small': stop<{ name: string; deep: number; opens: number }>(
    (d, say) => `The work is ${say.mm(d.deep, 2)} across; “${d.name}” opens to ${say.mm(d.opens, 1)}`,
    'Turn the work, or take a larger vise',
  ),
  'grip-over-jaw': stop<{ name: string; grip: number; jawHeight: number }>(
    (d, say) => `“${d.name}” is to grip ${say.mm(d.grip, 2)}, but its jaws are ${say.mm(d.jawHeight, 2)} high`,
    'Grip less, or take higher jaws',
  ),
  'jaws-miss': stop<{ name: string }>(
    (d) => `The jaws of “${d.name}” stand beside the work and do not meet it`,
    'Bring it nearer to the middle of the jaws',
  ),
  'jaws-too-small': stop<{ name: string; wide: number; deep: number }>(
    (d, say) =>
      `The work, ${say.mm(d.wide, 1)} × ${say.mm(d.deep, 1)}, does not lie within the jaws of “${d.name}”: no pocket in them holds it`,
    'Take wider or thicker jaws, or turn the work',
  ),
  'flat-not-on-jaw': care<{ name: string; long: number }>(
    (d, say) => `The one flat of the work, ${say.mm(d.long, 1)} long, does not lie on the moving jaw of “${d.name}”`,
    'Turn the work, or put the fixed jaw at the other side: the flat aligns it',
  ),
  'no-screw-holes': stop<{ name: string }>(
    (d) => `“${d.name}” has no holes to go through`,
    'Choose holes of the part that go through it, or hold it otherwise',
  ),
  'no-pin-holes': stop<{ name: string }>(
    (d) => `The pins “${d.name}” stand in no hole`,
    'Choose holes of the part, or take them off',
  ),
  'screws-undrilled': care<{ name: string; holes: string }>(
    (d) => `“${d.name}” goes through “${d.holes}”, which no setup before this makes`,
    'Drill these first, in another grip',
  ),
  'chuck-too-small': stop<{ name: string; across: number; diameter: number }>(
    (d, say) => `The work is ${say.mm(d.across, 1)} across; “${d.name}” is ${say.mm(d.diameter, 1)}`,
    'Take a larger chuck',
  ),
  'chuck-not-round': care<{ name: string; by: number }>(
    (d, say) => `The jaws of “${d.name}” do not close evenly on this outline: they differ by ${say.mm(d.by, 2)}`,
    'Turn the jaws, or hold it otherwise: three jaws centre what is round',
  ),
  'body-in-metal': stop<{ body: string; where: Spot }>(
    (d, say) =>
      `“${d.body}” stands where there is metal of the piece, at ${say.at(d.where, 1)}: it cannot be gripped so`,
    'Clear that metal in the setup before, or hold it otherwise',
  ),
  'jaw-misses': stop<{ jaw: string }>(
    (d) => `“${d.jaw}” meets no metal`,
    'Move it to where the work is, or grip deeper',
  ),
  'jaw-meets-little': care<{ jaw: string; share: number }>(
    (d, say) => `“${d.jaw}” meets metal along ${say.number(100 * d.share, 0)} % of its contact only`,
    'Grip where there is more, or cut soft jaws to the part',
  ),
  'grip-cut-away': stop<{ jaw: string; left: number }>(
    (d, say) => `The wall “${d.jaw}” presses on is cut away: ${say.number(100 * d.left, 0)} % of it is left at the end`,
    'Grip less deep, leave stock below, or cut that wall in another grip',
  ),
  slips: stop<{ force: number; may: number; margin: number }>(
    (d, say) => `The work slips: ${say.number(d.force, 0)} N act, and ${say.number(d.may, 0)} N is all the grip stands`,
    'Bite less, grip harder or with more friction, or hold it otherwise',
  ),
  tips: stop<{ force: number; may: number; margin: number; arm: number }>(
    (d, say) =>
      `The work tips out of its grip: ${say.number(d.force, 0)} N act ${say.mm(d.arm, 1)} above it, and ${say.number(d.may, 0)} N is all it stands there`,
    'Grip deeper, bite less, or hold it otherwise',
  ),
  lifts: stop<{ force: number; may: number; margin: number }>(
    (d, say) =>
      `The helix of the cutter lifts the work off: ${say.number(d.force, 0)} N pull up (an upper bound), and ${say.number(d.may, 0)} N is all that holds it down`,
    'Press it down harder, bite less, or take a cutter with less helix',
  ),
  'holds-barely': care<{ how: string; force: number; may: number; margin: number; safety: number }>(
    (d, say) =>
      `The grip holds ${say.number(d.margin, 1)} times what acts, ${say.number(d.safety, 0)} is asked: it would ${d.how} at ${say.number(d.may, 0)} N, and ${say.number(d.force, 0)} N act`,
    'Grip deeper or harder, or bite less',
  ),
  'cannot-hold-leaning': care<{ name: string }>((d) => `${d.name} does not hold what leans`, 'Hold it on a sine plate'),
  'sine-plate-flat': care<{ name: string }>(
    (d) => `${d.name} has no angle to set: the work does not lean`,
    'Say under Setups to which side it rises, or hold it by something else',
  ),
  'no-room-to-change': care<{ tool: string; room: number; needs: number }>(
    (d, say) =>
      d.room < 0
        ? `${d.tool} is ${say.mm(-d.room, 0)} too long to hang over the work with the spindle at its top`
        : `${d.tool} hangs ${say.mm(d.room, 0)} above the work where tools are changed; ${say.mm(d.needs, 0)} are needed`,
    'Set the work lower, take a shorter tool, or drive the table aside before the change',
  ),
  'off-table': note<{ x: number; y: number }>(
    (d, say) => `The work, or what holds it, reaches beyond the table: ${say.mm(d.x, 0)} in X, ${say.mm(d.y, 0)} in Y`,
    'Check that it is clamped on the table, or move it',
  ),
  'stations-overlap': stop<{ x: number; y: number }>(
    (d, say) => `The stations stand into each other, by ${say.mm(d.x, 1)} in X and ${say.mm(d.y, 1)} in Y`,
    (d, say) => `Set them ${say.mm(Math.min(d.x, d.y), 1)} further apart`,
  ),
  'stations-no-offset': stop<{ last: string; count: number }>(
    (d) => `${d.count} stations from this work offset on would end at ${d.last}; there is none after G59`,
    'Begin at an earlier work offset, or have fewer stations',
  ),
  'copies-overlap': stop<{ by: number }>(
    (d, say) => `The parts lie ${say.mm(d.by, 2)} into each other on the blank`,
    'Put them farther apart',
  ),
  'copies-too-close': stop<{ gap: number; tool: string; diameter: number }>(
    (d, say) =>
      `The parts lie ${say.mm(d.gap, 2)} apart; ${d.tool}, which cuts round them, is ${say.mm(d.diameter, 2)} and would cut into the next`,
    'Put them farther apart, or cut round them with a smaller tool',
  ),
  'zero-nowhere': stop<{ of: string }>(
    (d) => `The zero is set on something that is gone (${d.of})`,
    'Choose again what it stands on',
  ),
  'zero-on-nothing': stop<{ on: string }>(
    (d) => `The zero is on a corner of the ${d.on} that an earlier setup took away`,
    'Put it on the fixed jaw, or on a corner that is still there',
  ),
  'zero-at-moving-jaw': note<{ name: string }>(
    (d) => `The zero is at the moving jaw of “${d.name}”: it shifts with the size of each piece`,
    'Put it on the fixed jaw, or set it anew for each piece',
  ),
  'unknown-holding': stop<{ name: string; kind: string }>(
    (d) => `“${d.name}” holds in a way nobody knows: ${d.kind}`,
    'Take it off, or open the file with the version that wrote it',
  ),
};
