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
  param('passes', s.word('passes')),
  ', at ',
  ...speed(s),
  ...coolant(s),
];
