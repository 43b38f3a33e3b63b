import type { ShareState } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { LedgeButton } from '@/ui/ledge-button';
import { LAID_OUT } from './look-card';

export type ArrangePanelName = 'sides' | 'shared' | 'curves' | 'together' | 'look';

interface ArrangeRowProps {
  readonly panel: ArrangePanelName;
  readonly onPanel: (panel: ArrangePanelName) => void;
}

const SHAPES = [
  ['level', 'base', 'Level line', 'A level line that several views show'],
  ['upright', 'guide', 'Upright line', 'An upright line that several views show'],
  ['place', 'place', 'Place', 'A place that several views show'],
] as const;

/** The row of what brings several views of one thing together. */
export function ArrangeRow({ panel, onPanel }: ArrangeRowProps) {
  const { session } = useDesk();
  const fitted = useFitted();
  const tool = useSession((state) => state.tool);
  if (!fitted) return null;
  const open = (name: ArrangePanelName) => () => {
    if (tool.name !== 'share') session.chooseTool('share');
    session.setFolding(name === 'look' ? LAID_OUT : undefined);
    onPanel(name);
  };
  const isHalfway = tool.name === 'share' && tool.state.halfway === true;
  const halfway = () => {
    open('shared')();
    const { shape, feature } = tool.name === 'share' ? tool.state : { shape: 'upright' as const, feature: undefined };
    session.setTool({ name: 'share', state: { shape, feature, ...(isHalfway ? {} : { halfway: true }) } });
  };
  const curves = () => {
    open('curves')();
    session.chooseTool('spaceCurve');
  };
  const share = (shape: ShareState['shape']) => () => {
    open('shared')();
    session.setTool({ name: 'share', state: { shape, ...(isHalfway ? { halfway: true } : {}) } });
  };
  return (
    <>
      <LedgeButton
        icon="sides"
        label="Sides"
        name="Which side each view shows"
        chosen={panel === 'sides'}
        onPress={open('sides')}
        testID="panel-sides"
      />
      {SHAPES.map(([shape, icon, label, name]) => (
        <LedgeButton
          key={shape}
          icon={icon}
          label={label}
          name={name}
          chosen={panel === 'shared' && tool.name === 'share' && tool.state.shape === shape && !tool.state.feature}
          onPress={share(shape)}
          testID={`share-${shape}`}
        />
      ))}
      <LedgeButton
        icon="halfway"
        label="Halfway"
        name="Point at both sides of what lies halfway between them: a centre line"
        chosen={panel === 'shared' && isHalfway}
        onPress={halfway}
        testID="share-halfway"
      />
      <LedgeButton
        icon="curve"
        label="Curve"
        name="A curve in space, from two outlines"
        chosen={panel === 'curves'}
        onPress={curves}
        testID="panel-curves"
      />
      <LedgeButton
        icon="arrange"
        label="Together"
        name="How the views stand together, and one fit of all"
        chosen={panel === 'together'}
        onPress={open('together')}
        testID="panel-together"
      />
      <LedgeButton
        icon="fold"
        label="Fold up"
        name="All views laid out, and folded up around the thing"
        chosen={panel === 'look'}
        onPress={open('look')}
        testID="panel-look-together"
      />
    </>
  );
}
