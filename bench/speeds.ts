/** Suggested feeds of deep, narrow cuts against what careful shops run, and on lighter machines with the limit that governs. */
import { MACHINES, suggest } from '@tidypath/core';
import { abilities } from '../packages/core/src/machine/abilities';
import { AIMS } from '../packages/core/testing/aims';
import type { Row } from './kernel';

const MID_SIZE = 'fulmar';

export const speedRows = (): Row[] =>
  AIMS.flatMap(({ name, least, most, on }) =>
    MACHINES.filter((machine) => abilities(machine).processes.includes('milling')).map((machine): Row => {
      const { feed, rpm, limit } = suggest(on(machine));
      const aimed = machine.id === MID_SIZE;
      return {
        what: `${name}, ${machine.name}`,
        figure: `${feed} mm/min at ${rpm} rpm, by ${limit}`,
        bar: aimed ? `${least} to ${most} mm/min` : '',
        met: aimed ? feed >= least && feed <= most : undefined,
      };
    }),
  );
