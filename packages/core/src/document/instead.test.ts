import { newFeature } from '../part/plate/new';
import { withInstead } from './edit';
import { Job } from './job';
import { newJob } from './new';
import { Operation } from './operation';

const feature = (id: string) => ({ ...newFeature([], 'hole', id, { type: 'round', diameter: 5 }, { x: 0, y: 0 }), id });
const operation = (id: string, targets: string[], leaves?: Operation['leaves']) =>
  ({ id, targets, leaves, params: {} }) as unknown as Operation;
const empty = newJob('Job', 'mm');
const job: Job = {
  ...empty,
  part: { kind: 'plate', thickness: 10, features: ['a', 'b', 'c'].map(feature) },
  setups: [
    {
      ...empty.setups[0],
      operations: [
        operation('o1', ['a', 'b']),
        operation('o2', ['b'], [{ feature: 'b', places: [2] }]),
        operation('o3', ['c']),
      ],
    },
  ],
};
const told = (next: Job) => next.setups[0].operations.map((o) => [o.targets, o.leaves]);

test('a pattern taken apart: what worked on it works on each, but for the places it left alone', () => {
  const next = withInstead(job, ['b'], ['b', 'd', 'e'].map(feature));
  expect(next.part.features.map((f) => f.id)).toEqual(['a', 'b', 'd', 'e', 'c']);
  expect(told(next)).toEqual([
    [['a', 'b', 'd', 'e'], undefined],
    [['b', 'e'], undefined],
    [['c'], undefined],
  ]);
  expect(next.setups[0].operations[2]).toBe(job.setups[0].operations[2]);
});

test('two as one: what worked on either works on that, once', () => {
  const next = withInstead(job, ['a', 'b'], [feature('a')]);
  expect(next.part.features.map((f) => f.id)).toEqual(['a', 'c']);
  expect(told(next).map(([targets]) => targets)).toEqual([['a'], ['a'], ['c']]);
});
