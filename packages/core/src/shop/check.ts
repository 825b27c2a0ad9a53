import { Code, DataOf, Finding, finding } from '../quantity/finding';
import { parseLength } from '../quantity/length';
import { MM_PER_INCH } from '../quantity/units';
import { Bar } from './bar';
import { Holder } from './holder';
import { AXIS_NAMES, levelRapid, travelOf } from '../machine/axes';
import { Machine } from '../machine/machine';
import { Material, Range } from './material';
import { Tool, formOf, isAxial } from './tool';

const isClose = (a: number, b: number, share = 0.002) => Math.abs(a - b) <= share * Math.max(Math.abs(a), Math.abs(b));

const SIZE_IN_NAME = /(?:^|\s)(#\d+|\d+-\d+\/\d+|\d+\/\d+|\d*[.,]?\d+)\s*(mm|in\b|inch|")/i;

/** A diameter that is exactly 25.4 times off from what the tool's name says, or from its shank. */
function unitFinding(tool: Tool): Finding | undefined {
  const said = SIZE_IN_NAME.exec(tool.name);
  const read = said && parseLength(`${said[1]}${said[2]}`, 'mm');
  const wanted = read?.ok ? read.mm : tool.shankDiameter;
  if (tool.kind === 'taper-ball' || tool.kind === 'engraving' || formOf(tool) === 'beam') return undefined;
  if (isClose(wanted, tool.diameter * MM_PER_INCH))
    return finding('looks-like-inch', { diameter: tool.diameter, wanted }, { field: 'diameter' });
  if (isClose(wanted * MM_PER_INCH, tool.diameter))
    return finding('looks-like-mm', { diameter: tool.diameter, wanted }, { field: 'diameter' });
  return undefined;
}

/** What cannot be, or is likely a slip, in a tool's numbers: each finding at its field. */
export function toolFindings(tool: Tool): Finding[] {
  const form = formOf(tool);
  const found: Finding[] = [];
  const add = <C extends Code>(bad: boolean, code: C, data: DataOf<C>, field: string) => {
    if (bad) found.push(finding(code, data, { field }));
  };
  add(
    tool.fluteLength > tool.overallLength,
    'flute-too-long',
    { fluteLength: tool.fluteLength, overallLength: tool.overallLength },
    'fluteLength',
  );
  add(
    tool.stickOut > tool.overallLength,
    'stick-out-too-long',
    { stickOut: tool.stickOut, overallLength: tool.overallLength },
    'stickOut',
  );
  add(
    tool.fluteLength > tool.stickOut,
    'flutes-in-holder',
    { fluteLength: tool.fluteLength, stickOut: tool.stickOut },
    'stickOut',
  );
  add(
    (form === 'cone' || form === 'drill' || form === 'rounding') && tool.tipDiameter > tool.diameter,
    'tip-too-wide',
    { tipDiameter: tool.tipDiameter, diameter: tool.diameter },
    'tipDiameter',
  );
  add(
    (form === 'mill' || form === 'taper') && tool.cornerRadius > tool.diameter / 2 + 1e-9,
    'corner-too-large',
    { cornerRadius: tool.cornerRadius, diameter: tool.diameter, most: tool.diameter / 2 },
    'cornerRadius',
  );
  add(
    tool.kind === 'ball' && !isClose(tool.cornerRadius, tool.diameter / 2),
    'ball-not-round',
    { diameter: tool.diameter, radius: tool.diameter / 2, cornerRadius: tool.cornerRadius },
    'cornerRadius',
  );
  add(
    tool.kind === 'flat' && tool.cornerRadius > tool.diameter / 4,
    'corner-not-flat',
    { cornerRadius: tool.cornerRadius },
    'kind',
  );
  add(
    form === 'rounding' && tool.tipDiameter + 2 * tool.cornerRadius > tool.diameter + 1e-6,
    'rounding-too-wide',
    { tipDiameter: tool.tipDiameter, cornerRadius: tool.cornerRadius, least: tool.tipDiameter + 2 * tool.cornerRadius },
    'cornerRadius',
  );
  add(form === 'drill' && tool.pointAngle < 60, 'point-too-sharp', { pointAngle: tool.pointAngle }, 'pointAngle');
  add(
    (form === 'tap' || form === 'thread') && tool.pitch * 1.3 >= tool.diameter,
    'pitch-too-coarse',
    { pitch: tool.pitch, diameter: tool.diameter },
    'pitch',
  );
  add(
    isAxial(tool) && tool.shankDiameter < tool.diameter / 4,
    'shank-thin',
    { shankDiameter: tool.shankDiameter, diameter: tool.diameter },
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
  return finding('same-pocket', { number: tool.number, other: other.name, free }, { field: 'number', tool: tool.id });
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
    found.push(finding('speeds-crossed', { minRpm: machine.minRpm, maxRpm: machine.maxRpm }, { field: 'minRpm' }));
  if (machine.maxFeed > levelRapid(machine.axes)) found.push(finding('feed-over-rapid', {}, { field: 'maxFeed' }));
  for (const name of AXIS_NAMES)
    if (travelOf(machine.axes[name]) <= 0)
      found.push(finding('axis-backwards', { axis: name.toUpperCase() }, { field: `axes.${name}.to` }));
  machine.spindle.forEach((p, i) => {
    if (i > 0 && p.rpm <= machine.spindle[i - 1].rpm)
      found.push(finding('curve-not-rising', { point: i + 1, rpm: p.rpm }, { field: `spindle.${i}.rpm` }));
  });
  const seen = new Map<number, string>();
  machine.carousel.forEach((p, i) => {
    if (p.pocket > machine.toolPockets)
      found.push(
        finding(
          'no-such-pocket',
          { pocket: p.pocket, pockets: machine.toolPockets },
          { field: `carousel.${i}.pocket` },
        ),
      );
    if (seen.has(p.pocket))
      found.push(
        finding(
          'pocket-taken-twice',
          { pocket: p.pocket },
          {
            field: `carousel.${i}.pocket`,
          },
        ),
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
          finding(
            'range-crossed',
            { from: range.from, to: range.to },
            {
              field,
            },
          ),
        ]
      : range.to <= 0
        ? [finding('range-empty', {}, { field })]
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
      ? [finding('holder-undercut', { segment: i + 1 }, { field: `segments.${i}.lower` })]
      : [],
  );

/** What cannot be in a bar's numbers. */
export function barFindings(bar: Bar): Finding[] {
  const { section, width, thickness, diameter, bore } = bar;
  if (section === 'tube' && bore >= diameter) return [finding('bar-bore', { bore, diameter }, { field: 'bore' })];
  if (section === 'flat' && thickness > width)
    return [finding('bar-sides', { width, thickness }, { field: 'thickness' })];
  return [];
}
