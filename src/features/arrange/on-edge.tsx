import { useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { isSide, lengthOfEdge, onEdge } from '@/core/derive';
import { setStandsOn, type View as JobView } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { LengthField } from '@/features/trace/make/fields';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { measuredInWords } from './shared-words';

/** Standing a view that shows none of the six sides on an edge that is drawn in another: an elevation on its plan. */
export function StandsOnEdge({ view }: { view: JobView }) {
  const { session } = useDesk();
  const isChoosing = useSession(({ tool }) => tool.name === 'standOn' && tool.state.view === view.id);
  if (isSide(view.side) && !view.standsOn) return null;
  const choose = () => session.setTool({ name: 'standOn', state: isChoosing ? {} : { view: view.id } });
  return (
    <View style={{ gap: 4 }} testID={`edge-of-${view.name}`}>
      {view.standsOn ? <OnItsEdge view={view} edge={view.standsOn} /> : null}
      <Button compact mode={isChoosing ? 'contained-tonal' : 'outlined'} onPress={choose} testID="edge-choose">
        {isChoosing ? 'Leave it' : view.standsOn ? 'Choose another edge' : 'Stand it on an edge'}
      </Button>
    </View>
  );
}

function OnItsEdge({ view, edge }: { view: JobView; edge: NonNullable<JobView['standsOn']> }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const units = useUnits();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const stands = onEdge(view, { job, derived });
  const { along, turned, ...plain } = edge;
  const put = (at: number | undefined, isTurned: boolean) =>
    run(
      setStandsOn(view.id, {
        ...plain,
        ...(at === undefined || at === 0 ? {} : { along: at }),
        ...(isTurned ? { turned: true } : {}),
      }),
    );
  const long = useMemo(() => lengthOfEdge(edge, { job, derived }), [edge, job, derived]);
  const nameOf = (id: string) => job.views.find((other) => other.id === id)?.name ?? '';
  return (
    <>
      <Words style={{ fontSize: 14, lineHeight: 19 }} testID="edge-says">
        {stands === undefined
          ? 'It stands by its own side, and not on the edge.'
          : typeof stands === 'string'
            ? sentenceFor(stands)
            : `Stands on an edge in ${nameOf(stands.under.view)}, ${measuredInWords(long ?? { value: stands.length, sigma: 0 }, units)} long.`}
      </Words>
      <LengthField
        label="Its zero lies along the edge at"
        mm={along ?? 0}
        signed
        onChange={(mm) => put(mm, turned ?? false)}
        testID="edge-along"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <Button compact mode="outlined" onPress={() => put(along, !turned)} testID="edge-turn">
          Turn it round
        </Button>
        <Button compact mode="outlined" onPress={() => run(setStandsOn(view.id, undefined))} testID="edge-off">
          Take it off
        </Button>
      </View>
    </>
  );
}
