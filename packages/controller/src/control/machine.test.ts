import { clock, clockSettings } from '@tidypath/core';
import { post } from '@tidypath/core/testing/jobs';
import { loaded, machineWith, onMachine, pass, pocketAndWall } from '../../testing/work';
import { STREAM_RATE } from './engine';
import { Machine } from './machine';
import { press } from './press';
import { measured, runThrough, trulyEntered } from './run';
import { prepare } from './work';

const JOB = pocketAndWall;
const plain = loaded(JOB);
const whole = clock(plain.motions, clockSettings(plain.work.job.machine)).seconds.reduce((a, b) => a + b, 0);
const LONG = 10_000;

test('with everything entered as it is it runs to its end, in the time the core’s clock says', () => {
  const { memory, events, stream } = runThrough(plain);
  expect(memory.state).toBe('done');
  expect(memory.ran).toBeCloseTo(whole, 6);
  expect(events.map((e) => e.what)).toEqual(['start', 'tool', 'tool', 'done']);
  expect(memory.steps.map((s) => s.operationId)).toEqual(JOB.setups[0].operations.map((o) => o.id));
  expect(memory.steps.reduce((sum, s) => sum + s.seconds, 0)).toBeGreaterThan(0.9 * whole);
  // A row each tenth of a second, from where it first moved.
  const [{ t: from }] = stream;
  expect(stream).toHaveLength(Math.ceil(whole * STREAM_RATE) - from * STREAM_RATE);
  expect(from).toBeCloseTo(plain.work.job.machine.toolChangeSeconds, 0);
});

test('it takes its own time: a little more than computed, and its own for a change', () => {
  const { extraTime, toolChangeSeconds } = plain.work.job.machine;
  expect(extraTime).toBeGreaterThan(0.01);
  expect(toolChangeSeconds / JOB.machine.toolChangeSeconds).toBeCloseTo(plain.character.time.change, 9);
  const computed = clock(plain.motions, clockSettings(JOB.machine)).seconds.reduce((a, b) => a + b, 0);
  expect(whole).toBeGreaterThan(computed);
});

test('the same seed is the same run, however finely time passes, held and gone on with', () => {
  const runs = [0.1, 0.013, 5].map((step) => {
    const machine = machineWith(loaded(JOB, { seed: 5 }));
    machine.start();
    const first = pass(machine, 20, step);
    machine.hold();
    machine.turn('door', true);
    machine.advance(machine.memory.now + 7);
    expect(machine.start()).toBe('The door is open');
    machine.turn('door', false);
    machine.override('feed', 80);
    machine.start();
    const rest = pass(machine, LONG, step);
    return { rows: [...first, ...rest], memory: { ...machine.memory, now: 0 } };
  });
  expect(runs[1]).toEqual(runs[0]);
  expect(runs[2]).toEqual(runs[0]);
  // Turned down meanwhile: its time says nothing of the machine.
  expect(runs[0].memory.turned).toBe(true);
});

test('at half the feed it takes what the clock says of half the feeds, and loads less', () => {
  const machine = machineWith(plain);
  machine.override('feed', 50);
  machine.start();
  pass(machine, LONG);
  const feed = plain.motions.feed.map((f) => f / 2);
  const slow = clock({ ...plain.motions, feed }, clockSettings(plain.work.job.machine)).seconds.reduce(
    (a, b) => a + b,
    0,
  );
  expect(machine.memory.ran).toBeCloseTo(slow, 6);
  const full = runThrough(plain).memory;
  expect(machine.memory.steps[0].load).toBeLessThan(0.75 * full.steps[0].load);
  expect(machine.override('feed', 47)).toMatch(/goes in steps/);
});

test('at no feed it stands, and goes on from there', () => {
  const machine = machineWith(plain);
  machine.start();
  pass(machine, 20);
  const before = machine.at;
  machine.override('feed', 0);
  machine.override('rapid', 0);
  pass(machine, 60, 1);
  expect(machine.at).toEqual(before);
  machine.override('feed', 100);
  machine.override('rapid', 100);
  pass(machine, LONG);
  expect(machine.memory.state).toBe('done');
});

test('a length register 10 mm short drives a rapid into metal, at its line', () => {
  const machine = machineWith(plain, ({ lengths }) => ({ lengths: { ...lengths, 7: lengths[7] - 10 } }));
  machine.start();
  pass(machine, LONG);
  const { state, alarm } = machine.memory;
  expect(state).toBe('alarm');
  expect(alarm).toMatchObject({ number: 11, more: expect.stringMatching(/rapid/i) });
  expect(plain.motions.tool[plain.motions.line.indexOf(alarm!.line)]).toBe(7);
  expect(machine.start()).toMatch(/reset/);
  expect(machine.reset()).toBeUndefined();
  expect(machine.memory.state).toBe('ready');
});

