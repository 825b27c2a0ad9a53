/** Why a machine stops by itself, in words: numbers are this control's own. */
import type { Finding } from '@tidypath/core';

interface Words {
  what: string;
  remedy: string;
}

/** 1x what was touched, 2x the cut, 3x axes, 4x the control. */
export const ALARMS = {
  11: { what: 'A rapid ran into metal', remedy: 'Compare zero and length register with the sheet; touch off again' },
  12: { what: 'Tool or holder struck what holds the work', remedy: 'Look at clamps, zero and length; nothing goes on' },
  13: { what: 'Holder or shank struck the work', remedy: 'Stick the tool out further, or look at its length register' },
  14: { what: 'The tip struck the table', remedy: 'The zero or the length is too low; touch off again' },
  15: {
    what: 'A tool was changed or the spindle stopped while down in metal',
    remedy: 'Retract first; look at the program',
  },
  16: {
    what: 'A tool that cannot cut there was driven into metal',
    remedy: 'Look at the tool in the spindle, and at the program',
  },
  21: { what: 'The spindle stalled', remedy: 'Less depth or feed; look whether zero and length are right' },
  22: { what: 'The tool broke', remedy: 'Take out what is left of it, put in another, touch it off' },
  31: { what: 'An axis could not follow', remedy: 'Less feed or depth; it has lost nothing, but look at the work' },
  32: { what: 'An axis is at the end of its travel', remedy: 'Look where work and zero stand on the table' },
  41: { what: 'Power was lost', remedy: 'Home, look at tool and work, and start again at a safe line' },
} as const satisfies Record<number, Words>;
export type AlarmNumber = keyof typeof ALARMS;

export interface Alarm extends Words {
  number: AlarmNumber;
  line: number;
  /** More of it, where the proof knows more. */
  more?: string;
}

/** Which of a proof's findings are felt at once, and as what. */
const STRUCK: Record<string, AlarmNumber> = {
  'rapid-through-stock': 11,
  'fixture-hit': 12,
  'nose-hit': 13,
  'holder-hit': 13,
  'shank-rub': 13,
  'table-hit': 14,
  'change-in-metal': 15,
  'spindle-stops-down': 15,
  'cannot-plunge': 16,
  'beyond-travel': 32,
};

/** What a proof found as an alarm of the machine it happens on; undefined where nothing stops. */
export function struck({ code, level, message, place }: Finding): Alarm | undefined {
  const number = level === 'stop' ? STRUCK[code] : undefined;
  return number && { number, ...ALARMS[number], line: place.line ?? 0, more: message };
}
