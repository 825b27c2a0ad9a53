import { Sentence, coolant, param, speed, tool } from './types';

export const face: Sentence = (s) => [
  'With ',
  tool(s),
  ', face the top, leaving ',
  param('leave', s.length(s.param('leave'))),
  ', in layers of up to ',
  param('layer', s.length(s.param('layer'))),
  ', stepping over ',
  param('stepover', s.length(s.param('stepover'))),
  ', ',
  param('passes', s.word('passes') === 'spiral' ? 'in a spiral' : s.word('passes')),
  s.word('rolledIn') === 'true' && s.word('passes') !== 'spiral' ? ', ' : '',
  s.word('rolledIn') === 'true' && s.word('passes') !== 'spiral' ? param('rolledIn', 'rolled in') : '',
  ', at ',
  ...speed(s),
  ...coolant(s),
];
