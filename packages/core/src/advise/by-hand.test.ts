import { jobWith, post, prove, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { addOperation, changeParam } from './edit';
import { suggestOrder, toolChanges } from './route/order';
import { editOperation, withController } from '../document/edit';
import { Fixture, Job } from '../document/job';
import { CONTROLLERS } from '../shop/controllers';
import { readJob } from '../plan/documents';
import { fixturesFor, groundOf } from '../plan/ground';
import { planSetup, postSetup } from '../plan/pipeline';
import { proveProgram } from '../plan/prove';

const MILL = tool(4);
const clamp = (id: string, x: number): Fixture => ({
  ...{ id, name: `Clamp ${id}`, x, y: 15, z: -12 },
  ...{ width: 20, depth: 20, height: 30 },
});
const left = [clamp('left', -22)];
const right = [clamp('right', 82)];

/** A pocket cleared twice with one tool, something done by hand between. */
function job(params: Record<string, unknown> = {}, controller = CONTROLLERS[0]): Job {
  const drawn = jobWith({ type: 'rectangle', width: 40, height: 30, radius: 6 });
  const first = withOperation(withController(drawn, controller), 'pocket', ['f2'], MILL);
  const hand = addOperation(first, 's1', 'by-hand', []);
  const [, { id }] = hand.setups[0].operations;
  const set = editOperation(hand, id, (o) => ({
    ...o,
    name: 'Grip with less force',
    params: { ...o.params, ...params },
  }));
  return withOperation(set, 'pocket', ['f2'], MILL);
}
const plain = (text: string) => text.split('\n').map((l) => l.replace(/^N\d+ /, ''));

test('the program waits for what is done by hand, and states all anew after it', () => {
  const lines = plain(post(job({ what: 'blow out', note: 'Mind the chips' })).text);
  const at = lines.indexOf('(BY HAND: GRIP WITH LESS FORCE)');
  expect(lines.slice(at - 4, at + 3).join('\n')).toMatch(
    /M9\nM5\nG[^]*\(BY HAND: GRIP WITH LESS FORCE\)\n\(MIND THE CHIPS\)\nM0$/,
  );
  expect(lines.slice(at + 3).join('\n')).toMatch(/^\(CLEAR[^]*?\nS\d+ M3\nG54 G0 X[^]*?\nG43 H\d+ Z/);
  expect(lines.filter((l) => / M6$/.test(l))).toHaveLength(1);
});

test('at the end of the route the program waits with the tool up and still, and then ends', () => {
  const last = addOperation(job(), 's1', 'by-hand', []);
  const lines = plain(post(last).text);
  const at = lines.lastIndexOf('(BY HAND: GRIP ANEW)');
  expect(lines.slice(at).join('\n')).toMatch(/^\(BY HAND: GRIP ANEW\)\nM0\n(%|M)/);
  expect(
    lines
      .slice(0, at)
      .reverse()
      .find((l) => /^M[35]$/.test(l)),
  ).toBe('M5');
});

test('its minutes are in the time, of the program and of its step', () => {
  const asked = job({ minutes: 4 });
  const plan = planSetup(asked, asked.setups[0]);
  const [{ text, sections }] = postSetup(asked, asked.setups[0], plan).programs;
  const proof = proveProgram(asked, asked.setups[0], text, 0.5, { sections });
  const none = proveProgram(asked, asked.setups[0], text.replace('(BY HAND: GRIP WITH LESS FORCE)', ''), 0.5, {
    sections,
  });
  expect(proof.findings.map((f) => [f.code, f.place.operation])).not.toContainEqual([
    'removed-nothing',
    asked.setups[0].operations[1].id,
  ]);
  expect(proof.clock.hand).toBe(4);
  expect(none.clock.hand).toBeUndefined();
  expect(proof.steps.map((s) => s.minutes >= 4)).toEqual([false, true, false]);
  const stopped = editOperation(asked, asked.setups[0].operations[0].id, (o) => ({
    ...o,
    before: { stop: 'planned' as const, note: '', minutes: 1.5 },
  }));
  expect(proveProgram(stopped, stopped.setups[0], text, 0.5, { sections }).clock.hand).toBe(5.5);
});

test.each(CONTROLLERS.filter((c) => !c.beam).map((c) => [c.id, c] as const))(
  '%s reads it back and finds nothing against it, nor does it count as an idle step',
  (_, controller) => {
    const asked = job({ clamps: left }, controller);
    const without = editOperation(asked, asked.setups[0].operations[1].id, (o) => ({ ...o, on: false }));
    expect(prove(asked, 0.5).codes.sort()).toEqual(prove(without, 0.5).codes.sort());
  },
);

/** The outside is cut with the clamp on it or beside it, before and after it is gripped anew. */
function gripped(before: Fixture[], after: Fixture[] | undefined): Job {
  const drawn = jobWith(undefined);
  const held = { ...drawn, setups: [{ ...drawn.setups[0], fixtures: before }] };
  const hand = addOperation(held, 's1', 'by-hand', []);
  const set = editOperation(hand, hand.setups[0].operations[0].id, (o) => ({
    ...o,
    params: { ...o.params, ...(after && { clamps: after }) },
  }));
  return withOperation(set, 'contour', ['f1'], MILL);
}
/** Where nothing is in the way of the tool going round the plate. */
const far = [clamp('far', 300)];

test('what holds the work from there on is what the tool may not meet', () => {
  const hits = (j: Job) => prove(j, 0.5).codes.includes('fixture-hit');
  expect(hits(gripped(left, undefined))).toBe(true);
  expect(hits(gripped(left, right))).toBe(true);
  expect(hits(gripped(left, far))).toBe(false);
  expect(hits(gripped(far, right))).toBe(true);
});

test('a program that no longer says where it is gripped anew is told, and proved with the clamps as they were', () => {
  const asked = gripped(far, left);
  const { text } = post(asked);
  const edited = text.replace('(BY HAND: GRIP ANEW)\n', '');
  const proof = proveProgram(asked, asked.setups[0], edited, 0.5);
  const codes = proof.findings.map((f) => f.code);
  expect(codes).toContain('grip-not-told');
  expect(codes).not.toContain('fixture-hit');
});

test('what an operation plans with are the clamps of its own grip', () => {
  const asked = gripped(left, right);
  const ground = groundOf(asked, asked.setups[0]);
  const [hand, contour] = asked.setups[0].operations.map((o) => fixturesFor(ground, o.id).map((f) => f.name));
  expect([hand, contour]).toEqual([['Clamp left'], ['Clamp right']]);
});

test('it is no change of tools, and what stands before it stays before it', () => {
  const asked = job();
  const [a, hand, b] = asked.setups[0].operations;
  expect(toolChanges(asked.setups[0].operations)).toBe(1);
  const faced = addOperation(asked, 's1', 'face', []);
  const order = suggestOrder(faced, faced.setups[0]).operations.map((o) => o.id);
  expect(order).toEqual([a.id, hand.id, faced.setups[0].operations[3].id, b.id]);
});

test('a route of things done by hand alone is no program; what it cannot be is refused by name', () => {
  const only = addOperation(jobWith(undefined), 's1', 'by-hand', []);
  expect(post(only)).toMatchObject({ text: '', codes: expect.arrayContaining(['no-operations']) });
  const bad = job({ what: 'pray', minutes: -1, note: 'x'.repeat(81), clamps: [{ ...left[0], width: 0 }] });
  expect(
    readJob(JSON.parse(JSON.stringify(bad))).findings.map((f) => f.place.field?.replace(/.*params\./, '')),
  ).toEqual([...['what', 'minutes', 'note', 'clamps.0.width'].map((f) => expect.stringContaining(f))]);
});

test('its name goes with what it is, until it is given one', () => {
  const asked = addOperation(jobWith(undefined), 's1', 'by-hand', []);
  const [{ id, name }] = asked.setups[0].operations;
  const named = (j: Job) => j.setups[0].operations[0].name;
  expect([name, named(changeParam(asked, id, 'what', 'deburr'))]).toEqual(['Grip anew', 'Deburr']);
  const own = editOperation(asked, id, (o) => ({ ...o, name: 'Loosen a little' }));
  expect(named(changeParam(own, id, 'what', 'deburr'))).toBe('Loosen a little');
});
