import type { RelateState } from '@/bench/tools';
import { useFitted, useJob } from '@/bench/use-session';
import { AskewCard } from './askew-card';
import { ChosenCard } from './chosen-card';
import { FreeCard } from './free-card';
import { HeldCard } from './held-card';
import { ProposalsCard } from './proposals-card';

/** What is true of the outlines of a view: said of what is chosen, proposed, and held. */
export function RelatePanel({ state }: { state: RelateState }) {
  const fitted = useFitted();
  const job = useJob((whole) => whole.job);
  const derived = useJob((whole) => whole.derived);
  if (!fitted) return null;
  const relating = { job, derived, fitted };
  return (
    <>
      <ChosenCard
        key={state.on.map(({ outline, node, segment }) => `${outline}/${node}/${segment}`).join()}
        relating={relating}
        chosen={state.on}
        within={state.within}
        free={state.free}
      />
      <ProposalsCard relating={relating} />
      <AskewCard relating={relating} />
      <FreeCard relating={relating} state={state} />
      <HeldCard relating={relating} />
    </>
  );
}
