/** The only place where colours and sizes are written down. */
const LIGHT = {
  background: '#F5F1E8',
  sheet: '#FFFDF7',
  sunken: '#EBE5D8',
  ink: '#1E2430',
  quiet: '#5B6270',
  line: '#CFC7B6',
  accent: '#27406B',
  onAccent: '#FFFDF7',
  accentSoft: '#DCE3EF',
  danger: '#A3261B',
  dangerSoft: '#F6E0DA',
  care: '#7A4B12',
  careSoft: '#F6E9CC',
  stock: '#D9B98A',
  right: '#C6CBD1',
  part: '#1E2430',
  fixture: '#8A8678',
  solid: '#D3D2CC',
  chosen: '#7E9CCB',
};

const DARK: typeof LIGHT = {
  background: '#15181E',
  sheet: '#1E232B',
  sunken: '#262C36',
  ink: '#ECE7DA',
  quiet: '#A9AFBA',
  line: '#3B424E',
  accent: '#9DB7E4',
  onAccent: '#15181E',
  accentSoft: '#2B374C',
  danger: '#F0988C',
  dangerSoft: '#43241F',
  care: '#E8C37E',
  careSoft: '#3D3220',
  stock: '#A58658',
  right: '#8F959E',
  part: '#ECE7DA',
  fixture: '#7C7A72',
  solid: '#8B9097',
  chosen: '#5E86C4',
};

export type Palette = typeof LIGHT;

export const paletteOf = (dark: boolean): Palette => (dark ? DARK : LIGHT);

/** Colours heated steel takes, light bite to heavy. */
export const TEMPER = ['#F2E3B3', '#E3B95B', '#B8743A', '#86507A', '#4C5C9A', '#22304F'] as const;

/** Step of the temper scale for an engaged angle in degrees. */
export const temperStep = (degrees: number) =>
  Math.min(TEMPER.length - 1, Math.max(0, Math.floor((degrees / 180) * TEMPER.length)));

/** Metal left from so many mm on takes each colour of the scale. */
export const LEFT_STEPS = [0.06, 0.2, 0.5, 1, 2, 5] as const;

export const SPACE = { xs: 4, s: 8, m: 12, l: 16, xl: 24 } as const;
export const SIZE = {
  touch: 44,
  field: 130,
  rail: 84,
  panel: 420,
  column: 560,
  wide: 900,
  view: 280,
  ribbon: 72,
  radius: 10,
  sheetMax: 560,
  sheetTop: 104,
} as const;
export const TYPE = { small: 13, body: 15, large: 18, title: 22 } as const;

export const FONT = { text: 'Atkinson', bold: 'AtkinsonBold', mono: 'PlexMono' } as const;
