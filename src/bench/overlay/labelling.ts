import type { ViewRegion } from '@/core/derive';
import { accuracyLabels } from './accuracy-map';
import { dimensionLabels } from './dimension-marks';
import type { DrawnProps } from './drawn-props';
import { evidenceLabels, type EvidenceLook } from './evidence-marks';
import type { Labelling } from './labels';
import { openingLabels } from './opening-marks';
import { placeLabels } from './place-labels';
import { regionLabels } from './region-marks';
import { relationLabels } from './relation-marks';
import { sharedLabels } from './shared-marks';
import { byEyeLabels } from './by-eye-ink';
import { sitedLabels } from './sited-marks';
import { findMark, marksOf } from './tool-marks';
import type { SessionState } from '../session-state';

/** All words and figures of the drawing with their places. What is worked on chooses first. */
export function labelDrawing(
  drawn: DrawnProps,
  look: EvidenceLook,
  { tool, accuracy, regions }: Pick<SessionState, 'tool' | 'accuracy'> & { readonly regions: readonly ViewRegion[] },
) {
  const marks = marksOf(tool);
  const openings = findMark(marks, 'openings');
  const asked: readonly Labelling[] = [
    evidenceLabels(drawn, look),
    dimensionLabels(drawn),
    ...(findMark(marks, 'shared') ? [sharedLabels(drawn)] : []),
    ...(findMark(marks, 'sited') ? [sitedLabels(drawn)] : []),
    ...(findMark(marks, 'by-eye') ? [byEyeLabels(drawn)] : []),
    ...(openings ? [openingLabels(drawn, openings.chosen)] : []),
    ...(findMark(marks, 'relations') ? [relationLabels(drawn)] : []),
    ...(findMark(marks, 'regions') ? [regionLabels(drawn, regions)] : []),
    ...(accuracy && drawn.fitted.fit.scaled ? [accuracyLabels(drawn)] : []),
  ];
  const labels = asked.flatMap((labelling) => labelling.labels);
  return {
    labels,
    placed: placeLabels(
      labels,
      asked.flatMap(({ lines }) => lines ?? []),
      [drawn.viewport.width, drawn.viewport.height],
    ),
  };
}
