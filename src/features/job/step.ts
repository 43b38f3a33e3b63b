import type { Job } from '@/core/job';
import type { IconName } from '@/ui/icon';

/** The steps of the job, in the order they are done. */
export type StepName = 'sources' | 'fit' | 'arrange' | 'trace' | 'handover';

const STEPS: readonly { readonly name: StepName; readonly label: string; readonly icon: IconName }[] = [
  { name: 'sources', label: 'Sources', icon: 'sources' },
  { name: 'fit', label: 'Fit', icon: 'fit' },
  { name: 'arrange', label: 'Arrange', icon: 'arrange' },
  { name: 'trace', label: 'Trace', icon: 'trace' },
  { name: 'handover', label: 'Hand over', icon: 'handover' },
];

/** The steps that a job has: Arrange comes with its second view. */
export const stepsOf = ({ views }: Pick<Job, 'views'>) =>
  STEPS.filter(({ name }) => name !== 'arrange' || views.filter(({ lookOnly }) => !lookOnly).length > 1);
