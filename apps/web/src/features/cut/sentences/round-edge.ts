import { Sentence, coolant, param, speed, targets, tool } from './types';

export const roundEdge: Sentence = (s) => [
  'With ',
  tool(s),
  ', round the edge of ',
  targets(s),
  ' ',
  param('size', s.word('size') === 'as drawn' ? 'as drawn' : 'all round'),
  s.tool ? ` with ${s.length(s.tool.cornerRadius)}` : '',
  ', ',
  param('direction', s.word('direction')),
  ', in ',
  param('passes', s.param('passes') === 1 ? '1 pass' : `${s.param('passes')} passes`),
  ', at ',
  ...speed(s),
  ...coolant(s),
];
