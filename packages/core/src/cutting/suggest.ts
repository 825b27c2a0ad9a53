import { degrees } from '../quantity/units';
import { Machine, torqueAt } from '../machine/machine';
import { slipTorque } from '../shop/holder';
import { Tool, cutsWalls, formOf, isAxial, plunges } from '../shop/tool';
import { originOf } from '../shop/library/origin';
import { BOLDNESS, WorkGrip, boldnessWord, inRange, ownAt, placeInRange } from './boldness';
import { speedFactors } from './conditions';
import { CutInput, chipDiameter, cutState, cuttingDiameter, leadSine, thinnestChip } from './cut';
import { GRIP_SHARE, LoadLimit, POWER_SHARE, bendLimit, feedsAllowed } from './limits';
import { chipLoadFor, engagement, feedRate, perTurnForRoughness, spindleSpeed } from './milling';
import { Limit, LimitStep, Situation, Suggestion } from './suggestion';
import { limitText, limitWorking } from './limit-words';
import { tapTorque } from './twist';
import { TEXTBOOK, Working, n0, n1, n2, n3, roundDown } from './working';
import { maths } from '../quantity/maths';

/** Chip load is raised for thin bites by no more than this. */
export const MOST_THINNING = 2.5;
/** Share of the feed used to enter. */
const ENTRY_SHARE = { plunge: 0.3, ramp: 0.5 };
/** A reamer runs at half a drill's speed and twice its feed; a boring head's single edge at a mill's speed. General workshop rule. */
const REAM = { speed: 0.5, feed: 2 };

/** Where a tool's speed and chip come from: its own data for this material, or the material's range. */
const GRIP_WORDS: Record<WorkGrip, string> = { poor: 'poorly', fair: 'fairly', firm: 'firmly' };

function baseOf({ tool, material, grip, boldness = BOLDNESS.settled }: Situation) {
  const own = tool.ownData.find((d) => d.materialId === material.id);
  const form = formOf(tool);
  const key =
    form === 'tap' ? 'tappingSpeed' : form === 'drill' || tool.kind === 'reamer' ? 'drillingSpeed' : 'millingSpeed';
  const range = key === 'tappingSpeed' ? material.tappingSpeed : material[key][tool.material];
  const speedShare = tool.kind === 'reamer' ? REAM.speed : 1;
  const feedShare = tool.kind === 'reamer' ? REAM.feed : 1;
  const place = placeInRange(boldness, grip);
  const words = grip ? `${boldnessWord(boldness)}, the work held ${GRIP_WORDS[grip]}` : boldnessWord(boldness);
  const chipOf = (b: number) =>
    isAxial(tool)
      ? ((inRange(material.drillShare, b) / 100) * tool.diameter * feedShare) / tool.flutes
      : (inRange(material.chipShare, b) / 100) * chipDiameter(tool);
  return {
    own,
    boldness,
    words,
    key: key as 'tappingSpeed' | 'drillingSpeed' | 'millingSpeed',
    range: { from: range.from * speedShare, to: range.to * speedShare },
    vc: own ? ownAt(own.surfaceSpeed, place) : inRange(range, place) * speedShare,
    chip: own ? ownAt(own.chip, place) : chipOf(place),
    careful: own ? Math.min(own.chip, chipOf(BOLDNESS.first)) : chipOf(BOLDNESS.first),
  };
}

type Base = ReturnType<typeof baseOf>;

/** Speed by the engaged angle: an edge that is in contact for less of each turn stays cooler. */
const LIGHT = { power: 0.375, most: 2 };

/** How much more speed a bite of less than a quarter turn stands: T ∝ (90°/φ)^1.5 at equal speed. */
const lightBite = (phi: number) =>
  phi > 0 && phi < Math.PI / 2 ? Math.min(LIGHT.most, maths.pow(Math.PI / 2 / phi, LIGHT.power)) : 1;

