import type { IconName } from '@/ui/icon';

/** The steps of the job, in the order they are done. */
export type StepName = 'sources' | 'fit' | 'trace' | 'handover';

export const STEPS: readonly { readonly name: StepName; readonly label: string; readonly icon: IconName }[] = [
  { name: 'sources', label: 'Sources', icon: 'sources' },
  { name: 'fit', label: 'Fit', icon: 'fit' },
  { name: 'trace', label: 'Trace', icon: 'trace' },
  { name: 'handover', label: 'Hand over', icon: 'handover' },
];
