import { Matrix } from 'ml-matrix';
import type { Diagnosis } from '../adjust';
import { done, refused, type Result } from '../basics';
import { distance, type Vec } from '../geometry';
import type { Pose } from '../space';
import { adjustView, type AdjustedView } from './adjust-view';
import type { Pointed } from './view-problem';
import {
  begunOnOtherSide,
  findFault,
  hasTwoSizes,
  heightOf,
  inOrder,
  LIFT_BLOCK,
  pointBlock,
  pointFrame,
  pointsOf,
  type PointFrame,
  type Observation,
  type Points,
} from './evidence';
import { chooseModel, firstNumberOf, type LensWish, type MapModel, type MapPart, type ModelWish } from './models';
import { judgeEvidence, type Judged } from './odd-one-out';
import { covarianceOver, mixedOf, widened, type Mixed } from './mixed';
import { listFoundParts, type FoundPart } from './parts';
import type { Lift, PictureGeometry } from './picture';
import { atHeight } from './projection';
import { weighsAssumptions, type Allowance } from './stories';
import { judgedBy, verdictOf, type Judgement } from './verdict';
import { createSheetMap, isInFront, type SheetMap } from './sheet-map';
import { isMonotone, NO_LENS } from './lens';

/**
 * What the evidence of a view comes to, whoever looks through it: numbers and how uncertain they are. `values` are the numbers of the map from sheet pixels to the plane (mm, y up) and
 * the height at which things are traced, as far as the evidence tells it, among those of all views that were fitted with it; `covariance` is theirs. Views that share their evidence share it.
 */
export interface Adjustment {
  readonly scaled: boolean;
  readonly picture: PictureGeometry;
  readonly values: readonly number[];
  readonly covariance: Matrix;
  /** What the covariance is made of: that within one way in which the picture can have been taken, and the other ways, which may lie far off. */
  readonly mixed: Mixed;
  /** Where among the values those of each part of the model are, in the model's order, and where the height is. */
  readonly layout: { readonly parts: readonly (readonly number[])[]; readonly lift: number };
  /** Pieces as the fit has taken them: their corners in order, begun on the side that fits. */
  readonly taken: ReadonlyMap<string, Observation>;
  /** The map for some numbers to a plane that stands at a pose in the view's frame, in the axes of the evidence; without a pose as high as the numbers say. */
  mapAt(values: readonly number[], pose?: Pose): SheetMap;
  /** Whether the evidence tells which way is up, and where zero is. */
  readonly tells: { readonly turn: boolean; readonly shift: boolean };
  /** Middle of the evidence, sheet px: accuracy is stated relative to it. The picture's middle when there is none. */
  readonly centre: Vec;
  /** The two places of the evidence that are farthest apart, sheet px: accuracy does not count a turn of the whole, which they carry. */
  readonly baseline: readonly [Vec, Vec] | undefined;
  readonly points: Points;
  /** Names of the points whose places the fit has adjusted. */
  readonly adjustedPoints: ReadonlySet<string>;
  /** The adjusted places of points, and what is known of `values` and, after them, of these. */
  withPoints(names: readonly string[]): { readonly places: readonly Vec[]; readonly mixed: Mixed };
  readonly model: MapModel | undefined;
  readonly parts: readonly FoundPart[];
  readonly diagnosis: Diagnosis | undefined;
  readonly suspects: readonly string[];
  readonly suspectsKept: boolean;
  readonly warnings: readonly string[];
  /** What judging the evidence came to; undefined where there was nothing to judge. */
  readonly verdict: Judgement | undefined;
}

/** All that is known of a view. */
export interface Known {
  readonly picture: PictureGeometry;
  readonly points: Points;
  readonly evidence: readonly Observation[];
  readonly lift: Lift;
  readonly model?: ModelWish | undefined;
  readonly lens?: LensWish | undefined;
  /** What judging may cost; without it as much as it takes. */
  readonly allowance?: Allowance | undefined;
  /** What judging the same evidence has come to already. */
  readonly verdict?: Judgement | undefined;
}