function speedSteps(s: Situation, base: Base, D: number, working: Working[]): LimitStep[] {
  const { tool, material, machine, asked } = s;
  const factors = speedFactors(tool, material, s.coolant, !!base.own);
  const chosen = factors.reduce((product, f) => product * f.factor, base.vc);
  const top = factors.reduce((product, f) => product * f.factor, base.range.to);
  const light = base.own || isAxial(tool) ? 1 : lightBite(engagement(Math.min(s.ae, D), D));
  const vc = Math.max(chosen, Math.min(chosen * light, top));
  const wanted = spindleSpeed(vc, D);
  working.push({
    of: 'rpm',
    what: 'Surface speed',
    formula: base.own
      ? `${n0(base.own.surfaceSpeed)} m/min found by trial, ${base.words}`
      : `${n0(base.range.from)} to ${n0(base.range.to)} m/min for ${tool.material} in ${material.group}, ${base.words}`,
    result: `${n0(base.vc)} m/min`,
    source: base.own ? `The shop’s own data${base.own.note ? `: ${base.own.note}` : ''}` : originOf(material, base.key),
    inputs: [
      { name: 'material', text: material.name, at: 'material' },
      { name: 'boldness', text: base.words, at: 'boldness' },
    ],
  });
  let so = base.vc;
  for (const { what, formula, factor, input } of factors)
    working.push({
      of: 'rpm',
      what,
      formula,
      result: `${n0((so *= factor))} m/min`,
      source: 'Workshop estimate',
      inputs: [input],
    });
  if (vc > chosen * 1.001)
    working.push({
      of: 'rpm',
      what: 'A light bite stands more speed',
      formula: `vc·(90°/φ)^${LIGHT.power}, φ = ${n0(degrees(engagement(Math.min(s.ae, D), D)))}°, at most ${LIGHT.most} × and ${n0(top)} m/min`,
      result: `${n0(vc)} m/min`,
      source: 'Life of an edge by its share of a turn in contact (estimate)',
      inputs: [{ name: 'bite', text: `${n3(s.ae)} mm`, at: 'bite' }],
    });
  working.push({
    of: 'rpm',
    what: 'Spindle speed',
    formula: `n = 1000·vc / (π·D) = 1000·${n0(vc)} / (π·${n3(D)})`,
    result: `${n0(wanted)} rpm`,
    source: D < tool.diameter ? `${TEXTBOOK}; only ${n3(D)} mm of the diameter cut at this depth` : TEXTBOOK,
    inputs: [{ name: 'D', text: `${n3(tool.diameter)} mm`, at: 'tool' }],
  });
  const steps: LimitStep[] = [
    { id: 'range', on: 'rpm', label: 'surface speed of the material', allows: wanted, governs: false },
    { id: 'spindle speed', on: 'rpm', label: machine.name, allows: machine.maxRpm, governs: false },
    {
      id: 'holder balance',
      on: 'rpm',
      label: `balance of the ${tool.holder.name}`,
      allows: tool.holder.balancedRpm,
      governs: false,
    },
  ];
  if (asked?.rpm)
    steps.unshift({ id: 'asked', on: 'rpm', label: 'the speed you gave', allows: asked.rpm, governs: false });
  return steps;
}

/** The speed the steps come to: what was given replaces the material's wish, never a hard limit. */
function speedOf(steps: LimitStep[], machine: Machine): { rpm: number; limit: Limit } {
  const given = steps.find((s) => s.id === 'asked');
  const counted = given ? steps.filter((s) => s.id !== 'range') : steps;
  const [tightest] = [...counted].sort((a, b) => a.allows - b.allows);
  tightest.governs = true;
  if (tightest.allows < machine.minRpm) return { rpm: machine.minRpm, limit: 'slowest spindle' };
  return { rpm: tightest.allows, limit: tightest.id };
}

