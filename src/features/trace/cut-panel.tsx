import type { CutMode, CutState } from '@/bench/tools';
import { useDesk } from '@/bench/use-session';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';

const MODES = [['away', 'Trim'], ['on', 'Extend'], ['split', 'Split']] as const;
const HINTS: Readonly<Record<CutMode, string>> = {
  away: 'Point at the stretch that should go. It goes as far as the next crossing on both sides, or to its end.',
  on: 'Point near an open end. It goes on along its own line, arc or curve to the first thing it meets.',
  split: 'Point at where an outline should come apart. A closed one opens there.',
};

/** What the cutting tool does where one points. */
export function CutPanel({ state }: { state: CutState }) {
  const { session } = useDesk();
  return (
    <Card width={330} testID="cut-card">
      <Choice name="What to do" value={state.mode} options={MODES} onChange={(mode) => session.setTool({ name: 'cut', state: { mode } })} />
      <Words quiet>{HINTS[state.mode]}</Words>
    </Card>
  );
}
