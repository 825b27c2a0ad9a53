/** What the demo shop ships is what is made of its jobs today. */
import 'reflect-metadata';
import { readFileSync } from 'node:fs';
import { DEMO_RELEASE, demoRelease, releaseText } from '../../demo/release';

test('its release is proved as its job stands: make it anew with `npx tsx demo/release.ts` where it is not', () => {
  expect(readFileSync(DEMO_RELEASE, 'utf8') === releaseText(demoRelease())).toBe(true);
});
