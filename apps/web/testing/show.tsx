import { render } from '@testing-library/react-native';
import { ReactElement } from 'react';
import { PaperProvider } from 'react-native-paper';
import { Job, SHELF_NAMES, SHELVES, TOOLS, addOperation, newFeature, newJob } from '@tidypath/core';
import { SWRConfig, unstable_serialize } from 'swr';
import { KEYS } from '../src/api/keys';
import { lightTheme } from '../src/theme/paper';

/** The starting shop with nobody in it yet, as the server would give it. */
const SHOP = Object.fromEntries([
  [KEYS.people, { people: [], here: null }],
  [unstable_serialize(KEYS.handingOut), { needsApproval: false, address: '' }],
  ...SHELF_NAMES.flatMap((shelf) => [
    [
      unstable_serialize(KEYS.shelf(shelf)),
      SHELVES[shelf].start.map((item) => ({ version: 1, updatedAt: '2026-01-01T00:00:00Z', item })),
    ],
    [unstable_serialize(KEYS.unread(shelf)), []],
  ]),
]);

/** Renders under the theme, as the app does. */
export const show = (element: ReactElement) =>
  render(
    <SWRConfig value={{ provider: () => new Map(), fallback: SHOP, revalidateIfStale: false }}>
      <PaperProvider theme={lightTheme}>{element}</PaperProvider>
    </SWRConfig>,
  );

/** A plate with a pocket and a hole, and one operation of each kind. */
export function sampleJob(unit: 'mm' | 'inch' = 'mm'): Job {
  const outline = newFeature([], 'outline', 'Plate', { type: 'rectangle', width: 80, height: 50, radius: 0 });
  const pocket = newFeature([outline], 'pocket', 'Float pocket', { type: 'round', diameter: 30 }, { depth: 7 });
  const hole = newFeature([outline, pocket], 'hole', 'M5 hole', { type: 'round', diameter: 5 }, { through: true });
  let job: Job = {
    ...newJob('Sample', unit),
    part: { kind: 'plate', thickness: 10, features: [outline, pocket, hole] },
  };
  job = addOperation(job, 's1', 'face', [], TOOLS[0]);
  job = addOperation(job, 's1', 'pocket', [pocket.id], TOOLS[3]);
  job = addOperation(job, 's1', 'drill', [hole.id], TOOLS[14]);
  return addOperation(job, 's1', 'contour', [outline.id], TOOLS[3]);
}