/** Feed a tooth, mm, that makes the wanted largest chip: thin bites and slanted edges want more, within reason. */
function toothFeed(s: Situation, hex: number, D: number): number {
  const thinning = chipLoadFor(1, engagement(Math.min(s.ae, D), D)) / leadSine(s.tool, s.ap);
  return Math.max(hex * Math.min(thinning, MOST_THINNING), thinnestChip(s.tool, s.material) * thinning);
}

function chipWorking(s: Situation, base: Base, D: number, fz: number, working: Working[]): void {
  const { tool, material } = s;
  const axial = isAxial(tool);
  const ranges = axial ? material.drillShare : material.chipShare;
  working.push({
    of: 'feed',
    what: axial ? 'Feed a tooth' : 'Chip wanted',
    formula: base.own
      ? `${n3(base.own.chip)} mm found by trial, ${base.words}`
      : `${n2(ranges.from)} to ${n2(ranges.to)} % of ${n3(axial ? tool.diameter : chipDiameter(tool))} mm${axial ? ` a turn, over ${tool.flutes} edges` : ''}, ${base.words}`,
    result: `${n3(base.chip)} mm`,
    source: base.own ? 'The shop’s own data' : originOf(material, axial ? 'drillShare' : 'chipShare'),
    inputs: [
      { name: 'material', text: material.name, at: 'material' },
      { name: 'boldness', text: base.words, at: 'boldness' },
    ],
  });
  if (fz > base.chip * 1.001)
    working.push({
      of: 'feed',
      what: 'Chip thinning',
      formula: `fz = hex / (sin φ · sin κ), φ = acos(1 − 2·${n2(s.ae)}/${n2(D)}), sin κ = ${n2(leadSine(tool, s.ap))}, at most ${MOST_THINNING} ×`,
      result: `${n3(fz)} mm a tooth`,
      source: TEXTBOOK,
      inputs: [{ name: 'bite', text: `${n3(s.ae)} mm`, at: 'bite' }],
    });
}

const loadLabels = (s: Situation): Record<LoadLimit, string> => ({
  'spindle power': `${POWER_SHARE * 100} % of the spindle’s power at this speed`,
  bending: `${n3(bendLimit(s).most)} mm of bending at the tip, ${bendLimit(s).why}`,
  grip: `${GRIP_SHARE * 100} % of what the holder grips`,
  'chip room': 'half of the room between its flutes, filled with chips',
  'hold of the work': `${n0(s.hold ?? 0)} N, which the grip of the work stands twice over`,
});

function feedSteps(s: Situation, rpm: number, fz: number): LimitStep[] {
  const { tool, machine, asked } = s;
  const wanted = feedRate(rpm, tool.flutes, fz);
  const input: CutInput = { ...s, rpm, feed: wanted };
  const loads = feedsAllowed(input);
  const labels = loadLabels(s);
  const steps: LimitStep[] = [
    { id: 'range', on: 'feed', label: 'the chip wanted', allows: wanted, governs: false },
    { id: 'machine feed', on: 'feed', label: machine.name, allows: machine.maxFeed, governs: false },
    ...(Object.keys(loads) as LoadLimit[])
      .filter((id) => id !== 'hold of the work' || s.hold)
      .map((id): LimitStep => ({
        id,
        on: 'feed',
        label: labels[id],
        allows: loads[id],
        governs: false,
      })),
  ];
  if (s.finish && cutsWalls(tool))
    steps.push({
      id: 'finish',
      on: 'feed',
      label: `a wall of Ra ${n2(s.finish.ra)} µm`,
      allows: (rpm * perTurnForRoughness(s.finish.ra, tool.diameter)) / s.finish.share,
      governs: false,
    });
  if (asked?.feed)
    steps.push({ id: 'asked', on: 'feed', label: 'the feed you gave', allows: asked.feed, governs: false });
  return steps.sort((a, b) => a.allows - b.allows);
}

const chipAt = (s: Situation, rpm: number, feed: number) => cutState({ ...s, rpm, feed }).largestChip;

