import { Button } from 'react-native-paper';
import { useDesk, useSession } from '@/bench/use-session';
import type { Folding } from '@/core/derive';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Slider } from '@/ui/slider';
import { Words } from '@/ui/text';
import { KeptLooks } from './kept-looks';
import { StandOffCard } from './stand-off-card';
import { VariantsCards } from './variants-cards';

export const LAID_OUT: Folding = { fold: 0, turn: 0, tip: 0 };

const QUARTER = Math.PI / 2;
const LOOKS = [
  ['front', 'From the front', { turn: 0, tip: 0 }],
  ['right', 'From the right', { turn: QUARTER, tip: 0 }],
  ['back', 'From the back', { turn: Math.PI, tip: 0 }],
  ['left', 'From the left', { turn: -QUARTER, tip: 0 }],
  ['above', 'From above', { turn: 0, tip: QUARTER }],
  ['aslant', 'From a corner', { turn: 0.6, tip: 0.45 }],
] as const;
type LookName = (typeof LOOKS)[number][0];

const nearly = (a: number, b: number) => Math.abs(Math.atan2(Math.sin(a - b), Math.cos(a - b))) < 1e-9;

/** How all views are looked at together: from where, beside each other, out of the way. */
export function LookCards() {
  const isTogether = useSession((state) => state.folding !== undefined);
  return (
    <>
      <LookCard />
      {isTogether ? <VariantsCards /> : null}
      {isTogether ? <StandOffCard /> : null}
    </>
  );
}

/** How far the sheet of views is folded, and from where one looks at it. */
function LookCard() {
  const { session } = useDesk();
  const folding = useSession((state) => state.folding);
  if (!folding)
    return (
      <Card testID="look-together">
        <Words>All views at once: laid out as on a sheet, or folded up around the thing.</Words>
        <Button mode="contained" compact onPress={() => session.setFolding(LAID_OUT)} testID="lay-out">
          Lay them out
        </Button>
      </Card>
    );
  const chosen = LOOKS.find(([, , look]) => nearly(look.turn, folding.turn) && nearly(look.tip, folding.tip))?.[0];
  const options = LOOKS.map(([name, words]) => [name, words] as const);
  return (
    <Card testID="look-together" broad>
      <Slider
        label="Folded up"
        value={folding.fold}
        min={0}
        max={1}
        onChange={(fold) => session.setFolding({ ...folding, fold })}
      />
      <Choice
        name="From where"
        value={chosen ?? ('' as LookName)}
        options={options}
        onChange={(name) => {
          const look = LOOKS.find(([other]) => other === name)![2];
          session.setFolding({ ...look, fold: name === 'front' ? folding.fold : 1 });
        }}
      />
      <KeptLooks folding={folding} />
      <Words quiet style={{ fontSize: 13 }}>
        A chosen look holds until you touch the ring or the slider at the left. Tap a name to work in that view.
      </Words>
      <Button compact mode="outlined" onPress={() => session.setFolding(undefined)} testID="look-at-one">
        Look at one view
      </Button>
    </Card>
  );
}
