import { useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { isSide, lengthOfEdge, onEdge } from '@/core/derive';
import { setStandsOn, turnOnEdge, type View as JobView } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { LengthField } from '@/features/trace/make/fields';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { measuredInWords } from './shared-words';

/** Standing a view that shows none of the six sides on an edge that is drawn in another: an elevation on its plan. */
export function StandsOnEdge({ view }: { view: JobView }) {
  const { session } = useDesk();
  const tool = useSession((state) =>
    state.tool.name === 'standOn' && state.tool.state.view === view.id ? state.tool.state : undefined,
  );
  const isChoosing = tool !== undefined && !tool.ends;
  const isPointing = tool?.ends !== undefined;
  if (isSide(view.side) && !view.standsOn) return null;
  const choose = () => session.setTool({ name: 'standOn', state: isChoosing ? {} : { view: view.id } });
  const point = () => {
    session.chooseView(view.id);
    session.setTool({ name: 'standOn', state: isPointing ? {} : { view: view.id, ends: [] } });
  };
  return (
    <View style={{ gap: 4 }} testID={`edge-of-${view.name}`}>
      {view.standsOn ? <OnItsEdge view={view} edge={view.standsOn} /> : null}
      {view.standsOn ? (
        <Button
          compact
          mode={isPointing || !view.standsOn.ends ? 'contained-tonal' : 'outlined'}
          onPress={point}
          testID="edge-ends">
          {isPointing ? 'Leave the ends' : view.standsOn.ends ? 'Point at its ends again' : 'Point at both ends in it'}
        </Button>
      ) : null}
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
  const { along, ...plain } = edge;
  const endName = (id: string) => `“${job.features.find((feature) => feature.id === id)?.name ?? ''}”`;
  const long = useMemo(() => lengthOfEdge(edge, { job, derived }), [edge, job, derived]);
  const nameOf = (id: string) => job.views.find((other) => other.id === id)?.name ?? '';
  return (
    <>
      {edge.ends && stands === 'edge-without-scale' ? null : (
        <Words style={{ fontSize: 14, lineHeight: 19 }} testID="edge-says">
          {stands === undefined
            ? 'It stands by its own side, and not on the edge.'
            : typeof stands === 'string'
              ? sentenceFor(stands)
              : `Stands on an edge in ${nameOf(stands.under.view)}, ${measuredInWords(long ?? { value: stands.length, sigma: 0 }, units)} long.`}
        </Words>
      )}
      {edge.ends ? (
        <Words quiet style={{ fontSize: 13, lineHeight: 17 }} testID="edge-by-ends">
          {`It stands between ${endName(edge.ends.from)} and ${endName(edge.ends.to)}, which both views show.`}
        </Words>
      ) : (
        <LengthField
          label="Its zero lies along the edge at"
          mm={along ?? 0}
          signed
          onChange={(mm) => run(setStandsOn(view.id, mm === 0 ? plain : { ...plain, along: mm }))}
          testID="edge-along"
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <Button compact mode="outlined" onPress={() => run(turnOnEdge(view.id))} testID="edge-turn">
          Turn it round
        </Button>
        <Button compact mode="outlined" onPress={() => run(setStandsOn(view.id, undefined))} testID="edge-off">
          Take it off
        </Button>
      </View>
    </>
  );
}