/** The fastest speed at which the limits still leave a chip of at least `careful`; thinner chips rub, so speed gives way first. */
function slowedForChip(s: Situation, rpm: number, fz: number, careful: number): number {
  const chip = (n: number) => chipAt(s, n, feedSteps(s, n, fz)[0].allows);
  if (chip(rpm) >= careful) return rpm;
  let low = Math.max(1, s.machine.minRpm);
  const target = Math.min(careful, chip(low)) * (1 - 1e-6);
  if (chip(rpm) >= target) return rpm;
  let high = rpm;
  for (let i = 0; i < 24 && high - low > 1; i++) {
    const middle = (low + high) / 2;
    if (chip(middle) >= target) low = middle;
    else high = middle;
  }
  return low;
}

/** Rounded down within the limits, but never so far that the chip starts to rub. */
function roundedFeed(s: Situation, rpm: number, most: number, thinnest: number): number {
  const rubs = (feed: number) => chipAt(s, rpm, feed) < thinnest;
  const feed = roundDown(most, s.unit);
  if (feed > 0 && (!rubs(feed) || rubs(most))) return feed;
  return Math.floor(most * 100) / 100 || most;
}

const whole = (rpm: number, machine: Machine) =>
  Math.max(Math.ceil(machine.minRpm), rpm >= 1000 ? Math.floor(rpm / 10 + 1e-9) * 10 : Math.floor(rpm + 1e-9), 1);

/**
 * Starting speed and feeds for a tool in a material on a machine, with every limit, the one that governs, and the working.
 * The surface speed and chip come from the tool's own data for the material, else from the material's range at the asked boldness;
 * the feed is raised for thin bites, then held within machine, spindle, bending and grip at the widest bite; where a limit would
 * thin the chip below the careful end, the speed gives way first. No result passes a hard limit at any boldness.
 * Sources: textbook relations of milling and drilling, ranges as marked in the working.
 */
export function suggest(s: Situation): Suggestion {
  if (formOf(s.tool) === 'tap') return suggestTap(s);
  const { tool, material, machine } = s;
  const working: Working[] = [];
  const base = baseOf(s);
  const axial = isAxial(tool);
  const D = axial ? tool.diameter : cuttingDiameter(tool, s.ap);
  const steps = speedSteps(s, base, D, working);
  const speed = speedOf(steps, machine);
  const fz = axial ? base.chip : toothFeed(s, base.chip, D);
  chipWorking(s, base, D, fz, working);
  const thinnest = thinnestChip(tool, material);
  const careful = Math.max(thinnest, Math.min(base.careful, base.chip) * (axial ? chipSine(tool) : 1));
  const rpm = whole(s.asked?.rpm ? speed.rpm : slowedForChip(s, speed.rpm, fz, careful), machine);
  const chain = feedSteps(s, rpm, fz);
  const [tightest] = chain;
  tightest.governs = true;
  const feed = roundedFeed(s, rpm, tightest.allows, thinnest);
  const possible = chipAt(s, rpm, feed) >= thinnest * (1 - 1e-6) && rpm <= tool.holder.balancedRpm + 0.5;
  working.push({
    of: 'feed',
    what: 'Feed',
    formula: `vf = n·z·fz = ${n0(rpm)}·${tool.flutes}·${n3(fz)}`,
    result: `${n0(feedRate(rpm, tool.flutes, fz))} mm/min`,
    source: TEXTBOOK,
    inputs: [
      { name: 'z', text: `${tool.flutes} flutes`, at: 'tool' },
      { name: 'n', text: `${n0(rpm)} rpm`, at: 'machine' },
    ],
  });
  if (tightest.id !== 'range') working.push(limitWorking(s, tightest, rpm, feed));
  const feedLimit: Limit = tightest.id !== 'range' ? tightest.id : possible ? speed.limit : 'rubbing';
  const limit = speed.limit === 'slowest spindle' ? speed.limit : feedLimit;
  const share = axial ? 1 : plunges(tool) ? ENTRY_SHARE.ramp : ENTRY_SHARE.plunge;
  working.push({
    of: 'entryFeed',
    what: 'Entry feed',
    formula: axial
      ? 'the feed itself: it goes in by its point'
      : `${n0(share * 100)} % of the feed: ${plunges(tool) ? 'its end cuts to the centre' : 'its end does not cut to the centre'}`,
    result: `${n0(feed * share)} mm/min`,
    source: 'General workshop rule',
    inputs: [{ name: 'end', text: plunges(tool) ? 'cuts to the centre' : 'open centre', at: 'tool' }],
  });
  return {
    rpm,
    feed,
    entryFeed: axial ? feed : Math.min(feed, Math.max(0.1, roundDown(feed * share, s.unit))),
    limit,
    limitText: limitText(s, limit, possible),
    possible,
    chain: [...steps.sort((a, b) => a.allows - b.allows), ...chain],
    working,
  };
}

