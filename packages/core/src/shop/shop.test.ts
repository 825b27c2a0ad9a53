import fc from 'fast-check';
import { freePocket, machineFindings, materialFindings, pocketFinding, toolFindings } from './check';
import { COLUMNS, newTool, previewTools, toolsToCsv, toolsToJson } from './exchange';
import { Holder, holderHeight, holderLength, holderSlabs, holderWidth, slipTorque } from './holder';
import { HANDBOOK, HOLDERS, MACHINES, MATERIALS, SHOP_VALUE, TOOLS, originOf, startOf } from './library';
import { pocketOf } from '../machine/machine';
import { SHELF_NAMES, SHELVES, readItem } from './shelves';
import {
  TOOL_KINDS,
  Tool,
  cutsFloors,
  cutsWalls,
  flankAngle,
  formOf,
  makesHoles,
  plunges,
  profileHeight,
  profileTop,
  startsHoles,
} from './tool';

const numbered = (n: number) => TOOLS.find((t) => t.number === n)!;
const tool = (n: number, more: Partial<Tool>): Tool => ({ ...numbered(n), ...more });
const codes = (t: Tool) => toolFindings(t).map((f) => [f.code, f.place.field]);

describe('the starting shop', () => {
  test.each(SHELF_NAMES)('%s: everything on the shelf passes its own check without a word', (name) => {
    for (const item of SHELVES[name].start) expect([item.id, readItem(name, item).findings]).toEqual([item.id, []]);
  });

  test('has a tool of every kind, each in a pocket of its own', () => {
    expect(new Set(TOOLS.map((t) => t.kind))).toEqual(new Set(TOOL_KINDS));
    expect(new Set(TOOLS.map((t) => t.number)).size).toBe(TOOLS.length);
  });

  test('says where a number comes from, and what it started as', () => {
    const [alu] = MATERIALS;
    expect(originOf(alu, 'kc11')).toBe(HANDBOOK);
    const own = { ...alu, kc11: 640 };
    expect([originOf(own, 'kc11'), startOf(own, 'kc11'), startOf(alu, 'kc11')]).toEqual([SHOP_VALUE, 600, undefined]);
    expect(originOf({ ...alu, id: 'new' }, 'kc11')).toBe(SHOP_VALUE);
    expect(startOf({ ...MACHINES[0], maxFeed: 1 }, 'maxFeed')).toBe(3000);
  });
});

describe('geometry decides what a tool can do', () => {
  test.each([
    ['a thread mill breaks an edge', flankAngle(numbered(40)), 60],
    ['a spot drill chamfers', flankAngle(numbered(13)), 45],
    ['a square end mill has no flank for it', flankAngle(numbered(4)), undefined],
    ['a high-feed mill is too shallow for it', flankAngle(numbered(24)), undefined],
    ['an end mill that cuts to the centre makes holes', makesHoles(numbered(4)), true],
    ['an insert mill with an open centre does not', makesHoles(numbered(25)), false],
    ['a drill plunges', plunges(numbered(14)), true],
    ['a face mill does not', plunges(numbered(1)), false],
    ['a drill cuts no walls', cutsWalls(numbered(14)), false],
    ['a high-feed mill cuts floors', cutsFloors(numbered(24)), true],
    ['a chamfer mill does not', cutsFloors(numbered(22)), false],
    ['a short drill starts holes', startsHoles(numbered(13)), true],
    ['a long one does not', startsHoles(numbered(14)), false],
  ])('%s', (_, is, should) => expect(is).toBe(should));

  test('profiles: closed forms of every form', () => {
    expect(profileHeight(numbered(4), 5)).toBe(0);
    expect(profileHeight(numbered(12), 3)).toBeCloseTo(3, 9);
    expect(profileHeight(numbered(12), 1.5)).toBeCloseTo(3 - Math.sqrt(9 - 2.25), 9);
    expect(profileHeight(numbered(13), 5)).toBeCloseTo(5, 9);
    expect(profileHeight(numbered(31), 0.1)).toBe(0);
    expect(profileHeight(numbered(31), 2)).toBeCloseTo(1.9 / Math.tan(Math.PI / 6), 9);
    const rounding = numbered(30);
    expect([profileHeight(rounding, 3), profileTop(rounding)]).toEqual([0, 3]);
    expect(profileHeight(rounding, 4.5)).toBeCloseTo(Math.sqrt(9 - 2.25), 9);
    const taper = numbered(29);
    const touch = Math.cos((6 * Math.PI) / 180);
    expect(profileHeight(taper, touch)).toBeCloseTo(1 - Math.sin((6 * Math.PI) / 180), 6);
    expect(profileTop(taper)).toBeGreaterThan(18);
  });

  test('profiles never fall outwards, for any tool', () => {
    for (const t of TOOLS)
      for (let i = 1; i <= 50; i++)
        expect(profileHeight(t, (t.diameter / 100) * i)).toBeGreaterThanOrEqual(
          profileHeight(t, (t.diameter / 100) * (i - 1)) - 1e-12,
        );
  });
});

