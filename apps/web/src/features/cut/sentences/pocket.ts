import { Piece, Sentence, coolant, depth, finish, param, speed, targets, tool } from './types';

export const pocket: Sentence = (s) => {
  const entry: Piece[] =
    s.word('entry') === 'plunge'
      ? [param('entry', 'a plunge')]
      : ['a ', param('entryAngle', `${s.number(s.param('entryAngle'))}°`), ' ', param('entry', s.word('entry'))];
  return [
    'With ',
    tool(s),
    ', clear ',
    targets(s),
    ' down to ',
    depth(s),
    ' in layers of up to ',
    param('layer', s.length(s.param('layer'))),
    ', biting ',
    param('stepover', s.length(s.param('stepover'))),
    ' sideways, ',
    param('direction', s.word('direction')),
    ', at ',
    ...speed(s),
    ', entering by ',
    ...entry,
    ', leaving ',
    param('wallAllowance', s.length(s.param('wallAllowance'))),
    ' on the walls',
    ...finish(s),
    ...coolant(s),
  ];
};
