import { useLocalSearchParams } from 'expo-router';
import { ToolPage } from '../../src/features/tools/ToolPage';

export default function ToolRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ToolPage key={id} id={String(id)} />;
}
