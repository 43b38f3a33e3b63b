import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { startTool, type DimensionState } from '@/bench/tools';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { findSpan, kindsFor, listRow, wholeEnds } from '@/core/derive';
import { findUnion, pieceBounds } from '@/core/geometry';
import { addDimension, named, together, type Command, type Dimension, type DimensionKind } from '@/core/job';
import type { Outline, Shape } from '@/core/outline';
import type { RelationEnd } from '@/core/relate';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { LedgeButton } from '@/ui/ledge-button';
import { UnderButton } from './under-button';
import { Words } from '@/ui/text';
import { DIMENSION_WORDS, SizeRow } from './size-row';

/** How far a dimension stands aside, as a share of its size, and from one to the next where they stand over each other. */
const ASIDE = 0.15;
const STEP = 0.08;
const STANDS_THERE: readonly DimensionKind[] = ['angle', 'slope', 'gap'];
const ROWS = [
  ['across', 'before', 'Across, one after the other'],
  ['across', 'first', 'Across, all from the first'],
  ['up', 'before', 'Up, one after the other'],
  ['up', 'first', 'Up, all from the first'],
] as const;

/** Sizes that stay on the drawing: what is read between what, what it should be, and how the two agree. */
export function DimensionPanel({ state }: { state: DimensionState }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const { job, derived } = useJob((whole) => whole);
  if (!fitted) return null;
  const kept = job.dimensions.filter(({ plane }) => plane === fitted.view.plane);
  const run = (command: Command | undefined) => {
    if (!command) return session.say('row-needs-places');
    jobs.getState().run(command);
    session.setTool(startTool('dimension'));
  };
  const reading = { plane: fitted.view.plane, on: state.on, outlines: job.outlines, shapes: derived.shapes };
  return (
    <>
      <Card testID="dimension-card">
        <Words quiet>{hintFor(state)}</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6, alignItems: 'center' }}>
          <LedgeButton
            icon="rows"
            label="Several"
            name="Sizes between several places in a row"
            chosen={state.several ?? false}
            onPress={() => session.changeTool('dimension', { several: !state.several })}
            testID="dimension-several"
          />
          <UnderButton within={state.within} />
          {state.several
            ? null
            : kindsFor(state.on, job.outlines, derived.shapes).map((kind) => (
                <Button
                  key={kind}
                  mode="outlined"
                  compact
                  onPress={() => run(keeping(kind, reading))}
                  testID={`keep-${kind}`}>
                  {DIMENSION_WORDS[kind]}
                </Button>
              ))}
          {state.several && state.on.length > 1
            ? ROWS.map(([kind, from, label]) => (
                <Button
                  key={label}
                  mode="outlined"
                  compact
                  onPress={() => run(keepingRow(kind, from, reading))}
                  testID={`keep-row-${kind}-${from}`}>
                  {label}
                </Button>
              ))
            : null}
        </View>
      </Card>
      {kept.length > 0 ? (
        <Card testID="sizes">
          <Words
            style={{
              fontWeight: '700',
            }}>{`${kept.length} ${kept.length === 1 ? 'size' : 'sizes'} on the drawing`}</Words>
          {kept.map((dimension: Dimension) => (
            <SizeRow key={dimension.id} dimension={dimension} scaled={fitted.fit.scaled} />
          ))}
        </Card>
      ) : null}
    </>
  );
}

interface Reading {
  readonly plane: string;
  readonly on: readonly RelationEnd[];
  readonly outlines: readonly Outline[];
  readonly shapes: ReadonlyMap<string, Shape>;
}

const begun = (kind: DimensionKind, on: readonly RelationEnd[], plane: string) => ({
  id: newId(),
  plane,
  kind,
  on,
  aside: 0,
});

/** Keeps one size on the drawing, aside of what it is read between. */
function keeping(kind: DimensionKind, { plane, on: pointed, outlines, shapes }: Reading): Command {
  const on = kind === 'gap' ? wholeEnds(pointed) : pointed;
  const size = findSpan({ kind, on }, outlines, shapes)?.value ?? 0;
  return addDimension({ ...begun(kind, on, plane), aside: STANDS_THERE.includes(kind) ? 0 : ASIDE * size });
}

/** Keeps sizes in a row, on one line beside all that was pointed at, or on a line each where they begin at the same place. Undefined where fewer than two places were. */
function keepingRow(
  kind: 'across' | 'up',
  from: 'before' | 'first',
  { plane, on: pointed, outlines, shapes }: Reading,
): Command | undefined {
  const axis = kind === 'across' ? 0 : 1;
  const box = findUnion(pointed.flatMap(({ outline }) => shapes.get(outline)?.finished ?? []).map(pieceBounds));
  const rows = listRow(pointed, outlines, shapes, axis, from);
  if (!box || rows.length === 0) return undefined;
  const size = Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1]);
  const line = (i: number) => box.min[1 - axis]! - size * (ASIDE + (from === 'first' ? i * STEP : 0));
  const added = rows.map((on, i) => addDimension({ ...begun(kind, on, plane), line: line(i) }));
  return named(together([...added.slice(0, -1), added.at(-1)!]), 'dimensions-added', { count: added.length });
}

function hintFor({ on, several }: DimensionState): string {
  if (several)
    return on.length < 2
      ? 'Point at the places, corners and circles for instance: one after the other.'
      : `${on.length} places. Keep their sizes, or point at more.`;
  return on.length === 0
    ? 'Point at a line, an arc or a circle, or at two things one after the other.'
    : 'Keep one of these on the drawing, or point at a second thing.';
}
