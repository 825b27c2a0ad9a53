import { Sentence, coolant, param, speed, targets, tool } from './types';

export const countersink: Sentence = (s) => [
  'With ',
  tool(s),
  ', countersink ',
  targets(s),
  ' ',
  ...(s.word('size') === 'as drawn'
    ? [param('size', 'as drawn')]
    : [param('size', 'to'), ' ', param('diameter', `⌀ ${s.length(s.param('diameter'))}`)]),
  ', at ',
  ...speed(s),
  ...coolant(s),
];
