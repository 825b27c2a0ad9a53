import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import type { Job } from '../document/job';
import { mergeJobs } from '../document/merge';
import { freshId } from '../quantity/ids';
import { changesOf } from './changes';
import { parseJob, readJob } from './documents';

const base = parseJob(readFileSync(join(__dirname, '../../../../demo/jobs/vane-hub-plate.json'), 'utf8')).job!;
const [setup] = base.setups;

type Operations = Job['setups'][0]['operations'];
const withOperations = (job: Job, next: (all: Operations) => Operations): Job => ({
  ...job,
  setups: job.setups.map((s, i) => (i === 0 ? { ...s, operations: next(s.operations) } : s)),
});
const renamed = (at: number, name: string) => (job: Job) =>
  withOperations(job, (all) => all.map((o, i) => (i === at ? { ...o, name } : o)));
const names = (job: Job) => job.setups[0].operations.map((o) => o.name);

/** What comes of both where nobody has to be asked. */
function merged(mine: Job, theirs: Job): Job {
  const [a, b] = [mergeJobs(base, mine, theirs, 'mine'), mergeJobs(base, mine, theirs, 'theirs')];
  expect(changesOf(a, b)).toEqual([]);
  expect(a).toEqual(b);
  expect(readJob(a).findings).toEqual([]);
  return a;
}

/** What somebody has to be asked about: mine instead of theirs, in words. */
const asked = (mine: Job, theirs: Job) =>
  changesOf(mergeJobs(base, mine, theirs, 'theirs'), mergeJobs(base, mine, theirs, 'mine'));

test('different operations and settings are taken together', () => {
  const mine = { ...renamed(0, 'Mine')(base), boldness: 0.9, part: { ...base.part, thickness: 13 } };
  const theirs = {
    ...renamed(1, 'Theirs')(base),
    note: 'theirs',
    setups: renamed(1, 'Theirs')(base).setups.map((s) => ({ ...s, clearance: 17 })),
  };
  const both = merged(mine, theirs);
  expect([both.boldness, both.note, both.part.thickness, both.setups[0].clearance]).toEqual([0.9, 'theirs', 13, 17]);
  expect(names(both).slice(0, 2)).toEqual(['Mine', 'Theirs']);
  expect(names(both).slice(2)).toEqual(names(base).slice(2));
});

test('where both touched the same operation or setting they are asked, about that alone', () => {
  const mine = { ...renamed(0, 'Mine')(base), boldness: 0.9, note: 'mine' };
  const theirs = { ...renamed(0, 'Theirs')(base), boldness: 0.1, tags: ['theirs'] };
  const told = asked(mine, theirs);
  expect(told).toHaveLength(2);
  expect(told[0]).toMatch(/: name Mine instead of Theirs$/);
  expect(told[1]).toBe('boldness 90 % instead of 10 %');
  const kept = mergeJobs(base, mine, theirs, 'mine');
  expect([names(kept)[0], kept.boldness, kept.note, kept.tags]).toEqual(['Mine', 0.9, 'mine', ['theirs']]);
  const taken = mergeJobs(base, mine, theirs, 'theirs');
  expect([names(taken)[0], taken.boldness, taken.note, taken.tags]).toEqual(['Theirs', 0.1, 'mine', ['theirs']]);
});

test('the same done twice is done once', () => {
  const mine = { ...renamed(0, 'Same')(base), boldness: 0.7 };
  expect(merged(mine, structuredClone(mine))).toEqual(mine);
});

test('new operations of both stand, each where it was put, with ids of their own', () => {
  const added = (name: string, at: number) =>
    withOperations(base, (all) => all.toSpliced(at, 0, { ...all[0], id: 'o99', name }));
  const both = merged(added('Mine', 1), added('Theirs', setup.operations.length));
  expect(names(both)).toEqual([names(base)[0], 'Mine', ...names(base).slice(1), 'Theirs']);
  const ids = both.setups[0].operations.map((o) => o.id);
  expect(new Set(ids).size).toBe(ids.length);
});

test('what one takes out goes, unless the other changed it: then they are asked', () => {
  const without = withOperations(base, (all) => all.slice(1));
  expect(names(merged(without, renamed(1, 'Theirs')(base)))[0]).toBe('Theirs');
  expect(names(merged(renamed(1, 'Mine')(base), without))[0]).toBe('Mine');
  expect(asked(without, renamed(0, 'Theirs')(base))).toEqual([
    '“Setup 1”: “Theirs” taken out'.replace('Setup 1', setup.name),
  ]);
});

test('one who puts them in another order is followed', () => {
  const turned = withOperations(base, (all) => all.toReversed());
  expect(names(merged(turned, renamed(0, 'Theirs')(base)))).toEqual(['Theirs', ...names(base).slice(1)].toReversed());
  expect(names(merged(renamed(0, 'Mine')(base), turned))).toEqual(['Mine', ...names(base).slice(1)].toReversed());
});

describe('whatever two people do', () => {
  const count = setup.operations.length;
  const edit = fc.oneof(
    fc.record({ what: fc.constant('name'), at: fc.nat(count - 1), to: fc.constantFrom('A', 'B', 'C') }),
    fc.record({ what: fc.constant('out'), at: fc.nat(count - 1), to: fc.constant('') }),
    fc.record({ what: fc.constant('new'), at: fc.nat(count - 1), to: fc.constantFrom('D', 'E') }),
    fc.record({ what: fc.constant('move'), at: fc.nat(count - 1), to: fc.constant('') }),
    fc.record({ what: fc.constant('note'), at: fc.constant(0), to: fc.constantFrom('x', 'y') }),
  );
  const done = (edits: { what: string; at: number; to: string }[]) =>
    edits.reduce((job, { what, at, to }) => {
      if (what === 'note') return { ...job, note: to };
      return withOperations(job, (all) => {
        if (what === 'name') return all.map((o, i) => (i === at ? { ...o, name: to } : o));
        if (what === 'out') return all.filter((_, i) => i !== at);
        if (what === 'move') return [...all.slice(at), ...all.slice(0, at)];
        return [
          ...all.slice(0, at),
          {
            ...setup.operations[0],
            id: freshId(
              'n',
              all.map((o) => o.id),
            ),
            name: to,
          },
          ...all.slice(at),
        ];
      });
    }, base);

  test('what comes of it is a sound job; one who did nothing takes all of the other', () =>
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 4 }), fc.array(edit, { maxLength: 4 }), (a, b) => {
        const [mine, theirs] = [done(a), done(b)];
        for (const side of ['mine', 'theirs'] as const)
          expect(readJob(mergeJobs(base, mine, theirs, side)).findings).toEqual([]);
        expect(mergeJobs(base, base, theirs, 'mine')).toEqual(theirs);
        expect(mergeJobs(base, mine, base, 'theirs')).toEqual(mine);
      }),
      { numRuns: 40, seed: 20261129 },
    ));
});
