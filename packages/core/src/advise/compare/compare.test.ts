import { jobWith, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { Candidate, Comparison } from '../../document/comparison';
import { Job } from '../../document/job';
import { planSetup, postSetup } from '../../plan/pipeline';
import { proveProgram } from '../../plan/prove';
import { joinPrograms } from '../../plan/joined';
import { TOOLS } from '../../shop/library';
import {
  Compared,
  ComparedAt,
  WholeRun,
  compare,
  countedIn,
  isSound,
  leftOutBy,
  runsCompared,
  takenAt,
  wholeRun,
} from './compare';
import { finding } from '../../quantity/finding';
import { Wear } from '../../judge/wear';
import { takeSuggested } from '../edit';
import {
  Offer,
  WAYS,
  candidateFor,
  comparedIn,
  newComparison,
  takenOver,
  withOffered,
  withRoutesCompared,
} from './candidates';
import { costAt } from './verdict';

const shelf = TOOLS.filter((t) => [4, 5, 8].includes(t.number));
const pocket = (): Job => {
  const job = jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }, { depth: 8 }, 12);
  const faced = withOperation(job, 'face', [], tool(1));
  return {
    ...withOperation(faced, 'clear', ['f2'], tool(4)),
    prices: { energy: 0.3 },
  };
};

