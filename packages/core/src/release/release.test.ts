import 'reflect-metadata';
import { tightPocket } from '../../testing/jobs';
import { Job, Setup } from '../document/job';
import { Bench } from '../plan/bench';
import { checklistOf } from './checklist';
import { differenceOf } from './difference';
import { findingsOf, heldBack, toAccept } from './preflight';
import { proven, released } from './proven';
import { APPROVED_DAYS, KeptAnswer, Proven, isHandedOut, stateOf } from './release';
import { acceptedKey, changedParts, contentHash, isOfRelease, makingOf, partsOf, rootOf, shortRoot } from './root';

const job = tightPocket();
const provenOf = (j: Job, bench = new Bench()): Proven => {
  const work = proven(bench, j, j.setups[0]);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value!;
  }
};
const bench = new Bench();
const first = provenOf(job, bench);
const keysOf = ({ checks }: Proven) => toAccept(checks).map(acceptedKey);
const release = (j = job, p = first) => released(j, j.setups[0], p, keysOf(p));

const withSetup = (j: Job, more: Partial<Setup>): Job => ({ ...j, setups: [{ ...j.setups[0], ...more }] });
const withTool = (j: Job, more: object): Job => ({
  ...j,
  tools: j.tools.map((t) => (t.id === j.setups[0].operations[0].toolId ? { ...t, ...more } : t)),
});

describe('the root of a release', () => {
  test('plain data is hashed with sorted keys and no spaces', () => {
    expect(contentHash({ b: [1, 2.5], a: 'x', c: undefined })).toMatch(/^66efddae6a975003/);
  });

  const was = partsOf(job, job.setups[0], first.programs, []);
  const changed = (j: Job) => changedParts(was, j, j.setups[0]);
  const isSame = (j: Job) => makingOf(j, j.setups[0]) === makingOf(job, job.setups[0]);

  test.each<[string, Job]>([
    ['another name', { ...job, name: 'Renamed' }],
    ['a note', { ...job, note: 'for Monday' }],
    ['another name of the tool', withTool(job, { name: 'The good one' })],
    ['a price', withTool(job, { edgePrice: 99 })],
    ['another rate', { ...job, machine: { ...job.machine, hourlyRate: 99 } }],
    ['another setup', { ...job, setups: [...job.setups, { ...job.setups[0], id: 's2', riser: 30 }] }],
    [
      'another setup with a tool of its own',
      { ...job, tools: [...job.tools, { ...job.tools[0], id: 'x', number: 77 }] },
    ],
    ['minutes to set up', withSetup(job, { setUpMinutes: 12 })],
  ])('%s leaves it standing', (_, j) => {
    expect(changed(j)).toEqual([]);
    expect(isSame(j)).toBe(true);
  });

  test('a stick-out is its tools, a jaw its hold, an acceleration its machine', () => {
    const { stickOut } = job.tools.find((t) => t.id === job.setups[0].operations[0].toolId)!;
    expect(changed(withTool(job, { stickOut: stickOut + 1 }))).toEqual(['tools']);
    const jaw = { id: 'x1', name: 'Jaw', x: -20, y: 0, z: -20, width: 20, depth: 50, height: 15 };
    expect(changed(withSetup(job, { fixtures: [jaw] }))).toEqual(['hold']);
    const { axes } = job.machine;
    const slower = { ...job.machine, axes: { ...axes, x: { ...axes.x, acceleration: axes.x.acceleration - 1 } } };
    expect(changed({ ...job, machine: slower })).toEqual(['machine']);
  });

  test('another depth is the work itself', () => {
    const [operation] = job.setups[0].operations;
    const deeper = withSetup(job, { operations: [{ ...operation, speeds: { ...operation.speeds, feed: 777 } }] });
    expect(changed(deeper)).toEqual([]);
    expect(isSame(deeper)).toBe(false);
  });

  test('what is told at the machine before an operation is the work itself too', () => {
    const [operation] = job.setups[0].operations;
    const told = (note: string) =>
      withSetup(job, { operations: [{ ...operation, before: { stop: 'planned' as const, note } }] });
    const [jaw, clamp] = [told('Open the jaw'), told('Move the clamp')].map((j) => makingOf(j, j.setups[0]));
    expect(jaw).not.toBe(clamp);
  });

  test('it is the hash of the lines of its parts', () => {
    const parts = { findings: 'a', hold: 'b', machine: 'c', material: 'd', program: 'e', tools: 'f' };
    expect(rootOf(parts)).toHaveLength(64);
    expect(rootOf({ ...parts, tools: 'g' })).not.toBe(rootOf(parts));
  });
});

