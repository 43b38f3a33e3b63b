import { useLocalSearchParams } from 'expo-router';
import { JobScreen } from '@/features/job/job-screen';

export { TroubleScreen as ErrorBoundary } from '@/features/jobs/trouble-screen';

export default function JobRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <JobScreen key={id} id={id} />;
}
