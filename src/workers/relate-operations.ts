import type { Proposed, ToldJob } from '@/core/derive';
import type { Relation, Verdict } from '@/core/relate';

/** What takes long where much is said of many outlines. */
export type RelateOperations = {
  /** What may be meant to be true on a plane, or of one outline of it. */
  readonly propose: {
    readonly input: { readonly told: ToldJob; readonly plane: string; readonly only?: string | undefined };
    readonly output: Proposed;
  };
  /** What of some relations can be said together. */
  readonly take: {
    readonly input: { readonly told: ToldJob; readonly plane: string; readonly wanted: readonly Relation[] };
    readonly output: readonly Relation[];
  };
  readonly judgeSaid: {
    readonly input: { readonly told: ToldJob; readonly relation: Relation };
    readonly output: Verdict;
  };
};
