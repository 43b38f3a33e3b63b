import { useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { compareVariants, listVariants, type FittedView, type VariantsOfSide } from '@/core/derive';
import { layBeside, layOver, showOnly } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { LengthField } from '@/features/trace/make/fields';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { SIDE_WORDS } from '@/ui/feature-words';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { Toggle } from '@/ui/toggle';
import { sizeInWords, differenceInWords } from './variant-words';

/** Views that show the same side: alternatives, laid over or beside each other, shown one by one, and compared. */
export function VariantsCards() {
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  return listVariants({ job, derived }).map((variants) => <VariantsCard key={variants.side} variants={variants} />);
}

const LAID = [
  ['over', 'Over each other'],
  ['beside', 'Side by side'],
] as const;

function VariantsCard({ variants: { side, views } }: { variants: VariantsOfSide }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const beside = useJob(({ job }) => job.variants).find((variants) => variants.side === side);
  const lay = (gap: number) => run(layBeside({ id: beside?.id ?? newId(), side, gap }));
  return (
    <Card testID={`variants-${side}`} broad>
      <Words style={{ fontWeight: '700' }}>{`${views.length} variants, ${SIDE_WORDS[side].toLowerCase()}`}</Words>
      <Choice
        name={`How the variants lie, ${SIDE_WORDS[side].toLowerCase()}`}
        value={beside ? 'beside' : 'over'}
        options={LAID}
        onChange={(how) => {
          if (how === 'beside') lay(beside?.gap ?? usualGap(views[0]!));
          else if (beside) run(layOver(beside.id));
        }}
      />
      {beside ? (
        <LengthField label="Gap between their pictures" mm={beside.gap} onChange={lay} testID="variants-gap" signed />
      ) : null}
      <Shown views={views} />
      <Comparison views={views} />
    </Card>
  );
}

/** A round tenth of what a view's picture is wide on its plane, mm. */
function usualGap({ fit, sheet }: FittedView): number {
  const [left, right] = [fit.toPlane([0, sheet.height / 2]), fit.toPlane([sheet.width, sheet.height / 2])];
  return Number((Math.abs(right[0] - left[0]) / 10).toPrecision(1));
}

/** Which of them are shown: any of them, all, or one after the other. */
function Shown({ views }: { views: readonly FittedView[] }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const all = views.map(({ source }) => source.id);
  const shown = views.filter(({ source }) => !source.hidden).map(({ source }) => source.id);
  const next = all[(all.indexOf(shown[0] ?? '') + (shown.length === 1 ? 1 : 0)) % all.length] ?? all[0]!;
  const turnedOver = (id: string) => (shown.includes(id) ? shown.filter((other) => other !== id) : [...shown, id]);
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }} role="group" aria-label="Which variants are shown">
      {views.map(({ source: { id, name, hidden } }) => (
        <Toggle
          key={id}
          label={name}
          name={`${name} is shown`}
          icons={{ on: 'eye', off: 'hide' }}
          isOn={!hidden}
          onPress={() => run(showOnly(turnedOver(id), all))}
          testID={`variant-${name}`}
        />
      ))}
      <Button compact onPress={() => run(showOnly([next], all))} testID="variant-alone">
        {shown.length === 1 ? 'The next one' : 'One at a time'}
      </Button>
      {shown.length === all.length ? null : (
        <Button compact onPress={() => run(showOnly(all, all))} testID="variants-all">
          All
        </Button>
      )}
    </View>
  );
}

/** The two that are shown, measured against each other. */
function Comparison({ views }: { views: readonly FittedView[] }) {
  const units = useUnits();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const [first, second, ...more] = views.filter(({ source }) => !source.hidden);
  const read = useMemo(
    () => (first && second ? compareVariants(first, second, { job, derived }) : undefined),
    [first, second, job, derived],
  );
  if (!first || !second || more.length > 0)
    return <Words quiet>Show two of them to measure them against each other.</Words>;
  if (!read) return <Words quiet>Trace something in both, and they are measured against each other.</Words>;
  return (
    <View testID="variants-compared">
      <Words>{`${first.source.name}: ${sizeInWords(read.first, units)}`}</Words>
      <Words>{`${second.source.name}: ${sizeInWords(read.second, units)}`}</Words>
      <Words style={{ fontWeight: '700' }}>{`${second.source.name} is ${differenceInWords(read.more, units)}.`}</Words>
    </View>
  );
}