describe('holders', () => {
  const holder: Pick<Holder, 'segments' | 'gripTorque'> = {
    gripTorque: 40,
    segments: [
      { lower: 20, upper: 40, length: 20 },
      { lower: 50, upper: 50, length: 30 },
    ],
  };
  test('outline', () => {
    expect([holderLength(holder), holderWidth(holder)]).toEqual([50, 50]);
    expect([5, 10, 15, 22, 30].map((r) => holderHeight(holder, r))).toEqual([0, 0, 10, 20, Infinity]);
    expect(holderSlabs(holder)).toHaveLength(5);
    expect(slipTorque(holder, 20)).toBe(160);
  });
});

describe('impossible and unlikely numbers are found at their field', () => {
  test.each([
    ['flute-too-long', 'fluteLength', tool(4, { fluteLength: 90 })],
    ['stick-out-too-long', 'stickOut', tool(4, { stickOut: 90 })],
    ['flutes-in-holder', 'stickOut', tool(4, { stickOut: 15 })],
    ['tip-too-wide', 'tipDiameter', tool(22, { tipDiameter: 12 })],
    ['corner-too-large', 'cornerRadius', tool(11, { cornerRadius: 6 })],
    ['ball-not-round', 'cornerRadius', tool(12, { cornerRadius: 2 })],
    ['corner-not-flat', 'kind', tool(4, { cornerRadius: 3 })],
    ['rounding-too-wide', 'cornerRadius', tool(30, { cornerRadius: 4 })],
    ['point-too-sharp', 'pointAngle', tool(14, { pointAngle: 30 })],
    ['pitch-too-coarse', 'pitch', tool(37, { pitch: 4 })],
    ['shank-thin', 'shankDiameter', tool(18, { shankDiameter: 1 })],
  ])('%s at %s', (code, field, t) => expect(codes(t)).toContainEqual([code, field]));

  test('an inch value typed as mm, and the other way round, is said when it looks like one', () => {
    expect(codes(tool(20, { diameter: 0.25 }))).toContainEqual(['looks-like-inch', 'diameter']);
    expect(codes(tool(4, { diameter: 254 }))).toContainEqual(['looks-like-mm', 'diameter']);
    expect(codes(tool(42, { name: 'Slotter', diameter: 0.2362, shankDiameter: 6 }))).toContainEqual([
      'looks-like-inch',
      'diameter',
    ]);
    expect(codes(tool(9, { diameter: 3.9 }))).toEqual([]);
  });

  test('two tools in one pocket: the later is told, with the first free pocket', () => {
    const rack = [numbered(1), numbered(2), { ...numbered(3), number: 2 }];
    expect(pocketFinding(rack[2], rack)).toMatchObject({
      code: 'same-pocket',
      remedy: expect.stringContaining('pocket 3'),
      place: { field: 'number' },
    });
    expect(pocketFinding(rack[0], rack)).toBeUndefined();
    expect(freePocket([])).toBe(1);
  });

  test('machines and materials', () => {
    const [m] = MACHINES;
    const found = (more: Partial<typeof m>) => machineFindings({ ...m, ...more }).map((f) => f.place.field);
    expect(found({ minRpm: 20000 })).toEqual(['minRpm']);
    expect(found({ maxFeed: 9000 })).toEqual(['maxFeed']);
    expect(
      found({
        spindle: [
          { rpm: 5000, kW: 1 },
          { rpm: 3000, kW: 2 },
        ],
      }),
    ).toEqual(['spindle.1.rpm']);
    expect(
      found({
        carousel: [
          { pocket: 2, toolId: 'a' },
          { pocket: 2, toolId: 'b' },
          { pocket: 99, toolId: 'c' },
        ],
      }),
    ).toEqual(['carousel.1.pocket', 'carousel.2.pocket']);
    expect(pocketOf({ carousel: [{ pocket: 7, toolId: 't4' }] }, numbered(4))).toBe(7);
    expect(pocketOf({ carousel: [] }, numbered(4))).toBe(4);
    const crossed = { ...MATERIALS[0], chipShare: { from: 2, to: 1 }, tappingSpeed: { from: 0, to: 0 } };
    expect(materialFindings(crossed).map((f) => f.place.field)).toEqual(['tappingSpeed', 'chipShare']);
  });

  test('unknown fields, wrong types and things that are nothing are refused by name', () => {
    expect(readItem('tools', { ...numbered(4), wings: 2 }).findings[0].place.field).toBe('wings');
    expect(readItem('tools', { ...numbered(4), diameter: 'ten' }).findings[0].place.field).toBe('diameter');
    expect(readItem('tools', { ...numbered(4), holder: { ...HOLDERS[0], segments: [] } }).findings[0].place.field).toBe(
      'holder.segments',
    );
    expect(readItem('machines', undefined).findings[0].code).toBe('not-an-item');
    expect(readItem('materials', []).item).toBeUndefined();
  });
});

