import { toolOf, type ActiveTool } from '@/bench/tools';
import type { FittedView } from '@/core/derive';
import type { Job } from '@/core/job';
import { wordsForHint, type Hint } from '@/ui/hint-words';
import type { StepName } from './step';

/** One line that says what to do now: what the tool in hand waits for, or else its step. */
export function hintFor(step: StepName, tool: ActiveTool, fitted: FittedView | undefined, job: Job): string {
  if (!fitted) return wordsForHint({ code: 'no-picture' });
  if (fitted.view.lookOnly && step !== 'sources') return wordsForHint({ code: 'only-to-look' });
  const { belongsTo, hint } = toolOf(tool);
  const own = belongsTo === step ? hint?.(tool.state, { job, fitted }) : undefined;
  return wordsForHint(own ?? hintOfStep(step, fitted));
}

function hintOfStep(step: StepName, { view: { evidence }, fit }: FittedView): Hint {
  switch (step) {
    case 'sources':
      return { code: 'kind-of-picture' };
    case 'fit':
      if (!evidence.some(({ role }) => role === 'use')) return { code: fit.scaled ? 'scaled-by-others' : 'no-length' };
      if (!fit.scaled) return { code: 'no-size' };
      return { code: evidence.some(({ role }) => role === 'check') ? 'checked' : 'not-checked' };
    case 'arrange':
      return { code: 'arrange' };
    case 'trace':
      return { code: 'nothing' };
    case 'handover':
      return { code: 'read-back' };
  }
}
