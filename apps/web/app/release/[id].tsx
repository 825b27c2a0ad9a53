import { useLocalSearchParams } from 'expo-router';
import { ReleasePage } from '../../src/features/release/ReleasePage';

export default function ReleaseRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ReleasePage key={id} id={String(id)} />;
}
