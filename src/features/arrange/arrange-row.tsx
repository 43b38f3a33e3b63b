import type { ComponentProps } from 'react';
import type { ShareState } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import { LedgeButton } from '@/ui/ledge-button';
import { LAID_OUT } from './look-card';

export type ArrangePanelName = 'sides' | 'shared' | 'levels' | 'site' | 'curves' | 'together' | 'look';

interface ArrangeRowProps {
  readonly panel: ArrangePanelName;
  readonly onPanel: (panel: ArrangePanelName) => void;
}

type Button = Omit<ComponentProps<typeof LedgeButton>, 'chosen' | 'onPress'>;

const SIDES: Button = { icon: 'sides', label: 'Sides', name: 'Which side each view shows', testID: 'panel-sides' };
const SHAPES: readonly (readonly [ShareState['shape'], Button])[] = [
  ['level', { icon: 'base', label: 'Level line', name: 'A level line that several views show', testID: 'share-level' }],
  [
    'upright',
    { icon: 'guide', label: 'Upright line', name: 'An upright line that several views show', testID: 'share-upright' },
  ],
  ['place', { icon: 'place', label: 'Place', name: 'A place that several views show', testID: 'share-place' }],
];
const HALFWAY: Button = {
  icon: 'halfway',
  label: 'Halfway',
  name: 'Point at both sides of what lies halfway between them: a centre line',
  testID: 'share-halfway',
};
const LEVELS: Button = {
  icon: 'levels',
  label: 'Levels',
  name: 'How high storeys lie, and on which is drawn',
  testID: 'panel-levels',
};
const CURVE: Button = {
  icon: 'curve',
  label: 'Curve',
  name: 'A curve in space, from two outlines',
  testID: 'panel-curves',
};
const SITE: Button = {
  icon: 'site',
  label: 'On a site',
  name: 'One drawing set down on another: a plan on its site',
  testID: 'panel-site',
};
const TOGETHER: Button = {
  icon: 'arrange',
  label: 'Together',
  name: 'How the views stand together, and one fit of all',
  testID: 'panel-together',
};
const FOLD: Button = {
  icon: 'fold',
  label: 'Fold up',
  name: 'All views laid out, and folded up around the thing',
  testID: 'panel-look-together',
};

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
  const sharing = tool.name === 'share' ? tool.state : undefined;
  const isHalfway = sharing?.halfway === true;
  const share = (state: ShareState) => () => {
    open('shared')();
    session.setTool({ name: 'share', state });
  };
  const curves = () => {
    open('curves')();
    session.chooseTool('spaceCurve');
  };
  const site = () => {
    open('site')();
    session.chooseTool('site');
  };
  const { shape = 'upright', feature } = sharing ?? {};
  return (
    <>
      <LedgeButton {...SIDES} chosen={panel === 'sides'} onPress={open('sides')} />
      {SHAPES.map(([each, button]) => (
        <LedgeButton
          key={each}
          {...button}
          chosen={panel === 'shared' && sharing?.shape === each && !sharing.feature}
          onPress={share({ shape: each, ...(isHalfway ? { halfway: true } : {}) })}
        />
      ))}
      <LedgeButton
        {...HALFWAY}
        chosen={panel === 'shared' && isHalfway}
        onPress={share({ shape, feature, ...(isHalfway ? {} : { halfway: true }) })}
      />
      <LedgeButton {...LEVELS} chosen={panel === 'levels'} onPress={open('levels')} />
      <LedgeButton {...SITE} chosen={panel === 'site'} onPress={site} />
      <LedgeButton {...CURVE} chosen={panel === 'curves'} onPress={curves} />
      <LedgeButton {...TOGETHER} chosen={panel === 'together'} onPress={open('together')} />
      <LedgeButton {...FOLD} chosen={panel === 'look'} onPress={open('look')} />
    </>
  );
}
