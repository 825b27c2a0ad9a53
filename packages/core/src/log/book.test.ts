import { jobWith, withOperation } from '../../testing/jobs';
import { logOf } from '../../testing/log-rows';
import { tool } from '../../testing/parts';
import { suggest } from '../cutting/suggest';
import { edgeLife, lifeReference } from '../cutting/edge-life';
import { readAs } from '../quantity/validate';
import { MACHINES, MATERIALS } from '../shop/library';
import { makersOf, sizesToMeasure } from '../release/sizes';
import type { Tool } from '../shop/tool';
import { edgeHistories } from './edges';
import { LogEntry, LogRow, entryFault, standing } from './entry';
import { Facts, factsOfRun } from './facts';
import { Teaching, placeOf, teachingId, timeTeaching, toolTeachings } from './lessons';
import { noticesOf } from './notices';
import { sizedParts } from './offsets';
import { PHOTO, photoFault } from './photo';
import { isAsked, logCsv, logJson } from './question';
import { correctionOf } from './registers';
import { Seen, isGoodCut, seenText } from './seen';

const seen = (more: Partial<Seen>): Seen[] => [{ operation: 'o1', ...more }];
const facts = (more: Partial<Facts>): Facts => ({ ...logOf({})[0].facts, ...more });

describe('what was seen', () => {
  test('is told in a row, and is good or not', () => {
    const good: Seen = {
      operation: 'o1',
      load: 0.47,
      sound: 'quiet',
      colour: 'straw',
      shape: 'chips',
      finish: 'clean',
    };
    expect(seenText(good)).toBe('47 % of the spindle, quiet, chips straw, finish clean');
    expect(isGoodCut(good)).toBe(true);
    const bad: Partial<Seen>[] = [
      ...[{ load: 1.1 }, { sound: 'screams' as const }, { chatter: 803 }, { finish: 'torn' as const }],
      ...[{ colour: 'welds' as const }, { shape: 'packed' as const }, { edge: 'broken' as const }],
    ];
    for (const more of bad) expect(isGoodCut({ ...good, ...more })).toBe(false);
    expect(isGoodCut({ ...good, finish: 'burrs', sound: 'hums', edge: 'worn' })).toBe(true);
    expect(seenText({ chatter: 803.4, edge: 'worn', line: 42, remark: 'a chip in the corner' })).toBe(
      'chatters at 803 Hz, edge worn, line 42: a chip in the corner',
    );
  });
});

describe('entries', () => {
  const entry = { id: 'a'.repeat(32), kind: 'production', parts: 4, scrapped: 1, remark: '' };
  const codes = (more: object) => readAs(LogEntry, { ...entry, ...more }).findings.map((f) => f.place.field);

  test('are checked field by field', () => {
    expect(
      readAs(LogEntry, { ...entry, cause: 'size', seen: seen({ load: 0.5 }), photos: ['b'.repeat(64)] }).value,
    ).toBeTruthy();
    expect(codes({ cause: 'weather' })).toEqual(['cause']);
    expect(codes({ seen: seen({ load: 9 }) })).toEqual(['seen.0.load']);
    expect(codes({ seen: [{ ...seen({})[0], smell: 'burnt' }] })).toEqual(['seen.0.smell']);
    expect(codes({ photos: ['nothing'] })).toEqual(['photos']);
    expect(codes({ photos: Array.from({ length: 7 }, (_, i) => `${i}`.repeat(64)) })).toEqual(['photos']);
  });

  test('are whole: no more scrap than parts, no cause without scrap', () => {
    expect(entryFault({ parts: 4, scrapped: 5 })).toMatch(/More are scrapped/);
    expect(entryFault({ parts: 4, scrapped: 0, cause: 'size' })).toMatch(/no scrap/);
    expect(entryFault({ parts: 4, scrapped: 1, cause: 'size' })).toBeUndefined();
  });

  test('a correction of a correction leaves the last alone', () => {
    const rows = logOf({}, {}, {});
    rows[1].replaces = rows[0].id;
    rows[2].replaces = rows[1].id;
    expect(standing(rows)).toEqual([{ ...rows[2], at: rows[0].at }]);
  });

  test('a correction stands where and when what it corrects did: edges are counted in their order', () => {
    const rows = logOf({ parts: 3 }, { parts: 4, seen: seen({ edge: 'worn' }) }, { parts: 2 });
    const [late] = logOf({ id: 'f'.repeat(32), parts: 5, replaces: rows[0].id, at: '2026-05-01T08:00:00Z' });
    const stand = standing([...rows, late]);
    expect(stand.map((r) => [r.parts, r.at])).toEqual([
      [5, rows[0].at],
      [4, rows[1].at],
      [2, rows[2].at],
    ]);
    expect(edgeHistories(stand)[0].changed).toMatchObject([{ used: expect.closeTo(0.9, 9) }]);
  });
});

