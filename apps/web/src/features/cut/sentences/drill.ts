import { Piece, Sentence, coolant, param, speed, targets, through, tool } from './types';

const METHODS: Record<string, string> = {
  straight: 'straight down',
  peck: 'in pecks',
  'chip-break': 'breaking the chip',
  spot: 'as spots',
};

export const drill: Sentence = (s) => {
  const method = s.word('method');
  const how: Piece[] = [param('method', METHODS[method])];
  if (method === 'peck' || method === 'chip-break') how.push(' of ', param('peck', s.length(s.param('peck'))));
  if (method === 'spot' && !s.operation.heights?.end)
    how.push(' to ', param('spotDiameter', `⌀ ${s.length(s.param('spotDiameter'))}`));
  return [
    'With ',
    tool(s),
    ', drill ',
    targets(s),
    ' ',
    ...how,
    ...(method === 'spot' ? [] : through(s)),
    ', at ',
    ...speed(s),
    ...coolant(s),
  ];
};
