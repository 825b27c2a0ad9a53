import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseJob } from '../plan/documents';
import { HOLDERS, MACHINES, MATERIALS, TOOLS } from '../shop/library';
import { jobWith, withOperation } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { freshId } from '../quantity/ids';
import { Job } from '../document/job';
import { newJob } from '../document/new';
import {
  addOperation,
  changeTool,
  isStale,
  numberedByPockets,
  refreshTool,
  takeLift,
  takeSuggested,
  proposeTool,
  tidyRack,
  withTool,
  departingIn,
} from './edit';
import { estimateMinutes, insightOf, liftsOf, pathMinutes } from '../plan/insight';
import { planSetup } from '../plan/pipeline';
import { kindOf } from '../operation/registry';

describe('editing', () => {
  test('ids are fresh, tools are copied in once, and unused ones leave', () => {
    expect(freshId('o', ['o1', 'o3'])).toBe('o2');
    const job = withTool(withTool(newJob('X', 'mm'), tool(4)), tool(4));
    expect(job.tools).toHaveLength(1);
    const clash = withTool(job, { ...tool(5), number: 4 });
    expect(clash.tools.map((t) => t.number)).toEqual([4, 5]);
    expect(tidyRack(clash).tools).toEqual([]);
  });

  test('a new operation gets a fitting tool, values and speeds', () => {
    const job = addOperation(
      jobWith({ type: 'round', diameter: 5 }, { meaning: 'hole', through: true }),
      's1',
      'drill',
      ['f2'],
    );
    expect(job.tools[0].name).toMatch(/5 mm drill/);
    expect(addOperation(job, 's1', 'nonsense', [])).toBe(job);
    expect(proposeTool(job, kindOf('face')!, [])!.kind).toBe('face');
  });

  test('a changed tool takes its own bite and speeds along', () => {
    const job = withOperation(
      jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }),
      'pocket',
      ['f2'],
      tool(4),
    );
    const smaller = changeTool(job, 'o1', tool(9));
    const [before, after] = [job.setups[0].operations[0], smaller.setups[0].operations[0]];
    expect(after.toolId).toBe('t9');
    expect(Number(after.params.stepover)).toBeLessThan(Number(before.params.stepover));
    expect(after.speeds).not.toEqual(before.speeds);
    expect(after.params.entryAngle).toBe(before.params.entryAngle);
  });

  test('a tool of the rack stands where the machine’s carousel has it', () => {
    const base = newJob('X', 'mm');
    const job = { ...base, machine: { ...base.machine, carousel: [{ pocket: 9, toolId: 't4' }] } };
    expect(withTool(job, tool(4)).tools[0].number).toBe(9);
  });

  test('a job’s copy of a tool is told apart from the rack’s, and replaced by it', () => {
    const job = withTool(newJob('X', 'mm'), tool(4));
    const racked = { ...tool(4), stickOut: 40, number: 12 };
    expect(isStale(job.tools[0], { ...tool(4), number: 12 })).toBe(false);
    expect(isStale(job.tools[0], racked)).toBe(true);
    expect(refreshTool(job, racked).tools[0]).toMatchObject({ stickOut: 40, number: 4 });
  });

  test('what lifts a limit is done to the job, and its speeds follow', () => {
    const shop = { tools: TOOLS, holders: HOLDERS };
    const long = { ...tool(7), stickOut: 60 };
    const job = withOperation(
      {
        ...jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }),
        machine: MACHINES[2],
        material: MATERIALS[3],
      },
      'pocket',
      ['f2'],
      long,
      { layer: 8, stepover: 3 },
    );
    const slow = takeSuggested(job, 'o1');
    const found = liftsOf(slow, slow.setups[0].operations[0], shop);
    expect(found.length).toBeGreaterThan(1);
    for (const lift of found) {
      const after = takeLift(slow, 'o1', lift, shop);
      const { operations } = after.setups[0];
      expect(operations[0].speeds).toEqual(takeSuggested(after, 'o1').setups[0].operations[0].speeds);
      if (lift.change.stickOut) expect(after.tools[0].stickOut).toBe(lift.change.stickOut);
      if (lift.change.holderId) expect(after.tools[0].holder.id).toBe(lift.change.holderId);
      if (lift.change.toolId) expect(operations[0].toolId).toBe(lift.change.toolId);
      if (!lift.change.toolId) expect(operations[0].speeds.feed).toBe(Math.max(0.1, lift.suggestion.feed));
    }
    const bite = { what: '', change: { ae: 1, ap: 2 }, suggestion: found[0].suggestion, gain: 2 };
    expect(takeLift(slow, 'o1', bite, shop).setups[0].operations[0].params).toMatchObject({ stepover: 1, layer: 2 });
    expect(takeLift(slow, 'gone', bite, shop)).toBe(slow);
  });

  test('boldness moves the suggestion, and the departure from it', () => {
    const job = withOperation(jobWith({ type: 'round', diameter: 40 }), 'pocket', ['f2'], tool(9));
    const at = (boldness: number) => insightOf({ ...job, boldness }, job.setups[0].operations[0])!;
    expect(at(0).suggestion.feed).toBeLessThan(at(0.5).suggestion.feed);
    expect(at(0).departure.feed).toBeGreaterThan(1);
    expect(at(0.5).departure.text).toBe('as suggested');
  });

  test('insight follows the feed at once', () => {
    const job = withOperation(
      jobWith({ type: 'rectangle', width: 50, height: 30, radius: 6 }),
      'pocket',
      ['f2'],
      tool(4),
    );
    const chip = (feed: number) =>
      insightOf(job, { ...job.setups[0].operations[0], speeds: { rpm: 8000, feed, entryFeed: 100 } })!.gauges[0].value;
    expect(chip(800)).toBeCloseTo(2 * chip(400), 9);
    expect(insightOf({ ...job, tools: [] }, job.setups[0].operations[0])).toBeUndefined();
    const [{ plan, operation }] = planSetup(job, job.setups[0]).planned;
    const minutes = pathMinutes(plan.path, operation, job.machine, false);
    expect(estimateMinutes(minutes, operation)).toBeCloseTo(minutes.cut + minutes.entry + minutes.rapid, 9);
    const { rpm, feed, entryFeed } = operation.speeds;
    const slower = { ...operation, speeds: { rpm, feed: feed / 2, entryFeed } };
    expect(estimateMinutes(minutes, slower)).toBeCloseTo(2 * minutes.cut + minutes.entry + minutes.rapid, 9);
  });
});

