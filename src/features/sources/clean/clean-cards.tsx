import { View } from 'react-native';
import { Button, Switch } from 'react-native-paper';
import { startBrush, type BrushState } from '@/bench/tools';
import { useDesk, useFitted, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { setCleaning, type CleaningStep } from '@/core/job';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { SpecksCard } from './specks-card';

/** How the picture of a view is cleaned: what can be done to it, and what was done, step by step. */
export function CleanCards() {
  const fitted = useFitted();
  if (!fitted) return null;
  return (
    <>
      <DoCard fitted={fitted} />
      <SpecksCard key={fitted.view.id} fitted={fitted} />
      <StepsCard fitted={fitted} />
    </>
  );
}

const BRUSH_WORDS = { rub: 'Rub out', fill: 'Fill in' } as const;

/** Evening out, and the two brushes with their width. */
function DoCard({ fitted: { view, sheet } }: { fitted: FittedView }) {
  const palette = usePalette();
  const { jobs, session } = useDesk();
  const tool = useSession((state) => state.tool);
  const brush = tool.name === 'brush' ? tool.state : undefined;
  const steps = view.cleaning ?? [];
  const isEven = steps.some(({ kind }) => kind === 'even');
  const widest = Math.max(60, Math.round(Math.min(sheet.width, sheet.height) / 20));
  const even = () =>
    jobs.getState().run(setCleaning(view.id, [{ id: newId(), on: true, kind: 'even' }, ...steps], 'evened-out'));
  const take = (does: BrushState['does']) =>
    brush?.does === does
      ? session.chooseTool('select')
      : session.setTool({
          name: 'brush',
          state: startBrush(does, brush?.radius ?? Math.max(4, Math.round(widest / 6))),
        });
  return (
    <Card testID="clean-card">
      <Words style={{ fontWeight: '700' }}>Clean the picture</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <Button mode="outlined" disabled={isEven} onPress={even} testID="even-out">
          Even out the paper
        </Button>
        {(['rub', 'fill'] as const).map((does) => (
          <Button
            key={does}
            mode={brush?.does === does ? 'contained' : 'outlined'}
            onPress={() => take(does)}
            testID={`brush-${does}`}>
            {BRUSH_WORDS[does]}
          </Button>
        ))}
      </View>
      {brush ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, height: 40 }}>
          <Words>Width</Words>
          <input
            type="range"
            aria-label="Width of the brush"
            min={1}
            max={widest}
            step={1}
            value={brush.radius}
            onChange={(event) =>
              session.setTool({ name: 'brush', state: { ...brush, radius: Number(event.target.value) } })
            }
            style={{ flex: 1, minWidth: 0, height: 40, accentColor: palette.hedge }}
          />
          <Words>{`${2 * brush.radius} px`}</Words>
        </View>
      ) : (
        <Words quiet style={{ fontSize: 13 }}>
          The picture itself stays as it came in.
        </Words>
      )}
    </Card>
  );
}

function wordsFor(step: CleaningStep): string {
  const strokes = (count: number) => (count === 1 ? 'one stroke' : `${count} strokes`);
  switch (step.kind) {
    case 'even':
      return 'Paper evened out';
    case 'specks':
      return `Specks up to ${Number(step.size.toFixed(1))} px taken away`;
    case 'rub':
      return `Rubbed out, ${strokes(step.strokes.length)}`;
    case 'fill':
      return `Filled in, ${strokes(step.strokes.length)}`;
  }
}

/** What was done, in its order; each can be switched off and taken away. */
function StepsCard({ fitted: { view } }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const working = useSession((state) => state.cleaning);
  const steps = view.cleaning ?? [];
  if (steps.length === 0) return null;
  const put = (next: readonly CleaningStep[], code: string) => jobs.getState().run(setCleaning(view.id, next, code));
  return (
    <Card testID="cleaning-steps">
      <Words style={{ fontWeight: '700' }}>
        {working === undefined ? 'What was done' : `Cleaning … ${Math.round(100 * working)} %`}
      </Words>
      {steps.map((step, i) => (
        <View key={step.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Words style={{ flex: 1, fontSize: 14 }}>{`${i + 1}. ${wordsFor(step)}`}</Words>
          <Switch
            value={step.on}
            onValueChange={(on) => put(steps.with(i, { ...step, on }), on ? 'cleaning-on' : 'cleaning-off')}
            accessibilityLabel={wordsFor(step)}
          />
          <RoundButton
            icon="trash"
            name={`Take back: ${wordsFor(step)}`}
            size={36}
            onPress={() =>
              put(
                steps.filter((other) => other.id !== step.id),
                'cleaning-removed',
              )
            }
          />
        </View>
      ))}
    </Card>
  );
}