const chipSine = (tool: Tool) => (formOf(tool) === 'drill' ? maths.sin((tool.pointAngle * Math.PI) / 360) : 1);

/** Fastest speed at which a spindle still gives a torque, rpm: it gives less the faster it turns. 0 where it never does. */
function fastestAt(machine: Machine, torque: number): number {
  const gives = (rpm: number) => torqueAt(machine, rpm) >= torque;
  if (gives(machine.maxRpm)) return machine.maxRpm;
  let [low, high] = [0, machine.maxRpm];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (gives(middle)) low = middle;
    else high = middle;
  }
  return gives(low) ? low : 0;
}

/** A tap's feed is locked to its pitch; whatever limits the feed limits the speed. */
function suggestTap(s: Situation): Suggestion {
  const { tool, machine } = s;
  const working: Working[] = [];
  const steps = speedSteps(s, baseOf(s), tool.diameter, working);
  const feedCap = Math.min(machine.maxFeed, s.asked?.feed ?? Infinity);
  steps.push({
    id: 'machine feed',
    on: 'rpm',
    label: `${n0(feedCap)} mm/min at ${n3(tool.pitch)} mm a turn`,
    allows: feedCap / tool.pitch,
    governs: false,
  });
  const torque = tapTorque(tool, s.material);
  const most = POWER_SHARE * torqueAt(machine, 1);
  steps.push({
    id: 'spindle power',
    on: 'rpm',
    label: `${n1(torque)} N·m of ${n1(most)}, ${POWER_SHARE * 100} % of the spindle’s torque`,
    allows: fastestAt(machine, torque / POWER_SHARE),
    governs: false,
  });
  const { rpm: wanted, limit: slowest } = speedOf(steps, machine);
  const rpm = whole(wanted, machine);
  const feed = rpm * tool.pitch;
  const slips = torque > GRIP_SHARE * slipTorque(tool.holder, tool.shankDiameter);
  const limit = slips ? 'grip' : slowest;
  working.push({
    of: 'feed',
    what: 'Feed',
    formula: `vf = n·P = ${n0(rpm)}·${n3(tool.pitch)}`,
    result: `${n1(feed)} mm/min`,
    source: 'Geometry of the thread: a tap has no other feed',
    inputs: [{ name: 'P', text: `${n3(tool.pitch)} mm`, at: 'tool' }],
  });
  const turns = torque <= POWER_SHARE * torqueAt(machine, rpm) * (1 + 1e-9);
  const possible = !slips && turns && rpm <= tool.holder.balancedRpm + 0.5 && feed <= machine.maxFeed + 1e-9;
  return {
    rpm,
    feed,
    entryFeed: feed,
    limit: limit === 'range' ? 'pitch' : limit,
    limitText: limitText(s, limit === 'range' ? 'pitch' : limit, possible),
    possible,
    chain: steps.sort((a, b) => a.allows - b.allows),
    working,
  };
}
