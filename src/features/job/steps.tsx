import { Pressable, View } from 'react-native';
import { useJob } from '@/bench/use-session';
import { listStanding, type Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { stepsOf, type StepName } from './step';

type Standing = 'open' | 'begun' | 'fine' | 'look';
const WORDS: Readonly<Record<Standing, string>> = {
  open: 'not begun',
  begun: 'begun',
  fine: 'fine',
  look: 'needs a look',
};
/** A shape for every standing, so that colour is not all that tells. */
const SHAPES: Readonly<Record<Standing, string>> = {
  open: '',
  begun: 'M2 6h8',
  fine: 'M2 6l3 3l5-6',
  look: 'M6 1l5 9H1z',
};

/** The steps of the work, each with how it stands. */
export function Steps({ step, onStep, wide }: { step: StepName; onStep: (step: StepName) => void; wide: boolean }) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  return (
    <View
      role="navigation"
      aria-label="Steps"
      style={{
        flexDirection: wide ? 'column' : 'row',
        backgroundColor: palette.paper,
        borderTopWidth: wide ? 0 : 1,
        borderTopColor: palette.rule,
        padding: wide ? 6 : 0,
        gap: wide ? 2 : 0,
      }}>
      {stepsOf(job).map(({ name, label, icon }) => {
        const standing = standingOf(name, job, derived);
        const chosen = name === step;
        const color = chosen ? palette.hedge : palette.ink;
        return (
          <Pressable
            key={name}
            testID={`step-${name}`}
            accessibilityRole="button"
            aria-current={chosen ? 'step' : undefined}
            accessibilityLabel={`${label}, ${WORDS[standing]}`}
            onPress={() => onStep(name)}
            style={{
              flex: wide ? undefined : 1,
              height: wide ? 46 : 54,
              flexDirection: wide ? 'row' : 'column',
              gap: wide ? 10 : 1,
              paddingHorizontal: wide ? 10 : 0,
              alignItems: 'center',
              justifyContent: wide ? 'flex-start' : 'center',
              borderRadius: wide ? 8 : 0,
              backgroundColor: chosen ? palette.leaf : 'transparent',
            }}>
            <Icon name={icon} color={color} />
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4, flex: wide ? 1 : undefined }}>
              <Words
                style={{ fontSize: wide ? 15 : 12.5, lineHeight: wide ? 20 : 16, color, flex: wide ? 1 : undefined }}>
                {label}
              </Words>
              {standing === 'open' ? null : (
                <svg
                  width={11}
                  height={11}
                  viewBox="0 0 12 12"
                  fill="none"
                  stroke={standing === 'look' ? palette.straw : palette.hedge}
                  strokeWidth={2}
                  aria-hidden>
                  <path d={SHAPES[standing]} />
                </svg>
              )}
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

function standingOf(step: StepName, job: Job, derived: Derived): Standing {
  const views = [...derived.views.values()].filter(({ view }) => !view.lookOnly);
  switch (step) {
    case 'sources':
      return job.sheets.length > 0 ? 'fine' : 'open';
    case 'fit': {
      if (
        views.some(
          (view) =>
            view.refusal || view.fit.warnings.length > 0 || view.checks.some((check) => check.verdict === 'differs'),
        )
      )
        return 'look';
      if (!views.some((view) => view.fit.scaled)) return 'open';
      return views.every((view) => view.checks.length > 0) ? 'fine' : 'begun';
    }
    case 'arrange': {
      const { stands, refusal, spans, warnings } = derived.arranged;
      const isOdd =
        [...stands.values()].some(({ seen }) => seen.some(({ suspect }) => suspect)) ||
        [...spans.values()].some(({ suspect }) => suspect);
      if (refusal || warnings.length > 0 || isOdd) return 'look';
      const standing = listStanding(job, derived).length;
      if (standing === 0) return job.sitings.length > 0 ? 'begun' : 'open';
      return standing === views.length ? 'fine' : 'begun';
    }
    case 'trace': {
      if (job.outlines.length === 0) return 'open';
      const shapes = [...derived.shapes.values()];
      if (shapes.some((shape) => shape.faults.length > 0)) return 'look';
      return shapes.every((shape) => shape.closed) ? 'fine' : 'begun';
    }
    case 'handover':
      return 'open';
  }
}
