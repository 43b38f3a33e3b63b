import { startFrame, type ActiveTool } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { mirrorView, turnView, type Command } from '@/core/job';
import { LedgeButton } from '@/ui/ledge-button';
import { useSheetSearch } from './use-sheet-search';

export type SourcesPanelName = 'views' | 'tool' | 'add' | 'clean' | 'ask';

interface SourcesRowProps {
  readonly panel: SourcesPanelName;
  readonly onPanel: (panel: SourcesPanelName) => void;
}

const QUARTER = Math.PI / 2;

/** The row of what can be done with a sheet before anything is measured on it: cut, cropped, brought upright. */
export function SourcesRow(row: SourcesRowProps) {
  return (
    <>
      <PanelButtons {...row} />
      <FrameButtons {...row} />
      <TurnButtons />
    </>
  );
}

/** What is done to the sheets as a whole. */
function PanelButtons({ panel, onPanel }: SourcesRowProps) {
  const { session } = useDesk();
  const fitted = useFitted();
  const open = (name: SourcesPanelName) => () => {
    session.chooseTool('select');
    onPanel(name);
  };
  return (
    <>
      <LedgeButton
        icon="picture"
        label="Add"
        name="Add pictures"
        chosen={panel === 'add'}
        onPress={open('add')}
        testID="panel-add"
      />
      <LedgeButton
        icon="ask"
        label="Ask"
        name="Ask for photos and sizes"
        chosen={panel === 'ask'}
        onPress={open('ask')}
        testID="panel-ask"
      />
      <LedgeButton
        icon="layers"
        label="Views"
        name="The views, in their order"
        chosen={panel === 'views'}
        disabled={!fitted}
        onPress={open('views')}
        testID="panel-views"
      />
    </>
  );
}

/** What is pointed at on the sheet, found on it, or taken off it. */
function FrameButtons({ panel, onPanel }: SourcesRowProps) {
  const { session } = useDesk();
  const fitted = useFitted();
  const tool = useSession((state) => state.tool);
  const search = useSheetSearch();
  const framing = (purpose: 'cut' | 'crop') =>
    panel === 'tool' && tool.name === 'frame' && tool.state.purpose === purpose;
  const take = (next: ActiveTool) => {
    onPanel('tool');
    session.setTool(next);
    session.framing.showAll();
  };
  const clean = () => {
    session.chooseTool('select');
    onPanel('clean');
  };
  return (
    <>
      <LedgeButton
        icon="cut"
        label="Cut out"
        name="Cut a view out of the sheet"
        chosen={framing('cut')}
        disabled={!fitted}
        onPress={() => take({ name: 'frame', state: startFrame('cut') })}
        testID="tool-cut"
      />
      <LedgeButton
        icon="seek"
        label="Find"
        name="Find the drawings on the sheet"
        disabled={!fitted || search.busy}
        onPress={() => (session.chooseTool('select'), onPanel('tool'), void search.findDrawings())}
        testID="find-drawings"
      />
      <LedgeButton
        icon="crop"
        label="Crop"
        name="Show only a part of the sheet"
        chosen={framing('crop')}
        disabled={!fitted}
        onPress={() => take({ name: 'frame', state: startFrame('crop') })}
        testID="tool-crop"
      />
      <LedgeButton
        icon="level"
        label="Level"
        name="An edge that is level, upright or at an angle"
        chosen={panel === 'tool' && tool.name === 'level'}
        disabled={!fitted}
        onPress={() => take({ name: 'level', state: { points: [], last: 0 } })}
        testID="tool-level"
      />
      <LedgeButton
        icon="wand"
        label="Straighten"
        name="Straighten the sheet by itself"
        disabled={!fitted || search.busy}
        onPress={() => void search.straighten()}
        testID="straighten"
      />
      <LedgeButton
        icon="clean"
        label="Clean"
        name="Clean the picture"
        chosen={panel === 'clean'}
        disabled={!fitted}
        onPress={clean}
        testID="panel-clean"
      />
    </>
  );
}

/** How the view lies. */
function TurnButtons() {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const change = (command: (view: string) => Command) => () => {
    if (fitted) jobs.getState().run(command(fitted.view.id));
  };
  const turn = (by: number) => () => {
    change((view) => turnView(view, by))();
    session.framing.showAll();
  };
  return (
    <>
      <LedgeButton
        icon="turnleft"
        label="Turn left"
        name="Turn a quarter to the left"
        disabled={!fitted}
        onPress={turn(-QUARTER)}
        testID="turn-left"
      />
      <LedgeButton
        icon="turnright"
        label="Turn right"
        name="Turn a quarter to the right"
        disabled={!fitted}
        onPress={turn(QUARTER)}
        testID="turn-right"
      />
      <LedgeButton
        icon="mirror"
        label="Mirror"
        name="See it from behind"
        chosen={fitted?.view.mirrored === true}
        disabled={!fitted}
        onPress={change(mirrorView)}
        testID="mirror"
      />
    </>
  );
}
