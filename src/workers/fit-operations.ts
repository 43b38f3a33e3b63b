import type { Scene, TurnedRound } from '@/core/arrange';
import type { Told, ToldScene } from '@/core/derive';
import type { Sheet, View } from '@/core/job';

/** A view whose evidence is to be judged to the end; `owner` is the view whose evidence it is. */
export interface ToJudge {
  readonly view: View;
  readonly sheet: Sheet;
  readonly owner: View;
}

/** What takes long: many sizes that contradict each other, many views at once. */
export type FitOperations = {
  readonly judge: { readonly input: ToJudge; readonly output: Told };
  readonly together: { readonly input: Scene; readonly output: ToldScene };
  readonly turnedRound: { readonly input: Scene; readonly output: readonly TurnedRound[] };
};
