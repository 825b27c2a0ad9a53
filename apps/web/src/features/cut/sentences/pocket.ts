import { Piece, Sentence, coolant, depth, finish, param, speed, targets, tool } from './types';

export const pocket: Sentence = (s) => {
  const entry: Piece[] =
    s.word('entry') === 'plunge'
      ? [param('entry', 'a plunge')]
      : ['a ', param('entryAngle', `${s.number(s.param('entryAngle'))}°`), ' ', param('entry', s.word('entry'))];
  const word = s.word('pattern');
  const rows = word === 'zigzag' || word === 'one way';
  const pattern: Piece[] = [
    param('pattern', word === 'spiral' ? 'in a spiral' : rows ? `${word} in rows` : word),
    ...(rows ? [' at ', param('rowAngle', `${s.number(s.param('rowAngle'))}°`)] : []),
  ];
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
    ' sideways ',
    ...pattern,
    ', ',
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
