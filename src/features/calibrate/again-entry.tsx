import { Button } from 'react-native-paper';
import { commandForAgain, type EvidenceState } from '@/bench/tools';
import { useDesk } from '@/bench/use-session';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';

/** After a piece was pointed at once more: nothing is asked, its size is known. */
export function AgainEntry({ state }: { state: EvidenceState }) {
  const { jobs, session } = useDesk();
  const average = () => {
    const context = session.findContext();
    const command = context && commandForAgain(state, context);
    if (command) jobs.getState().run(command);
    session.chooseTool('points');
  };
  return (
    <Card chosen testID="again-entry">
      <Words style={{ fontWeight: '700' }}>Pointed again</Words>
      <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
        Nudge what is not right. Both pointings are averaged, and their spread shows how steady your hand is.
      </Words>
      <Button mode="contained" style={{ alignSelf: 'flex-start' }} onPress={average} testID="average">
        Average them
      </Button>
    </Card>
  );
}