describe('what is computed of a run', () => {
  const drawn = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 8 }, { depth: 6 });
  const job = withOperation(withOperation(drawn, 'pocket', ['f2'], tool(4)), 'drill', [], tool(14));
  const [setup] = job.setups;
  const clock = { cut: 4, rapid: 1, dwell: 0.5, toolChange: 0.4 };
  const of = (more: object = {}) =>
    factsOfRun({ job, setup, clock, wear: [{ tool: 4, share: 0.02, minutes: 3 }], ...more });

  test('stays with its entry: time without what was learnt, edges a part, cuts', () => {
    const { dwell, moves, uses, cuts, material, names } = of();
    expect([dwell, moves]).toEqual([30, expect.closeTo(300 / (1 + (job.machine.extraTime ?? 0)), 6)]);
    const [pocket, drill] = setup.operations;
    expect(uses).toEqual([{ tool: tool(4).id, name: tool(4).name, share: 0.02, operations: [pocket.id] }]);
    expect(material).toBe(job.material.name);
    expect(names[pocket.id]).toBe(pocket.name);
    const D = tool(4).diameter;
    expect(cuts[0]).toMatchObject({ operation: pocket.id, light: false });
    expect(cuts[0].speed).toBeCloseTo((Math.PI * D * pocket.speeds.rpm) / 1000, 6);
    const fz = pocket.speeds.feed / pocket.speeds.rpm / tool(4).flutes;
    expect(cuts[0].chip).toBeLessThanOrEqual(fz + 1e-9);
    expect(cuts[1].operation).toBe(drill.id);
    expect(cuts[1].chip).toBeCloseTo(drill.speeds.feed / drill.speeds.rpm / tool(14).flutes, 9);
  });

  test('an edge is counted by the life on its card, whatever was learnt since', () => {
    const taught = { ...tool(4), lasts: [{ materialId: job.material.id, factor: 0.5, note: '' }] };
    const wiser = { ...job, tools: job.tools.map((t) => (t.id === taught.id ? taught : t)) };
    expect(of({ job: wiser }).uses[0].share).toBeCloseTo(0.01, 9);
    const [material] = MATERIALS;
    const life = (t: Tool) => edgeLife(lifeReference(t, material), { speed: 100 });
    const here = { ...taught, lasts: [{ materialId: material.id, factor: 0.5, note: '' }] };
    expect(life(here)).toBeCloseTo(life(tool(4)) / 2, 9);
  });
});

describe('edges', () => {
  test('are counted from change to change; what broke says nothing of wear, nor do simulated runs', () => {
    const rows = logOf(
      { parts: 7, seen: seen({ edge: 'worn' }) },
      { parts: 5 },
      { parts: 4, kind: 'simulated' },
      { parts: 3, seen: seen({ edge: 'in good time' }) },
      { parts: 2, seen: seen({ edge: 'broken' }) },
      { parts: 4 },
    );
    const [edge] = edgeHistories(rows);
    expect(edge.changed.map((e) => [Math.round(100 * e.used) / 100, e.worn])).toEqual([
      [0.7, true],
      [0.8, false],
    ]);
    expect(edge.used).toBeCloseTo(0.4, 9);
  });

  test('belong to what they cut most of', () => {
    const alu = facts({ materialId: 'alu', material: 'Aluminium' });
    const rows = logOf({ parts: 2 }, { parts: 5, facts: alu, seen: seen({ edge: 'worn' }) });
    expect(edgeHistories(rows)[0].changed).toMatchObject([{ materialId: 'alu', used: expect.closeTo(0.7, 9) }]);
  });
});

