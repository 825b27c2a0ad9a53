/** Proves the demo shop's first release: `npx tsx demo/release.ts`. To be made anew whenever its job, or what computes it, changes. */
import 'reflect-metadata';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Bench, Proven, openJob, proven } from '@tidypath/core';

/** Of which job, and which of its setups. */
export const RELEASED = { job: 'vane-hub-plate', setup: 's1' };

export function demoRelease(): Proven {
  const { job } = openJob(new Uint8Array(readFileSync(join(__dirname, `jobs/${RELEASED.job}.json`))));
  const work = proven(
    new Bench(),
    job!,
    job!.setups.find((s) => s.id === RELEASED.setup)!,
  );
  for (;;) {
    const { done, value } = work.next();
    if (done) return value!;
  }
}

export const DEMO_RELEASE = join(__dirname, 'releases/vane-hub-plate-s1.json');

/** As it is kept in a file: numbers as they are, nothing a reader needs in it. */
export const releaseText = (made: Proven): string => `${JSON.stringify({ ...RELEASED, ...made }, null, 1)}\n`;

if (require.main === module) writeFileSync(DEMO_RELEASE, releaseText(demoRelease()));
