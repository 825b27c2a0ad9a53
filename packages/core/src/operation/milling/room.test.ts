import { Region, area, contains, difference } from '../../geometry/plane/clip';
import { TOOLS } from '../../shop/library';
import { tool } from '../../../testing/parts';
import { cornersLeft, roundAbout, tooNarrow, widest } from './room';
import type { PlanContext } from '../operation';

const box = (x0: number, y0: number, x1: number, y1: number): Region => [
  [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ],
];
const feature = { id: 'f2', name: 'Pocket' };
const context = { operation: { id: 'o1' }, tool: tool(4), rack: TOOLS } as unknown as PlanContext;

test('the widest circle lies in the larger of two areas, beside a hole as large as it can be', () => {
  const two = [...box(0, 0, 10, 30), ...box(40, 0, 60, 14)];
  expect(widest(two)).toMatchObject({ diameter: expect.closeTo(14, 1) as number });
  expect(widest(two).at.y).toBeCloseTo(7, 1);
  const ring = difference(box(0, 0, 40, 40), box(8, 8, 40, 40));
  const corner = widest(ring);
  expect(corner.diameter).toBeGreaterThan(8);
  expect(corner.diameter).toBeLessThan(8 * Math.SQRT2);
  expect(widest([])).toMatchObject({ diameter: 0 });
});

test('a tool that does not fit is told with its width, what it needs, and the largest that would do', () => {
  const found = tooNarrow(context, feature, box(0, 0, 9, 40), 0.25);
  expect(found.message).toMatch(/“Pocket” is 9 mm wide at its widest; .* needs 10\.5 mm/);
  const fits = TOOLS.find((t) => found.remedy.startsWith(`T${t.number},`))!;
  expect(fits.diameter).toBeLessThan(8.5);
  expect(found.place).toMatchObject({ operation: 'o1', feature: 'f2', tool: tool(4).id, field: 'toolId' });
  expect(found.place.at!.x).toBeCloseTo(4.5, 1);
});

test('where none in the rack does, it says how large one may be', () => {
  expect(tooNarrow({ ...context, rack: [] }, feature, box(0, 0, 9, 40), 0.25).remedy).toBe(
    'Choose a tool under 8.5 mm',
  );
});

test('corners that stay are told with their area and where; crumbs are not', () => {
  const wanted = box(0, 0, 20, 20);
  const reached = difference(wanted, [...box(0, 0, 2, 1), ...box(19, 19, 20, 20)]);
  const [found] = cornersLeft(context, feature, wanted, reached);
  expect(found.message).toMatch(/^3 mm² of “Pocket” stays/);
  expect(found.place.at!.x).toBeLessThanOrEqual(2);
  expect(cornersLeft(context, feature, wanted, difference(wanted, box(0, 0, 0.6, 0.6)))).toEqual([]);
});

test('what lies behind a thin wall is not beside a pocket, unless it is open and there is a way round', () => {
  const solid = difference(box(0, 0, 60, 40), box(1, 1, 59, 39));
  const closed = roundAbout(box(1, 1, 59, 39), 6, solid);
  expect(area(difference(closed, solid))).toBeCloseTo(58 * 38, 1);

  const open = difference(box(0, 0, 60, 40), box(1, 1, 61, 39));
  const round = roundAbout(box(1, 1, 60, 39), 6, open);
  expect(contains(round, { x: 65, y: 20 })).toBe(true);
  // Round the end of the wall, not along it.
  expect(contains(round, { x: 59, y: 43 })).toBe(true);
  expect(contains(round, { x: 30, y: 43 })).toBe(false);
});