describe('lessons', () => {
  const worn = (...shares: number[]) => logOf(...shares.map((s) => ({ parts: 10 * s, seen: seen({ edge: 'worn' }) })));
  const life = (rows: LogRow[]): Teaching | undefined => toolTeachings(rows).find((t) => t.what === 'life');

  test('the life of edges: from three on, with its evidence', () => {
    expect(life(worn(0.7, 0.8))).toMatchObject({
      item: 't4',
      of: 'steel',
      about: 'Edges of End mill 10 in Mild steel',
    });
    expect(life(worn(0.7, 0.8))!.value).toBeUndefined();
    expect(life(worn(0.7, 0.8))!.evidence).toMatch(/something is proposed from 3 on/);
    const told = life(worn(0.7, 0.8, 0.65))!;
    expect(told.value).toMatchObject({ materialId: 'steel', factor: 0.81 });
    expect(told.evidence).toMatch(/3 edges .* worn at 0\.7, worn at 0\.8, worn at 0\.65/);
    const place = placeOf('life');
    const taught = place.write(tool(4), 'steel', told.value);
    expect(place.text(place.read(taught, 'steel'))).toMatch(/0\.81 of the life/);
    expect(place.read(place.write(taught, 'steel', undefined), 'steel')).toBeUndefined();
  });

  const went = (...all: Partial<Seen>[]) => logOf(...all.map((s) => ({ parts: 4, seen: seen(s) })));
  const own = (rows: LogRow[]) => toolTeachings(rows).find((t) => t.what === 'own');
  const WELL = { sound: 'quiet', finish: 'clean' } as const;

  test('own data: from two runs that went well, none where one did not, none from a light bite', () => {
    expect(own(went(WELL))!.value).toBeUndefined();
    expect(own(went(WELL, WELL))!.value).toMatchObject({ surfaceSpeed: 120, chip: 0.05, materialId: 'steel' });
    expect(own(went(WELL, { sound: 'screams' }, WELL))!.value).toBeUndefined();
    expect(own(went({}, {}))).toBeUndefined();
    const light = facts({ cuts: [{ ...logOf({})[0].facts.cuts[0], light: true }] });
    expect(own(went(WELL, WELL).map((r) => ({ ...r, facts: light })))).toBeUndefined();
  });

  test('own data that were taken over give the cut they are from', () => {
    const [machine] = MACHINES;
    const [material] = MATERIALS;
    const place = placeOf('own');
    const value = { materialId: material.id, surfaceSpeed: 100, chip: 0.05, note: 'from the log: 8 parts' };
    const taught = place.write(tool(4), material.id, value) as ReturnType<typeof tool>;
    const cut = { tool: taught, material, machine, ae: 5, ap: 2, boldness: 0.5 };
    const { rpm, feed, working } = suggest({ ...cut, coolant: 'flood' });
    expect((Math.PI * taught.diameter * rpm) / 1000).toBeGreaterThan(90);
    expect(feed / rpm / taught.flutes).toBeGreaterThan(0.03);
    // Why? names where the number is from.
    expect(working.map((w) => w.source).join()).toContain('from the log: 8 parts');
  });

  test('the time of a machine: real runs before simulated ones', () => {
    const [machine] = MACHINES;
    const timed = (n: number, kind: LogRow['kind'], factor: number) =>
      logOf(...Array.from({ length: n }, () => ({ kind, seconds: factor * 570 + 24, machineId: machine.id })));
    const tell = (rows: LogRow[]) => timeTeaching(rows, machine, 12);
    expect(tell(timed(4, 'production', 1.1))).toMatchObject({ about: `Time of ${machine.name}` });
    expect(tell(timed(4, 'production', 1.1)).value).toBeUndefined();
    const both = tell([...timed(9, 'simulated', 1.3), ...timed(5, 'production', 1.1)]);
    expect(both.evidence).toBe('5 runs of the machine');
    expect((both.value as { extraTime: number }).extraTime).toBeGreaterThan(0.05);
    expect((both.value as { extraTime: number }).extraTime).toBeLessThan(0.12);
    const place = placeOf('time');
    const before = place.read(machine, '');
    const taught = place.write(machine, '', both.value);
    expect(place.text(place.read(taught, ''))).toMatch(/more than computed/);
    expect(place.write(taught, '', before)).toEqual({ ...machine, extraTime: machine.extraTime ?? 0 });
    expect(teachingId(both)).toBe(`time ${machine.id}`);
  });
});

