import { isEnough, wayOf } from '@/bench/tools';
import { listOthers } from '@/bench/others';
import { useDesk, useFitted, useJob, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { setHidden, setLocked } from '@/core/job';
import { LedgeButton } from '@/ui/ledge-button';
import { AgainEntry } from './again-entry';
import { ByEyeCards } from './by-eye-card';
import { DrawnAtCard } from './drawn-at-card';
import { EvidenceCards } from './evidence-cards';
import { EvidenceEntry } from './evidence-entry';
import { GhostCard } from './ghost-card';
import { FitSummary } from './fit-summary';
import { HeightCard } from './height-card';
import { KindsPanel } from './kinds-panel';
import { LookCard } from './look-card';
import { MatchButton, MatchCard } from './match-card';
import { ResolutionCard } from './resolution-card';
import { ModelCard } from './model-card';
import { ShelfPanel } from './shelf-panel';
import { StraightCard } from './straight-card';

export type FitPanelName =
  'evidence' | 'kinds' | 'shelf' | 'model' | 'look' | 'height' | 'resolution' | 'match' | 'byEye';

interface FitRowProps {
  readonly panel: FitPanelName;
  readonly onPanel: (panel: FitPanelName) => void;
}

/** The row of what can be done to find a view's scale. */
export function FitRow(row: FitRowProps) {
  const fitted = useFitted();
  if (!fitted) return null;
  return (
    <>
      <EvidenceButtons {...row} fitted={fitted} />
      <PictureButtons {...row} fitted={fitted} />
      <OthersButton fitted={fitted} />
      <ViewButtons fitted={fitted} />
    </>
  );
}

/** Opens a panel; open already, it gives way to the evidence. */
function useOpen({ panel, onPanel }: FitRowProps): (name: FitPanelName) => () => void {
  const { session } = useDesk();
  return (name) => () => {
    session.chooseTool('points');
    onPanel(panel === name ? 'evidence' : name);
  };
}

/** What is known: sizes, shapes, where zero is, how high. */
function EvidenceButtons({ fitted, ...row }: FitRowProps & { fitted: FittedView }) {
  const { panel, onPanel } = row;
  const { session } = useDesk();
  const tool = useSession((state) => state.tool);
  const open = useOpen(row);
  const points = (role: 'use' | 'check') =>
    tool.name === 'evidence' && tool.state.kind === 'length' && tool.state.role === role;
  const point = (role: 'use' | 'check') => () => {
    onPanel('evidence');
    session.pointAtEvidence('length', role);
  };
  return (
    <>
      <LedgeButton
        icon="length"
        label="Length"
        name="Known length"
        chosen={points('use')}
        onPress={point('use')}
        testID="tool-length"
      />
      <LedgeButton
        icon="check"
        label="Check"
        name="Check on a second size"
        chosen={points('check')}
        onPress={point('check')}
        testID="tool-check"
      />
      <LedgeButton
        icon="rectangle"
        label="Known shape"
        name="A shape, an angle or a place that is known"
        chosen={panel === 'kinds'}
        onPress={open('kinds')}
        testID="panel-kinds"
      />
      <LedgeButton
        icon="shelf"
        label="Shelf"
        name="Things of known size"
        chosen={panel === 'shelf'}
        onPress={open('shelf')}
        testID="panel-shelf"
      />
      <MatchButton chosen={panel === 'match'} onOpen={open('match')} />
      <LedgeButton
        icon="level"
        label="Zero"
        name="Zero and what is level"
        chosen={tool.name === 'datum'}
        onPress={() => (onPanel('evidence'), session.chooseTool('datum'))}
        testID="tool-datum"
      />
      {fitted.sheet.kind === 'photo' ? (
        <LedgeButton
          icon="height"
          label="Height"
          name="Height of what is traced"
          chosen={panel === 'height'}
          onPress={open('height')}
          testID="panel-height"
        />
      ) : null}
    </>
  );
}

/** How the picture is taken to be, and shown. */
function PictureButtons({ fitted, ...row }: FitRowProps & { fitted: FittedView }) {
  const { panel } = row;
  const { session } = useDesk();
  const accuracy = useSession((state) => state.accuracy);
  const straight = useSession((state) => state.straight);
  const open = useOpen(row);
  const byEye = () => {
    open('byEye')();
    if (panel !== 'byEye') session.chooseTool('byEye');
  };
  const isScaled = fitted.fit.scaled;
  return (
    <>
      <LedgeButton
        icon="upright"
        label="Square up"
        name={straight ? 'Show the picture as it was taken' : 'Square the picture up'}
        chosen={straight}
        disabled={!isScaled}
        onPress={() => session.setStraight(!straight)}
        testID="toggle-straight"
      />
      <LedgeButton
        icon="map"
        label="Accuracy"
        name={accuracy ? 'Put the accuracy map away' : 'Show the accuracy map'}
        chosen={accuracy}
        disabled={!isScaled}
        onPress={() => session.toggle('accuracy')}
        testID="toggle-accuracy"
      />
      <LedgeButton
        icon="byeye"
        label="By eye"
        name="Stand a door leaf or a chair there to judge the scale by eye"
        chosen={panel === 'byEye'}
        onPress={byEye}
        testID="panel-by-eye"
      />
      <LedgeButton
        icon="lens"
        label="Model"
        name="What may be wrong with the picture"
        chosen={panel === 'model'}
        onPress={open('model')}
        testID="panel-model"
      />
      <LedgeButton
        icon="look"
        label="Look"
        name="How the picture is shown"
        chosen={panel === 'look'}
        onPress={open('look')}
        testID="panel-look"
      />
    </>
  );
}

function OthersButton({ fitted }: { fitted: FittedView }) {
  const { session } = useDesk();
  const others = useSession((state) => state.others);
  const hasOthers = useJob(({ derived }) => listOthers(derived, fitted).length > 0);
  if (!hasOthers) return null;
  return (
    <LedgeButton
      icon="layers"
      label="Others"
      name={others ? 'Look at this view alone' : 'Show the other views of this plane or side under it'}
      chosen={others}
      onPress={() => session.toggle('others')}
      testID="toggle-others"
    />
  );
}

function ViewButtons({ fitted: { view } }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  return (
    <>
      <LedgeButton
        icon={view.hidden ? 'hide' : 'eye'}
        label={view.hidden ? 'Show' : 'Hide'}
        name={view.hidden ? 'Show the picture' : 'Hide the picture'}
        chosen={view.hidden}
        onPress={() => jobs.getState().run(setHidden(view.id, !view.hidden))}
        testID="toggle-hidden"
      />
      <LedgeButton
        icon={view.locked ? 'lock' : 'unlock'}
        label={view.locked ? 'Unlock' : 'Lock'}
        name={view.locked ? 'Unlock the view' : 'Lock the view'}
        chosen={view.locked}
        onPress={() => jobs.getState().run(setLocked(view.id, !view.locked))}
        testID="toggle-lock"
      />
    </>
  );
}

export function FitPanel({ panel, onPanel }: FitRowProps) {
  const fitted = useFitted();
  const tool = useSession((state) => state.tool);
  const straight = useSession((state) => state.straight);
  if (!fitted) return null;
  const back = () => onPanel('evidence');
  switch (panel) {
    case 'match':
      return <MatchCard />;
    case 'look':
      return <LookCard fitted={fitted} />;
    case 'height':
      return <HeightCard fitted={fitted} />;
    case 'kinds':
      return <KindsPanel onChosen={back} onResolution={() => onPanel('resolution')} />;
    case 'resolution':
      return <ResolutionCard fitted={fitted} onDone={back} />;
    case 'shelf':
      return <ShelfPanel onChosen={back} />;
    case 'model':
      return <ModelCard fitted={fitted} />;
    case 'byEye':
      return <ByEyeCards fitted={fitted} />;
    case 'evidence': {
      const asking = tool.name === 'evidence' && isEnough(wayOf(tool.state), tool.state.points.length);
      const isBegun = tool.name === 'evidence' && tool.state.points.length > 0;
      const again = asking && tool.state.again !== undefined;
      return (
        <>
          {again ? (
            <AgainEntry state={tool.state} />
          ) : asking ? (
            <EvidenceEntry key={`${tool.state.kind}/${tool.state.role}`} state={tool.state} />
          ) : (
            <>
              <DrawnAtCard fitted={fitted} />
              <FitSummary
                fitted={fitted}
                onResolution={() => onPanel('resolution')}
                onHeight={() => onPanel('height')}
              />
            </>
          )}
          {tool.name === 'evidence' && tool.state.kind === 'straight' && !isBegun ? <StraightCard /> : null}
          {straight ? <GhostCard /> : null}
          <EvidenceCards fitted={fitted} />
        </>
      );
    }
  }
}
