import { jobWith, withOperation, withStock } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { ownText, proveProgram } from '../prove';

const shape = { type: 'rectangle', width: 30, height: 20, radius: 6 } as const;
const job = withOperation(withStock(jobWith(shape, { depth: 3 }, 10), { top: 0 }), 'pocket', ['f2'], tool(4), {
  layer: 3,
});
const [setup] = job.setups;
const own = ownText(job, setup);
const told = (text: string) =>
  proveProgram(job, setup, text, 0.5, { own }).findings.filter((f) => f.code.endsWith('-differs'));
const { rpm, feed } = setup.operations[0].speeds;

test('the posted program differs in nothing from itself, however it is numbered', () => {
  expect(own).toContain(`S${rpm}`);
  expect(told(own)).toEqual([]);
  expect(told(own.replace(/^N\d+ /gm, ''))).toEqual([]);
});

test.each([
  ['speed a tenth', /S\d+/, `S${Math.round(rpm / 10)}`, 'speed-differs', { rpm: Math.round(rpm / 10), own: rpm }],
  ['feed a tenth', `F${feed}`, `F${feed / 10}`, 'feed-differs', { feed: feed / 10 }],
  ['feed ten times', `F${feed}`, `F${feed * 10}`, 'feed-differs', { feed: feed * 10, own: feed }],
  ['coolant left out', /^.*M8.*$/m, '', 'coolant-differs', { word: '', own: 'M8' }],
  ['another coolant', 'M8', 'M7', 'coolant-differs', { word: 'M7', own: 'M8' }],
])('an edited program with its %s is told at its line', (_, was, is, code, data) => {
  const text = own.replace(was, is);
  expect(text).not.toBe(own);
  const found = told(text);
  expect(found.map((f) => f.code)).toEqual([code]);
  expect(found[0].data).toMatchObject(data);
  expect(found[0].place.line).toBeGreaterThan(1);
});
