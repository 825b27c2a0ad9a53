import { render } from '@testing-library/react-native';
import { ReactElement } from 'react';
import { PaperProvider } from 'react-native-paper';
import { Job, TOOLS, addOperation, newFeature, newJob } from '@tidypath/core';
import { lightTheme } from '../src/theme/theme';

/** Renders under the theme, as the app does. */
export const show = (element: ReactElement) => render(<PaperProvider theme={lightTheme}>{element}</PaperProvider>);

/** A plate with a pocket and a hole, and one operation of each kind. */
export function sampleJob(unit: 'mm' | 'inch' = 'mm'): Job {
  const outline = newFeature([], 'outline', 'Plate', { type: 'rectangle', width: 80, height: 50, radius: 0 });
  const pocket = newFeature([outline], 'pocket', 'Float pocket', { type: 'round', diameter: 30 }, { depth: 7 });
  const hole = newFeature([outline, pocket], 'hole', 'M5 hole', { type: 'round', diameter: 5 }, { through: true });
  let job: Job = { ...newJob('Sample', unit), part: { thickness: 10, features: [outline, pocket, hole] } };
  job = addOperation(job, 's1', 'face', [], TOOLS[0]);
  job = addOperation(job, 's1', 'pocket', [pocket.id], TOOLS[3]);
  job = addOperation(job, 's1', 'drill', [hole.id], TOOLS[14]);
  return addOperation(job, 's1', 'contour', [outline.id], TOOLS[3]);
}
