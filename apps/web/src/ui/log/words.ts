import { format } from 'date-fns/format';
import { ChipColour, KeptEntry, formatTime } from '@tidypath/core';
import { counted } from '../counted';

/** What a chip looks like, drawn. */
export const CHIP_SWATCHES: Record<ChipColour, string> = {
  cool: '#C9CDD2',
  bright: '#C9CDD2',
  warm: '#C9CDD2',
  hot: '#B9BCC0',
  'pale straw': '#E8DCA8',
  straw: '#D9B45A',
  brown: '#8A5A34',
  blue: '#4F63A8',
  'dark blue': '#28345F',
  grey: '#55585C',
  'white sparks': '#F4F1E4',
  smears: '#9FA19C',
  welds: '#7F7A70',
};

export const dayText = (at: string): string => format(new Date(at), 'd MMM yyyy, HH:mm');

/** "production: 4 parts, ▲ 1 scrapped by size, 10:00 a run". */
export function madeText({ kind, parts, scrapped, cause, seconds }: KeptEntry): string {
  const bad = scrapped > 0 ? `, ▲ ${scrapped} scrapped${cause ? `: ${cause}` : ''}` : '';
  const time = seconds === undefined ? '' : `, ${formatTime(seconds / 60)} a run`;
  return `${kind}: ${counted(parts, 'part', 'parts')}${bad}${time}`;
}