describe('speeds that are not the suggested ones', () => {
  const job = parseJob(readFileSync(join(__dirname, '../../../../demo/jobs/vane-hub-plate.json'), 'utf8')).job!;
  const steel = { ...job, material: MATERIALS.find((m) => m.id === 'steel-alloy')! };

  test('after another material each is told, with what would be suggested; taken, none is left', () => {
    const [setup] = job.setups;
    expect(departingIn(job, setup)).toEqual([]);
    const departing = departingIn(steel, setup);
    expect(departing.map((d) => d.operation.id)).toEqual(setup.operations.map((o) => o.id));
    const mills = departing.filter((d) => d.operation.kind === 'clear');
    for (const { operation, suggested, departure } of mills) {
      expect(suggested.feed).toBeLessThan(operation.speeds.feed / 2);
      expect(departure.brief).toMatch(/over.* the suggested: more than the spindle should carry/);
    }
    const taken = departing.reduce((j, d) => takeSuggested(j, d.operation.id), steel);
    expect(departingIn(taken, taken.setups[0])).toEqual([]);
  });

  test('what is switched off is left alone', () => {
    const off = { ...job.setups[0], operations: job.setups[0].operations.map((o) => ({ ...o, on: false })) };
    expect(departingIn({ ...steel, setups: [off] }, off)).toEqual([]);
  });
});

test('tools are numbered by the pockets of the machine: those that fit stay, the others take what is free', () => {
  const job = jobWith(undefined);
  const rack = (numbers: number[]) => ({ ...job, tools: numbers.map((n) => ({ ...tool(4), id: `t${n}`, number: n })) });
  const numbers = (j: Job) => numberedByPockets(j).tools.map((t) => t.number);
  expect(job.machine.toolPockets).toBe(10);
  expect(numbers(rack([1, 4, 13, 37, 2]))).toEqual([1, 4, 3, 5, 2]);
  const many = rack([1, 2, 3, 4, 5, 6, 7, 8, 9, 13, 14]);
  expect(numberedByPockets(many)).toBe(many);
});
