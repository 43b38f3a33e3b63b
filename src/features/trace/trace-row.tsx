import { useDesk, useSession } from '@/bench/use-session';
import { FIRST_WALL, type ToolName } from '@/bench/tools';
import type { SegmentKind } from '@/core/outline';
import { LedgeButton } from '@/ui/ledge-button';
import type { IconName } from '@/ui/icon';

export type TracePanelName = 'tool' | 'layers' | 'check';

interface TraceRowProps {
  readonly panel: TracePanelName;
  readonly onPanel: (panel: TracePanelName) => void;
}

const SEGMENTS: readonly {
  readonly kind: SegmentKind;
  readonly icon: IconName;
  readonly label: string;
  readonly name: string;
}[] = [
  { kind: 'line', icon: 'line', label: 'Line', name: 'Straight line' },
  { kind: 'arc', icon: 'arc', label: 'Arc', name: 'Arc through three points' },
  { kind: 'tangent', icon: 'tangent', label: 'Tangent', name: 'Arc tangent to the segment before' },
  { kind: 'curve', icon: 'curve', label: 'Curve', name: 'Curve through points' },
];

/** The row of what can be drawn, chosen and inspected. */
export function TraceRow(row: TraceRowProps) {
  return (
    <>
      <DrawButtons {...row} />
      <SayButtons {...row} />
    </>
  );
}

function useStart({ onPanel }: TraceRowProps): (name: ToolName) => () => void {
  const { session } = useDesk();
  return (name) => () => {
    onPanel('tool');
    session.chooseTool(name);
  };
}

interface ToolButtonProps {
  readonly row: TraceRowProps;
  /** The tool, which its `testID` is called after. */
  readonly tool: ToolName;
  readonly icon: IconName;
  readonly label: string;
  readonly name?: string;
}

/** A button that takes a tool in hand. */
function ToolButton({ row, tool, ...look }: ToolButtonProps) {
  const inHand = useSession((state) => state.tool.name);
  const start = useStart(row);
  return (
    <LedgeButton
      {...look}
      chosen={row.panel === 'tool' && inHand === tool}
      onPress={start(tool)}
      testID={`tool-${tool}`}
    />
  );
}

/** What is drawn. Another kind of segment carries on the outline that is being drawn. */
function DrawButtons(row: TraceRowProps) {
  const { panel, onPanel } = row;
  const { session } = useDesk();
  const tool = useSession((state) => state.tool);
  const start = useStart(row);
  const chooseSegment = (kind: SegmentKind) => () => {
    onPanel('tool');
    session.changeTool('chain', { kind, through: undefined, wall: undefined });
  };
  const chooseWall = () => {
    start('chain')();
    session.changeTool('chain', { wall: FIRST_WALL });
  };
  const isTool = panel === 'tool';
  return (
    <>
      <ToolButton row={row} tool="select" icon="select" label="Select" />
      {SEGMENTS.map(({ kind, icon, label, name }) => (
        <LedgeButton
          key={kind}
          icon={icon}
          label={label}
          name={name}
          chosen={isTool && tool.name === 'chain' && tool.state.kind === kind && !tool.state.wall}
          onPress={chooseSegment(kind)}
          testID={`tool-${kind}`}
        />
      ))}
      <ToolButton row={row} tool="circle" icon="circle" label="Circle" />
      <ToolButton row={row} tool="shape" icon="rectangle" label="Shape" name="Rectangle or even polygon" />
      <LedgeButton
        icon="wall"
        label="Wall"
        name="Walls with a thickness"
        chosen={isTool && tool.name === 'chain' && tool.state.wall !== undefined}
        onPress={chooseWall}
        testID="tool-wall"
      />
      <ToolButton row={row} tool="cut" icon="trim" label="Trim" name="Trim, extend or split" />
      <ToolButton row={row} tool="guide" icon="guide" label="Guide" />
    </>
  );
}

/** What is said of it, measured on it, and looked through. */
function SayButtons(row: TraceRowProps) {
  const { panel, onPanel } = row;
  const tool = useSession((state) => state.tool);
  const start = useStart(row);
  const isTool = panel === 'tool';
  const open = (name: TracePanelName) => () => onPanel(panel === name ? 'tool' : name);
  return (
    <>
      <ToolButton
        row={row}
        tool="relate"
        icon="relate"
        label="Relate"
        name="Say what is true of lines, arcs and circles"
      />
      <LedgeButton
        icon="measure"
        label="Measure"
        chosen={isTool && (tool.name === 'distance' || tool.name === 'angle')}
        onPress={start('distance')}
        testID="tool-measure"
      />
      <ToolButton row={row} tool="dimension" icon="length" label="Sizes" name="Sizes that stay on the drawing" />
      <ToolButton row={row} tool="region" icon="region" label="Regions" name="What the outlines shut in" />
      <LedgeButton
        icon="layers"
        label="Layers"
        chosen={panel === 'layers'}
        onPress={open('layers')}
        testID="panel-layers"
      />
      <LedgeButton
        icon="inspect"
        label="Inspect"
        name="Find what keeps an outline from being cut"
        chosen={panel === 'check'}
        onPress={open('check')}
        testID="panel-check"
      />
    </>
  );
}
