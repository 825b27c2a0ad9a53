import { Finding, care, stop } from '../quantity/finding';
import { parseLength } from '../quantity/length';
import { MM_PER_INCH, formatNumber } from '../quantity/units';
import { Holder } from './holder';
import { Machine } from '../machine/machine';
import { Material, Range } from './material';
import { Tool, formOf, isAxial } from './tool';

const mm = (v: number) => `${formatNumber(v, 3)} mm`;
const near = (a: number, b: number, share = 0.002) => Math.abs(a - b) <= share * Math.max(Math.abs(a), Math.abs(b));

const SIZE_IN_NAME = /(?:^|\s)(#\d+|\d+-\d+\/\d+|\d+\/\d+|\d*[.,]?\d+)\s*(mm|in\b|inch|")/i;

/** A diameter that is exactly 25.4 times off from what the tool's name says, or from its shank. */
function unitFinding(tool: Tool): Finding | undefined {
  const said = SIZE_IN_NAME.exec(tool.name);
  const read = said && parseLength(`${said[1]}${said[2]}`, 'mm');
  const wanted = read?.ok ? read.mm : tool.shankDiameter;
  if (tool.kind === 'taper-ball' || tool.kind === 'engraving' || formOf(tool) === 'beam') return undefined;
  if (near(wanted, tool.diameter * MM_PER_INCH))
    return care(
      'looks-like-inch',
      `A diameter of ${mm(tool.diameter)} looks like inches typed as mm: ${formatNumber(tool.diameter, 4)} in is ${mm(wanted)}`,
      `Write ${formatNumber(tool.diameter, 4)}in, or ${mm(wanted)}`,
      { field: 'diameter' },
    );
  if (near(wanted * MM_PER_INCH, tool.diameter))
    return care(
      'looks-like-mm',
      `A diameter of ${mm(tool.diameter)} looks like mm typed as inches: the tool seems to be ${mm(wanted)}`,
      `Write ${formatNumber(wanted, 3)}mm`,
      { field: 'diameter' },
    );
  return undefined;
}

/** What cannot be, or is likely a slip, in a tool's numbers: each finding at its field. */
export function toolFindings(tool: Tool): Finding[] {
  const form = formOf(tool);
  const found: Finding[] = [];
  const add = (bad: boolean, level: typeof stop, code: string, message: string, remedy: string, field: string) => {
    if (bad) found.push(level(code, message, remedy, { field }));
  };
  add(
    tool.fluteLength > tool.overallLength,
    stop,
    'flute-too-long',
    `Flutes of ${mm(tool.fluteLength)} are longer than the tool, ${mm(tool.overallLength)}`,
    'Shorten the flutes or lengthen the tool',
    'fluteLength',
  );
  add(
    tool.stickOut > tool.overallLength,
    stop,
    'stick-out-too-long',
    `It sticks out ${mm(tool.stickOut)} but is only ${mm(tool.overallLength)} long`,
    'Let it stick out less, or correct the overall length',
    'stickOut',
  );
  add(
    tool.fluteLength > tool.stickOut,
    care,
    'flutes-in-holder',
    `Flutes of ${mm(tool.fluteLength)} reach into the holder: it sticks out ${mm(tool.stickOut)}`,
    'Let it stick out more; a holder must grip the shank',
    'stickOut',
  );
  add(
    (form === 'cone' || form === 'drill' || form === 'rounding') && tool.tipDiameter > tool.diameter,
    stop,
    'tip-too-wide',
    `A tip of ${mm(tool.tipDiameter)} is wider than the body, ${mm(tool.diameter)}`,
    'Make the tip smaller',
    'tipDiameter',
  );
  add(
    (form === 'mill' || form === 'taper') && tool.cornerRadius > tool.diameter / 2 + 1e-9,
    stop,
    'corner-too-large',
    `A corner radius of ${mm(tool.cornerRadius)} does not fit on ${mm(tool.diameter)}`,
    `At most ${mm(tool.diameter / 2)}`,
    'cornerRadius',
  );
  add(
    tool.kind === 'ball' && !near(tool.cornerRadius, tool.diameter / 2),
    stop,
    'ball-not-round',
    `A ball of ${mm(tool.diameter)} has a radius of ${mm(tool.diameter / 2)}, not ${mm(tool.cornerRadius)}`,
    'Make it half the diameter, or call it a bull mill',
    'cornerRadius',
  );
  add(
    tool.kind === 'flat' && tool.cornerRadius > tool.diameter / 4,
    care,
    'corner-not-flat',
    `A corner radius of ${mm(tool.cornerRadius)} is large for an end mill`,
    'Call it a bull or ball mill if that is what it is',
    'kind',
  );
  add(
    form === 'rounding' && tool.tipDiameter + 2 * tool.cornerRadius > tool.diameter + 1e-6,
    stop,
    'rounding-too-wide',
    `A tip of ${mm(tool.tipDiameter)} and a radius of ${mm(tool.cornerRadius)} need a body of ${mm(tool.tipDiameter + 2 * tool.cornerRadius)}`,
    'Correct tip, radius or diameter',
    'cornerRadius',
  );
  add(
    form === 'drill' && tool.pointAngle < 60,
    care,
    'point-too-sharp',
    `A point of ${tool.pointAngle}° is sharper than drills are`,
    'Give the included angle: 118° for most twist drills',
    'pointAngle',
  );
  add(
    (form === 'tap' || form === 'thread') && tool.pitch * 1.3 >= tool.diameter,
    stop,
    'pitch-too-coarse',
    `A pitch of ${mm(tool.pitch)} is too coarse for ${mm(tool.diameter)}`,
    'Give the pitch in mm: 25.4 / threads an inch',
    'pitch',
  );
  add(
    isAxial(tool) && tool.shankDiameter < tool.diameter / 4,
    care,
    'shank-thin',
    `A shank of ${mm(tool.shankDiameter)} under ${mm(tool.diameter)} is unusual`,
    'Check both diameters',
    'shankDiameter',
  );
  const unit = unitFinding(tool);
  if (unit) found.push(unit);
  return found;
}

/** Two tools that stand in one pocket, told at the later one's number. */
export function pocketFinding(
  tool: Pick<Tool, 'id' | 'number' | 'name'>,
  rack: Pick<Tool, 'id' | 'number' | 'name'>[],
): Finding | undefined {
  const other = rack.find((t) => t.id !== tool.id && t.number === tool.number);
  if (!other) return undefined;
  const free = freePocket(rack);
  return care(
    'same-pocket',
    `Pocket ${tool.number} already holds ${other.name}`,
    `Take pocket ${free}, the first free one`,
    { field: 'number', tool: tool.id },
  );
}

/** The lowest pocket nobody stands in. */
export function freePocket(rack: Pick<Tool, 'number'>[]): number {
  const taken = new Set(rack.map((t) => t.number));
  let free = 1;
  while (taken.has(free)) free++;
  return free;
}

/** What cannot be in a machine's numbers. */
export function machineFindings(machine: Machine): Finding[] {
  const found: Finding[] = [];
  if (machine.minRpm >= machine.maxRpm)
    found.push(
      stop(
        'speeds-crossed',
        `The slowest speed, ${machine.minRpm} rpm, is not below the fastest, ${machine.maxRpm}`,
        'Correct one of them',
        { field: 'minRpm' },
      ),
    );
  if (machine.maxFeed > machine.rapid)
    found.push(care('feed-over-rapid', 'The largest feed is above the rapid rate', 'Check both', { field: 'maxFeed' }));
  machine.spindle.forEach((p, i) => {
    if (i > 0 && p.rpm <= machine.spindle[i - 1].rpm)
      found.push(
        stop(
          'curve-not-rising',
          `Point ${i + 1} of the power curve is at ${p.rpm} rpm, not above the one before`,
          'Put the points in rising order of speed',
          { field: `spindle.${i}.rpm` },
        ),
      );
  });
  const seen = new Map<number, string>();
  machine.carousel.forEach((p, i) => {
    if (p.pocket > machine.toolPockets)
      found.push(
        stop(
          'no-such-pocket',
          `There is no pocket ${p.pocket}; the machine has ${machine.toolPockets}`,
          'Choose a lower pocket',
          { field: `carousel.${i}.pocket` },
        ),
      );
    if (seen.has(p.pocket))
      found.push(
        stop('pocket-taken-twice', `Two tools stand in pocket ${p.pocket}`, 'Give one of them another pocket', {
          field: `carousel.${i}.pocket`,
        }),
      );
    seen.set(p.pocket, p.toolId);
  });
  return found;
}

/** What cannot be in a material's numbers. */
export function materialFindings(material: Material): Finding[] {
  const crossed = (range: Range, field: string): Finding[] =>
    range.from > range.to
      ? [
          stop('range-crossed', `The careful end, ${range.from}, is above the bold end, ${range.to}`, 'Swap them', {
            field,
          }),
        ]
      : range.to <= 0
        ? [stop('range-empty', 'The bold end is zero', 'Give a value above zero', { field })]
        : [];
  return [
    ...crossed(material.millingSpeed.carbide, 'millingSpeed.carbide'),
    ...crossed(material.millingSpeed.hss, 'millingSpeed.hss'),
    ...crossed(material.drillingSpeed.carbide, 'drillingSpeed.carbide'),
    ...crossed(material.drillingSpeed.hss, 'drillingSpeed.hss'),
    ...crossed(material.tappingSpeed, 'tappingSpeed'),
    ...crossed(material.chipShare, 'chipShare'),
    ...crossed(material.drillShare, 'drillShare'),
  ];
}

/** What is unlikely in a holder's numbers. */
export const holderFindings = (holder: Holder): Finding[] =>
  holder.segments.flatMap((s, i) =>
    i > 0 && s.lower < holder.segments[i - 1].upper - 20
      ? [
          care(
            'holder-undercut',
            `Segment ${i + 1} starts much narrower than the one below it ends`,
            'List the segments from the nose upwards',
            { field: `segments.${i}.lower` },
          ),
        ]
      : [],
  );