test('a zero 12 mm off sideways runs to its end: nobody but a checklist or a hand sees it', () => {
  const machine = machineWith(plain, ({ zero }) => ({ zero: { ...zero, x: zero.x + 12 } }));
  machine.start();
  pass(machine, LONG);
  expect(machine.memory.state).toBe('done');
});

test('a zero too low by far stalls the spindle or breaks the tool', () => {
  const machine = machineWith(plain, ({ zero }) => ({ zero: { ...zero, z: zero.z - 25 } }));
  machine.start();
  pass(machine, LONG);
  expect(machine.memory.state).toBe('alarm');
});

test('single block stops after every block that runs', () => {
  const machine = machineWith(plain);
  machine.turn('singleBlock', true);
  let stops = 0;
  machine.start();
  for (pass(machine, LONG); machine.memory.state === 'block'; pass(machine, LONG)) {
    stops++;
    machine.start();
  }
  expect(machine.memory.state).toBe('done');
  expect(stops).toBe(plain.blocks.length - 1);
  expect(machine.memory.ran).toBeCloseTo(whole, 6);
});

test('it waits at M0, at M1 where the switch says so, and leaves out what is marked to be', () => {
  const text = post(JOB).text.replace(/(N\d+ )?(G54[^\n]*)\n/, '$2\nM0\nM1\n/M0\n');
  const stops = (skips: boolean, optional: boolean) => {
    const machine = machineWith(loaded(JOB, { skips, text }, text));
    machine.turn('optionalStop', optional);
    let found = 0;
    machine.start();
    for (pass(machine, LONG); machine.memory.state === 'waits'; pass(machine, LONG)) {
      found++;
      machine.start();
    }
    expect(machine.memory.state).toBe('done');
    return found;
  };
  expect([stops(false, false), stops(false, true), stops(true, true)]).toEqual([2, 3, 2]);
});

describe('where tools are changed by hand', () => {
  const byHand = loaded(onMachine(JOB, 'whimbrel'), {});
  byHand.work.job.machine.toolPockets = 1;

  test('it asks for each, and goes on once it is in', () => {
    const machine = machineWith(byHand);
    const asked: number[] = [];
    machine.start();
    for (pass(machine, LONG); machine.memory.state === 'tool'; pass(machine, LONG)) {
      asked.push(machine.memory.asks!);
      expect(machine.start()).toMatch(/put it in first/);
      machine.putIn(machine.memory.asks!);
      machine.start();
    }
    expect(asked).toEqual([4, 7]);
    expect(machine.memory.state).toBe('done');
  });

  test('another tool put in cuts as that tool, at the length that was entered for the one asked for', () => {
    const machine = machineWith(byHand);
    machine.start();
    for (pass(machine, LONG); machine.memory.state === 'tool'; pass(machine, LONG)) {
      machine.putIn(4);
      machine.start();
    }
    const wall = machine.cut.at(-1)!;
    expect(wall.spindle).toEqual({ 7: 4 });
    const { character } = byHand;
    expect(wall.lengths[7]).toBeCloseTo(character.tools.get(7)!.length - character.tools.get(4)!.length, 9);
  });

  test('a length entered while a tool is asked for counts from there', () => {
    const machine = machineWith(byHand, ({ lengths }) => ({ lengths: { ...lengths, 7: 0 } }));
    machine.start();
    pass(machine, LONG);
    machine.putIn(4);
    machine.start();
    pass(machine, LONG);
    expect(machine.memory.asks).toBe(7);
    machine.enterLength(7, trulyEntered(byHand).lengths[7]);
    machine.putIn(7);
    machine.start();
    pass(machine, LONG);
    expect(machine.memory.state).toBe('done');
    expect(machine.memory.past.at(-1)!.lengths[7]).toBeCloseTo(0, 9);
  });

  test('a new tool is another length until it is touched off; one that is asked for and put in stays as worn as it is', () => {
    const machine = machineWith(byHand);
    machine.start();
    pass(machine, LONG);
    machine.putIn(4);
    machine.start();
    pass(machine, LONG);
    const { worn } = machine.memory.fates[4];
    expect(worn).toBeGreaterThan(0);
    machine.putIn(machine.memory.asks!);
    const length = machine.lengthOf(4)!;
    machine.putIn(4);
    expect(machine.memory.fates[4]).toBeUndefined();
    const off = machine.lengthOf(4)! - length;
    expect(Math.abs(off)).toBeGreaterThan(0.01);
    expect(Math.abs(off)).toBeLessThan(2);
    expect(press(machine, { press: 'touch length', n: 4 })).toBeUndefined();
    expect(machine.memory.entered.lengths[4]).toBeCloseTo(machine.lengthOf(4)!, 1);
  });
});

