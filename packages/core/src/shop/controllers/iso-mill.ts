import { Controller } from '../controller';

export const isoMill: Controller = {
  id: 'iso-mill',
  name: 'ISO industrial mill',
  about: 'Tool changer, canned cycles, length offsets, six work offsets',
  fileExtension: 'nc',
  comment: { open: '(', close: ')', upperCase: true },
  frame: { open: ['%', 'O{number} ({name})'], close: ['M30', '%'] },
  decimals: { mm: 3, inch: 4, feed: 1 },
  lineNumbers: { step: 10 },
  toolChange: 'automatic',
  lengthOffsets: true,
  workOffsets: ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'],
  cycles: { drill: 'G81', spot: 'G82', peck: 'G83', 'chip-break': 'G73' },
  coolant: { flood: 'M8', mist: 'M7', through: 'M88' },
  spindleDwell: 0,
  retreat: ['G53 G0 Z0.'],
  units: { mm: 'G21', inch: 'G20' },
  safeStart: ['G17 G40 G49 G80 G90 G94'],
};
