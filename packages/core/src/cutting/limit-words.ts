import { formatFeed, formatLength } from '../quantity/units';
import { ratedPower } from '../machine/machine';
import { cutState, thinnestChip } from './cut';
import { GRIP_SHARE, POWER_SHARE, bendLimit } from './limits';
import { Limit, LimitStep, Situation } from './suggestion';
import { TEXTBOOK, Working, n0, n1, n2, n3 } from './working';

/** The working of the limit that governs the feed, with the inputs that set it. */
export function limitWorking(s: Situation, step: LimitStep, rpm: number, feed: number): Working {
  const state = cutState({ ...s, rpm, feed, ae: Math.max(s.ae, s.peakAe ?? 0) });
  const formulas: Partial<Record<Limit, { formula: string; inputs: Working['inputs'] }>> = {
    'spindle power': {
      formula: `P = ap·ae·vf·kc / 60e6 at the widest bite, at most ${POWER_SHARE * 100} % of ${n2(state.powerAvailable)} kW`,
      inputs: [
        { name: 'spindle', text: s.machine.name, at: 'machine' },
        { name: 'layer', text: `${n3(s.ap)} mm`, at: 'layer' },
      ],
    },
    bending: {
      formula: `δ = F·(δ0 − δ0′·a + a³/(6·E·I)) over flutes, shank and holder, at most ${n3(bendLimit(s).most)} mm, ${bendLimit(s).why}; F ${n0(state.force)} N summed over the flutes, stick-out ${n1(s.tool.stickOut)} mm`,
      inputs: [
        { name: 'stick-out', text: `${n1(s.tool.stickOut)} mm`, at: 'tool' },
        { name: 'layer', text: `${n3(s.ap)} mm`, at: 'layer' },
      ],
    },
    grip: {
      formula: `√(M² + (Fa·d/2)²) at most ${GRIP_SHARE * 100} % of the torque at which ${n1(s.tool.shankDiameter)} mm slips in the ${s.tool.holder.name}`,
      inputs: [{ name: 'holder', text: s.tool.holder.name, at: 'holder' }],
    },
    'chip room': {
      formula: `fz·ae, loosely packed, fills half of the ${s.tool.flutes} gullets, π/4·(D² − (0.6·D)²)/z each, at a bite of ${n2(Math.max(s.ae, s.peakAe ?? 0))} mm`,
      inputs: [
        { name: 'flutes', text: `${s.tool.flutes}`, at: 'tool' },
        { name: 'bite', text: `${n3(s.ae)} mm`, at: 'bite' },
      ],
    },
    'hold of the work': {
      formula: `the cutter pushes with at most ${n0(s.hold ?? 0)} N, half of what the grip of the work stands; F ${n0(state.force)} N summed over the flutes`,
      inputs: [{ name: 'layer', text: `${n3(s.ap)} mm`, at: 'layer' }],
    },
    finish: {
      formula: `Ra = 4/(9·√3)·(vf/n)²/(4·D), one tooth a turn making the mark, at most ${n2(s.finish?.ra ?? 0)} µm${s.finish && s.finish.share !== 1 ? `; the last lap runs at ${n0(s.finish.share * 100)} %` : ''}`,
      inputs: [{ name: 'D', text: `${n3(s.tool.diameter)} mm`, at: 'tool' }],
    },
    'machine feed': {
      formula: `${s.machine.name} feeds at most ${n0(s.machine.maxFeed)} mm/min`,
      inputs: [{ name: 'machine', text: s.machine.name, at: 'machine' }],
    },
    asked: {
      formula: 'the feed you gave',
      inputs: [{ name: 'given', text: `${n0(s.asked?.feed ?? 0)} mm/min`, at: 'asked' }],
    },
  };
  const found = formulas[step.id];
  return {
    of: 'feed',
    what: `Limit: ${step.id}`,
    formula: found?.formula ?? step.label,
    result: `${n0(feed)} mm/min`,
    source:
      step.id === 'machine feed'
        ? 'Machine profile'
        : step.id === 'asked'
          ? 'You'
          : step.id === 'grip'
            ? 'Friction of a clamped shank; grip as the holder’s profile says'
            : TEXTBOOK,
    inputs: found?.inputs ?? [],
  };
}

/** The limit in a sentence, with the way out. */
export function limitText(s: Situation, limit: Limit, possible: boolean): string {
  const { tool, machine, unit = 'mm' } = s;
  const feed = (v: number) => formatFeed(v, unit);
  const long = (v: number) => formatLength(v, unit);
  const heavy = possible ? '' : ' Even so the chip is thinner than it should be: lighten the bite.';
  switch (limit) {
    case 'asked':
      return `Limited by the value you gave.${heavy}`;
    case 'spindle speed':
      return `Speed limited by the machine: ${n0(machine.maxRpm)} rpm.${heavy}`;
    case 'slowest spindle':
      return `${machine.name} runs no slower than ${n0(machine.minRpm)} rpm: faster than this cut wants. Take a smaller cutter or another machine.`;
    case 'holder balance':
      return possible
        ? `Speed limited by the holder: balanced to ${n0(tool.holder.balancedRpm)} rpm.`
        : `The ${tool.holder.name} is balanced to ${n0(tool.holder.balancedRpm)} rpm and ${machine.name} runs no slower than ${n0(machine.minRpm)}: take another holder.`;
    case 'machine feed':
      return `Feed limited by the machine: ${feed(machine.maxFeed)}.${heavy}`;
    case 'spindle power':
      return `Feed limited by the spindle: ${n2(ratedPower(machine))} kW.${heavy}`;
    case 'bending':
      return `Feed limited by bending of ${tool.name}: at most ${long(bendLimit(s).most)}, ${bendLimit(s).why}.${heavy}`;
    case 'grip':
      return `Feed limited by the grip of the ${tool.holder.name}.${heavy}`;
    case 'hold of the work':
      return `Feed limited by the grip of the work: it may be pushed with ${n0(s.hold ?? 0)} N. Grip deeper or harder, or bite less.${heavy}`;
    case 'chip room':
      return `Feed limited by the room for chips between ${tool.flutes} flutes.${heavy}`;
    case 'finish':
      return `Feed limited by the wall’s Ra ${n2(s.finish!.ra)} µm: feed marks of one tooth a turn.${heavy}`;
    case 'rubbing':
      return `The chip is near the rubbing limit, ${long(thinnestChip(tool, s.material))}. Fewer flutes or a larger cutter would thicken it.`;
    case 'pitch':
      return `The feed is locked to the pitch, ${long(tool.pitch)} a turn.`;
    case 'range':
      return 'Limited by the starting range of the material; work up from here.';
  }
}
