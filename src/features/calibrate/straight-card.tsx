import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';

/** Before a straight edge is pointed at: the picture can be asked for one. */
export function StraightCard() {
  const { session } = useDesk();
  return (
    <Card chosen testID="straight-card">
      <Words style={{ fontWeight: '700' }}>Which edge is straight?</Words>
      <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
        Tap one, or have one looked for. Long ones near the rim of the picture tell most of its lens.
      </Words>
      <Button
        mode="outlined"
        style={{ alignSelf: 'flex-start' }}
        onPress={() => session.input({ kind: 'propose' })}
        testID="propose-straight">
        Look for one
      </Button>
    </Card>
  );
}

/** Under an edge that was found: what it has to be, and the next one. */
export function ProposedStraight() {
  const { session } = useDesk();
  return (
    <>
      <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
        It has to be straight in truth: a rule, a board that was planed, a sheet that lies flat.
      </Words>
      <Button
        compact
        style={{ alignSelf: 'flex-start' }}
        onPress={() => session.input({ kind: 'propose' })}
        testID="propose-another">
        Look for another
      </Button>
    </>
  );
}
