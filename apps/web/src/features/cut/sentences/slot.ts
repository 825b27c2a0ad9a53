import { Piece, Sentence, coolant, depth, finish, param, speed, targets, tool } from './types';

export const slot: Sentence = (s) => {
  const method = s.word('method');
  const how: Piece[] =
    method === 'layers'
      ? [param('method', 'in layers'), ' of up to ', param('layer', s.length(s.param('layer')))]
      : method === 'looping'
        ? [param('method', 'in loops'), ' going on by ', param('stepover', s.length(s.param('stepover')))]
        : [param('method', 'all the depth at once')];
  const line = s.targets.some((t) => t.meaning === 'line');
  const width = s.param('width');
  return [
    'With ',
    tool(s),
    ', slot ',
    targets(s),
    ...(line ? [', ', param('width', width > 0 ? `${s.length(width)} wide` : 'as wide as the cutter'), ','] : []),
    ' down to ',
    depth(s),
    ' ',
    ...how,
    ', at ',
    ...speed(s),
    ...finish(s),
    ...coolant(s),
  ];
};