describe('what is worth a look', () => {
  const codes = (rows: LogRow[], now = '2026-03-20T08:00:00Z') =>
    noticesOf(rows, [tool(4)], Date.parse(now)).map((f) => f.code);

  test('twice its time three runs in a row', () => {
    const times = (...seconds: number[]) => logOf(...seconds.map((s) => ({ seconds: s, facts: facts({ uses: [] }) })));
    expect(codes(times(1300, 1250, 1200))).toEqual(['log-slow']);
    expect(codes(times(1300, 1100, 1200))).toEqual([]);
    expect(codes(times(1300, 1250))).toEqual([]);
  });

  test('parts scrapped for one cause, edges that end, edges that are used', () => {
    const quiet = facts({ uses: [] });
    const bad = { scrapped: 1, cause: 'size', facts: quiet } as const;
    expect(codes(logOf(bad))).toEqual([]);
    expect(codes(logOf(bad, bad))).toEqual(['log-scrap']);
    // What was put right long ago is told no more.
    expect(codes(logOf(bad, bad), '2026-06-20T08:00:00Z')).toEqual([]);
    expect(codes(logOf({ parts: 8 }))).toEqual(['log-edge-ends']);
    const many = logOf({ parts: 9, seen: seen({ edge: 'worn' }) }, { parts: 4 });
    expect(codes(many)).toEqual(['log-edges-used']);
    expect(codes(many, '2027-03-20T08:00:00Z')).toEqual([]);
    expect(noticesOf(logOf(bad, bad), [], 0)[0].remedy).toMatch(/Measure the first part/);
  });
});

describe('looking for entries', () => {
  const [row] = logOf({ remark: 'Chip in a tapped hole', seen: seen({ finish: 'torn' }), who: '=HYPER' });
  test.each([
    [{}, true],
    [{ text: 'tapped mild' }, true],
    [{ text: 'TORN end mill' }, true],
    [{ text: 'tapped brass' }, false],
    [{ kind: 'simulated' as const }, false],
    [{ machine: 'whimbrel', since: '2026-03-01' }, true],
    [{ since: '2026-03-03' }, false],
  ])('%j: %s', (question, wanted) => expect(isAsked(row, question)).toBe(wanted));

  test('they go elsewhere whole, and no formula with them', () => {
    const [head, line] = logCsv([row]).split('\n');
    expect(head.split(',').slice(0, 4)).toEqual(['at', 'who', 'kind', 'job']);
    expect(line).toContain("'=HYPER");
    expect(line).toContain('finish torn');
    expect((JSON.parse(logJson([row])) as { entries: LogRow[] }).entries).toEqual([row]);
  });
});

describe('photos', () => {
  const part = (kind: number, ...body: number[]) => [
    0xff,
    kind,
    (body.length + 2) >> 8,
    (body.length + 2) & 255,
    ...body,
  ];
  const frame = (high: number, wide: number) =>
    part(0xc0, 8, high >> 8, high & 255, wide >> 8, wide & 255, 1, 1, 0x11, 0);
  const picture = (...parts: number[][]) =>
    new Uint8Array([0xff, 0xd8, ...parts.flat(), ...part(0xda, 1, 1, 0, 0, 63, 0), 1, 2, 3, 0xff, 0xd9]);
  const JFIF = part(0xe0, 0x4a, 0x46, 0x49, 0x46, 0);
  test('are pictures and nothing else', () => {
    const colours = part(0xe2, ...[...'ICC_PROFILE'].map((c) => c.charCodeAt(0)), 0);
    expect(photoFault(picture(JFIF, colours, frame(1200, 1600)))).toBeUndefined();
    expect(photoFault(picture(JFIF, part(0xe2, 0x4d, 0x50, 0x46, 0), frame(10, 10)))).toMatch(/more than its picture/);
    expect(photoFault(picture(JFIF, part(0xe1, 0x45, 0x78, 0x69, 0x66, 0), frame(1200, 1600)))).toMatch(
      /where it was taken/,
    );
    expect(photoFault(picture(JFIF, part(0xfe, 65), frame(10, 10)))).toMatch(/more than its picture/);
    expect(photoFault(picture(JFIF, frame(1200, 1601)))).toMatch(/1600 pixels/);
    expect(photoFault(picture(JFIF))).toMatch(/cut off/);
    expect(photoFault(new Uint8Array([0x89, 0x50, 0x4e, 0x47]))).toMatch(/is not/);
    expect(photoFault(picture(JFIF, frame(10, 10)).subarray(0, 20))).toMatch(/cut off/);
    expect(photoFault(new Uint8Array(PHOTO.bytes + 1))).toMatch(/400 kB/);
    expect(photoFault(new Uint8Array([0xff, 0xd8, 0xff, 0xdb, 0, 0, 0xff, 0xdb]))).toMatch(/cut off/);
  });
});

