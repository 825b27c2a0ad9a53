import { tabShares } from '@tidypath/core';
import { Piece, Sentence, coolant, finish, param, sideText, speed, targets, tool } from './types';

export const contour: Sentence = (s) => {
  const side = s.word('side');
  const descent: Piece[] =
    s.word('descent') === 'ramp'
      ? [param('descent', 'ramping'), ' at ', param('rampAngle', `${s.number(s.param('rampAngle'))}°`)]
      : [param('descent', 'plunging')];
  const passes = s.param('passes');
  const sideways: Piece[] =
    passes > 1
      ? [
          param('passes', `${passes} passes`),
          ' beside each other, ',
          param('stepover', s.length(s.param('stepover'))),
          ' apart, ',
        ]
      : [];
  const places = s.word('tabPlaces');
  const count = tabShares({ tabCount: s.param('tabCount'), tabPlaces: places }).length;
  const tabs: Piece[] =
    s.word('tabs') === 'none'
      ? []
      : [
          ', held by ',
          param(places.trim() === '' ? 'tabCount' : 'tabPlaces', s.number(count)),
          ' ',
          param('tabs', s.word('tabs')),
          ' tabs of ',
          param('tabWidth', s.length(s.param('tabWidth'))),
          ' by ',
          param('tabHeight', s.length(s.param('tabHeight'))),
        ];
  return [
    'With ',
    tool(s),
    ', run ',
    param('side', sideText(side)),
    ' ',
    ...(s.operation.stretch ? [{ field: { at: 'stretch' }, text: 'a part' } as Piece, ' of '] : []),
    targets(s),
    ', ',
    param('direction', s.word('direction')),
    ', ',
    ...sideways,
    'in layers of up to ',
    param('layer', s.length(s.param('layer'))),
    ', ',
    ...descent,
    ', at ',
    ...speed(s),
    ', leaving ',
    param('wallAllowance', s.length(s.param('wallAllowance'))),
    ' on the wall',
    ...finish(s),
    ...tabs,
    ...coolant(s),
  ];
};
