import { View } from 'react-native';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { formatPlusMinus } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { LedgeButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { setHidden, setLocked } from '@/core/job';
import { EvidenceCards } from './evidence-cards';
import { LengthEntry } from './length-entry';
import { HeightCard } from './height-card';
import { LookCard } from './look-card';

export type FitPanelName = 'evidence' | 'look' | 'height';

/** The row of what can be done to find a view's scale. */
export function FitRow({ panel, onPanel }: { panel: FitPanelName; onPanel: (panel: FitPanelName) => void }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const tool = useSession((state) => state.tool.name);
  if (!fitted) return null;
  const { view } = fitted;
  const choose = (name: 'length' | 'check' | 'datum') => () => {
    onPanel('evidence');
    session.chooseTool(name);
  };
  const open = (name: FitPanelName) => () => {
    session.chooseTool('select');
    onPanel(panel === name ? 'evidence' : name);
  };
  return (
    <>
      <LedgeButton icon="length" label="Length" name="Known length" chosen={tool === 'length'} onPress={choose('length')} testID="tool-length" />
      <LedgeButton icon="check" label="Check" name="Check on a second size" chosen={tool === 'check'} onPress={choose('check')} testID="tool-check" />
      <LedgeButton icon="level" label="Level" name="Zero and what is level" chosen={tool === 'datum'} onPress={choose('datum')} testID="tool-datum" />
      {fitted.sheet.kind === 'photo' ? <LedgeButton icon="height" label="Height" name="Height of what is traced" chosen={panel === 'height'} onPress={open('height')} testID="panel-height" /> : null}
      <LedgeButton icon="look" label="Look" name="How the picture is shown" chosen={panel === 'look'} onPress={open('look')} testID="panel-look" />
      <LedgeButton icon={view.hidden ? 'hide' : 'eye'} label={view.hidden ? 'Hidden' : 'Shown'} name={view.hidden ? 'Show the picture' : 'Hide the picture'} chosen={view.hidden} onPress={() => jobs.getState().run(setHidden(view.id, !view.hidden))} testID="toggle-hidden" />
      <LedgeButton icon={view.locked ? 'lock' : 'unlock'} label={view.locked ? 'Locked' : 'Open'} name={view.locked ? 'Unlock the view' : 'Lock the view'} chosen={view.locked} onPress={() => jobs.getState().run(setLocked(view.id, !view.locked))} testID="toggle-lock" />
    </>
  );
}

export function FitPanel({ panel }: { panel: FitPanelName }) {
  const fitted = useFitted();
  const tool = useSession((state) => state.tool);
  if (!fitted) return null;
  if (panel === 'look') return <LookCard fitted={fitted} />;
  if (panel === 'height') return <HeightCard fitted={fitted} />;
  const asking = (tool.name === 'length' || tool.name === 'check') && tool.state.points.length === 2;
  return (
    <>
      {asking ? <LengthEntry key={tool.name} check={tool.name === 'check'} state={tool.state} /> : <FitSummary fitted={fitted} />}
      <EvidenceCards fitted={fitted} />
    </>
  );
}

/** What the fit says in words: how good it is, and where most of the doubt comes from. */
function FitSummary({ fitted }: { fitted: FittedView }) {
  const units = useUnits();
  const { fit, sheet, refusal, sigma, view } = fitted;
  if (refusal) return <Card><Words testID="fit-summary">{sentenceFor(refusal.code, refusal.detail)}</Words></Card>;
  if (!fit.scaled || sigma === undefined) {
    return <Card><Words testID="fit-summary">No scale yet. Point at the two ends of something you know, then type its length.</Words></Card>;
  }
  const words = [`A distance across half the picture is good to ${formatPlusMinus(sigma, units)}.`];
  if (sheet.kind === 'photo') {
    const lengths = view.evidence.filter((evidence) => !evidence.check).length;
    words.push(lengths < 2
      ? 'A photo by hand is taken to be square-on within 3°, which is most of it. A second length along another side brings it down.'
      : 'A photo by hand is taken to be square-on within 3°; your lengths hold part of that down.');
    if (view.lift === undefined) words.push('Nobody said how high the traced edge stands: up to 3 mm is allowed for.');
  } else words.push(sheet.kind === 'scan' ? 'A scan may be stretched by 0.2 %.' : 'A copy or print may be stretched by 1 %.');
  return (
    <Card>
      <View style={{ gap: 4 }}>
        <Words testID="fit-summary" style={{ fontSize: 14, lineHeight: 19 }}>{words.join(' ')}</Words>
        {fit.warnings.map((code) => <Words key={code} testID="fit-warning" style={{ fontSize: 14, lineHeight: 19, fontWeight: '700' }}>{sentenceFor(code)}</Words>)}
      </View>
    </Card>
  );
}
