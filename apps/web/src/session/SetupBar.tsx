import { Choices } from '../ui/Choices';
import { useJob } from './JobContext';

/** Which setup is looked at, where there are several. */
export function SetupBar() {
  const { job, setup, chooseSetup } = useJob();
  if (job.setups.length < 2) return null;
  return (
    <Choices
      label="Setup"
      value={setup.id}
      options={job.setups.map((s) => ({ value: s.id, label: s.name }))}
      onChange={chooseSetup}
    />
  );
}
