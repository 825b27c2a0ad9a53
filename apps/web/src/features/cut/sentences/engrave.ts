import { Piece, Sentence, coolant, param, speed, targets, tool } from './types';

const WHAT: Record<string, string> = {
  'the lines': 'engrave along',
  'what they enclose': 'carve out',
  'a chequer': 'cut a chequer inside',
};

export const engrave: Sentence = (s) => {
  const what = s.word('what');
  const carving = what === 'what they enclose';
  const size: Piece[] =
    s.word('by') === 'width' && !carving
      ? [' to a ', param('by', 'width'), ' of ', param('width', s.length(s.param('width')))]
      : [
          carving ? ' to a depth of up to ' : ' to a ',
          ...(carving ? [] : [param('by', 'depth'), ' of ']),
          param('depth', s.length(s.param('depth'))),
        ];
  const rows: Piece[] =
    what === 'a chequer'
      ? [
          ', grooves ',
          param('pitch', s.length(s.param('pitch'))),
          ' apart at ',
          param('angle', `${s.number(s.param('angle'))}°`),
        ]
      : [];
  return [
    'With ',
    tool(s),
    ', ',
    param('what', WHAT[what] ?? what),
    ' ',
    targets(s),
    ...size,
    ...rows,
    carving ? ', going on by ' : ', in layers of up to ',
    carving ? param('step', s.length(s.param('step'))) : param('layer', s.length(s.param('layer'))),
    ', at ',
    ...speed(s),
    ...coolant(s),
  ];
};
