import type { CutMode, CutState } from '@/bench/tools';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { UnderButton } from './under-button';

const MODES = [
  ['away', 'Trim'],
  ['on', 'Extend'],
  ['split', 'Split'],
] as const;
const EDGES = [
  ['all', 'Whatever crosses'],
  ['chosen', 'What I choose'],
] as const;
const HINTS: Readonly<Record<CutMode, string>> = {
  away: 'Point at the stretch that should go. It goes as far as the next crossing on both sides, or to its end.',
  on: 'Point near an open end. It goes on along its own line, arc or curve to the first thing it meets.',
  split: 'Point at where an outline should come apart. A closed one opens there.',
};

function hintFor({ mode, choosing, within }: CutState): string {
  if (choosing) return 'Point at the outlines that cut. Point again to leave one out.';
  return within ? 'Several lie here. Point there again to cut the one that is shown.' : HINTS[mode];
}

/** What the cutting tool does where one points. */
export function CutPanel({ state }: { state: CutState }) {
  const { session } = useDesk();
  const set = (next: CutState) => session.setTool({ name: 'cut', state: next });
  return (
    <Card testID="cut-card">
      <Choice name="What to do" value={state.mode} options={MODES} onChange={(mode) => set({ mode })} />
      <Words quiet>{hintFor(state)}</Words>
      <UnderButton within={state.within} />
      {state.mode === 'split' ? null : (
        <Choice
          named
          name="Cut by"
          value={state.edges ? 'chosen' : 'all'}
          options={EDGES}
          onChange={(by) => set({ mode: state.mode, ...(by === 'chosen' ? { edges: [], choosing: true } : {}) })}
        />
      )}
      {state.edges && state.mode !== 'split' ? (
        <Button
          mode={state.choosing ? 'contained' : 'outlined'}
          compact
          disabled={state.choosing === true && state.edges.length === 0}
          onPress={() => set({ ...state, choosing: !state.choosing })}
          testID="cut-edges">
          {!state.choosing
            ? 'Choose others'
            : state.edges.length === 0
              ? 'Nothing chosen yet'
              : `Cut by ${state.edges.length === 1 ? 'this one' : `these ${state.edges.length}`}`}
        </Button>
      ) : null}
    </Card>
  );
}
