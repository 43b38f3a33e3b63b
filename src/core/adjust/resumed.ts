import { linearize } from './linearize';
import type { NormalEquations } from './normal';
import { layOut, type Problem, type Values } from './problem';
import { weighRows } from './row-weights';
import type { Solution } from './solve';

/** What of a solution says how what was observed hangs together with the unknowns. */
export interface AtRest extends Pick<Solution, 'layout' | 'values' | 'linearization'> {
  readonly equations: Pick<NormalEquations, 'weights'>;
}

/** A problem at the values at which it was solved somewhere else, without solving it again. */
export function resumed(problem: Problem, values: Values): AtRest {
  const layout = layOut(problem.blocks);
  const linearization = linearize(problem, layout, values);
  return { layout, values, linearization, equations: { weights: weighRows(linearization, layout) } };
}
