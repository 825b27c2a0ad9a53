import { Sentence, coolant, param, speed, targets, tool } from './types';

export const counterbore: Sentence = (s) => {
  const mouth = s.targets.find((t) => t.counterbore)?.counterbore;
  const straight = mouth && s.tool && Math.abs(mouth.diameter - s.tool.diameter) < 0.02;
  return [
    'With ',
    tool(s),
    ', counterbore ',
    targets(s),
    mouth ? ` to ⌀ ${s.length(mouth.diameter)}, ${s.length(mouth.depth)} deep` : '',
    ...(straight
      ? [', straight down, waiting ', param('dwell', `${s.number(s.param('dwell'))} s`), ' at the bottom']
      : [
          ' on a helix of ',
          param('angle', `${s.number(s.param('angle'))}°`),
          ', ',
          param('direction', s.word('direction')),
        ]),
    ', at ',
    ...speed(s),
    ...coolant(s),
  ];
};
