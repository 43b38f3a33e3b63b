import { Button } from 'react-native-paper';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { cutViews } from '@/core/job';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { viewFromFrame } from './view-from-frame';

/** The drawings that were found on the sheet, to be cut out all at once. */
export function SuggestedCard() {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const suggested = useSession((state) => state.suggested);
  if (!fitted || suggested.length === 0) return null;
  const cut = () => {
    const first = jobs.getState().job.views.length + 1;
    jobs
      .getState()
      .run(
        cutViews(
          suggested.map((frame, i) => viewFromFrame(fitted, frame, `${fitted.sheet.name} ${first + i}`, undefined)),
        ),
      );
    session.suggest([]);
    session.say(session.isReadOnly() ? 'read-only' : 'views-cut', { count: suggested.length });
  };
  return (
    <Card chosen testID="suggested-card">
      <Words style={{ fontWeight: '700' }}>{`${suggested.length} drawings are on this sheet`}</Words>
      <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
        They are framed by the white space between them. Each becomes a view that shares the fit of this one until it
        gets its own.
      </Words>
      <Button
        mode="contained"
        style={{ alignSelf: 'flex-start' }}
        onPress={cut}
        testID="cut-all">{`Cut out all ${suggested.length}`}</Button>
      <Button style={{ alignSelf: 'flex-start' }} onPress={() => session.suggest([])}>
        Leave them
      </Button>
    </Card>
  );
}
