export { JobsScreen as default } from '@/features/jobs/jobs-screen';
