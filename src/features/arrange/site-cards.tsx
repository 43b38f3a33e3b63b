import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { acrossFrom } from '@/bench/laying';
import type { SiteSaying } from '@/bench/tools';
import { useDesk, useFitted, useJob, useSession } from '@/bench/use-session';
import { outlinesToSite, sitedOutlines, type FittedView } from '@/core/derive';
import { angleOf, boxAround, subtract, type Vec } from '@/core/geometry';
import { setOnPlane, setWorkAlong, type Job } from '@/core/job';
import { formatAngle } from '@/core/units';
import type { Shape, Siting } from '@/core/outline';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { SetbackCards } from './setback-cards';
import { drawingName } from './site-words';
import { SitingCard } from './siting-card';

/** One drawing set down on another: which, how it stands there, and from what it keeps clear. */
export function SiteCards() {
  const fitted = useFitted();
  const sitings = useJob(({ job }) => job.sitings);
  const here = sitings.filter(({ plane }) => plane === fitted?.view.plane);
  if (!fitted) return null;
  if (!fitted.fit.scaled)
    return (
      <Card testID="site-without-scale">
        <Words>This view has no scale yet. Set it under Fit; then a drawing can be set down on it.</Words>
      </Card>
    );
  return (
    <>
      <WhatIsSaid />
      <WorkAlong fitted={fitted} />
      {here.map((siting) => (
        <SitingCard key={siting.id} siting={siting} />
      ))}
      <SetDownHere fitted={fitted} />
      <SetbackCards plane={fitted.view.plane} />
    </>
  );
}

const SAYINGS: readonly (readonly [SiteSaying, string])[] = [
  ['move', 'Move by hand'],
  ['parallel', 'Parallel'],
  ['distance', 'Distance'],
  ['along', 'Along an edge'],
  ['setback', 'Keep clear'],
  ['frame', 'Work along an edge'],
];

/** What pointing says now. */
function WhatIsSaid() {
  const { session } = useDesk();
  const state = useSession(({ tool }) => (tool.name === 'site' ? tool.state : undefined));
  return (
    <Card testID="site-saying">
      <Choice
        name="What pointing says"
        value={state?.saying ?? 'move'}
        options={SAYINGS}
        onChange={(saying) => session.setTool({ name: 'site', state: { saying, siting: state?.siting } })}
      />
    </Card>
  );
}

/** The bench lies along an edge: how far that is from the plane's own axes, and the way back. */
function WorkAlong({ fitted: { view, fit } }: { fitted: FittedView }) {
  const { jobs, session } = useDesk();
  if (view.workAlong === undefined) return null;
  const back = () => {
    const { origin } = view.datum;
    const level = angleOf(subtract(acrossFrom(origin, fit), origin));
    jobs.getState().run(setWorkAlong(view.id, level, undefined));
    session.framing.showAll();
  };
  return (
    <Card testID="work-along">
      <Words>{`The view lies along an edge, turned by ${formatAngle(view.workAlong)}. Its figures and files keep the axes of the site.`}</Words>
      <Button mode="outlined" compact onPress={back} testID="work-along-back">
        Lay it as the site lies
      </Button>
    </Card>
  );
}

/** Drawings of other planes that have a scale, and are not set here yet. */
function useOthers({ view: { plane } }: FittedView): readonly string[] {
  const { job, derived } = useJob((state) => state);
  return job.planes
    .map(({ id }) => id)
    .filter(
      (id) =>
        id !== plane &&
        derived.planes.get(id)?.placing.scaled === true &&
        outlinesToSite(job, id).length > 0 &&
        !job.sitings.some((siting) => siting.of === id && siting.plane === plane),
    );
}

function SetDownHere({ fitted }: { fitted: FittedView }) {
  const { jobs, session } = useDesk();
  const { job, derived } = useJob((state) => state);
  const others = useOthers(fitted);
  const setDown = (of: string) => {
    const siting = firstSiting(of, fitted, job, derived.shapes);
    jobs.getState().run(setOnPlane(siting, sitedOutlines(outlinesToSite(job, of), siting, newId)));
    session.setTool({ name: 'site', state: { saying: 'parallel', siting: siting.id } });
  };
  if (others.length === 0 && job.sitings.some(({ plane }) => plane === fitted.view.plane)) return null;
  return (
    <Card testID="set-down">
      <Words>
        {others.length === 0
          ? 'A drawing of another view can be set down on this one: a plan on its site, a fitting on its board. It needs a scale and an outline.'
          : 'Set a drawing down on this one; then say how it stands here.'}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {others.map((of) => (
          <Button
            key={of}
            mode="outlined"
            compact
            onPress={() => setDown(of)}
            testID={`set-down-${drawingName(of, job)}`}>
            {drawingName(of, job)}
          </Button>
        ))}
      </View>
    </Card>
  );
}

/** In the middle of what the view shows, as it is turned in its own plane. */
function firstSiting(
  of: string,
  { view, sheet, fit }: FittedView,
  job: Job,
  shapes: ReadonlyMap<string, Shape>,
): Siting {
  const corners: readonly Vec[] = view.frame ?? [
    [0, 0],
    [sheet.width, sheet.height],
  ];
  const middleOf = (places: readonly Vec[]): Vec => {
    const { min, max } = boxAround(places);
    return [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  };
  const own = outlinesToSite(job, of).flatMap(({ id }) => shapes.get(id)?.nodes ?? []);
  const at = subtract(fit.toPlane(middleOf(corners)), own.length > 0 ? middleOf(own) : [0, 0]);
  return { id: newId(), plane: view.plane, of, holds: [], put: { at, turn: 0 } };
}
