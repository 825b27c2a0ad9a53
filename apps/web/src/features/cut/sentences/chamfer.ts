import { Sentence, coolant, param, speed, targets, tool } from './types';

export const chamfer: Sentence = (s) => [
  'With ',
  tool(s),
  ', chamfer ',
  targets(s),
  ' ',
  ...(s.word('size') === 'as drawn'
    ? [param('size', 'as drawn')]
    : [param('size', 'all round'), ' by ', param('width', s.length(s.param('width')))]),
  ', the tip ',
  param('tipOffset', s.length(s.param('tipOffset'))),
  ' below, ',
  param('direction', s.word('direction')),
  ', in ',
  param('passes', s.param('passes') === 1 ? '1 pass' : `${s.param('passes')} passes`),
  ', at ',
  ...speed(s),
  ...coolant(s),
];
