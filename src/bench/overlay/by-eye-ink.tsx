import { listByEye, type SeenByEye } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import { formatLength } from '@/core/units';
import { BY_EYE_WORDS } from '@/ui/by-eye-words';
import type { Palette } from '@/ui/palette';
import { layingOf } from '../laying';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { labelAround, type Labelling } from './labels';
import { pathData } from './path-data';

interface StoodProps {
  readonly seen: SeenByEye;
  readonly fromPlane: (place: Vec) => Vec;
  readonly palette: Palette;
}

/** Something that stands there to judge by eye: plain ink, finer than anything that is measured. */
export function StoodInk({ seen: { stood, pieces }, fromPlane, palette }: StoodProps) {
  const d = pieces.map((piece) => pathData([piece], false, fromPlane)).join('');
  return (
    <g data-testid={`by-eye-${stood.thing}`} fill="none">
      <path d={d} stroke={palette.halo} strokeWidth={3.6} strokeOpacity={0.7} vectorEffect="non-scaling-stroke" />
      <path d={d} stroke={palette.ink} strokeWidth={1.3} vectorEffect="non-scaling-stroke" />
    </g>
  );
}

/** All that stands on the plane of the view to judge it by eye, in bench pixels. */
export function ByEyeInk({ job, derived, fitted, viewport, palette }: DrawnProps) {
  const { fromPlane } = layingOf(viewport, fitted.fit);
  return listByEye(fitted.view.plane, { job, derived }).map((seen) => (
    <StoodInk key={seen.stood.id} seen={seen} fromPlane={fromPlane} palette={palette} />
  ));
}

/** What each is, and about how large. */
export function byEyeLabels({ job, derived, fitted, viewport, palette }: DrawnProps): Labelling {
  return {
    labels: listByEye(fitted.view.plane, { job, derived }).map(({ stood, at, size }) =>
      labelAround(toScreen(viewport, fitted.fit.toSheet(at)), {
        key: `by-eye-${stood.id}`,
        text: `${BY_EYE_WORDS[stood.thing]}, about ${formatLength(size.value, job.units, size.sigma)}`,
        color: palette.quiet,
        writing: 'word',
      }),
    ),
  };
}