test('nothing is entered while it runs, and it does not begin twice', () => {
  const machine = machineWith(plain);
  machine.start();
  pass(machine, 5);
  expect(machine.enterLength(4, 1)).toMatch(/It runs/);
  expect(machine.start()).toMatch(/already/);
  expect(machine.reset()).toMatch(/hold it first/);
  expect(machine.putIn(4)).toMatch(/hold it first/);
});

test('started in the middle it goes up, gets its tool, goes over the place and down; what was not cut is not cut', () => {
  const machine = machineWith(plain);
  const line = plain.motions.line[plain.motions.tool.indexOf(7) + 8];
  expect(machine.startAt(line)).toBeUndefined();
  machine.start();
  pass(machine, LONG);
  expect(machine.memory.state).not.toBe('running');
  expect(machine.memory.steps.map((s) => s.operationId)).toEqual([JOB.setups[0].operations[1].id]);
  expect(machine.memory.ran).toBeLessThan(whole);
  expect(machine.startAt(1e6)).toBeDefined();
});

test('reset in the middle keeps what was cut, and a fresh piece is whole again', () => {
  const machine = machineWith(plain);
  machine.start();
  pass(machine, 30);
  machine.hold();
  machine.reset();
  const [cut] = machine.memory.past;
  expect(cut.from).toBe(0);
  expect(cut.to).toBeGreaterThan(3);
  expect(cut.to).toBeLessThan(plain.motions.count);
  machine.start();
  expect(machine.newPiece()).toMatch(/under way/);
  machine.advance(0);
  machine.memory.state = 'held';
  machine.reset();
  expect(machine.newPiece()).toBeUndefined();
  expect(machine.memory.past).toEqual([]);
});

test('tried above the part nothing is cut', () => {
  const machine = machineWith(plain, () => ({ lift: 30 }));
  machine.start();
  pass(machine, LONG);
  expect(machine.memory.state).toBe('done');
  expect(machine.memory.steps.every((s) => s.load === 0)).toBe(true);
});

test('the control shows where it believes the tip to be, not where a wrong zero has it', () => {
  const [right, wrong] = [0, 3].map((off) => {
    const machine = machineWith(plain, ({ zero }) => ({ zero: { ...zero, y: zero.y + off } }));
    machine.start();
    pass(machine, 25);
    return machine.at!;
  });
  expect(wrong.place.x).toBeCloseTo(right.place.x, 6);
  expect(wrong.place.y).toBeCloseTo(right.place.y, 6);
  expect(wrong.toGo.y).toBeCloseTo(right.toGo.y, 6);
});

test('a weak axis of a light machine loses steps for good; of a heavy one it alarms', () => {
  const weak = (skips?: number) => {
    const of = { ...plain, character: { ...plain.character, push: 30, skips } };
    const { memory } = runThrough(of);
    return memory;
  };
  expect(weak().alarm).toMatchObject({ number: 31 });
  const light = weak(4);
  expect(Math.hypot(light.lost.x, light.lost.y, light.lost.z)).toBeGreaterThanOrEqual(0.1 - 1e-9);
  // What came after was cut where it then stood.
  expect(light.past.length).toBeGreaterThan(1);
  expect(light.past.at(-1)!.lost).not.toEqual(light.past[0].lost);
});

test('a small tool breaks unheard and cuts nothing from there; a large one is heard', () => {
  const brittle = (diameter: number) => {
    const job = { ...JOB, tools: JOB.tools.map((t) => (t.number === 4 ? { ...t, diameter } : t)) };
    const of = loaded(job, {}, post(JOB).text);
    const own = of.character.tools.get(4)!;
    const tools = new Map(of.character.tools).set(4, { ...own, breaksAt: 1e-30 });
    return runThrough({ ...of, character: { ...of.character, tools } });
  };
  const small = brittle(2.9);
  expect(small.memory.fates[4].brokeAt).toBeGreaterThan(0);
  expect(small.cut.at(-1)!.spindle).toEqual({ 4: 0 });
  expect(small.events.map((e) => e.what)).toContain('broke');
  expect(brittle(10).memory.alarm).toMatchObject({ number: 22 });
});

