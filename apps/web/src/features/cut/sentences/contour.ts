import { Piece, Sentence, coolant, finish, param, speed, targets, tool } from './types';

export const contour: Sentence = (s) => {
  const descent: Piece[] =
    s.word('descent') === 'ramp'
      ? [param('descent', 'ramping'), ' at ', param('rampAngle', `${s.number(s.param('rampAngle'))}°`)]
      : [param('descent', 'plunging')];
  return [
    'With ',
    tool(s),
    ', run ',
    param('side', s.word('side')),
    ' ',
    targets(s),
    ', ',
    param('direction', s.word('direction')),
    ', in layers of up to ',
    param('layer', s.length(s.param('layer'))),
    ', ',
    ...descent,
    ', at ',
    ...speed(s),
    ', leaving ',
    param('wallAllowance', s.length(s.param('wallAllowance'))),
    ' on the wall',
    ...finish(s),
    ...coolant(s),
  ];
};
