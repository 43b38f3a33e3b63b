import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { findUnion, pieceBounds, type Bounds, type Vec } from '@/core/geometry';
import { named, together } from '@/core/job';
import { ALIGNMENTS, isMovable, listAlignment, listSpacing, type Alignment, type Outline } from '@/core/outline';
import { commandForMove, type FittedView } from '@/core/derive';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';

const WORDS: Readonly<Record<Alignment, string>> = {
  left: 'Left sides',
  centre: 'Middles, across',
  right: 'Right sides',
  top: 'Tops',
  middle: 'Middles, up',
  bottom: 'Bottoms',
};

/** Lines outlines up with the first one that was chosen, or spaces them evenly. */
export function AlignCard({ of, fitted }: { of: readonly string[]; fitted: FittedView }) {
  const { jobs, session } = useDesk();
  const { job, derived } = useJob((whole) => whole);
  const boxed = of.flatMap((id): { outline: Outline; box: Bounds }[] => {
    const outline = job.outlines.find((other) => other.id === id);
    const box = findUnion((derived.shapes.get(id)?.finished ?? []).map(pieceBounds));
    return outline && box && isMovable(outline) ? [{ outline, box }] : [];
  });
  const move = (steps: readonly Vec[], code: string) => {
    const moves = boxed.flatMap(({ outline }, i) =>
      Math.hypot(...steps[i]!) > 1e-9 ? [commandForMove([outline], steps[i]!, fitted)] : [],
    );
    const last = moves.at(-1);
    if (!last) return session.say('aligned-already');
    jobs.getState().run(named(together([...moves.slice(0, -1), last]), code, { count: moves.length }));
  };
  const boxes = boxed.map(({ box }) => box);
  return (
    <Card testID="align-card">
      <Words style={{ fontWeight: '700' }}>Line up with the first</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {ALIGNMENTS.map((how) => (
          <Button
            key={how}
            mode="outlined"
            compact
            onPress={() => move(listAlignment(boxes, how), 'outlines-aligned')}
            testID={`align-${how}`}>
            {WORDS[how]}
          </Button>
        ))}
        {boxes.length > 2
          ? (
              [
                ['Space across', 0],
                ['Space up', 1],
              ] as const
            ).map(([label, axis]) => (
              <Button
                key={axis}
                mode="outlined"
                compact
                onPress={() => move(listSpacing(boxes, axis), 'outlines-spaced')}
                testID={`space-${axis}`}>
                {label}
              </Button>
            ))
          : null}
      </View>
    </Card>
  );
}
