import { Piece, Sentence, coolant, param, speed, targets, tool } from './types';

export const contour: Sentence = (s) => {
  const finish: Piece[] =
    s.word('finish') === 'true'
      ? [', then a ', param('finish', 'finish lap'), ' taking ', param('finishStock', s.length(s.param('finishStock')))]
      : [', with ', param('finish', 'no finish lap')];
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
    ...finish,
    ...coolant(s),
  ];
};
