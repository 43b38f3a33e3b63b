import { refused, type Refusal } from '../basics';
import {
  ASSUMED,
  type Allowance,
  type Judgement,
  checkEvidence,
  adjustEvidence,
  fitSigma,
  readEvidence,
  fromOtherSide,
  seenIn,
  unscaledAdjustment,
  type Adjustment,
  type CheckOutcome,
  type Observation as Piece,
  type Fit,
  type Known,
  type PictureGeometry,
  type ReadFigure,
  type Steadiness,
} from '../calibrate';
import type { Sheet, View } from '../job';
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
  /** The view as it stands in the job, and with the evidence that it shares. */
  readonly source: View;
  readonly view: View;
  /** What its evidence is judged by. */
  readonly question: Question;
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

/** All by which the evidence of a view is judged, one and the same for as long as none of it changes, whichever view asks. */
export interface Question extends Pick<View, 'points' | 'evidence' | 'model' | 'lens' | 'lift'> {
  readonly sheet: Sheet;
  readonly mirrored: boolean;
  readonly lookOnly: boolean;
}

const asked = new WeakMap<View['evidence'], readonly Question[]>();

/** The question of a view, with its own evidence or that of the view that it shares it with, and from where that looks. */
export function questionOf({ lookOnly = false }: View, sheet: Sheet, owner: View): Question {
  const { points, evidence, model, lens, lift, mirrored = false } = owner;
  const question: Question = { points, evidence, model, lens, lift, sheet, mirrored, lookOnly };
  const before = asked.get(evidence) ?? [];
  const names = Object.keys(question) as readonly (keyof Question)[];
  const same = before.find((other) => names.every((name) => other[name] === question[name]));
  // The last few are enough: older ones are of views as they were.
  if (!same) asked.set(evidence, [question, ...before].slice(0, 8));
  return same ?? question;
}

/** What a view's evidence came to, as plain data: which pieces were left away, why, and how the others were judged. */
export interface Told {
  readonly refusal: Refusal | undefined;
  readonly without: readonly string[];
  readonly verdict: Judgement | undefined;
}

export const toldOf = ({ refusal, without, fit }: FittedView): Told => ({ refusal, without, verdict: fit.verdict });

/** How far a fit is sought: what was told of the same view before, or what seeking may cost. */
export interface Seeking {
  readonly told?: Told | undefined;
  readonly allowance?: Allowance | undefined;
}

/** What a view's evidence came to, for every view that shares it. */
export interface JudgedView {
  readonly adjustment: Adjustment;
  /** Why all the evidence together gives no fit; the adjustment is then of the last pieces that stood without the newest. */
  readonly refusal: Refusal | undefined;
  readonly without: readonly string[];
  readonly isPending: boolean;
}

/** How high what is traced stands, as somebody said or as is assumed. */
export const liftOf = ({ lift }: Pick<View, 'lift'>) => ({
  mm: lift ?? 0,
  sigma: lift === undefined ? ASSUMED.lift : STATED_LIFT_SIGMA,
});

/** All that is known of a view. */
function knownOf(view: View, sheet: Sheet, allowance: Allowance | undefined): Known {
  const picture = pictureOf(sheet, view);
  const pieces = view.lookOnly ? [] : view.evidence.filter(({ role }) => role !== 'off').map(toPiece);
  return {
    picture,
    points: pointsOfView(view),
    evidence: pieces,
    lift: liftOf(view),
    model: view.model,
    lens: view.lens,
    allowance,
  };
}

/** A view with the evidence of another that it shares as its own. */
function withEvidenceOf(own: View, owner: View): View {
  if (owner === own) return own;
  const { points, evidence, model, lens, lift } = owner;
  return { ...own, points, evidence, model, lens, lift };
}

/** What the evidence of a view comes to, its own or that of `owner`, the view of its sheet that it shares it with. */
export function judgeView(own: View, sheet: Sheet, owner = own, { told, allowance }: Seeking = {}): JudgedView {
  const known = knownOf({ ...withEvidenceOf(own, owner), mirrored: owner.mirrored }, sheet, allowance);
  const found = told ? adjustedAsTold(known, told) : lastGood(known);
  return { ...found, isPending: allowance?.isSpent ?? false };
}

/** How a view is seen: on which ground, and as it was before, where nothing but its looks may have changed since. */
interface Seeing {
  readonly ground?: string;
  readonly before?: FittedView | undefined;
}

