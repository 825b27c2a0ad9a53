import {
  Job,
  KINDS,
  TOOLS,
  addOperation,
  newFeature,
  newJob,
  parametersOf,
  kindOf,
  editOperation,
} from '@tidypath/core';
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
const base: Job = { ...newJob('J', 'mm'), part: { thickness: 10, features: [outline, pocket, hole] } };
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
