import { jobForKind } from '../../../testing/every-kind';
import { editOperation } from '../../document/edit';
import { Feeds } from '../../document/operation';
import { KINDS } from '../../operation/registry';
import { RAPID, TAGS } from '../../path/path';
import { readJob } from '../documents';
import { planFindings, planSetup } from '../pipeline';

const MILLING = KINDS.filter((k) => k.process === 'milling');

function planned(kind: (typeof KINDS)[number], feeds: Feeds | undefined) {
  const job = jobForKind(kind);
  const { operations } = job.setups[0];
  const asked = editOperation(job, operations[operations.length - 1].id, (o) => ({ ...o, feeds }));
  const plan = planSetup(asked, asked.setups[0]);
  return { path: plan.planned[plan.planned.length - 1].plan.path, plan, asked };
}

test.each(MILLING.map((k) => [k.kind, k] as const))(
  '%s: what is asked for apart is fed so, and nothing else',
  (_, kind) => {
    const feeds = { lead: 111, plunge: 22, last: 333 };
    const own = planned(kind, undefined).path;
    const { path } = planned(kind, feeds);
    const lowest = Math.min(...path.z);
    let apart = 0;
    for (let i = 1; i < path.count; i++) {
      const tag = TAGS[path.tag[i]];
      const isDown = path.x[i] === path.x[i - 1] && path.y[i] === path.y[i - 1] && path.z[i] < path.z[i - 1];
      const wanted =
        path.kind[i] === RAPID
          ? 0
          : tag === 'lead'
            ? 111
            : tag === 'entry' && isDown && path.kind[i] === 1
              ? 22
              : tag === 'cut' && path.z[i] < lowest + 1e-6
                ? 333
                : own.feed[i];
      expect(path.feed[i]).toBe(wanted);
      if (wanted !== own.feed[i]) apart++;
    }
    expect(apart).toBeGreaterThan(0);
    expect({ ...path, feed: 0 }).toEqual({ ...own, feed: 0 });
  },
);

test('a feed the machine has not is a finding at the value, and one that is none is refused by name', () => {
  const { plan, asked } = planned(
    KINDS.find((k) => k.kind === 'pocket')!,
    { lead: 150_000 },
  );
  expect(planFindings(plan)).toContainEqual(
    expect.objectContaining({ code: 'feed-range', place: expect.objectContaining({ field: 'feeds.lead' }) }),
  );
  const [{ id }] = asked.setups[0].operations;
  const bad = editOperation(asked, id, (o) => ({ ...o, feeds: { plunge: 0 } }));
  expect(readJob(JSON.parse(JSON.stringify(bad))).findings.map((f) => f.place.field)).toEqual([
    expect.stringContaining('feeds.plunge'),
  ]);
});
