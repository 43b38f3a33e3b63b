import type { Told } from '@/core/derive';
import type { Sheet, View } from '@/core/job';

/** A view whose evidence is to be judged to the end; `owner` is the view whose evidence it is. */
export interface ToJudge {
  readonly view: View;
  readonly sheet: Sheet;
  readonly owner: View;
}

/** What takes long where many sizes contradict each other. */
export type FitOperations = {
  readonly judge: { readonly input: ToJudge; readonly output: Told };
};
