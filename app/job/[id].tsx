import { useLocalSearchParams } from 'expo-router';
import { lazy, Suspense } from 'react';
import { loadJobScreen } from '@/features/jobs/load-job-screen';
import { PlainPage } from '@/ui/plain-page';
import { Words } from '@/ui/text';

export { TroubleScreen as ErrorBoundary } from '@/features/jobs/trouble-screen';

/** The bench is a part of its own: the first screen is there without it. */
const JobScreen = lazy(loadJobScreen);

export default function JobRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <Suspense
      fallback={
        <PlainPage>
          <Words>Opening the job…</Words>
        </PlainPage>
      }>
      <JobScreen key={id} id={id} />
    </Suspense>
  );
}
