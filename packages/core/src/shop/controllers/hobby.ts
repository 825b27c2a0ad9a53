import { Controller } from '../controller';

export const hobby: Controller = {
  id: 'hobby',
  name: 'Hobby controller',
  about: 'No tool changer, no canned cycles, no length offsets: one program a tool',
  fileExtension: 'nc',
  comment: { open: '(', close: ')', upperCase: false },
  frame: { open: ['({name})'], close: ['M2'] },
  decimals: { mm: 3, inch: 4, feed: 1 },
  lineNumbers: { step: 1 },
  toolChange: 'one program a tool',
  lengthOffsets: false,
  workOffsets: ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'],
  cycles: {},
  coolant: { flood: 'M8', air: 'M7' },
  probe: { touch: 'G38.2', zero: 'G10 L20 P{offset} {axis}{value}' },
  spindleDwell: 3,
  retreat: [],
  units: { mm: 'G21', inch: 'G20' },
  safeStart: ['G17 G90 G94'],
};
