import { Piece, Sentence, param } from './types';

export const byHand: Sentence = (s) => {
  const note = s.word('note').trim();
  const minutes = s.param('minutes');
  const told: Piece[] = note ? [', told at the machine: ', param('note', note)] : [];
  return [
    'By hand, while the program waits: ',
    param('what', s.word('what')),
    ', taking ',
    param('minutes', `${s.number(minutes)} min`),
    ...told,
    s.word('what') === 'grip anew' ? '. What holds the work from here on is set on Hold.' : '.',
  ];
};