describe('tool lists in and out', () => {
  test('CSV and JSON come back as they went: nothing changes', () => {
    for (const text of [toolsToCsv(TOOLS), toolsToJson(TOOLS)])
      expect(previewTools(text, TOOLS, HOLDERS)).toEqual({ added: [], changed: [], same: TOOLS.length, findings: [] });
  });

  test('a preview says what is new, what changes and in which fields', () => {
    const list = toolsToCsv([tool(4, { fluteLength: 30, stickOut: 40 }), numbered(5)]);
    const { changed, same, added } = previewTools(list, TOOLS, HOLDERS);
    expect([changed.map((c) => c.fields), same, added.length]).toEqual([[['fluteLength', 'stickOut']], 1, 0]);
  });

  test('a short list in inches is filled from tools of its kind, in free pockets', () => {
    const { added, findings } = previewTools(
      'kind,name,diameter,flutes\nflat,3/8 in end mill,3/8,4\ndrill,#7 long drill,#7,2\n',
      TOOLS,
      HOLDERS,
    );
    expect(findings).toEqual([]);
    expect(added.map((t) => [t.diameter.toFixed(3), t.flutes, t.number])).toEqual([
      ['9.525', 4, 44],
      ['5.105', 2, 45],
    ]);
    expect(added.every((t) => readItem('tools', t).item)).toBe(true);
  });

  test.each([
    ['no columns that are needed', 'a,b\n1,2\n', 'missing-column', 1],
    ['a column nobody knows', 'kind,name,diameter,colour\nflat,X mill,3,red\n', 'unknown-column', 1],
    ['a column twice', 'kind,name,diameter,name\nflat,X mill,3,Y mill\n', 'same-column', 1],
    ['a kind nobody knows', 'kind,name,diameter\nlaser,X,3\n', 'unknown-kind', 2],
    ['a cell that is no number', 'kind,name,diameter\nflat,X,wide\n', 'bad-cell', 2],
    ['an empty cell that is needed', 'kind,name,diameter\nflat,,3\n', 'missing-value', 2],
    ['a holder the shop has not', 'kind,name,diameter,holder\nflat,X,3,Magnet\n', 'unknown-holder', 2],
    ['a value out of range', 'kind,name,diameter\nflat,X,900\n', 'bad-field', 2],
    ['impossible geometry', 'kind,name,diameter,fluteLength,overallLength\nflat,X,3,60,40\n', 'flute-too-long', 2],
    ['a pocket that is taken', 'kind,name,diameter,number\nflat,X mill,3,4\n', 'row-same-pocket', 2],
    ['one id twice', 'id,kind,name,diameter\nz,flat,A,3\nz,flat,B,4\n', 'same-id', 3],
    ['broken JSON', '{"format":', 'list-not-json', undefined],
    ['other JSON', '{"jobs":[]}', 'not-a-tool-list', undefined],
  ])('%s: said with its line', (_, text, code, line) => {
    const { findings } = previewTools(text, TOOLS, HOLDERS);
    expect(findings.map((f) => [f.code, f.place.line])).toContainEqual([code, line]);
  });

  test('no mangled list crashes, and nothing unsound is taken in', () => {
    const csv = toolsToCsv(TOOLS.slice(0, 6));
    fc.assert(
      fc.property(fc.nat(csv.length), fc.nat(40), fc.string({ maxLength: 12 }), (from, cut, put) => {
        const { added, changed } = previewTools(csv.slice(0, from) + put + csv.slice(from + cut), TOOLS, HOLDERS);
        for (const t of [...added, ...changed.map((c) => c.after)]) expect(readItem('tools', t).item).toBeDefined();
      }),
      { numRuns: 300, seed: 3 },
    );
  });

  test('a new tool of any kind and size is sound', () => {
    for (const kind of TOOL_KINDS)
      for (const diameter of [2, 8, 20]) {
        const made = newTool(kind, diameter, TOOLS, HOLDERS);
        const { findings, item } = readItem('tools', made);
        expect([kind, diameter, item && formOf(item), findings.filter((f) => f.level === 'stop')]).toEqual([
          kind,
          diameter,
          formOf({ kind }),
          [],
        ]);
        expect(TOOLS.some((t) => t.number === made.number || t.id === made.id)).toBe(false);
      }
    expect(COLUMNS).toContain('stickOut');
  });
});

