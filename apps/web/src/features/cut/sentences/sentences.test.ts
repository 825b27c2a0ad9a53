import {
  Job,
  KINDS,
  type Heights,
  type Pause,
  TOOLS,
  addOperation,
  newFeature,
  newJob,
  parametersOf,
  kindOf,
  editOperation,
} from '@tidypath/core';
import fc from 'fast-check';
import { planSetup } from '@tidypath/core';
import { anyParams, jobForKind } from '@tidypath/core/testing/every-kind';
import { fieldsOf, plainSentence, sentenceOf } from '.';

const outline = newFeature([], 'outline', 'Plate', { type: 'rectangle', width: 80, height: 50, radius: 0 });
const pocket = newFeature([outline], 'pocket', 'Float pocket', { type: 'round', diameter: 30 }, { depth: 7 });
const hole = newFeature(
  [outline, pocket],
  'hole',
  'M5 hole',
  { type: 'round', diameter: 5 },
  { through: true, thread: 'M5', counterbore: { diameter: 10, depth: 5 } },
);
const base: Job = {
  ...newJob('J', 'mm'),
  part: { kind: 'plate', thickness: 10, features: [outline, pocket, hole] },
};
/** What a kind works on here: the first feature of a meaning it takes. */
const targetFor = (kind: string): string[] => {
  const { works } = kindOf(kind)!;
  return base.part.features
    .filter((f) => works.includes(f.meaning))
    .slice(0, 1)
    .map((f) => f.id);
};
const withKind = (kind: string, unit: 'mm' | 'inch' = 'mm') =>
  addOperation(
    { ...base, unit },
    's1',
    kind,
    targetFor(kind),
    kind === 'pocket' || kind === 'clear' ? TOOLS[3] : undefined,
  );
const operation = (job: Job) => job.setups[0].operations[0];

test.each(KINDS.map((k) => k.kind))('%s has a sentence of its own, every value of which exists', (kind) => {
  const job = withKind(kind);
  const pieces = sentenceOf(job, operation(job));
  expect(plainSentence(pieces)).toMatch(/^With T\d+ · .*(rpm.*mm\/min|mm\/min and power).*\.$/);
  expect(plainSentence(pieces)).not.toMatch(/NaN|undefined/);
  const known = Object.keys(parametersOf(kindOf(kind)!.Params));
  for (const f of fieldsOf(pieces)) if (f.at === 'param') expect(known).toContain(f.key);
});

test('a pocket reads as people say it, in the unit of the job', () => {
  const mm = plainSentence(sentenceOf(withKind('pocket'), operation(withKind('pocket'))));
  expect(mm).toContain('clear Float pocket down to 7 mm in layers of up to');
  const inch = withKind('pocket', 'inch');
  expect(plainSentence(sentenceOf(inch, operation(inch)))).toContain('down to 0.2756 in');
});

test('a value that is switched off is not in the sentence', () => {
  const job = editOperation(withKind('pocket'), 'o1', (o) => ({
    ...o,
    params: { ...o.params, finish: false, entry: 'plunge' },
  }));
  const keys = fieldsOf(sentenceOf(job, operation(job))).map((f) => ('key' in f ? f.key : f.at));
  expect(keys).not.toContain('finishStock');
  expect(keys).not.toContain('entryAngle');
});

test('a missing tool and empty targets are said', () => {
  const job = { ...editOperation(withKind('drill'), 'o1', (o) => ({ ...o, targets: [] })), tools: [] };
  expect(plainSentence(sentenceOf(job, operation(job)))).toMatch(/With no tool, drill nothing yet/);
});

const lastOf = (job: Job) => job.setups[0].operations.at(-1)!;
const paramsIn = (job: Job) => fieldsOf(sentenceOf(job, lastOf(job))).flatMap((f) => (f.at === 'param' ? [f.key] : []));

describe.each(KINDS.map((k) => [k.kind, k] as const))('the sentence of %s', (_, kind) => {
  const info = parametersOf(kind.Params);

  test('names only values that matter, whatever they are', () => {
    fc.assert(
      fc.property(anyParams(kind), (params) => {
        const job = jobForKind(kind, params);
        const given = lastOf(job).params as never;
        for (const key of paramsIn(job)) expect([key, info[key].matters?.(given) ?? true]).toEqual([key, true]);
      }),
      { numRuns: 40, seed: 12 },
    );
  });

  test('names numbers that what is planned goes by: another one, and the plan is another', () => {
    const own = jobForKind(kind);
    const planned = (job: Job) => planSetup(job, job.setups[0]).planned.at(-1)!.plan;
    const before = JSON.stringify(planned(own));
    for (const key of paramsIn(own)) {
      const { unit, min = 0, max = 0, step = 1 } = info[key];
      const isAllowed = (v: number) => v >= min && v <= max && v !== value;
      const value = lastOf(own).params[key];
      if (!unit || typeof value !== 'number') continue;
      const others = [value + step, value - step, value / 2, (min + value) / 8, (max + value) / 2];
      const changes = others.filter(isAllowed).some((v) => {
        return JSON.stringify(planned(jobForKind(kind, { [key]: v }))) !== before;
      });
      expect([key, changes]).toEqual([key, true]);
    }
  });
});

