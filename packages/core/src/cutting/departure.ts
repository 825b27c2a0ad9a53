import { atPeak, chipRoomShare, cutState, thinnestChip } from './cut';
import { thin } from './gauges';
import { GRIP_SHARE, POWER_SHARE, bendLimit } from './limits';
import { relativeLife } from './milling';
import { Limit, Situation, Suggestion } from './suggestion';
import { n0, n3 } from './working';

/** How far chosen values are from the suggested ones, and what that costs. Ratios: 1 is as suggested. */
export interface Departure {
  rpm: number;
  feed: number;
  /** Time in cut against the suggestion. */
  time: number;
  /** Edge life against the suggestion (surface speed only, after Taylor). */
  life: number;
  /** The hard limit the chosen values pass or stand at, if any. */
  governs?: Limit;
  /** How far, and into what it runs; empty where it is as suggested. */
  brief: string;
  text: string;
}

/** Departures smaller than this are as suggested. */
const SAME = 0.005;

const percent = (ratio: number) => `${n0(Math.abs(ratio - 1) * 100)} % ${ratio > 1 ? 'over' : 'below'}`;

/** The limit that chosen values run into: the first one passed, or the one the machine stands at. */
function governing(s: Situation, rpm: number, feed: number): Limit | undefined {
  const state = cutState(atPeak({ ...s, rpm, feed }));
  if (rpm > s.tool.holder.balancedRpm) return 'holder balance';
  if (state.power > state.powerAvailable * POWER_SHARE) return 'spindle power';
  if (state.deflection > bendLimit(s).most) return 'bending';
  if (state.grip > GRIP_SHARE) return 'grip';
  if (chipRoomShare(s.tool, s.material, state.chipLoad, atPeak({ ...s, rpm, feed }).ae) > 1) return 'chip room';
  if (s.hold && state.force > s.hold) return 'hold of the work';
  if (feed >= s.machine.maxFeed - 1e-9) return 'machine feed';
  if (rpm >= s.machine.maxRpm) return 'spindle speed';
  if (cutState({ ...s, rpm, feed }).largestChip < thinnestChip(s.tool, s.material)) return 'rubbing';
  return undefined;
}

const SAID: Partial<Record<Limit, string>> = {
  'machine feed': 'the machine feeds no faster',
  'spindle speed': 'the spindle turns no faster',
  'holder balance': 'faster than the holder is balanced for',
  'spindle power': 'more than the spindle should carry',
  bending: 'the tool bends more than it should',
  grip: 'more than the grip should carry',
  'chip room': 'its flutes have no room for such chips',
  rubbing: 'the chip is so thin that it rubs',
};

/** Compares chosen speed and feed with the suggestion for the same cut. */
export function departure(
  s: Situation,
  suggestion: Pick<Suggestion, 'rpm' | 'feed'>,
  chosen: { rpm: number; feed: number },
): Departure {
  const rpm = chosen.rpm / suggestion.rpm;
  const feed = chosen.feed / suggestion.feed;
  const governs = governing(s, chosen.rpm, chosen.feed);
  const life = relativeLife(rpm, s.tool.material);
  const chip = cutState({ ...s, ...chosen }).largestChip;
  const [faster, fed] = [Math.abs(rpm - 1) > SAME, Math.abs(feed - 1) > SAME];
  const parts = [
    fed && `feed ${percent(feed)} the suggested, time in cut × ${n3(1 / feed)}`,
    faster && `speed ${percent(rpm)}, edge life × ${n3(life)}`,
    `chip ${thin(chip, s.unit ?? 'mm')}`,
    governs && SAID[governs],
  ].filter(Boolean);
  const departs = faster || fed;
  const brief = [fed && `feed ${percent(feed)}`, faster && `speed ${percent(rpm)}`].filter(Boolean).join(', ');
  const into = departs && governs && SAID[governs] ? `: ${SAID[governs]}` : '';
  return {
    rpm,
    feed,
    time: 1 / feed,
    life,
    governs,
    brief: departs ? `${brief} the suggested${into}` : '',
    text: departs ? parts.join('; ') : 'as suggested',
  };
}