describe('mangled things of the shop', () => {
  /** One leaf of a document replaced by something else. */
  const mangled = (item: object, path: number, put: unknown): unknown => {
    const leaves: [object, string][] = [];
    const copy = JSON.parse(JSON.stringify(item)) as object;
    const walk = (node: object) => {
      for (const [key, value] of Object.entries(node)) {
        leaves.push([node, key]);
        if (typeof value === 'object' && value !== null) walk(value as object);
      }
    };
    walk(copy);
    const [owner, key] = leaves[path % leaves.length];
    (owner as Record<string, unknown>)[key] = put;
    return copy;
  };
  const junk = fc.oneof(
    fc.constant(null),
    fc.double(),
    fc.string({ maxLength: 20 }),
    fc.constant({}),
    fc.constant([]),
    fc.boolean(),
  );

  test.each(SHELF_NAMES.filter((n) => SHELVES[n].start.length))(
    '%s: never a crash, and what is refused says where',
    (name) => {
      fc.assert(
        fc.property(fc.constantFrom(...(SHELVES[name].start as object[])), fc.nat(500), junk, (item, path, put) => {
          const { item: taken, findings } = readItem(name, mangled(item, path, put));
          if (!taken) {
            expect(findings.length).toBeGreaterThan(0);
            expect(findings.every((f) => f.message && f.remedy)).toBe(true);
            expect(findings.some((f) => f.place.field)).toBe(true);
          }
        }),
        { numRuns: 300, seed: 21 },
      );
    },
  );
});
