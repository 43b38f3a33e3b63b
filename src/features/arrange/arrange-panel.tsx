import type { ArrangePanelName } from './arrange-row';
import { CurveCards } from './curve-cards';
import { LevelCards } from './level-cards';
import { LookCards } from './look-card';
import { SharedCards } from './shared-cards';
import { SidesCards } from './sides-cards';
import { SiteCards } from './site-cards';
import { TogetherCards } from './together-cards';

/** The cards of the step Arrange. */
export function ArrangePanel({ panel }: { panel: ArrangePanelName }) {
  switch (panel) {
    case 'sides':
      return <SidesCards />;
    case 'shared':
      return <SharedCards />;
    case 'levels':
      return <LevelCards />;
    case 'site':
      return <SiteCards />;
    case 'look':
      return <LookCards />;
    case 'curves':
      return <CurveCards />;
    case 'together':
      return <TogetherCards />;
  }
}
