import { CycleKind } from '../../shop/controller';

/** Codes that are known and not followed, with what is to be said. */
export const NOT_FOLLOWED: Record<string, string> = {
  G41: 'Cutter compensation is followed only with a register whose radius is known; it is not followed here',
  G42: 'Cutter compensation is followed only with a register whose radius is known; it is not followed here',
  G51: 'Scaled coordinates are not followed',
  G65: 'Macro calls are not followed',
  G66: 'Macro calls are not followed',
  'M99 P': 'A return to another block is not followed',
  M97: 'Calls of a block number are not followed',
};
/** Codes that change nothing the proof goes by. */
export const HARMLESS = new Set(
  'G4 G40 G49 G50 G61 G64 G91.1 G17 G98 G99 G80 G53 M0 M1 M2 M98 M99 M30 M3 M4 M5 M6 M7 M8 M9 M19 M29 M48 M49 M10 M11'.split(
    ' ',
  ),
);
export const CYCLE_CODES: Record<number, CycleKind> = {
  73: 'chip-break',
  74: 'tap-left',
  81: 'drill',
  82: 'spot',
  83: 'peck',
  84: 'tap',
  85: 'ream',
  86: 'bore',
};

/** What F means: mm a minute, mm a turn, or how often a minute the move would fit. */
export type FeedMode = 'minute' | 'turn' | 'inverse';

export const FEED_MODES: Record<number, FeedMode> = { 93: 'inverse', 94: 'minute', 95: 'turn' };
/** Codes whose axis words say where a zero or a centre lies, not where to go. */
export const SETS_PLACES = new Set([10, 51, 52, 68, 92]);