function done(job: Job, comparison: Comparison, at: ComparedAt = 'as set'): Compared {
  const work = compare(job, comparison, at);
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

const jobAlone = (job: Job): Job => ({ ...job, setups: [{ ...job.setups[0], operations: [] }] });

function made(offer: Offer): Candidate {
  if (!offer.ok) throw new Error(offer.why);
  return offer.candidate;
}

describe('ways to clear a pocket', () => {
  const job = pocket();
  const [, clear] = job.setups[0].operations;
  const comparison = withOffered(job, newComparison(job, job.setups[0], [clear.id]), shelf);
  const found = done(job, comparison);

  test('begin with how it is, and with ways that differ from it', () => {
    expect(comparedIn(job, comparison).map((o) => o.id)).toEqual([clear.id]);
    const [present, ...others] = comparison.candidates;
    expect(present).toEqual({ id: 'c1', name: 'As it is' });
    expect(others.map((c) => c.name.split(',')[0])).toEqual(['Plain passes', 'Wide and shallow']);
    for (const { operations } of others) expect(operations![0]).toMatchObject({ kind: 'pocket', targets: ['f2'] });
    expect(new Set(found.outcomes.map((o) => o.id)).size).toBe(3);
  });

  test('agree with a program of their own to the last digit', () => {
    for (const [k, candidate] of comparison.candidates.entries()) {
      const { job: own, own: ids } = takenOver(job, comparison, candidate);
      const [setup] = own.setups;
      const { text, sections } = joinPrograms(postSetup(own, setup, planSetup(own, setup)).programs);
      const proof = proveProgram(own, setup, text, undefined, { sections });
      const step = proof.steps.find((s) => ids.includes(s.operationId))!;
      const { figures, priced } = found.outcomes[k];
      expect(figures!.minutes.total).toBeCloseTo(step.minutes, 9);
      expect(figures!.removed).toBeCloseTo(step.removed, 9);
      expect(figures!.load.peak).toBe(step.load);
      const t = own.tools.find((x) => x.id === (candidate.operations?.[0] ?? clear).toolId)!;
      const wear = figures!.wear.find((w) => w.tool === t.number)!;
      const rate = own.machine.hourlyRate;
      const cost = (step.minutes * rate) / 60 + wear.share * (t.edgePrice + (3 * rate) / 60) + figures!.kWh * 0.3;
      expect(costAt(priced!, rate)).toBeCloseTo(cost, 9);
    }
  });

  test('times add up, and what is taken away is the pocket each time', () => {
    for (const { figures } of found.outcomes) {
      const { cut, back, rapid, change, dwell, total } = figures!.minutes;
      expect(cut + back + rapid + change + dwell).toBeCloseTo(total, 9);
      expect(cut).toBeGreaterThan(0);
      expect(figures!.removed).toBeCloseTo(found.outcomes[0].figures!.removed, 1);
      expect(figures!.fluteUse).toBeGreaterThan(0);
      expect(figures!.fluteUse).toBeLessThanOrEqual(1);
    }
    const [steady, plain, shallow] = found.outcomes.map((o) => o.figures!);
    // What each way is known for.
    expect(steady.spikes.seconds).toBeLessThan(plain.spikes.seconds);
    expect(steady.fluteUse).toBeGreaterThan(2 * shallow.fluteUse);
    expect(steady.entries).toBeGreaterThan(plain.entries);
  });

  test('at the same speeds all have the cutting speed and the feed a tooth of what they stand in for', () => {
    const same = done(job, comparison, 'the same for all');
    // How it is stays as it is.
    expect(same.outcomes[0].figures).toEqual(found.outcomes[0].figures);
    const best = done(job, comparison, 'each at its best');
    expect(best.outcomes.map((o) => o.figures!.minutes.total)).not.toEqual(
      same.outcomes.map((o) => o.figures!.minutes.total),
    );
  });

  test('one of one’s own has the bite and the layer it is given, at speeds that suit them', () => {
    const [, plain] = comparison.candidates;
    const by = plain.operations![0];
    const t = job.tools.find((x) => x.id === by.toolId) ?? shelf.find((x) => x.id === by.toolId)!;
    const own = made(candidateFor(job, comparison, WAYS[1], t, { own: { layer: 1, stepover: 2 } }));
    expect(own.id).toBe('c4');
    expect(own.operations![0].params).toMatchObject({ layer: 1, stepover: 2, pattern: 'inside out' });
    expect(own.operations![0].speeds.feed).toBeGreaterThan(by.speeds.feed);
    // What the way makes of it has speeds of its own too, not those of other values.
    const shallow = comparison.candidates[2];
    const { job: taken, own: ids } = takenOver(job, comparison, shallow);
    expect(ids.reduce(takeSuggested, taken).setups[0].operations[1].speeds).toEqual(shallow.operations![0].speeds);
  });

  test('speeds are as bold as a way asks, wherever they are suggested', () => {
    const t = shelf[0];
    const [careful, bold] = [0, 1].map((boldness) => made(candidateFor(job, comparison, WAYS[1], t, { boldness })));
    expect(careful.boldness).toBe(0);
    expect(bold.operations![0].speeds.feed).toBeGreaterThan(careful.operations![0].speeds.feed);
    const best = (c: typeof bold) => {
      const { job: next, own } = takenAt(job, comparison, c, 'each at its best');
      expect(next.boldness).toBe(job.boldness);
      return next.setups[0].operations.find((o) => own.includes(o.id))!.speeds;
    };
    expect([best(careful), best(bold)]).toEqual([careful, bold].map((c) => c.operations![0].speeds));
  });

  test('what wants watching, or leaves coarser walls than are asked for, is not counted where that matters', () => {
    const [one] = found.outcomes;
    const watched = { ...one, watched: ['12 s of load spikes'], coarse: false };
    expect(leftOutBy(watched, comparison)).toBeUndefined();
    expect(leftOutBy(watched, { ...comparison, unattended: true })).toBe('watched only: 12 s of load spikes');
    const coarse = { ...one, watched: [], coarse: true };
    expect(leftOutBy(coarse, comparison)).toBe('its walls are coarser than is asked for');
    expect(leftOutBy(coarse, { ...comparison, smoothedLater: true })).toBeUndefined();
    expect(countedIn([watched, coarse], { ...comparison, unattended: true })).toEqual([]);
    // Plain passes load the tool in corners; at a steady load nobody has to stand by.
    const [steady, plain] = found.outcomes;
    expect(plain.figures!.spikes.seconds).toBeGreaterThan(1);
    expect(plain.watched.join()).toContain('s of load spikes');
    expect(steady.watched.join()).not.toContain('s of load spikes');
  });

  test('the heat it makes is what the spindle gives while it cuts', () => {
    for (const { figures } of found.outcomes) {
      const { heat, power, minutes } = figures!;
      expect(heat).toBeGreaterThan(0);
      expect(heat).toBeLessThanOrEqual(power * minutes.cut * 60 + 1e-9);
    }
  });

  test('several operations are stood in for at once, by one way each', () => {
    const again = withOperation(job, 'pocket', ['f2'], tool(4), { floorAllowance: 0, wallAllowance: 0 });
    const ids = again.setups[0].operations.slice(1).map((o) => o.id);
    const both = withOffered(again, newComparison(again, again.setups[0], ids), shelf);
    expect(comparedIn(again, both)).toHaveLength(2);
    expect(both.candidates.map((c) => c.name.split(',')[0])).toEqual([
      'As it is',
      'Steady load',
      'Plain passes',
      'Wide and shallow',
    ]);
    const { job: taken } = takenOver(again, both, both.candidates[1]);
    expect(taken.setups[0].operations.map((o) => o.kind)).toEqual(['face', 'clear']);
  });

  test('one that cannot be cut says why, and is judged by nobody', () => {
    const tooWide = { ...tool(1), id: 'wide' };
    const [, plain] = comparison.candidates;
    const bad = { ...plain, id: 'c9', tools: [tooWide], operations: [{ ...plain.operations![0], toolId: 'wide' }] };
    const { outcomes, verdict } = done(job, { ...comparison, candidates: [comparison.candidates[0], bad] });
    expect(isSound(outcomes[1])).toBe(false);
    expect(outcomes[1].findings.some((f) => f.level === 'stop')).toBe(true);
    expect(verdict).toMatchObject({ cheapest: 'c1', sure: 'wins' });
    expect(verdict!.next).toBeUndefined();
  });

  test('taken over it has the speeds it was seen at', () => {
    const [present, plain] = comparison.candidates;
    const as = (at: ComparedAt) => {
      const { job: next, own } = takenAt(job, comparison, plain, at);
      return next.setups[0].operations.find((o) => own.includes(o.id))!.speeds;
    };
    expect(as('as set')).toEqual(plain.operations![0].speeds);
    // The cutting speed and the feed a tooth of what it stands in for.
    const t = job.tools.find((x) => x.id === clear.toolId)!;
    const other = TOOLS.find((x) => x.id === plain.operations![0].toolId)!;
    const { rpm, feed } = as('the same for all');
    expect(rpm * other.diameter).toBeCloseTo(clear.speeds.rpm * t.diameter, -2);
    expect(feed / (rpm * other.flutes)).toBeCloseTo(clear.speeds.feed / (clear.speeds.rpm * t.flutes), 3);
    expect(takenAt(job, comparison, present, 'as set')).toEqual({ job, own: [clear.id] });
  });

  test('taken over stands where the other stood, with its tool', () => {
    const [, plain] = comparison.candidates;
    const { job: next, own } = takenOver(job, comparison, plain);
    expect(next.setups[0].operations.map((o) => o.kind)).toEqual(['face', 'pocket']);
    expect(own).toEqual([next.setups[0].operations[1].id]);
    expect(next.tools.map((t) => t.id)).toContain(plain.operations![0].toolId);
  });

  test('drilled first goes down through its own hole; without a drill it says so', () => {
    const way = WAYS.find((w) => w.isDrilled && w.kind === 'clear')!;
    const small = tool(7);
    const drilled = made(candidateFor(job, comparison, way, small, { rack: TOOLS }));
    expect(drilled.operations!.map((o) => o.kind)).toEqual(['drill', 'clear']);
    expect(drilled.tools!.length).toBeGreaterThan(0);
    expect(new Set(drilled.operations!.map((o) => o.id)).size).toBe(2);
    const [present] = comparison.candidates;
    const { outcomes } = done(job, { ...comparison, candidates: [present, drilled] });
    expect(isSound(outcomes[1])).toBe(true);
    // Both of its operations are counted.
    expect(outcomes[1].figures!.wear).toHaveLength(2);
    expect(outcomes[1].figures!.removed).toBeCloseTo(outcomes[0].figures!.removed, 1);
    expect(candidateFor(job, comparison, way, small, { rack: [] })).toEqual({
      ok: false,
      why: expect.stringMatching(/^No drill of the rack is wide enough/),
    });
  });

  test('what is for slots is offered for nothing else', () => {
    const way = WAYS.find((w) => w.shapes)!;
    expect(candidateFor(job, comparison, way, shelf[0])).toEqual({ ok: false, why: 'It is for slots.' });
    const slotted = withOperation(
      jobWith({ type: 'slot', length: 40, width: 12 }, { depth: 6 }, 12),
      'clear',
      ['f2'],
      tool(5),
    );
    const [own] = slotted.setups[0].operations;
    const slot = made(candidateFor(slotted, newComparison(slotted, slotted.setups[0], [own.id]), way, tool(5)));
    expect(slot.operations![0]).toMatchObject({ kind: 'slot', targets: ['f2'], params: { method: 'layers' } });
  });
});

test('a whole route is held against a proposed one, at speeds of its own, and taken over whole', () => {
  const job = pocket();
  const [setup] = job.setups;
  const proposed = withOperation(withOperation(jobAlone(job), 'face', [], tool(1)), 'pocket', ['f2'], tool(5));
  const held = withRoutesCompared(withRoutesCompared(job, setup.id, proposed), setup.id, proposed);
  expect(held.comparisons).toHaveLength(1);
  const [comparison] = held.comparisons!;
  const later = withOperation(held, 'contour', ['f1'], tool(4));
  // What came to the route since is part of it.
  expect(comparedIn(later, comparison)).toHaveLength(3);
  const [present, other] = comparison.candidates;
  const { job: next, own } = takenOver(later, comparison, other);
  expect(next.setups[0].operations.map((o) => o.kind)).toEqual(['face', 'pocket']);
  expect(own).toEqual(next.setups[0].operations.map((o) => o.id));
  expect(takenAt(later, comparison, present, 'the same for all')).toEqual({ job: later, own: expect.any(Array) });
  const { outcomes, verdict } = done(held, comparison, 'each at its best');
  expect(outcomes.map(isSound)).toEqual([true, true]);
  expect(outcomes.map((o) => o.figures!.wear.length)).toEqual([2, 2]);
  for (const { figures } of outcomes) expect(figures!.length).toBeGreaterThan(100);
  expect(verdict!.next).toBeDefined();
});

describe('two programs of a setup', () => {
  const job = pocket();
  const [setup] = job.setups;
  const run = (
    name: string,
    minutes: number,
    { wear = [] as Wear[], removed = 30, stopped = false } = {},
  ): WholeRun => {
    const findings = stopped ? [finding('no-motion', {}, { line: 1 })] : [];
    return wholeRun(name, job, setup, { minutes, wear, kWh: 0.1 }, { removed, findings });
  };
  const told = (...runs: [WholeRun, WholeRun]) => runsCompared(job, runs);

  test('are judged by what a part costs, where they do the same work', () => {
    const rate = job.machine.hourlyRate;
    const cost = (minutes: number) => ((minutes * rate) / 60 + 0.03).toFixed(2);
    expect(told(run('one', 9), run('other', 12))[0]).toBe(
      `“one” costs least: ${cost(9)} a part, ${Math.round(100 * (1 - Number(cost(9)) / Number(cost(12))))} % less than “other” at ${cost(12)}.`,
    );
    expect(told(run('one', 9), run('other', 12)).join(' ')).not.toMatch(/kindest/);
    expect(told(run('one', 9), run('other', 9))).toEqual([expect.stringMatching(/^On cost it is a draw/)]);
    const unknown = told(run('one', 9, { wear: [{ tool: 99, share: 0.1, minutes: 1 }] }), run('other', 12));
    expect(unknown.at(-1)).toBe('Not counted, as it is not known: the price of an edge of T99.');
    // Its tools may be others since: what it cost stays.
    const worn = run('one', 9, { wear: [{ tool: 4, share: 0.1, minutes: 1 }] });
    expect(runsCompared({ ...job, tools: [] }, [worn, run('other', 12)])).toEqual(told(worn, run('other', 12)));
  });

  test('are not, where one is stopped, does other work, or no rate is known', () => {
    expect(told(run('one', 9, { stopped: true }), run('other', 12))).toEqual([
      '“one” is not one to run as it is: what stops it comes first.',
    ]);
    expect(told(run('one', 1, { removed: 2 }), run('other', 12))).toEqual([
      'They do other work: one takes 2 cm³ away, the other 30 cm³.',
    ]);
    const inch = runsCompared({ ...job, unit: 'inch' }, [run('one', 1, { removed: 2 }), run('other', 12)]);
    expect(inch).toEqual(['They do other work: one takes 0.122 in³ away, the other 1.831 in³.']);
    const free = { ...job, machine: { ...job.machine, hourlyRate: 0 } };
    expect(runsCompared(free, [run('one', 9), run('other', 12)])[0]).toMatch(/without the hourly rate/);
  });
});
