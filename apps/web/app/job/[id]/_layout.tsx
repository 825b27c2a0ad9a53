import { Slot, useLocalSearchParams } from 'expo-router';
import { JobFrame } from '../../../src/session/JobFrame';

export default function JobLayout() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <JobFrame id={String(id)}>
      <Slot />
    </JobFrame>
  );
}
