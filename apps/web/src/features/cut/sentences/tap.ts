import { Piece, Sentence, coolant, param, speed, targets, tool } from './types';

export const tap: Sentence = (s) => {
  const full = s.param('threadDepth');
  const stops: Piece[] =
    s.word('stops') === 'none'
      ? [', ', param('stops', 'without a stop')]
      : [', stopping ', param('stops', s.word('stops')), ' hole for oil and air'];
  const thread = s.targets.find((t) => t.thread)?.thread;
  return [
    'With ',
    tool(s),
    ', tap ',
    thread ? `${thread} in ` : '',
    targets(s),
    ', ',
    param('threadDepth', full > 0 ? `${s.length(full)} of full thread` : 'all the depth there is'),
    ...stops,
    ', at ',
    ...speed(s),
    ...coolant(s),
  ];
};
