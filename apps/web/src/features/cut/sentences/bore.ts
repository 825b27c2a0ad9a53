import { Sentence, coolant, param, speed, targets, through, tool } from './types';

export const bore: Sentence = (s) => [
  'With ',
  tool(s),
  ', bore ',
  targets(s),
  ' to ',
  s.tool ? `⌀ ${s.length(s.tool.diameter)}` : 'size',
  ', then ',
  param('out', s.word('out')),
  ...through(s),
  ', at ',
  ...speed(s),
  ...coolant(s),
];
