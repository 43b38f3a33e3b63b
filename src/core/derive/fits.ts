import { done, refused, type Refusal, type Result } from '../basics';
import {
  applyHomography, ASSUMED_LIFT, checkLength, evidenceLength, fitSigma, fitView, unscaledFit,
  type CheckOutcome, type Fit, type LengthEvidence, type PictureGeometry,
} from '../calibrate';
import type { Measured } from '../adjust';
import type { Evidence, Job, Sheet, View } from '../job';
import type { Placing } from '../outline';

/** A length typed without plus-minus is taken as read off a rule or caliper: 0.15 mm and 0.02 % (one sigma). */
const READING = { mm: 0.15, share: 0.0002 };
/** "about": 3 % on screen, therefore 1.5 % as one sigma. */
const GUESS_SHARE = 0.015;
/** How well a height that somebody typed is known. mm, one sigma. */
const STATED_LIFT_SIGMA = 0.15;

/** One sigma of a stated length, mm: half of what was typed, or the assumption for how it was said. */
export function sigmaOfLength(evidence: Pick<Evidence, 'mm' | 'plusMinus' | 'guess'>): number {
  if (evidence.plusMinus !== undefined) return evidence.plusMinus / 2;
  return evidence.guess ? evidence.mm * GUESS_SHARE : READING.mm + evidence.mm * READING.share;
}

export function toLengthEvidence(evidence: Evidence): LengthEvidence {
  return { id: evidence.id, from: evidence.from, to: evidence.to, mm: evidence.mm, sigma: sigmaOfLength(evidence), check: evidence.check };
}

export function pictureOf(sheet: Sheet): PictureGeometry {
  return { width: sheet.width, height: sheet.height, kind: sheet.kind, focal35mm: sheet.taken.focal35mm };
}

/** A view with what follows from its evidence. `refusal` says why there is no fit although there is evidence. */
export interface FittedView {
  readonly view: View;
  readonly sheet: Sheet;
  readonly fit: Fit;
  readonly refusal: Refusal | undefined;
  /** One sigma of a distance across the middle half of the picture, mm; undefined without scale. */
  readonly sigma: number | undefined;
  readonly lengths: readonly { readonly id: string; readonly comesTo: Measured }[];
  readonly checks: readonly CheckOutcome[];
  readonly placing: Omit<Placing, 'findNode'>;
}

export function fitOf(view: View, sheet: Sheet): FittedView {
  const picture = pictureOf(sheet);
  const evidence = view.evidence.map(toLengthEvidence);
  const lift = { mm: view.lift ?? 0, sigma: view.lift === undefined ? ASSUMED_LIFT : STATED_LIFT_SIGMA };
  const outcome = fitView({ picture, datum: view.datum, evidence, lift });
  const fit = outcome.ok ? outcome.value : unscaledFit({ picture, datum: view.datum });
  const checks = evidence.filter((piece) => piece.check);
  return {
    view, sheet, fit,
    refusal: outcome.ok ? undefined : outcome,
    sigma: fit.scaled ? fitSigma(fit, picture) : undefined,
    lengths: fit.scaled ? evidence.filter((piece) => !piece.check).map((piece) => ({ id: piece.id, comesTo: evidenceLength(fit, piece) })) : [],
    checks: fit.scaled ? checks.map((piece) => checkLength(fit, piece)) : [],
    placing: { scaled: fit.scaled, toPlane: (sheetPoint) => applyHomography(fit.toPlane, sheetPoint) },
  };
}

export function findFittedView(job: Job, id: string): Result<FittedView> {
  const view = job.views.find((other) => other.id === id);
  const sheet = view && job.sheets.find((other) => other.id === view.sheet);
  return view && sheet ? done(fitOf(view, sheet)) : refused('view-missing', { id });
}
