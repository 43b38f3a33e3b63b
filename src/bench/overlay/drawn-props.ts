import type { Derived, FittedView } from '@/core/derive';
import type { Job } from '@/core/job';
import type { Palette } from '@/ui/palette';
import type { Viewport } from '../viewport';

/** What marks on a view's drawing are drawn from. */
export interface DrawnProps {
  readonly job: Job;
  readonly derived: Derived;
  readonly fitted: FittedView;
  readonly viewport: Viewport;
  readonly palette: Palette;
}
