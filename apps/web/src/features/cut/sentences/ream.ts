import { Sentence, coolant, speed, targets, through, tool } from './types';

export const ream: Sentence = (s) => [
  'With ',
  tool(s),
  ', ream ',
  targets(s),
  ' to size, in and out at the feed',
  ...through(s),
  ', at ',
  ...speed(s),
  ...coolant(s),
];
