import { done, refused, type Refusal, type Result } from '../basics';
import {
  ASSUMED,
  type Allowance,
  type Verdict,
  checkEvidence,
  fitSigma,
  fitView,
  readEvidence,
  unscaledFit,
  type CheckOutcome,
  type Evidence as Piece,
  type Fit,
  type FitInput,
  type PictureGeometry,
  type ReadFigure,
  type Steadiness,
} from '../calibrate';
import type { Job, Sheet, View } from '../job';
import type { Placing } from '../outline';
import { pointsOfView, steadinessOfView, toPiece } from './evidence';

/** How well a height that somebody typed is known. mm, one sigma. */
const STATED_LIFT_SIGMA = 0.15;

export function pictureOf(sheet: Sheet, { mirrored = false }: Pick<View, 'mirrored'> = {}): PictureGeometry {
  const { focal35mm, tilt } = sheet.taken;
  const measured =
    sheet.trustTilt && tilt ? ([(tilt[0] * Math.PI) / 180, (tilt[1] * Math.PI) / 180] as const) : undefined;
  return {
    width: sheet.width,
    height: sheet.height,
    kind: sheet.kind,
    focal35mm,
    mirrored,
    ...(measured ? { tilt: measured } : {}),
  };
}

/** A view with what follows from its evidence; one that shares a fit shows that evidence as its own. */
export interface FittedView {
  readonly view: View;
  /** The plane whose zero and axes hold: its own, or the one that its own lies on. */
  readonly ground: string;
  readonly sheet: Sheet;
  readonly fit: Fit;
  /** Why all the evidence together gives no fit; `fit` is then the last one that stood without the newest pieces. */
  readonly refusal: Refusal | undefined;
  /** Pieces that were left away for that: nothing of them is in the fit. */
  readonly without: readonly string[];
  /** One sigma of a distance across the middle half of the picture, mm; undefined without scale. */
  readonly sigma: number | undefined;
  /** What the fit makes of every piece that is used or suspected. */
  readonly figures: ReadonlyMap<string, readonly ReadFigure[]>;
  readonly checks: readonly CheckOutcome[];
  readonly placing: Omit<Placing, 'nodeAt'>;
  /** How steady the hand is that points at this view. */
  readonly steadiness: Steadiness;
  /** What does not belong was not sought to the end: the fit is one of all pieces, or of as many as could be judged by then. */
  readonly isPending: boolean;
}

/** What a view's evidence came to, as plain data: which pieces were left away, why, and how the others were judged. */
export interface Told {
  readonly refusal: Refusal | undefined;
  readonly without: readonly string[];
  readonly verdict: Verdict | undefined;
}

export const toldOf = ({ refusal, without, fit }: FittedView): Told => ({ refusal, without, verdict: fit.verdict });

/** How far a fit is sought: what was told of the same view before, or what seeking may cost. */
export interface Seeking {
  readonly told?: Told | undefined;
  readonly allowance?: Allowance | undefined;
  readonly ground?: string;
}

/** All that is known of a view, as a fit asks for it. */
function inputOf(view: View, sheet: Sheet, allowance: Allowance | undefined): FitInput {
  const picture = pictureOf(sheet, view);
  const pieces = view.lookOnly ? [] : view.evidence.filter(({ role }) => role !== 'off').map(toPiece);
  const lift = { mm: view.lift ?? 0, sigma: view.lift === undefined ? ASSUMED.lift : STATED_LIFT_SIGMA };
  return {
    picture,
    datum: view.datum,
    points: pointsOfView(view),
    evidence: pieces,
    lift,
    model: view.model,
    lens: view.lens,
    ownAxes: view.shares !== undefined,
    allowance,
  };
}

/** A view with the fit of what is known about it, or about `owner`, the view of its sheet that it shares a fit with. */
export function fitOf(
  own: View,
  sheet: Sheet,
  owner = own,
  { told, allowance, ground = own.plane }: Seeking = {},
): FittedView {
  const view =
    owner === own
      ? own
      : {
          ...own,
          points: owner.points,
          evidence: owner.evidence,
          model: owner.model,
          lens: owner.lens,
          lift: owner.lift,
        };
  const input = inputOf(view, sheet, allowance);
  const { fit, refusal, without } = told ? fitAsTold(input, told) : lastGoodFit(input);
  const shown = fit.scaled ? input.evidence.filter(({ id }) => !without.includes(id)) : [];
  return {
    view,
    ground,
    sheet,
    fit,
    refusal,
    without,
    sigma: fit.scaled ? fitSigma(fit) : undefined,
    figures: new Map(shown.filter(({ check }) => !check).map((piece) => [piece.id, readEvidence(fit, piece)])),
    checks: shown.filter(({ check }) => check).map((piece) => checkEvidence(fit, piece)),
    placing: { scaled: fit.scaled, toPlane: fit.toPlane },
    steadiness: steadinessOfView(view),
    isPending: allowance?.isSpent ?? false,
  };
}

