import { Controller } from '../controller';

export const sheetCutter: Controller = {
  id: 'sheet-cutter',
  name: 'Two-axis sheet cutter',
  about: 'Jet, laser or plasma: X and Y only, the beam switched by M3 and M5',
  fileExtension: 'nc',
  comment: { open: '(', close: ')', upperCase: false },
  frame: { open: ['({name})'], close: ['M2'] },
  decimals: { mm: 3, inch: 4, feed: 1 },
  lineNumbers: { step: 1 },
  toolChange: 'one program a tool',
  lengthOffsets: false,
  beam: { on: 'M3', off: 'M5' },
  workOffsets: ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'],
  cycles: {},
  coolant: {},
  spindleDwell: 0,
  retreat: [],
  units: { mm: 'G21', inch: 'G20' },
  safeStart: ['G17 G90 G94'],
};
