import { useSession } from '@/bench/use-session';
import { ChainPanel } from './chain-panel';
import { CheckPanel } from './check-panel';
import { CirclePanel } from './circle-panel';
import { CutPanel } from './cut-panel';
import { DimensionPanel } from './dimension-panel';
import { GuidePanel } from './guide-panel';
import { LayersPanel } from './layers-panel';
import { StandPanel } from './make/stand-panel';
import { MeasurePanel } from './measure-panel';
import { OpeningPanel } from './opening-panel';
import { RegionPanel } from './region-panel';
import { LastDrawnCard } from './relate/proposals-card';
import { RelatePanel } from './relate/relate-panel';
import { SelectPanel } from './select-panel';
import { ShapePanel } from './shape-panel';
import type { TracePanelName } from './trace-row';

/** What the tool in hand, or the opened panel, offers. */
export function TracePanel({ panel }: { panel: TracePanelName }) {
  const tool = useSession((state) => state.tool);
  if (panel === 'layers') return <LayersPanel />;
  if (panel === 'check') return <CheckPanel />;
  switch (tool.name) {
    case 'chain':
      return (
        <>
          <ChainPanel state={tool.state} />
          {tool.state.nodes.length === 0 ? <LastDrawnCard /> : null}
        </>
      );
    case 'circle':
      return <CirclePanel state={tool.state} />;
    case 'opening':
      return <OpeningPanel state={tool.state} />;
    case 'dimension':
      return <DimensionPanel state={tool.state} />;
    case 'region':
      return <RegionPanel state={tool.state} />;
    case 'cut':
      return <CutPanel state={tool.state} />;
    case 'stand':
      return <StandPanel state={tool.state} />;
    case 'shape':
      return <ShapePanel state={tool.state} />;
    case 'guide':
      return <GuidePanel state={tool.state} />;
    case 'distance':
    case 'angle':
      return <MeasurePanel tool={tool.name} state={tool.state} />;
    case 'relate':
      return <RelatePanel state={tool.state} />;
    case 'select':
      return <SelectPanel state={tool.state} />;
    default:
      return null;
  }
}
