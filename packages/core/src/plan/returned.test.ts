import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Job } from '../document/job';
import { Operation } from '../document/operation';
import { formatFeed } from '../quantity/units';
import { controllerById } from '../shop/controllers';
import { parseJob } from './documents';
import { planSetup, postSetup } from './pipeline';
import { returned } from './returned';

const job = parseJob(readFileSync(join(__dirname, '../../../../demo/jobs/vane-hub-plate.json'), 'utf8')).job!;

function posted(of: Job) {
  const setup = of.setups[0];
  const plan = planSetup(of, setup);
  return { programs: postSetup(of, setup, plan).programs, zeroZ: plan.ground.zero.z };
}
const own = posted(job);
const [{ text, sections }] = own.programs;
const { operations } = job.setups[0];
const clear = operations.find((o) => o.kind === 'clear')!;
const drill = operations.find((o) => o.kind === 'drill')!;
const contour = operations.find((o) => o.kind === 'contour')!;
/** The first whose text switches coolant on. */
const wet = operations.find((o) => / M8$/m.test(bodyOf(o.id)))!;

/** Lines of an operation in the posted text, from 0 to before the next. */
function linesOf(id: string): [number, number] {
  const at = sections.findIndex((s) => s.operationId === id);
  return [sections[at].line - 1, (sections[at + 1]?.line ?? text.split('\n').length) - 1];
}

function bodyOf(id: string): string {
  return text
    .split('\n')
    .slice(...linesOf(id))
    .join('\n');
}

/** The text with the lines of one operation edited, as somebody does at the control. */
function edited(id: string, edit: (lines: string[]) => string[]): string {
  const lines = text.split('\n');
  const [from, to] = linesOf(id);
  return [...lines.slice(0, from), ...edit(lines.slice(from, to)), ...lines.slice(to)].join('\n');
}

const back = (theirs: string, of: Job = job, { programs, zeroZ } = own) =>
  returned(of, of.setups[0], programs, zeroZ, theirs)!;
const operationIn = (of: Job, id: string): Operation => of.setups[0].operations.find((o) => o.id === id)!;

/** What is taken, and that the job then posts that text and nothing of it is left. */
function takes(theirs: string): { words: string[]; operation: (id: string) => Operation } {
  const { edits, job: next } = back(theirs);
  expect(edits.filter((e) => !e.isTaken)).toEqual([]);
  expect(back(theirs, next, posted(next)).edits).toEqual([]);
  return { words: edits.map((e) => e.words), operation: (id) => operationIn(next, id) };
}
const feedOf = ({ speeds: { feed } }: Operation) => feed;
const replaced = (from: string, to: string) => (lines: string[]) => lines.map((l) => l.replace(from, to));

