import { Redirect, useLocalSearchParams } from 'expo-router';

export default function JobIndex() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <Redirect href={`/job/${id}/cut`} />;
}
