import { Piece, Sentence, coolant, param, speed, targets, tool } from './types';

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
  if (method === 'spot') how.push(' to ', param('spotDiameter', `⌀ ${s.length(s.param('spotDiameter'))}`));
  const through: Piece[] =
    method !== 'spot' && s.targets.some((t) => t.through)
      ? [', breaking through by ', param('breakthrough', s.length(s.param('breakthrough')))]
      : [];
  return ['With ', tool(s), ', drill ', targets(s), ' ', ...how, ...through, ', at ', ...speed(s), ...coolant(s)];
};