test('the same program differs in nothing, however its lines are numbered and written', () => {
  const other = text
    .split('\n')
    .map((l, i) => (/^[%O(]/.test(l) || !l ? l.toLowerCase() : `N${i} ${l.replaceAll(' ', '')}`))
    .join('\r\n');
  expect(back(other).edits).toEqual([]);
  expect(back(other).job).toEqual(job);
});

test('a feed that was changed throughout an operation is its feed', () => {
  const was = `F${feedOf(contour)}.`;
  const { words, operation } = takes(edited(contour.id, replaced(was, 'F777.')));
  expect(words).toEqual([`feed 777 mm/min instead of ${formatFeed(feedOf(contour), 'mm')}`]);
  expect(operation(contour.id).speeds).toEqual({ ...contour.speeds, feed: 777 });
});

test('a feed that was changed in one place alone is said, with its line', () => {
  let times = 0;
  const theirs = edited(clear.id, (lines) => lines.map((l) => (/^N\d+ X\S+ Y/.test(l) && !times++ ? `${l} F55.` : l)));
  const { edits, job: next } = back(theirs);
  expect(next).toEqual(job);
  const line = theirs.split('\n').findIndex((l) => l.endsWith('F55.')) + 1;
  expect(edits).toEqual([
    expect.objectContaining({
      operation: clear.id,
      line,
      isTaken: false,
      words: expect.stringMatching(/F55” instead of/),
    }),
  ]);
});

test('speed, coolant and name', () => {
  const { words, operation } = takes(
    edited(wet.id, (lines) =>
      lines.map((l) =>
        l
          .replace(`S${wet.speeds.rpm}`, 'S4321')
          .replace(/ M8$/, ' M7')
          .replace(/^\((?!T\d|D\d).*\)$/, '(FIRST WELL)'),
      ),
    ),
  );
  expect(words).toEqual([
    `4321 rpm instead of ${wet.speeds.rpm}`,
    expect.stringMatching(/^coolant \w+ instead of flood$/),
    `called “FIRST WELL” instead of “${wet.name}”`,
  ]);
  expect(operation(wet.id)).toMatchObject({ name: 'FIRST WELL', speeds: { rpm: 4321 } });
});

test('a stop that was put in is a stop, and a remark a remark', () => {
  const stopped = takes(edited(clear.id, ([name, ...rest]) => [name, '(LOOK AT THE CLAMPS)', 'M0', ...rest]));
  expect(stopped.operation(clear.id).before).toEqual({ stop: 'planned', note: 'LOOK AT THE CLAMPS' });
  const { operation } = takes(edited(clear.id, ([name, ...rest]) => [name, '(LOUD HERE)', ...rest]));
  expect(operation(clear.id).before).toEqual({ stop: 'remark', note: 'LOUD HERE' });
});

test('a hole that was drilled deeper ends there', () => {
  const [word, depth] = / Z(-\S+) R/.exec(bodyOf(drill.id))!;
  const z = Number(depth);
  const { words, operation } = takes(edited(drill.id, replaced(word, ` Z${z - 0.5} R`)));
  expect(words).toEqual([`down to Z ${z - 0.5} mm instead of ${z} mm`]);
  expect(operation(drill.id).heights?.end).toEqual({ at: 'part top', offset: expect.any(Number) });
});

test('an operation that was taken out is switched off; moves that were changed are said, not taken', () => {
  const without = back(edited(drill.id, () => []));
  expect(operationIn(without.job, drill.id).on).toBe(false);
  const moved = back(
    edited(clear.id, (lines) => lines.map((l, i) => (i < 300 ? l.replace(/ X(\S+) Y/, ' X99. Y') : l))),
  );
  expect(moved.job).toEqual(job);
  expect(moved.edits.length).toBeGreaterThan(0);
  expect(moved.edits.length).toBeLessThan(10);
  expect(moved.edits.at(-1)!.words).toMatch(/^and \d+ more lines$/);
});

test('what no job may say is said, and not taken', () => {
  const still = back(edited(contour.id, replaced(`F${feedOf(contour)}.`, 'F0.')));
  expect(still.job).toEqual(job);
  expect(still.edits.every((e) => !e.isTaken)).toBe(true);
  expect(still.edits.length).toBeGreaterThan(0);
  // Coolant that goes takes nothing else with it that goes.
  const dry = back(edited(clear.id, (lines) => lines.filter((l) => !/ M(8|5)$/.test(l))));
  expect(operationIn(dry.job, clear.id).coolant).toBe('off');
  expect(dry.edits.filter((e) => !e.isTaken).map((e) => e.words)).toContain('“M5” taken out');
});

test('another program is none of the job’s', () => {
  expect(returned(job, job.setups[0], own.programs, own.zeroZ, 'G21 G90\nG1 X1 F100\nM30')).toBeUndefined();
  expect(returned(job, job.setups[0], own.programs, own.zeroZ, '')).toBeUndefined();
  expect(back(text.replaceAll(/X\d+/g, 'X1'))).toBeUndefined();
});

test('what every operation of the demo jobs is fed with comes back in millimetres and in inches', () => {
  for (const name of ['float-pulley-bracket', 'lens-cell-ring']) {
    const one = parseJob(readFileSync(join(__dirname, `../../../../demo/jobs/${name}.json`), 'utf8')).job!;
    expect(controllerById(one.controllerId)).toBeDefined();
    const faster = structuredClone(one);
    for (const o of faster.setups[0].operations) o.speeds = { ...o.speeds, rpm: o.speeds.rpm - 10 };
    const { text: theirs } = posted(faster).programs[0];
    const { job: next } = back(theirs, one, posted(one));
    expect(next.setups[0].operations.map((o) => o.speeds.rpm)).toEqual(
      faster.setups[0].operations.map((o) => o.speeds.rpm),
    );
  }
});
