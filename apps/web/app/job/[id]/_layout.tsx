import { Slot, useLocalSearchParams, usePathname } from 'expo-router';
import { JobFrame } from '../../../src/session/JobFrame';

export default function JobLayout() {
  const { id } = useLocalSearchParams<{ id: string }>();
  // From one job straight to another this layout stays: the address alone tells then which it is.
  const [, shown] = /^\/job\/([^/]+)/.exec(usePathname()) ?? [];
  return (
    <JobFrame id={shown ?? String(id)}>
      <Slot />
    </JobFrame>
  );
}