describe('a release', () => {
  test('stands in the head of its program, and one byte makes it another', () => {
    const { body, programs } = release();
    expect(programs[0].text).toMatch(new RegExp(`release ${shortRoot(body.root)}`, 'i'));
    expect(isOfRelease(programs, body.parts, body.root)).toBe(true);
    const { text } = programs[0];
    for (const other of [text.replace('G1', 'G0'), text + ' ', text.replace(shortRoot(body.root), 'ABCDEF01')])
      expect(isOfRelease([{ ...programs[0], text: other }], body.parts, body.root)).toBe(false);
  });

  test('is made from the job alone, the same twice', () => {
    expect(release(job, provenOf(job)).body.root).toBe(release().body.root);
  });

  test('waits until everything that wants care is accepted, and accepting is part of its root', () => {
    const keys = keysOf(first);
    expect(keys.length).toBeGreaterThan(0);
    expect(heldBack(first.checks, []).open).toHaveLength(keys.length);
    expect(heldBack(first.checks, keys)).toEqual({ stops: [], open: [] });
    expect(released(job, job.setups[0], first, []).body.root).not.toBe(release().body.root);
  });

  test('is not made of what something stops', () => {
    const none = withSetup(job, { operations: [] });
    const found = provenOf(none, bench);
    expect(found.programs).toEqual([]);
    expect(heldBack(found.checks, []).stops.map((f) => f.code)).toContain('no-operations');
  });
});

test('what was left unsaid, switched off, or departs from what is suggested is told before', () => {
  const [operation] = job.setups[0].operations;
  const hand = {
    ...operation,
    id: 'h1',
    kind: 'by-hand',
    name: 'Turn it',
    params: { what: 'grip anew', minutes: 1, note: '' },
  };
  const off = { ...operation, id: 'o9', name: 'Left', on: false };
  const fast = { ...operation, speeds: { ...operation.speeds, rpm: 100, feed: 50 } };
  const codes = findingsOf(provenOf(withSetup(job, { operations: [fast, hand, off] }), bench).checks).map(
    (f) => f.code,
  );
  expect(codes).toEqual(
    expect.arrayContaining(['hand-without-word', 'gripped-unseen', 'switched-off', 'departs', 'pockets-unknown']),
  );
});

test('a checklist names each tool, what was accepted, and where to stop', () => {
  const { body } = release();
  const list = checklistOf({ ...body, setup: job.setups[0], called: body.proof.called.map((c) => c.number) });
  const texts = list.map((i) => i.text);
  expect(texts.filter((t) => t.includes(shortRoot(body.root)))).toHaveLength(1);
  expect(list.filter((i) => i.group === 'tools')).toHaveLength(1);
  expect(list.filter((i) => i.group === 'accepted')).toHaveLength(body.accepted.length);
  expect(list.filter((i) => i.group === 'stops').map((i) => i.text)).toEqual([
    expect.stringMatching(/^T4, line \d+: hold at X .+ Y .+; the tip is .+ above zero, to go in Z -/),
  ]);
  expect(new Set(list.map((i) => i.id)).size).toBe(list.length);
});

describe('the difference between two releases', () => {
  const before = release();
  test('is nothing between the same', () =>
    expect(differenceOf(before, release())).toEqual(['Everything is the same, byte for byte']));

  test('says what changed, and that the rest did not', () => {
    const [operation] = job.setups[0].operations;
    const slower = withSetup(job, { operations: [{ ...operation, speeds: { ...operation.speeds, feed: 400 } }] });
    const lines = differenceOf(before, release(slower, provenOf(slower, bench)));
    expect(lines[0]).toMatch(/: feed 400 mm\/min instead of \d/);
    expect(lines).toEqual(expect.arrayContaining([expect.stringMatching(/lines are others$/)]));
    expect(lines[lines.length - 1]).toBe('Everything else is the same');
  });

  test('a name alone changes no program', () => {
    const named = withSetup(job, { programTitle: undefined, name: 'First side' });
    const lines = differenceOf(before, release(named, first));
    expect(lines).toEqual([
      '“First side”: name First side instead of Setup 1',
      'The programs are the same, byte for byte',
    ]);
  });
});

describe('whether it may be run', () => {
  const same = { same: true, changed: [] };
  const at = '2026-03-01T08:00:00.000Z';
  const now = Date.parse(at) + 3600_000;
  const said = (answer: KeptAnswer['answer']): KeptAnswer => ({
    answer,
    root: '',
    remark: 'no',
    checks: [],
    who: 'Ada',
    at,
  });

  test('without an answer that hangs on whether one is needed', () => {
    expect(stateOf([], false, same, now)).toEqual({ state: 'released' });
    expect(isHandedOut(stateOf([], true, same, now))).toBe(false);
  });

  test('the last answer counts', () => {
    expect(stateOf([said('approve'), said('refuse')], true, same, now)).toMatchObject({
      state: 'refused',
      remark: 'no',
    });
    expect(stateOf([said('refuse'), said('approve for single block')], true, same, now)).toMatchObject({
      state: 'approved',
      singleBlock: true,
    });
  });

  test('an approval is void once something changed, or after its days', () => {
    expect(stateOf([said('approve')], true, { same: false, changed: ['tools', 'hold'] }, now)).toEqual({
      state: 'void',
      why: 'the tools and how the work is held changed since',
    });
    expect(stateOf([said('approve')], true, { same: false, changed: [] }, now)).toEqual({
      state: 'void',
      why: 'the work itself changed since',
    });
    expect(stateOf([said('approve')], false, { same: false, changed: [] }, now)).toEqual({ state: 'released' });
    const late = Date.parse(at) + APPROVED_DAYS * 24 * 3600_000;
    expect(stateOf([said('approve')], true, same, late).state).toBe('approved');
    expect(stateOf([said('approve')], true, same, late + 1).state).toBe('void');
  });
});
