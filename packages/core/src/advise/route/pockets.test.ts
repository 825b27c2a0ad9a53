import { jobWith } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { newFeature } from '../../part/plate/new';
import { proposeRoute } from './propose';

test('a groove as wide as the cutter is none it clears: told, and left', () => {
  const base = jobWith({ type: 'round', diameter: 46 }, { x: 40, y: 25, depth: 4 }, 12);
  const post = newFeature(
    base.part.features,
    'boss',
    'Post',
    { type: 'round', diameter: 40 },
    { x: 40, y: 25, depth: 0 },
  );
  const groove = { ...base, part: { ...base.part, features: [...base.part.features, post] } };
  const three = { ...tool(10), diameter: 3 };
  const { job, missing } = proposeRoute(groove, 's1', [three]);
  expect(job.setups[0].operations.filter((o) => o.targets.includes('f2'))).toEqual([]);
  expect(missing.map((m) => m.why).join()).toMatch(/no cutter of the rack fits it/);
});
