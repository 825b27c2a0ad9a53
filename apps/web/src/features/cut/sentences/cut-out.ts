import { Piece, Sentence, param, targets, tool } from './types';

export const cutOut: Sentence = (s) => {
  const joints = s.param('joints');
  const held: Piece[] =
    joints > 0
      ? [
          ', held by ',
          param('joints', `${joints} micro-joints`),
          ' of ',
          param('jointWidth', s.length(s.param('jointWidth'))),
          ' on ',
          param('jointsOn', s.word('jointsOn')),
        ]
      : [', with ', param('joints', 'no micro-joints')];
  const arc = s.word('leadForm') === 'arc';
  return [
    'With ',
    tool(s),
    ', cut out ',
    targets(s),
    ', piercing for ',
    param('pierce', `${s.number(s.param('pierce'))} s`),
    ' in the scrap and leading in by ',
    ...(arc ? [param('leadForm', 'an arc'), ' of radius '] : [param('leadForm', 'a straight'), ' of ']),
    param('lead', s.length(s.param('lead'))),
    ...held,
    ', at ',
    { field: { at: 'speed', key: 'feed' }, text: s.feed(s.operation.speeds.feed) },
    ' and power ',
    { field: { at: 'speed', key: 'rpm' }, text: `S ${s.number(s.operation.speeds.rpm)}` },
    '. Inside before outside.',
  ];
};
