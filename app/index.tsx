export { JobsScreen as default } from '@/features/jobs/jobs-screen';
export { TroubleScreen as ErrorBoundary } from '@/features/jobs/trouble-screen';