/** A view that sees its plane by what its evidence has come to. */
export function seeView(
  own: View,
  sheet: Sheet,
  owner: View,
  judged: JudgedView,
  { ground = own.plane, before }: Seeing = {},
): FittedView {
  if (before?.source === own && before.sheet === sheet && before.ground === ground) return before;
  const view = withEvidenceOf(own, owner);
  const named = { source: own, view, ground, sheet, question: questionOf(own, sheet, owner) };
  const isSeenSo = (other: View) =>
    other.datum === view.datum && other.shares === view.shares && other.mirrored === view.mirrored;
  if (before && isSeenSo(before.view)) return { ...before, ...named };
  const { adjustment, refusal, without, isPending } = judged;
  const isBehind = (adjustment.picture.mirrored ?? false) !== (own.mirrored ?? false);
  const fit = seenIn(isBehind ? fromOtherSide(adjustment) : adjustment, {
    datum: view.datum,
    ownAxes: view.shares !== undefined,
  });
  const { evidence } = knownOf(view, sheet, undefined);
  const shown = fit.scaled ? evidence.filter(({ id }) => !without.includes(id)) : [];
  return {
    ...named,
    fit,
    refusal,
    without,
    sigma: fit.scaled ? fitSigma(fit) : undefined,
    figures: new Map(shown.filter(({ check }) => !check).map((piece) => [piece.id, readEvidence(fit, piece)])),
    checks: shown.filter(({ check }) => check).map((piece) => checkEvidence(fit, piece)),
    placing: { scaled: fit.scaled, toPlane: fit.toPlane },
    steadiness: steadinessOfView(view),
    isPending,
  };
}

/** A view with the fit of what is known about it: see `judgeView` and `seeView`. */
export const fitOf = (own: View, sheet: Sheet, owner = own, seeking: Seeking = {}): FittedView =>
  seeView(own, sheet, owner, judgeView(own, sheet, owner, seeking));

type LastGood = Omit<JudgedView, 'isPending'>;

/**
 * The fit of all pieces, or, where there is none, of as many as give one: without those that the refusal names, else without the newest ones. Without any used evidence the view
 * is simply without scale, which is nothing to refuse.
 */
function lastGood(input: Known): LastGood {
  const bare = unscaledAdjustment(input);
  if (!hasUsed(input.evidence)) return { adjustment: bare, refusal: undefined, without: [] };
  const whole = adjustEvidence(input);
  if (whole.ok) return { adjustment: whole.value, refusal: undefined, without: [] };
  // Whoever may not seek to the end leaves the many fits of fewer pieces to who may.
  if (input.allowance?.isSpent) return { adjustment: bare, refusal: undefined, without: [] };
  const found = withoutNamed(input, whole) ?? withoutNewest(input);
  const kept = new Set(found?.evidence);
  return {
    adjustment: found?.adjustment ?? bare,
    refusal: whole,
    without: input.evidence.filter((piece) => !kept.has(piece)).map(({ id }) => id),
  };
}

/** The adjustment that was told of, without seeking it again. */
function adjustedAsTold(input: Known, { refusal, without, verdict }: Told): LastGood {
  const evidence = input.evidence.filter(({ id }) => !without.includes(id));
  const adjusted = verdict && adjustEvidence({ ...input, evidence, verdict });
  return { adjustment: adjusted?.ok ? adjusted.value : unscaledAdjustment(input), refusal, without };
}

const hasUsed = (evidence: readonly Piece[]) => evidence.some((piece) => !piece.check);

interface Found {
  readonly adjustment: Adjustment;
  readonly evidence: readonly Piece[];
}

function fitOfThese(input: Known, evidence: readonly Piece[]): Found | Refusal {
  if (!hasUsed(evidence)) return refused('scale-undetermined');
  const adjusted = adjustEvidence({ ...input, evidence });
  return adjusted.ok ? { adjustment: adjusted.value, evidence } : adjusted;
}

/** Without the pieces that refusals name, one after the other; of several that contradict each other without the newest. Undefined when a refusal names none, or nothing is left. */
function withoutNamed(input: Known, first: Refusal): Found | undefined {
  let [refusal, left] = [first, input.evidence];
  for (;;) {
    const named = String(refusal.detail.id ?? refusal.detail.ids ?? '').split(',');
    const culprit = left.findLast(({ id }) => named.includes(id));
    if (!culprit) return undefined;
    left = left.filter((piece) => piece !== culprit);
    const tried = fitOfThese(input, left);
    if ('adjustment' in tried) return tried;
    refusal = tried;
  }
}

/** Without the newest pieces: twice as many each time until there is a fit, then by halves as few as give one. */
function withoutNewest(input: Known): Found | undefined {
  const { evidence } = input;
  const tryWithout = (count: number) => {
    const tried = fitOfThese(input, evidence.slice(0, evidence.length - count));
    return 'adjustment' in tried ? tried : undefined;
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