/** A view without any scale: pixels, y up. Nothing about it is uncertain because nothing is claimed. */
export function unscaledAdjustment({ picture, points = {} }: Pick<Known, 'picture'> & Partial<Known>): Adjustment {
  const unit = Math.hypot(picture.width, picture.height) / 2;
  const map = createSheetMap(picture, NO_LENS, [picture.mirrored ? -unit : unit, 0, 0, 0, unit, 0, 0, 0, 1]);
  return {
    scaled: false,
    picture,
    points,
    taken: new Map(),
    values: [],
    covariance: Matrix.zeros(0, 0),
    mixed: { within: Matrix.zeros(0, 0), ways: [] },
    layout: { parts: [], lift: -1 },
    mapAt: () => map,
    tells: { turn: false, shift: false },
    centre: [picture.width / 2, picture.height / 2],
    baseline: undefined,
    adjustedPoints: new Set(),
    withPoints: (names) => ({
      places: names.map((name) => points[name]!.at),
      mixed: { within: Matrix.zeros(2 * names.length, 2 * names.length), ways: [] },
    }),
    model: undefined,
    parts: [],
    diagnosis: undefined,
    suspects: [],
    suspectsKept: false,
    warnings: [],
    verdict: undefined,
  };
}

/** Rectangles that are tried begun on their other side. */
const MOST_TURNED = 3;
/** A slant at which it is asked whether a rectangle was begun on its other side instead. Radians. */
const STEEP = 0.95;

const SIZED = (piece: Observation) =>
  piece.kind === 'length' ||
  (piece.kind === 'circle' && piece.diameterMm !== undefined) ||
  (piece.kind === 'rectangle' && (piece.widthMm !== undefined || piece.heightMm !== undefined));

/**
 * Adjusts the numbers of a view's map to all that is known about it. Refused with the piece's id when one cannot take part, with what stays open when
 * they do not tell enough (`scale-undetermined` when nothing states a size), or when exact relations contradict each other.
 * When the pieces disagree at 1 % and nothing tells which is wrong, the covariance is scaled by the variance factor and the
 * warning `evidence-disagrees` is given.
 */
export function adjustEvidence(input: Known): Result<Adjustment> {
  const { picture, points, evidence, model = 'auto', lens = model === 'auto' ? 'auto' : 'none' } = input;
  for (const piece of evidence) {
    const fault = findFault(inOrder(piece, points), points);
    if (fault) return fault;
  }
  const used = evidence.filter((piece) => !piece.check).map((piece) => inOrder(piece, points));
  const known = used.filter((piece) => piece.kind === 'known-point').length;
  if (!used.some(SIZED) && known < 2) return refused('scale-undetermined', { undetermined: 'scale' });
  const frame = { turns: known > 1 || used.some((piece) => piece.kind === 'level'), shifts: known > 0 };
  const chosen = chooseModel(picture, model, lens, frame);
  const again = input.verdict && judgedBy(input.verdict, chosen, input);
  const judged = again ? done(again) : judgeEitherWay(chosen, used, input);
  if (!judged.ok) return judged;
  const bent = weighsAssumptions(chosen) && isBent(judged.value);
  return done(
    adjustmentFrom(input, bent ? withoutBlame(judged.value, input) : judged.value, verdictOf(judged.value), bent),
  );
}

const SHAPED = (piece: Observation) =>
  piece.kind === 'straight' || piece.kind === 'rectangle' || piece.kind === 'known-point';
/** So many pieces do not fall out of line one by one: what they lie on is not flat. */
const MANY_ASTRAY = 3;

/** Whether pieces that say only how the plane runs do not lie on one plane, and none of them is to blame: a page that bows, a board that is warped. */
function isBent({ adjusted, evidence, suspects }: Judged): boolean {
  const shaped = evidence.filter(SHAPED);
  const astray = shaped.filter(({ id }) => suspects.includes(id));
  return (
    shaped.length >= 2 &&
    suspects.length === astray.length &&
    (adjusted.diagnosis.isConsistent === false ||
      astray.length >= MANY_ASTRAY ||
      astray.some(({ kind }) => kind === 'straight'))
  );
}

/** All pieces in the fit, where that can be had, and no lens bent for them: what they disagree by is in the plus-minus. */
function withoutBlame(judged: Judged, pointed: Pointed): Judged {
  const freed: ReadonlySet<MapPart> = new Set([...judged.freed].filter((part) => part === 'tilt'));
  const unblamed: Judged = judged.suspectsKept ? { ...judged, suspects: [], suspectsKept: false } : judged;
  if (judged.suspects.length === 0 && freed.size === judged.freed.size) return judged;
  const together = adjustView(judged.adjusted.model, judged.evidence, pointed, freed, judged.adjusted.values);
  return together.ok && together.value.solution.nearlySettled && together.value.solution.relationsHold
    ? { ...judged, adjusted: together.value, freed, suspects: [], suspectsKept: false, others: [] }
    : unblamed;
}

