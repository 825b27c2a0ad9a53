import { Piece, Sentence, coolant, depth, finish, param, speed, targets, tool } from './types';

const DIRECTIONS: Record<string, string> = {
  climb: 'climb',
  'both ways': 'to and fro',
  conventional: 'conventional',
};

export const clear: Sentence = (s) => {
  const outside = s.targets.some((t) => t.meaning === 'outline');
  const first: Piece[] =
    s.word('careful') === 'true'
      ? [', the ', param('careful', 'first lap'), ' biting ', param('firstBite', s.percent(s.param('firstBite')))]
      : [];
  return [
    'With ',
    tool(s),
    ', clear ',
    param('from', s.word('from')),
    outside ? ' around ' : ' of ',
    targets(s),
    ' down to ',
    depth(s),
    ' in layers of up to ',
    param('layer', s.length(s.param('layer'))),
    ', holding a bite of ',
    param('stepover', s.length(s.param('stepover'))),
    ', ',
    param('direction', DIRECTIONS[s.word('direction')]),
    ...first,
    ', at ',
    ...speed(s),
    ', entering by a ',
    param('entryAngle', `${s.number(s.param('entryAngle'))}° helix`),
    ', leaving ',
    param('wallAllowance', s.length(s.param('wallAllowance'))),
    ' on the walls',
    ...finish(s),
    ...coolant(s),
  ];
};
