import { useLocalSearchParams } from 'expo-router';
import { ByRootPage } from '../../src/features/release/ByRootPage';

export default function ByRootRoute() {
  const { root } = useLocalSearchParams<{ root: string }>();
  return <ByRootPage root={String(root)} />;
}
