import { jobWith, prove, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { Job } from '../../document/job';
import { newFeature } from '../../part/plate/new';
import { Path, RAPID, TAGS } from '../../path/path';
import { signedArea } from '../../geometry/plane/chain';
import { planSetup } from '../pipeline';

type Params = Record<string, unknown>;

const flush = { left: 0, right: 0, front: 0, back: 0, top: 0 };
/** Two pockets beside each other, 6 deep. */
function pockets(kind: 'pocket' | 'clear', params: Params): Job {
  const box = { type: 'rectangle' as const, width: 20, height: 24, radius: 6 };
  const job = withStock(jobWith(box, { depth: 6, x: 20 }), flush);
  const other = newFeature(job.part.features, 'pocket', 'Other', box, { depth: 6, x: 60, y: 25 });
  const drawn = { ...job, part: { ...job.part, features: [...job.part.features, other] } };
  return withOperation(drawn, kind, ['f2', other.id], tool(7), { layer: 2, ...params });
}
const pathOf = (job: Job): Path => planSetup(job, job.setups[0]).planned[0].plan.path;
const cuts = ({ kind, tag, count }: Path) =>
  Array.from({ length: count }, (_, i) => i).filter((i) => kind[i] !== RAPID && TAGS[tag[i]] === 'cut');
/** The pocket and the depth of each stretch of cutting, in order: "left -2". */
function visits(path: Path): string[] {
  const said = cuts(path).map((i) => `${path.x[i] < 40 ? 'left' : 'right'} ${path.z[i].toFixed(1)}`);
  return said.filter((s, i) => s !== said[i - 1]);
}

describe.each(['pocket', 'clear'] as const)('%s', (kind) => {
  test('feature by feature, or all of them layer by layer; the piece is the same', () => {
    const own = pockets(kind, { finish: false });
    const layered = pockets(kind, { finish: false, order: 'by layer' });
    const [left, right] = ['left', 'right'].map((side) => [-2, -4, -6].map((z) => `${side} ${z.toFixed(1)}`));
    const [first, then] = visits(pathOf(own))[0] === left[0] ? [left, right] : [right, left];
    expect(visits(pathOf(own))).toEqual([...first, ...then]);
    expect(visits(pathOf(layered))).toEqual(first.flatMap((s, i) => [s, then[i]]));
    expect(prove(layered, 0.25).removed).toBeCloseTo(prove(own, 0.25).removed, 1);
  });

  test('the last layer is as thick as it is asked to be, the others share the rest', () => {
    const levels = (params: Params) => [
      ...new Set(visits(pathOf(pockets(kind, { finish: false, ...params }))).map((v) => v.split(' ')[1])),
    ];
    expect(levels({ lastLayer: 0.5 })).toEqual(['-1.8', '-3.7', '-5.5', '-6.0']);
    expect(levels({ lastLayer: 0 })).toEqual(levels({}));
  });

  test('the finish climbs where roughing runs conventionally', () => {
    const turns = (params: Params) => {
      const path = pathOf(pockets(kind, { direction: 'conventional', layer: 6, ...params }));
      const at = cuts(path).filter((i) => path.x[i] < 40);
      return Math.sign(
        signedArea({ closed: true, vertices: at.slice(-12).map((i) => ({ x: path.x[i], y: path.y[i], bulge: 0 })) }),
      );
    };
    expect(turns({ finishDirection: 'climb' })).toBe(-turns({}));
    expect(turns({ finishDirection: 'as roughed' })).toBe(turns({}));
    expect(turns({ finishDirection: 'conventional' })).toBe(turns({}));
  });
});

test('region by region each piece of a floor is taken to its bottom first', () => {
  // A dumb-bell too narrow in its middle: two pieces of one floor.
  const job = withStock(jobWith({ type: 'rectangle', width: 70, height: 30, radius: 4 }, { depth: 4 }), flush);
  const wall = newFeature(
    job.part.features,
    'boss',
    'Wall',
    { type: 'rectangle', width: 6, height: 60, radius: 0 },
    { x: 40, y: 25 },
  );
  const drawn = { ...job, part: { ...job.part, features: [...job.part.features, wall] } };
  const of = (params: Params) =>
    visits(pathOf(withOperation(drawn, 'pocket', ['f2'], tool(7), { layer: 2, finish: false, ...params })));
  expect(of({})).toHaveLength(4);
  expect(of({ order: 'by region' }).map((v) => v.split(' ')[1])).toEqual(['-2.0', '-4.0', '-2.0', '-4.0']);
  expect(of({}).map((v) => v.split(' ')[1])).toEqual(['-2.0', '-2.0', '-4.0', '-4.0']);
});

test('a contour’s finish climbs where it is roughed conventionally', () => {
  const turns = (params: Params) => {
    const path = pathOf(
      withOperation(withStock(jobWith(undefined), { top: 0 }), 'contour', ['f1'], tool(4), {
        direction: 'conventional',
        ...params,
      }),
    );
    const last = cuts(path).slice(-5);
    return Math.sign(
      signedArea({ closed: true, vertices: last.map((i) => ({ x: path.x[i], y: path.y[i], bulge: 0 })) }),
    );
  };
  expect(turns({ finishDirection: 'climb' })).toBe(-turns({}));
  const job = withOperation(jobWith(undefined), 'contour', ['f1'], tool(4), {
    direction: 'conventional',
    finishDirection: 'climb',
  });
  expect(prove(job, 0.25).codes).toEqual(
    prove(withOperation(jobWith(undefined), 'contour', ['f1'], tool(4)), 0.25).codes,
  );
});

describe('facing', () => {
  const faced = (params: Params) =>
    pathOf(withOperation(jobWith(undefined), 'face', [], tool(1), { stepover: 20, ...params }));
  const first = (path: Path) => {
    const [i] = cuts(path);
    return {
      dx: Math.sign(Math.round(path.x[i] - path.x[i - 1])),
      dy: Math.sign(Math.round(path.y[i] - path.y[i - 1])),
      x: path.x[i],
      y: path.y[i],
    };
  };

  test('runs along the longer side, or as it is asked', () => {
    expect(first(faced({}))).toMatchObject({ dx: -1, dy: 0 });
    expect(first(faced({ along: 'X' }))).toEqual(first(faced({})));
    expect(first(faced({ along: 'Y' }))).toMatchObject({ dx: 0, dy: 1 });
  });

  test('begins at the side it is asked to, and climbs from either', () => {
    const [front, back] = [first(faced({})), first(faced({ side: 'back or right' }))];
    expect(back).toMatchObject({ dx: 1, dy: 0 });
    expect(front.y).toBeLessThan(back.y);
    expect(first(faced({ along: 'Y', side: 'back or right' }))).toMatchObject({ dx: 0, dy: -1 });
    const proved = (params: Params) => prove(withOperation(jobWith(undefined), 'face', [], tool(1), params), 0.25);
    expect(proved({ side: 'back or right', along: 'Y' }).removed).toBeCloseTo(proved({}).removed, 1);
  });
});
