import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Job } from '../document/job';
import { copy } from '../document/new';
import { formatFeed } from '../quantity/units';
import { changesOf } from './changes';
import { parseJob } from './documents';

const job = parseJob(readFileSync(join(__dirname, '../../../../demo/jobs/vane-hub-plate.json'), 'utf8')).job!;

function changed(change: (job: Job) => void): string[] {
  const after = copy(job);
  change(after);
  return changesOf(job, after);
}
const [first] = job.setups;
const pocket = first.operations.find((o) => o.kind === 'clear')!;
const inFirst = (j: Job) => j.setups[0].operations.find((o) => o.id === pocket.id)!;
const at = `“${first.name}”: “${pocket.name}”`;

test('the same job differs in nothing', () => expect(changed(() => undefined)).toEqual([]));

test.each<[string, (job: Job) => void, string[]]>([
  ['a name', (j) => (j.name = 'Hub'), [`name Hub instead of ${job.name}`]],
  ['tags', (j) => (j.tags = ['aluminium', 'vane']), ['tags aluminium, vane instead of nothing']],
  [
    'a thickness',
    (j) => (j.part.thickness += 1),
    [`part: thickness ${job.part.thickness + 1} mm instead of ${job.part.thickness} mm`],
  ],
  [
    'a value of an operation, by its name in the form and in its unit',
    (j) => (inFirst(j).params.stepover = 1.25),
    [`${at}: bite 1.25 mm instead of ${String(pocket.params.stepover)} mm`],
  ],
  [
    'a feed',
    (j) => (inFirst(j).speeds.feed = 777),
    [`${at}: speeds: feed 777 mm/min instead of ${formatFeed(pocket.speeds.feed, 'mm')}`],
  ],
  [
    'another tool, by its name',
    (j) => (inFirst(j).toolId = job.tools[0].id),
    [`${at}: tool “${job.tools[0].name}” instead of “${job.tools.find((t) => t.id === pocket.toolId)!.name}”`],
  ],
  [
    'an operation that went',
    (j) => (j.setups[0].operations = j.setups[0].operations.filter((o) => o.id !== pocket.id)),
    [`“${first.name}”: “${pocket.name}” taken out`],
  ],
  [
    'where it ends, by what it means',
    (j) => (inFirst(j).heights = { end: { at: 'floor', feature: j.part.features[0].id, offset: 0.3 } }),
    [`${at}: heights end at floor, feature “${job.part.features[0].name}”, offset 0.3 mm instead of nothing`],
  ],
  ['a feed of its own', (j) => (inFirst(j).feeds = { lead: 400 }), [`${at}: feeds lead 400 mm/min instead of nothing`]],
  [
    'what holds, by the name of the value and its unit',
    (j) => Object.assign(j.setups[0].holding![0].params, { grip: 5, force: 12 }),
    [`“${first.name}”: “Vise”: grips 5 mm instead of 4 mm`, `“${first.name}”: “Vise”: force 12 kN instead of 20 kN`],
  ],
  [
    'parts from one blank',
    (j) => (j.setups[0].copies = { columns: 2, rows: 1, dx: 140, dy: 90, order: 'by tool' }),
    [`“${first.name}”: copies columns 2, rows 1, dx 140 mm, dy 90 mm, order by tool instead of nothing`],
  ],
  [
    'a stop',
    (j) => (inFirst(j).before = { stop: 'planned', note: 'Turn the clamps', minutes: 2 }),
    [`${at}: before stop planned, note Turn the clamps, minutes 2 min instead of nothing`],
  ],
  [
    'what is kept away from',
    (j) => (inFirst(j).keepAway = [{ feature: j.part.features[0].id, by: 2 }]),
    [`${at}: keep away feature “${job.part.features[0].name}”, by 2 mm instead of nothing`],
  ],
  ['another order', (j) => j.setups[0].operations.reverse(), [`“${first.name}”: operations in another order`]],
  [
    'another material, by its name alone',
    (j) => (j.material = { ...j.material, id: 'other', name: 'Brass' }),
    [`material “Brass” instead of “${job.material.name}”`],
  ],
])('%s is told', (_, change, told) => expect(changed(change)).toEqual(told));

test('in the unit of the job', () =>
  expect(changed((j) => Object.assign(j, { unit: 'inch' }) && (j.part.thickness = 12.7))).toContain(
    `part: thickness 0.5 in instead of ${+(job.part.thickness / 25.4).toFixed(4)} in`,
  ));