test('tabs that were put in places of their own are counted as they stand', () => {
  const tabs = { tabs: 'rectangular', tabCount: 4, tabPlaces: '10 60' };
  const job = jobForKind(kindOf('contour')!, tabs);
  expect(plainSentence(sentenceOf(job, lastOf(job)))).toContain('held by 2 rectangular tabs');
  const spread = jobForKind(kindOf('contour')!, { ...tabs, tabPlaces: '' });
  expect(plainSentence(sentenceOf(spread, lastOf(spread)))).toContain('held by 4 rectangular tabs');
});

test('a stop before it is told with what for, and nothing where there is none', () => {
  const job = jobForKind(kindOf('drill')!, {});
  const told = (before?: Pause) => plainSentence(sentenceOf(job, { ...lastOf(job), before }));
  expect(told({ stop: 'planned', note: 'Turn the clamp' })).toMatch(
    /\. Before it the program stops: Turn the clamp\.$/,
  );
  expect(told({ stop: 'optional', note: '' })).toMatch(/\. Before it the program may stop\.$/);
  expect(told()).not.toMatch(/Before it/);
});

test('heights are told where they were asked for, by what they mean, and only there', () => {
  const job = withKind('drill');
  const told = (heights?: Heights, kind = 'drill') => {
    const own = kind === 'drill' ? job : withKind(kind);
    return plainSentence(sentenceOf(own, { ...operation(own), heights }));
  };
  expect(told()).not.toContain('It ');
  const { id } = pocket;
  expect(told({ start: { at: 'floor', feature: id, offset: 0 }, reach: 'tip' })).toContain(
    ' It begins at floor of Float pocket and reaches it by its tip.',
  );
  expect(told({ retract: { at: 'stock top', offset: 2 }, approach: 0.5 })).toContain(
    ' It goes aside at stock top + 2 mm and is fed from 0.5 mm above.',
  );
  expect(told({ start: { at: 'top', feature: 'gone', offset: -1 } })).toContain('top of something that is gone − 1 mm');
  // A depth is said once, and what would break through says nothing.
  const ends = told({ end: { at: 'floor', offset: 0.3 } }, 'pocket');
  expect(ends).toContain('down to its floor + 0.3 mm in layers');
  expect(ends).not.toContain('It ends');
  expect(told({ end: { at: 'underside', offset: -1 } })).toMatch(/It ends at underside − 1 mm/);
  expect(told({ end: { at: 'underside', offset: -1 } })).not.toContain('breaking through');
});

/** Words of a sentence as it is when its operation is opened for the first time: what is new stands under “more”. */
const MOST_WORDS: Record<string, number> = {
  face: 38,
  clear: 61,
  pocket: 57,
  slot: 40,
  contour: 46,
  drill: 20,
  'helical-bore': 44,
  counterbore: 34,
  countersink: 22,
  ream: 32,
  bore: 34,
  tap: 28,
  'thread-mill': 38,
  chamfer: 33,
  'round-edge': 31,
  engrave: 36,
  'cut-out': 42,
};

test.each(KINDS.map((k) => k.kind))('%s, opened for the first time, says no more than it ever did', (kind) => {
  const job = withKind(kind);
  const words = plainSentence(sentenceOf(job, operation(job))).split(/\s+/).length;
  expect(words).toBeLessThanOrEqual(MOST_WORDS[kind]);
});

test.each(['contour', 'pocket', 'clear', 'slot'])('%s that finishes alone says that it clears nothing', (kind) => {
  const job = withKind(kind);
  const alone = {
    ...operation(job),
    params: { ...operation(job).params, finish: true, finishAlone: true, finishStock: 0.3 },
  };
  const said = plainSentence(sentenceOf(job, alone));
  expect(said).toMatch(/, finish .*, where 0\.3 mm was left for it, climb, at \d/);
  expect(said).not.toMatch(/layers|biting|clear/);
  expect(plainSentence(sentenceOf(job, { ...alone, begins: [{ x: 0, y: 0 }] }))).toMatch(
    / Laps begin at a start point\.$/,
  );
});