/** Where all assumptions are weighed, rectangles are also tried begun on their other side, where they do not fit well as they are. */
function judgeEitherWay(model: MapModel, evidence: readonly Observation[], input: Known): Result<Judged> {
  const turnable = weighsAssumptions(model) ? evidence.filter(hasTwoSizes).slice(0, MOST_TURNED) : [];
  return turnable.reduce(
    (judged, piece) => {
      if (judged.ok && fitsWell(judged.value)) return judged;
      const turned = judgeEvidence(
        model,
        (judged.ok ? judged.value.evidence : evidence).map((other) =>
          other.id === piece.id ? begunOnOtherSide(piece) : other,
        ),
        input,
        { quick: true, allowance: input.allowance },
      );
      return turned.ok && (!judged.ok || isBetter(turned.value, judged.value)) ? turned : judged;
    },
    judgeEvidence(model, evidence, input, { allowance: input.allowance }),
  );
}

/** No rectangle is suspected, nothing disagrees, and the camera was not held steeper than anybody would. */
function fitsWell({ adjusted, evidence, suspects }: Judged): boolean {
  const tilt = firstNumberOf(adjusted.model, 'tilt');
  return (
    !evidence.some((piece) => hasTwoSizes(piece) && suspects.includes(piece.id)) &&
    adjusted.diagnosis.isConsistent !== false &&
    (tilt < 0 || Math.hypot(adjusted.values[tilt]!, adjusted.values[tilt + 1]!) < STEEP)
  );
}

const isBetter = (one: Judged, other: Judged) =>
  one.suspects.length < other.suspects.length ||
  (one.suspects.length === other.suspects.length && one.cost < other.cost);

function adjustmentFrom(input: Known, judged: Judged, verdict: Judgement, bent: boolean): Adjustment {
  const { picture, points } = input;
  const { adjusted, freed, suspects, suspectsKept } = judged;
  const { model, diagnosis } = adjusted;
  const count = adjusted.values.length;
  const values = [...adjusted.values, adjusted.solution.values.get(LIFT_BLOCK)![0]!];
  const mixedWith = (names: readonly string[]) => mixedAround(judged, points, names);
  const mixed = mixedWith([]);
  const covariance = covarianceOver(mixed);
  const named = new Set(adjusted.evidence.flatMap(pointsOf));
  const places = [...named].map((name) => points[name]!.at);
  return {
    scaled: true,
    picture,
    points,
    taken: new Map(judged.evidence.map((piece) => [piece.id, piece])),
    values,
    covariance,
    mixed,
    layout: layoutOf(model),
    mapAt: (at, pose = atHeight(at[count]!)) => model.mapAt(at.slice(0, count), pose),
    tells: { turn: hasPart(model, 'turn'), shift: hasPart(model, 'shift') },
    centre: centreOf(places),
    baseline: baselineOf(places),
    adjustedPoints: named,
    withPoints: (names) => ({
      places: names.map((name) => pointFrame(points[name]!).toSheet(adjusted.solution.values.get(pointBlock(name))!)),
      mixed: mixedWith(names),
    }),
    model,
    parts: listFoundParts(adjusted, covariance, freed),
    diagnosis,
    suspects: input.evidence.map(({ id }) => id).filter((id) => suspects.includes(id)),
    suspectsKept,
    warnings: listWarnings(
      input,
      adjusted,
      model.mapAt(adjusted.values, atHeight(values[count]!)),
      doubtIn(adjusted, bent),
    ),
    verdict,
  };
}

const doubtIn = ({ diagnosis }: AdjustedView, bent: boolean) =>
  bent ? 'not-flat' : diagnosis.isConsistent === false ? 'evidence-disagrees' : undefined;

/** How the numbers of a judgement, the height and these places hang together, in each way in which the picture can have been taken; places on the sheet. */
const mixedAround = (judged: Judged, points: Points, names: readonly string[]): Mixed =>
  mixedInSheetFrame(
    widened(mixedOf(judged, [LIFT_BLOCK, ...names.map(pointBlock)]), strainOf(judged.adjusted)),
    judged.adjusted.values.length + 1,
    names.map((name) => pointFrame(points[name]!)),
  );

