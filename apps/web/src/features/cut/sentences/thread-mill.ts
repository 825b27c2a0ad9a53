import { Sentence, coolant, param, speed, targets, tool } from './types';

export const threadMill: Sentence = (s) => {
  const full = s.param('threadDepth');
  const inside = s.targets[0]?.meaning !== 'boss';
  const clockwise = (s.word('direction') === 'climb') !== inside;
  const up = (s.word('hand') === 'right') !== clockwise;
  const thread = s.targets.find((t) => t.thread)?.thread;
  const passes = s.param('passes');
  return [
    'With ',
    tool(s),
    ', mill a ',
    param('hand', `${s.word('hand')}-hand`),
    thread ? ` ${thread}` : ' thread',
    inside ? ' in ' : ' around ',
    targets(s),
    ', ',
    param('direction', s.word('direction')),
    up ? ' from the bottom up, ' : ' from the top down, ',
    param('threadDepth', full > 0 ? `${s.length(full)} deep` : 'all the depth there is'),
    ', in ',
    param('passes', passes === 1 ? '1 pass' : `${passes} passes`),
    s.word('spring') === 'true' ? ' and ' : '',
    s.word('spring') === 'true' ? param('spring', 'a spring pass') : '',
    ', at ',
    ...speed(s),
    ...coolant(s),
  ];
};
