import { Piece, Sentence, coolant, param, speed, targets, through, tool } from './types';

export const helicalBore: Sentence = (s) => {
  const finish: Piece[] =
    s.word('finish') === 'true'
      ? [
          ', then ',
          param('finish', 'finish turns'),
          ' taking ',
          param('finishStock', s.length(s.param('finishStock'))),
          s.word('spring') === 'true' ? ' and ' : '',
          s.word('spring') === 'true' ? param('spring', 'spring turns') : '',
        ]
      : [', with ', param('finish', 'no finish turns')];
  return [
    'With ',
    tool(s),
    ', bore ',
    targets(s),
    ' on a helix of ',
    param('angle', `${s.number(s.param('angle'))}°`),
    ', ',
    param('direction', s.word('direction')),
    ...through(s),
    ', at ',
    ...speed(s),
    ', leaving ',
    param('wallAllowance', s.length(s.param('wallAllowance'))),
    ' on the wall',
    ...finish,
    ...coolant(s),
  ];
};
