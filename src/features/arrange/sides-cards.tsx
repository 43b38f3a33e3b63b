import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import type { ProjectionMethod, ProposedSide } from '@/core/arrange';
import { setProjection, setSide, setSides, VIEW_SIDES, type ViewSide } from '@/core/job';
import { Card } from '@/ui/card';
import { SIDE_WORDS } from '@/ui/feature-words';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { ProjectionSign } from './projection-sign';
import { sidesBySheet } from './proposed-sides';

const SIDES = VIEW_SIDES.map((side) => [side, SIDE_WORDS[side]] as const);

/** Which side each view shows: said one by one, or taken from how the views of a sheet lie to each other. */
export function SidesCards() {
  const { jobs, session } = useDesk();
  const views = useJob(({ job }) => job.views);
  const current = useSession(({ viewId }) => viewId);
  return (
    <>
      <ProposalCard />
      {views.map((view) => (
        <Card key={view.id} chosen={view.id === current} testID={`side-of-${view.name}`}>
          <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
            <Words style={{ fontWeight: '700', flexShrink: 1 }} lines={1}>
              {view.name}
            </Words>
            {view.id === current ? null : (
              <Button compact onPress={() => session.chooseView(view.id)}>
                Look at it
              </Button>
            )}
          </View>
          <Choice
            name={`Side that ${view.name} shows`}
            value={view.side ?? ('' as ViewSide)}
            options={SIDES}
            onChange={(side) => jobs.getState().run(setSide(view.id, side === view.side ? undefined : side))}
          />
          {view.standsOn?.ends && view.side ? (
            <Words quiet style={{ fontSize: 13, lineHeight: 17 }} testID="side-on-edge">
              It stands between the ends of its edge, and looks at that. Take it off there, under Together, and it
              stands by its side.
            </Words>
          ) : null}
        </Card>
      ))}
    </>
  );
}

const LAYOUTS: readonly (readonly [ProjectionMethod, string])[] = [
  ['first', 'First angle'],
  ['third', 'Third angle'],
];

const WHERE: Readonly<Record<Exclude<ProposedSide['lies'], undefined>, string>> = {
  above: 'lies above it',
  below: 'lies below it',
  left: 'lies left of it',
  right: 'lies right of it',
  beyond: 'lies beyond',
};

/** What the layout of a sheet says, with the reason for each. */
function ProposalCard() {
  const { jobs } = useDesk();
  const job = useJob((state) => state.job);
  const { run } = jobs.getState();
  const projection = job.projection ?? 'third';
  const proposed = sidesBySheet(job, projection);
  if (proposed.length === 0) return null;
  const nameOf = (id: string) => job.views.find((view) => view.id === id)?.name ?? '';
  const isTaken = proposed.every(({ isSaid }) => isSaid);
  return (
    <Card testID="sides-proposed">
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <ProjectionSign projection={projection} />
        <Choice
          name="How the views are laid out"
          value={projection}
          options={LAYOUTS}
          onChange={(chosen) => run(setProjection(chosen))}
        />
      </View>
      {isTaken ? (
        <Words quiet>The views lie so on their sheet, and their sides are said.</Words>
      ) : (
        <>
          {proposed.map(({ view, side, lies }) => (
            <Words key={view}>
              {`${nameOf(view)}: ${SIDE_WORDS[side].toLowerCase()}${lies ? `, since it ${WHERE[lies]}` : ', since the others stand in line with it'}`}
            </Words>
          ))}
          <Button
            mode="contained"
            compact
            testID="take-sides"
            onPress={() => run(setSides(new Map(proposed.map(({ view, side }) => [view, side]))))}>
            Take these sides
          </Button>
        </>
      )}
    </Card>
  );
}