/** What was assumed of pointing and reading counts as much as this many freedoms beside what the fit shows of it. Assumed. */
const TRUST = 10;

/**
 * What the covariance is multiplied with for how badly the pieces fit together: by the variance factor where they disagree at 1 %, and where all assumptions are weighed before that by its
 * posterior mean, if it is above one (Gelman et al., Bayesian Data Analysis, 3rd edition, section 2.6): a sheet that is bowed a little shows in the plus-minus before it can be proved.
 */
function strainOf({ diagnosis, model, solution }: AdjustedView): number {
  if (diagnosis.isConsistent === false) return diagnosis.varianceFactor!;
  return weighsAssumptions(model) ? Math.max(1, (TRUST + solution.chiSquare) / (TRUST + diagnosis.redundancy)) : 1;
}

const hasPart = ({ parts }: MapModel, part: MapPart) => parts.some(({ id }) => id === part);

/** One part after the other, and the height behind them. */
function layoutOf({ parts }: MapModel): Adjustment['layout'] {
  let first = 0;
  const each = parts.map(({ start }) => start.map(() => first++));
  return { parts: each, lift: first };
}

/** Turns the covariance of points, which follow the first `count` numbers, from the frames they were observed in to the sheet's. */
export function inSheetFrame(covariance: Matrix, count: number, frames: readonly PointFrame[]): Matrix {
  const turned = covariance.clone();
  frames.forEach(({ axes: [x, y] }, i) => {
    const [first, second] = [count + 2 * i, count + 2 * i + 1];
    // First its rows, then its columns: nothing else changes.
    for (let k = 0; k < turned.columns; k++) {
      const [u, v] = [turned.get(first, k), turned.get(second, k)];
      turned.set(first, k, x[0] * u + y[0] * v);
      turned.set(second, k, x[1] * u + y[1] * v);
    }
    for (let k = 0; k < turned.rows; k++) {
      const [u, v] = [turned.get(k, first), turned.get(k, second)];
      turned.set(k, first, x[0] * u + y[0] * v);
      turned.set(k, second, x[1] * u + y[1] * v);
    }
  });
  return turned;
}

/** The same of everything that is known over all ways. */
const mixedInSheetFrame = ({ within, ways }: Mixed, count: number, frames: readonly PointFrame[]): Mixed => ({
  within: inSheetFrame(within, count, frames),
  ways: ways.map(({ away, weight }) => ({
    weight,
    away: [
      ...away.slice(0, count),
      ...frames.flatMap(({ axes: [x, y] }, i) => {
        const [u, v] = [away[count + 2 * i]!, away[count + 2 * i + 1]!];
        return [x[0] * u + y[0] * v, x[1] * u + y[1] * v];
      }),
    ],
  })),
});

/** What has to be told of a map, and of the pieces that made it. */
export function listWarnings(
  { lift, points, picture }: Pick<Known, 'lift' | 'points' | 'picture'>,
  { model, evidence }: Pick<AdjustedView, 'model' | 'evidence'>,
  map: SheetMap,
  disagreement: string | undefined,
): string[] {
  const raised =
    lift.mm !== 0 || evidence.some((piece) => pointsOf(piece).some((name) => heightOf(points[name]!, lift.mm) !== 0));
  const corners: Vec[] = [
    [0, 0],
    [picture.width, 0],
    [0, picture.height],
    [picture.width, picture.height],
  ];
  return [
    ...(disagreement ? [disagreement] : []),
    ...(raised && model.name !== 'camera' ? ['height-needs-camera'] : []),
    ...(isMonotone(map.lens) ? [] : ['lens-folds-over']),
    ...(corners.every((corner) => isInFront(map, corner)) ? [] : ['horizon-in-picture']),
  ];
}

/** Those of some places that lie farthest apart. */
export function baselineOf(places: readonly Vec[]): readonly [Vec, Vec] | undefined {
  return places
    .flatMap((a, i) => places.slice(i + 1).map((b) => [a, b] as const))
    .reduce<readonly [Vec, Vec] | undefined>(
      (longest, pair) => (longest && distance(...longest) >= distance(...pair) ? longest : pair),
      undefined,
    );
}

/** The middle of some places. */
export function centreOf(places: readonly Vec[]): Vec {
  return [
    places.reduce((sum, p) => sum + p[0], 0) / places.length,
    places.reduce((sum, p) => sum + p[1], 0) / places.length,
  ];
}