describe('a size that is off', () => {
  const limits = (size: 'width' | 'depth') => ({ size, upper: 0.02, lower: -0.02 });
  const drawn = jobWith(
    { type: 'rectangle', width: 40, height: 30, radius: 8 },
    { depth: 6, limits: [limits('width'), limits('depth')] },
  );
  const pocket = (params: object) => withOperation(drawn, 'pocket', ['f2'], tool(4), { ...params });
  const advise = (params: object, size: 'width' | 'depth', by: number) => {
    const job = pocket(params);
    const wanted = sizesToMeasure(job, job.setups[0]).find((s) => s.size === size)!;
    return correctionOf(job, job.setups[0], wanted, by);
  };

  test('a pocket too wide: a larger cutter; too deep: a longer tool; without compensation the job', () => {
    expect(advise({ finish: true, wear: true }, 'width', 0.01)).toMatchObject({
      text: expect.stringMatching(/^\+0\.01 mm to the wear of diameter register 4/),
      isEntered: true,
    });
    expect(advise({}, 'depth', -0.01)).toMatchObject({
      text: expect.stringMatching(/^−0\.01 mm to the wear of length register 4/),
      isEntered: true,
    });
    expect(advise({ finish: true, wear: false }, 'width', 0.01)).toMatchObject({
      text: expect.stringMatching(/does not compensate.*0\.01 mm smaller/),
      isEntered: false,
    });
  });

  test('a chamfer after it leaves its depth as it is', () => {
    const job = withOperation(pocket({}), 'chamfer', ['f2'], tool(22));
    const [setup] = job.setups;
    const wanted = sizesToMeasure(job, setup).find((s) => s.size === 'depth')!;
    expect(makersOf(setup, wanted).map((o) => o.kind)).toEqual(['pocket']);
    expect(correctionOf(job, setup, wanted, 0.01).text).toMatch(/length register 4 /);
  });

  test('what stands gets smaller by a smaller cutter', () => {
    const boss = { meaning: 'outline' as const, limits: [limits('width')] };
    const job = withOperation(
      {
        ...drawn,
        part: { ...drawn.part, features: drawn.part.features.map((f) => (f.id === 'f1' ? { ...f, ...boss } : f)) },
      },
      'contour',
      ['f1'],
      tool(4),
      { compensation: 'wear in the control' },
    );
    const [wanted] = sizesToMeasure(job, job.setups[0]);
    expect(correctionOf(job, job.setups[0], wanted, 0.01).text).toMatch(/^−0\.01 mm to the wear of diameter register/);
  });

  test('is followed from part to part: second looks, corrections, what was not sent yet', () => {
    const size = { mm: 30, limits: { size: 'width' as const, upper: 0.03, lower: -0.01 } };
    const at = (part: number, measured: number, when: string) => ({ part, measured, at: when });
    const sizes = [at(1, 30.02, '2026-03-01'), at(1, 30.021, '2026-03-02'), at(2, 30.0, '2026-03-04'), at(3, 30.0, '')];
    expect(sizedParts(size, sizes, ['2026-03-03'])).toEqual([
      { off: expect.closeTo(0.01, 9), again: false, fresh: false },
      { off: expect.closeTo(0.011, 9), again: true, fresh: false },
      { off: expect.closeTo(-0.01, 9), again: false, fresh: true },
      { off: expect.closeTo(-0.01, 9), again: false, fresh: false },
    ]);
    expect(sizedParts(size, sizes, [''])[3].fresh).toBe(true);
  });
});
