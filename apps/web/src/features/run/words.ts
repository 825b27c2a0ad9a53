import { format } from 'date-fns/format';
import type { MachineState, MachineView } from '@tidypath/controller';
import { RunRow, formatNumber } from '@tidypath/core';

/** How a control stands, in a word and a shape. */
export const STATE_WORDS: Record<MachineState, string> = {
  ready: '◌ Ready',
  running: '▶ Running',
  held: '■ Feed hold',
  block: '■ After a block',
  waits: '■ The program waits',
  tool: '▲ A tool is asked for',
  alarm: '▲ Alarm',
  done: '✓ At its end',
};

/** "1 Dec 2026, 09:12 by Lio: ✓ At its end". */
export const runText = ({ at, who, state }: RunRow): string =>
  `${[format(new Date(at), 'd MMM yyyy, HH:mm'), who && `by ${who}`].filter(Boolean).join(' ')}: ${STATE_WORDS[state as MachineState]}`;

/** Chatter, or none, as it is heard. */
export const heardText = ({ vibration, chatter, quiet = [], state, load }: MachineView): string =>
  chatter !== undefined
    ? `▲ screams at ${formatNumber(chatter, 0)} Hz, ${formatNumber(1000 * vibration, 1)} µm${quiet.length > 0 ? `; out of step at ${quiet.map((rpm) => formatNumber(rpm, 0)).join(' or ')} rpm` : ''}`
    : state === 'running' && load > 0
      ? 'cuts quietly'
      : 'quiet';
