import { Harness, byTest, tapText, until } from '../e2e/harness';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.stop());

test.each([
  ['/', '/api/jobs', [{ id: 'a', name: 'x', version: 1, updatedAt: 'no date', thumbnail: null }]],
  ['/tools', '/api/shop/tools', [{ version: 1, updatedAt: '', item: null }]],
  ['/shop', '/api/shop/machines', [{ version: 1, updatedAt: '', item: { id: 'm' } }]],
  ['/job/00000000-0000-4000-8000-000000000000/cut', '/api/jobs/', { version: 1, job: { name: 'x' } }],
])('an error page in place of a blank one, for every route: %s', async (route, path, answer) => {
  const page = await harness.page();
  let isBroken = true;
  await page.setRequestInterception(true);
  page.on('request', (request) => {
    const { pathname } = new URL(request.url());
    const breaks = isBroken && (pathname === path || (path.endsWith('/') && pathname.startsWith(path)));
    if (breaks) void request.respond({ status: 200, contentType: 'application/json', body: JSON.stringify(answer) });
    else void request.continue();
  });
  await page.goto(harness.base + route, { waitUntil: 'domcontentloaded' });
  await page.waitForSelector(byTest('broken'));
  const words = await page.evaluate(() => document.body.innerText);
  expect(words).toMatch(/could not be shown/);
  expect(words).toMatch(/Your work is kept/);
  expect(words).toMatch(/Copy the details/);
  isBroken = false;
  await tapText(page, 'To the jobs');
  await until('the jobs', () => page.evaluate(() => /Vane hub plate/.test(document.body.innerText)));
  await page.close();
});
