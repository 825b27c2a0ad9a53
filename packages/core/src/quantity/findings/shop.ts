import { care, stop } from './words';

/** Findings of tools, machines and lists of the shop. */
export const SHOP = {
  'looks-like-inch': care<{ diameter: number; wanted: number }>(
    (d, say) =>
      `A diameter of ${say.number(d.diameter, 3)} mm looks like inches typed as mm: ${say.number(d.diameter, 4)} in is ${say.number(d.wanted, 3)} mm`,
    (d, say) => `Write ${say.number(d.diameter, 4)}in, or ${say.number(d.wanted, 3)} mm`,
  ),
  'looks-like-mm': care<{ diameter: number; wanted: number }>(
    (d, say) =>
      `A diameter of ${say.number(d.diameter, 3)} mm looks like mm typed as inches: the tool seems to be ${say.number(d.wanted, 3)} mm`,
    (d, say) => `Write ${say.number(d.wanted, 3)}mm`,
  ),
  'flute-too-long': stop<{ fluteLength: number; overallLength: number }>(
    (d, say) => `Flutes of ${say.mm(d.fluteLength, 3)} are longer than the tool, ${say.mm(d.overallLength, 3)}`,
    'Shorten the flutes or lengthen the tool',
  ),
  'stick-out-too-long': stop<{ stickOut: number; overallLength: number }>(
    (d, say) => `It sticks out ${say.mm(d.stickOut, 3)} but is only ${say.mm(d.overallLength, 3)} long`,
    'Let it stick out less, or correct the overall length',
  ),
  'flutes-in-holder': care<{ fluteLength: number; stickOut: number }>(
    (d, say) => `Flutes of ${say.mm(d.fluteLength, 3)} reach into the holder: it sticks out ${say.mm(d.stickOut, 3)}`,
    'Let it stick out more; a holder must grip the shank',
  ),
  'tip-too-wide': stop<{ tipDiameter: number; diameter: number }>(
    (d, say) => `A tip of ${say.mm(d.tipDiameter, 3)} is wider than the body, ${say.mm(d.diameter, 3)}`,
    'Make the tip smaller',
  ),
  'corner-too-large': stop<{ cornerRadius: number; diameter: number; most: number }>(
    (d, say) => `A corner radius of ${say.mm(d.cornerRadius, 3)} does not fit on ${say.mm(d.diameter, 3)}`,
    (d, say) => `At most ${say.mm(d.most, 3)}`,
  ),
  'ball-not-round': stop<{ diameter: number; radius: number; cornerRadius: number }>(
    (d, say) =>
      `A ball of ${say.mm(d.diameter, 3)} has a radius of ${say.mm(d.radius, 3)}, not ${say.mm(d.cornerRadius, 3)}`,
    'Make it half the diameter, or call it a bull mill',
  ),
  'corner-not-flat': care<{ cornerRadius: number }>(
    (d, say) => `A corner radius of ${say.mm(d.cornerRadius, 3)} is large for an end mill`,
    'Call it a bull or ball mill if that is what it is',
  ),
  'rounding-too-wide': stop<{ tipDiameter: number; cornerRadius: number; least: number }>(
    (d, say) =>
      `A tip of ${say.mm(d.tipDiameter, 3)} and a radius of ${say.mm(d.cornerRadius, 3)} need a body of ${say.mm(d.least, 3)}`,
    'Correct tip, radius or diameter',
  ),
  'point-too-sharp': care<{ pointAngle: number }>(
    (d) => `A point of ${d.pointAngle}° is sharper than drills are`,
    'Give the included angle: 118° for most twist drills',
  ),
  'pitch-too-coarse': stop<{ pitch: number; diameter: number }>(
    (d, say) => `A pitch of ${say.mm(d.pitch, 3)} is too coarse for ${say.mm(d.diameter, 3)}`,
    'Give the pitch in mm: 25.4 / threads an inch',
  ),
  'shank-thin': care<{ shankDiameter: number; diameter: number }>(
    (d, say) => `A shank of ${say.mm(d.shankDiameter, 3)} under ${say.mm(d.diameter, 3)} is unusual`,
    'Check both diameters',
  ),
  'same-pocket': care<{ number: number; other: string; free: number }>(
    (d) => `Pocket ${d.number} already holds ${d.other}`,
    (d) => `Take pocket ${d.free}, the first free one`,
  ),
  'speeds-crossed': stop<{ minRpm: number; maxRpm: number }>(
    (d) => `The slowest speed, ${d.minRpm} rpm, is not below the fastest, ${d.maxRpm}`,
    'Correct one of them',
  ),
  'feed-over-rapid': care('The largest feed is above the rapid rate', 'Check both'),
  'axis-backwards': stop<{ axis: string }>(
    (d) => `The travel of ${d.axis} ends where it begins, or before`,
    'Give its end as the greater of the two',
  ),
  'curve-not-rising': stop<{ point: number; rpm: number }>(
    (d) => `Point ${d.point} of the power curve is at ${d.rpm} rpm, not above the one before`,
    'Put the points in rising order of speed',
  ),
  'bar-bore': stop<{ bore: number; diameter: number }>(
    (d, say) => `The bore of ${say.mm(d.bore, 2)} is as wide as the tube of ${say.mm(d.diameter, 2)}`,
    'Correct its diameters',
  ),
  'bar-sides': stop<{ width: number; thickness: number }>(
    (d, say) => `It is ${say.mm(d.thickness, 2)} thick and ${say.mm(d.width, 2)} wide`,
    'Give the wider side as its width',
  ),
  'no-such-pocket': stop<{ pocket: number; pockets: number }>(
    (d) => `There is no pocket ${d.pocket}; the machine has ${d.pockets}`,
    'Choose a lower pocket',
  ),
  'pocket-taken-twice': stop<{ pocket: number }>(
    (d) => `Two tools stand in pocket ${d.pocket}`,
    'Give one of them another pocket',
  ),
  'range-crossed': stop<{ from: number; to: number }>(
    (d) => `The careful end, ${d.from}, is above the bold end, ${d.to}`,
    'Swap them',
  ),
  'range-empty': stop('The bold end is zero', 'Give a value above zero'),
  'holder-undercut': care<{ segment: number }>(
    (d) => `Segment ${d.segment} starts much narrower than the one below it ends`,
    'List the segments from the nose upwards',
  ),
  'bad-cell': stop<{ column: string; why: string }>((d) => `${d.column}: ${d.why}`, 'Correct this cell'),
  'missing-value': stop<{ column: string }>((d) => `This row has no ${d.column}`, 'Fill the cell'),
  'unknown-kind': stop<{ kind: string; known: string }>(
    (d) => `“${d.kind}” is no kind of tool`,
    (d) => `Use one of: ${d.known}`,
  ),
  'unknown-holder': stop<{ holder: string; known: string }>(
    (d) => `The shop has no holder “${d.holder}”`,
    (d) => `Use one of: ${d.known}`,
  ),
  'same-column': care<{ column: string }>(
    (d) => `The column “${d.column}” stands there twice; the last one counts`,
    'Take one of them out',
  ),
  'unknown-column': care<{ column: string; known: string }>(
    (d) => `Nobody knows the column “${d.column}”; it is left out`,
    (d) => `Columns are: ${d.known}`,
  ),
  'missing-column': stop<{ lacking: string; needed: string }>(
    (d) => `The list has no column ${d.lacking}`,
    (d) => `Name the columns in the first row: ${d.needed} at least`,
  ),
  'bad-row': care<{ row: number; why: string }>((d) => `Row ${d.row}: ${d.why}`, 'Check its commas and quotes'),
  'row-cells': stop<{ cells: number; columns: number }>(
    (d) => `The row has ${d.cells} cells, the head ${d.columns}; it is not taken`,
    'Put numbers with a comma and names with a comma in quotes: "12,5"; fill in what is missing',
  ),
  'list-no-end': care(
    'The list ends without an end of line: it may have been cut short in its last row',
    'Look whether its last tool is whole and whether others are missing',
  ),
  'too-many-rows': stop<{ rows: number; most: number }>(
    (d) => `The list has ${d.rows} tools; at most ${d.most} are taken at once, and none of these was`,
    'Split the list',
  ),
  'list-not-json': stop('The file is broken', 'Choose an unbroken tool list; the rack is untouched'),
  'not-a-tool-list': stop('This is not a tool list', 'Choose a file exported from a tool rack, or a CSV'),
  'same-id': stop<{ item: string; id: string }>(
    (d) => `“${d.item}” has the id of an earlier row, ${d.id}`,
    'Give it another id, or none',
  ),
  'row-same-pocket': care<{ item: string; number: number }>(
    (d) => `“${d.item}” wants pocket ${d.number}, which is taken`,
    'It is taken in all the same; give one of them another pocket',
  ),
  'not-an-item': stop<{ one: string }>((d) => `This is not a ${d.one}`, 'Send one whole object'),
};
