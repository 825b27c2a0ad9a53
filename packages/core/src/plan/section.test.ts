import { jobWith, withOperation, withStock } from '../../testing/jobs';
import { tool } from '../../testing/parts';
import { editOperation } from '../document/edit';
import { Heights } from '../document/heights';
import { heightPicture } from './section';

/** A pocket 40 wide and 4 deep in the middle of a plate of 80 by 50 by 10; 2 mm of stock above, 3 below. */
function pictureOf(heights?: Heights) {
  const drawn = jobWith({ type: 'rectangle', width: 40, height: 20, radius: 4 }, { depth: 4 });
  const job = withOperation(withStock(drawn, { top: 2, bottom: 3 }), 'pocket', ['f2'], tool(7));
  const [{ id }] = job.setups[0].operations;
  const asked = editOperation(job, id, (o) => ({ ...o, heights }));
  return heightPicture(asked, asked.setups[0], asked.setups[0].operations[0]);
}

test('a section shows the part as it is wanted, and the stock around it', () => {
  const { surface, from, step, stock } = pictureOf();
  const at = (x: number) => surface[Math.floor((x - from) / step)];
  expect([at(-1), at(5), at(19), at(21), at(40), at(59), at(61), at(79), at(81)]).toEqual([
    ...[undefined, 0, 0, -4, -4, -4, 0, 0, undefined],
  ]);
  expect(stock).toMatchObject({ top: 2, bottom: -13 });
});

test('one level at each height, from above, its own where it is as high as another', () => {
  expect(pictureOf().levels.map(({ height, z }) => [height.at, z])).toEqual([
    ['stock top', 2],
    ['part top', 0],
    ['floor', -4],
    ['underside', -10],
  ]);
});

test('where it begins and ends is shown as it is asked', () => {
  expect(pictureOf()).toMatchObject({ start: 2, end: -4 });
  expect(pictureOf({ start: { at: 'part top', offset: 1 }, end: { at: 'floor', offset: 0.5 } })).toMatchObject({
    start: 1,
    end: -3.5,
  });
});