interface LastGood {
  readonly fit: Fit;
  readonly refusal: Refusal | undefined;
  readonly without: readonly string[];
}

/**
 * The fit of all pieces, or, where there is none, of as many as give one: without those that the refusal names, else without the newest ones. Without any used evidence the view
 * is simply without scale, which is nothing to refuse.
 */
function lastGoodFit(input: FitInput): LastGood {
  if (!hasUsed(input.evidence)) return { fit: unscaledFit(input), refusal: undefined, without: [] };
  const whole = fitView(input);
  if (whole.ok) return { fit: whole.value, refusal: undefined, without: [] };
  // Whoever may not seek to the end leaves the many fits of fewer pieces to who may.
  if (input.allowance?.isSpent) return { fit: unscaledFit(input), refusal: undefined, without: [] };
  const found = withoutNamed(input, whole) ?? withoutNewest(input);
  const kept = new Set(found?.evidence);
  return {
    fit: found?.fit ?? unscaledFit(input),
    refusal: whole,
    without: input.evidence.filter((piece) => !kept.has(piece)).map(({ id }) => id),
  };
}

/** The fit that was told of, without seeking it again. */
function fitAsTold(input: FitInput, { refusal, without, verdict }: Told): LastGood {
  const evidence = input.evidence.filter(({ id }) => !without.includes(id));
  const fit = verdict && fitView({ ...input, evidence, verdict });
  return { fit: fit?.ok ? fit.value : unscaledFit(input), refusal, without };
}

const hasUsed = (evidence: readonly Piece[]) => evidence.some((piece) => !piece.check);

interface Found {
  readonly fit: Fit;
  readonly evidence: readonly Piece[];
}

function fitOfThese(input: FitInput, evidence: readonly Piece[]): Found | Refusal {
  if (!hasUsed(evidence)) return refused('scale-undetermined');
  const fit = fitView({ ...input, evidence });
  return fit.ok ? { fit: fit.value, evidence } : fit;
}

/** Without the pieces that refusals name, one after the other; of several that contradict each other without the newest. Undefined when a refusal names none, or nothing is left. */
function withoutNamed(input: FitInput, first: Refusal): Found | undefined {
  let [refusal, left] = [first, input.evidence];
  for (;;) {
    const named = String(refusal.detail.id ?? refusal.detail.ids ?? '').split(',');
    const culprit = left.findLast(({ id }) => named.includes(id));
    if (!culprit) return undefined;
    left = left.filter((piece) => piece !== culprit);
    const tried = fitOfThese(input, left);
    if ('fit' in tried) return tried;
    refusal = tried;
  }
}

/** Without the newest pieces: twice as many each time until there is a fit, then by halves as few as give one. */
function withoutNewest(input: FitInput): Found | undefined {
  const { evidence } = input;
  const tryWithout = (count: number) => {
    const tried = fitOfThese(input, evidence.slice(0, evidence.length - count));
    return 'fit' in tried ? tried : undefined;
  };
  let [tooFew, enough, found] = [0, 1, tryWithout(1)];
  while (!found && enough < evidence.length - 1) {
    [tooFew, enough] = [enough, Math.min(evidence.length - 1, 2 * enough)];
    found = tryWithout(enough);
  }
  while (found && enough - tooFew > 1) {
    const middle = Math.floor((tooFew + enough) / 2);
    const better = tryWithout(middle);
    if (better) [enough, found] = [middle, better];
    else tooFew = middle;
  }
  return found;
}

export function findFittedView(job: Job, id: string): Result<FittedView> {
  const view = job.views.find((other) => other.id === id);
  const sheet = view && job.sheets.find((other) => other.id === view.sheet);
  return view && sheet
    ? done(
        fitOf(
          view,
          sheet,
          job.views.find((other) => other.id === view.shares),
        ),
      )
    : refused('view-missing', { id });
}
