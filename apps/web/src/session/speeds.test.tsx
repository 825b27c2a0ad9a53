import { fireEvent, screen } from '@testing-library/react-native';
import { MATERIALS, departingIn } from '@tidypath/core';
import { sampleJob, show } from '../../testing/show';
import { DepartingSpeeds } from './SpeedsSheet';

const steel = { ...sampleJob(), material: MATERIALS.find((m) => m.id === 'steel-alloy')! };

test('speeds that are not as suggested are shown before and after; one is kept, the others taken', () => {
  let job = steel;
  const edit = (next: (j: typeof job) => typeof job) => void (job = next(job));
  show(<DepartingSpeeds job={job} setup={job.setups[0]} edit={edit} />);
  const all = departingIn(steel, steel.setups[0]);
  fireEvent.press(screen.getByTestId('departing-speeds'));
  expect(screen.getByTestId('speeds-o2')).toHaveTextContent(/now .* rpm, .* mm.min\s*then .* rpm/);
  fireEvent.press(screen.getByLabelText('Clear float pocket'));
  fireEvent.press(screen.getByText(`Take ${all.length - 1} of ${all.length}`));
  expect(departingIn(job, job.setups[0]).map((d) => d.operation.id)).toEqual(['o2']);
  expect(screen.queryByTestId('take-speeds')).toBeNull();
});

test('nothing is offered where all is as suggested', () => {
  const job = sampleJob();
  show(<DepartingSpeeds job={job} setup={job.setups[0]} edit={() => undefined} />);
  expect(screen.queryByTestId('departing-speeds')).toBeNull();
});