test('what the piece measures: as deep as its tool was set, narrower by what gave way', () => {
  const limits = (size: 'depth' | 'width') => ({ size, upper: 0.05, lower: -0.05 });
  const job = {
    ...JOB,
    part: {
      ...JOB.part,
      features: JOB.part.features.map((f) =>
        f.id === 'f2' ? { ...f, limits: [limits('depth'), limits('width')] } : f,
      ),
    },
  } as typeof JOB;
  const of = loaded(job, {}, post(JOB).text);
  const [right, deep] = [0, -0.2].map((off) => {
    const truly = trulyEntered(of);
    const { memory, cut } = runThrough(of, { ...truly, lengths: { ...truly.lengths, 7: truly.lengths[7] + off } });
    const sizes: Record<string, number> = Object.fromEntries(
      measured(of, cut, memory).map(({ size, mm }) => [size.size, mm]),
    );
    const { nx, ny, height } = prepare(of, cut).piece();
    expect(height).toHaveLength(nx * ny);
    return { depth: sizes.depth, width: sizes.width, floor: Math.min(...height) };
  });
  expect(right.depth).toBeCloseTo(3, 1);
  const halfway = machineWith(of);
  halfway.start();
  pass(halfway, whole / 4);
  expect(measured(of, halfway.cut, halfway.memory)).toEqual([]);
  expect(deep.depth - right.depth).toBeCloseTo(0.2, 6);
  expect(right.floor - deep.floor).toBeCloseTo(0.2, 3);
  expect(right.width).toBeLessThan(40);
  expect(right.width).toBeGreaterThan(39.8);
});

test('what is remembered is plain data, and goes on as it was', () => {
  const machine = machineWith(plain);
  machine.start();
  pass(machine, 30);
  machine.hold();
  expect(JSON.parse(JSON.stringify(machine.memory))).toEqual(machine.memory);
});

test('after its power went it stands in an alarm at the block it was at, and what was cut is known', () => {
  const machine = machineWith(plain);
  machine.start();
  pass(machine, 30);
  const { line } = machine;
  const again = new Machine(plain, JSON.parse(JSON.stringify(machine.memory)));
  again.losePower();
  expect(again.memory).toMatchObject({ state: 'alarm', alarm: { number: 41, line } });
  const [cut] = again.cut;
  expect(plain.motions.line[cut.to]).toBe(line);
  again.reset();
  expect(again.startAt(line)).toBeUndefined();
  again.start();
  pass(again, LONG);
  expect(again.memory.state).toBe('done');
});

test('run on to its end, a second piece is run as the first', () => {
  const machine = machineWith(plain);
  const once = () => {
    machine.start();
    while (machine.memory.state === 'running') {
      if (machine.needs) machine.supply(prepare(plain, machine.needs));
      machine.advance(Infinity);
    }
    return machine.memory.ran - machine.memory.began;
  };
  const first = once();
  expect(machine.memory).toMatchObject({ state: 'done', now: expect.closeTo(whole, 6) });
  machine.newPiece();
  expect(once()).toBeCloseTo(first, 6);
  expect(machine.memory.now).toBeCloseTo(2 * whole, 5);
});

test('what was struck once and is struck again is an alarm again', () => {
  const machine = machineWith(plain);
  const struck = [10, 20].map((short) => {
    machine.enterLength(7, trulyEntered(plain).lengths[7] - short);
    machine.start();
    pass(machine, LONG);
    const { alarm } = machine.memory;
    machine.reset();
    return alarm?.number;
  });
  expect(struck).toEqual([11, 11]);
});

test('several things entered while it is held all count from there', () => {
  const machine = machineWith(plain);
  machine.start();
  pass(machine, 20);
  machine.hold();
  const truly = trulyEntered(plain);
  machine.enterLength(4, truly.lengths[4] + 1);
  machine.enterLength(7, truly.lengths[7] + 2);
  machine.enterZero({ x: truly.zero.x + 3 });
  const leg = machine.cut.length > 0 && machine.memory.current!;
  expect(leg).toMatchObject({ lengths: { 4: expect.closeTo(1, 6), 7: expect.closeTo(2, 6) } });
  expect(leg).toMatchObject({ zero: { x: expect.closeTo(3, 6) } });
});
