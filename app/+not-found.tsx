export { NowhereScreen as default } from '@/features/jobs/nowhere-screen';
