import { Spot, care, stop } from './words';

/** Findings of the part as it is drawn. */
export const PART = {
  'open-chain': stop<{ feature: string }>(
    (d) => `“${d.feature}” is open: its ends do not meet`,
    'Close the gap in the drawing, close it on import, or set its meaning to ignore',
  ),
  'self-crossing': stop<{ feature: string; near: Spot }>(
    (d, say) => `“${d.feature}” crosses itself at ${say.at(d.near, 2)}`,
    'Correct the outline so that it does not cross itself',
  ),
  'no-area': stop<{ feature: string }>(
    (d) => `“${d.feature}” encloses no area`,
    'Give it a size or set its meaning to ignore',
  ),
  'no-such-letter': care<{ letters: string; feature: string }>(
    (d) => `The lettering has no ${d.letters}; “${d.feature}” is engraved without`,
    'Write it with other letters',
  ),
  'limits-crossed': stop<{ feature: string; size: string }>(
    (d) => `“${d.feature}”: the upper limit of its ${d.size} lies below the lower`,
    'Give the larger limit first, as 12 +0.02/0',
  ),
  'no-depth': stop<{ feature: string }>(
    (d) => `“${d.feature}” has no depth`,
    'Give it a depth below the top of the part, or let it go through',
  ),
  'deeper-than-part': care<{ feature: string; depth: number; thickness: number }>(
    (d, say) => `“${d.feature}” is ${say.mm(d.depth, 3)} deep in a part ${say.mm(d.thickness, 3)} thick`,
    'Lessen its depth, thicken the part, or let it go through',
  ),
  'hole-not-round': stop<{ feature: string }>(
    (d) => `“${d.feature}” is not round, so it cannot be drilled`,
    'Set its meaning to pocket',
  ),
  'counterbore-no-mouth': stop<{ feature: string; isNarrow: boolean }>(
    (d) => `The counterbore of “${d.feature}” is ${d.isNarrow ? 'no wider' : 'no shallower'} than its hole`,
    'Make it wider than the hole and less deep',
  ),
  'edge-too-high': care<{ feature: string }>(
    (d) => `The broken edge of “${d.feature}” is as high as its wall`,
    'Make it smaller, or give it a wider angle',
  ),
  'notch-not-across': stop<{ feature: string }>(
    (d) => `“${d.feature}” does not cross the outside of the part in two places, so it trims nothing off`,
    'Move or size it so that it reaches past one side; what lies within is a pocket that goes through',
  ),
  'notch-mouth': stop<{ feature: string }>(
    (d) => `There is no room to round the mouth of “${d.feature}” so far`,
    'Give it a smaller radius',
  ),
  'no-outline': stop(
    'The part has no outside',
    'Give one closed chain the meaning “outside of the part”, or draw a plate',
  ),
};
