import {
  Harness,
  bodyHas,
  PHONE,
  WIDE,
  byLabel,
  byTest,
  fill,
  tap,
  tapText,
  textOf,
  until,
  proved,
  routeNames,
} from './harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

test('a route is proposed with its reasons, taken, proved, and undone in one step', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/cut`);
  await proved(page);
  const before = await routeNames(page);
  expect(await textOf(page, byTest('route-summary'))).toMatch(
    /^6 operations · 4 tools · \d+ tool changes · \d+:\d\d in all$/,
  );
  await tap(page, byTest('propose-route'));
  const sheet = await textOf(page, byTest('sheet'));
  expect(sheet).toMatch(/1 Face the topT1 .*every depth is measured from it/);
  expect(sheet).toMatch(/Contour plate.*Last, so that the part is held/);
  await tap(page, byTest('take-route'));
  await until('the new route', async () => (await routeNames(page)).length === 7);
  await proved(page);
  await tap(page, byLabel('Undo'));
  await until('the old route', async () => JSON.stringify(await routeNames(page)) === JSON.stringify(before));
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('another material shows the speeds before and after: taken, they are those of the new one', async () => {
  const page = await harness.page(PHONE);
  await harness.open(page, `/job/${await harness.jobId('Float-pulley bracket')}/hold`);
  await tap(page, '[aria-label="Material"] [aria-checked=true]');
  await tapText(page, 'Alloy steel');
  expect(await textOf(page, byTest('sheet'))).toMatch(/now [\d\u202f]+ rpm, .*\sthen [\d\u202f]+ rpm/s);
  await tap(page, byTest('take-speeds'));
  await tap(page, byTest('stage-cut'));
  await until('the route', async () => (await routeNames(page)).length > 0);
  expect(await page.$(byTest('departing-speeds'))).toBeNull();
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('a label is written on the part, engraved, and its repeats are told in the sentence', async () => {
  const page = await harness.page(PHONE);
  await harness.open(page, `/job/${await harness.jobId('Vane hub plate')}/part`);
  await tapText(page, 'Add a shape');
  await tap(page, byLabel('Add line to engrave, text'));
  await fill(page, byLabel('Text'), 'N 4');
  await until('the words', () => bodyHas(page, /“N 4”/));
  await tapText(page, 'Done');
  await tap(page, byTest('stage-cut'));
  await tapText(page, 'Add an operation');
  await tap(page, byTest('add-engrave'));
  await until('the operation', async () => (await routeNames(page)).length === 10);
  await until('the sentence', () => bodyHas(page, /engrave along/));
  await tapText(page, 'More');
  await tap(page, byTest('more-repeat'));
  await tapText(page, 'left and right');
  await until('the copy', () => bodyHas(page, /1 copy beside what is drawn/));
  await tap(page, byLabel('Close'));
  await until('the repeat in the sentence', () => bodyHas(page, /once and mirrored left and right/));
  expect(harness.problems).toEqual([]);
  await page.close();
});

test('side and direction are seen and flipped before anything is computed', async () => {
  const page = await harness.page(WIDE);
  await harness.open(page, `/job/${await harness.jobId('Lens cell ring')}/cut`);
  await proved(page);
  await tap(page, byLabel('8 Contour ring'));
  await tap(page, byTest('value-param.side'));
  await page.waitForSelector(byTest('contour-preview'));
  await tap(page, byTest('flip-side'));
  await until('the other side', async () => /inside/.test(await textOf(page, byTest('value-param.side'))));
  await tap(page, byTest('flip-side'));
  await tap(page, byTest('flip-direction'));
  await until('the other direction', async () =>
    /conventional/.test(await textOf(page, byTest('value-param.direction'))),
  );
  expect(harness.problems).toEqual([]);
  await page.close();
});
