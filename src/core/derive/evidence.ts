import {
  averagedPoint,
  sigmaOfReading,
  steadinessOf,
  type Observation as Piece,
  type LineEnds,
  type Points,
  type Steadiness,
} from '../calibrate';
import type { Evidence, EvidencePoint, SaidName, View } from '../job';

/** Angles that somebody typed without a plus-minus are exact; "about" allows this much. Degrees, one sigma. */
const GUESSED_ANGLE = 1.5;

const pointingsOf = ({ at, sigma, edge, again = [] }: EvidencePoint) => [{ at, sigma, edge }, ...again];

/** How steady the hand is that pointed at a view, from what it pointed at again. */
export function steadinessOfView({ points }: View): Steadiness {
  return steadinessOf(points.map(pointingsOf));
}

/** A place that is held is not moved by the fit: as good as exact, on the sheet and on the plane. */
const HELD_PX = 0.01;
const HELD_MM = 1e-4;

/** The points of a view by name, each from all its pointings; those of pieces on the traced face stand as high as it does, stated or not. */
export function pointsOfView(view: View): Points {
  const raised = new Set(view.evidence.filter(({ onTraced }) => onTraced).flatMap(({ groups }) => groups.flat()));
  const held = new Set(view.evidence.filter((piece) => piece.held).flatMap(({ groups }) => groups.flat()));
  const steadiness = steadinessOfView(view);
  const placeOf = (point: EvidencePoint) =>
    held.has(point.id) ? { at: point.at, sigma: HELD_PX } : averagedPoint(pointingsOf(point), steadiness);
  return Object.fromEntries(
    view.points.map((point) => [
      point.id,
      { ...placeOf(point), height: raised.has(point.id) ? ('traced' as const) : point.height },
    ]),
  );
}

/** One sigma of a stated size: half of what was typed, or the assumption for how it was said. mm. */
export function sigmaOfSaid({ plusMinus, guess }: Pick<Evidence, 'plusMinus' | 'guess'>, mm: number): number {
  return plusMinus === undefined ? sigmaOfReading(mm, guess) : plusMinus / 2;
}

/** A stored piece in the terms of the fit. */
export function toPiece(evidence: Evidence): Piece {
  const { id, kind, groups, role } = evidence;
  const common = { id, check: role === 'check' };
  const said = (name: SaidName) => evidence.said[name]?.value;
  const largest = Math.max(0, ...Object.values(evidence.said).map((size) => size?.value ?? 0));
  const sigma = sigmaOfSaid(evidence, largest);
  const exactUnlessSaid = evidence.plusMinus === undefined && !evidence.guess ? undefined : sigma;
  const unsaid = evidence.guess ? GUESSED_ANGLE : undefined;
  const sigmaDegrees = evidence.plusMinus === undefined ? unsaid : evidence.plusMinus / 2;
  const lines = groups as readonly LineEnds[];
  switch (kind) {
    case 'length':
      return { ...common, kind, from: groups[0]![0]!, to: groups[0]![1]!, mm: said('length') ?? NaN, sigma };
    case 'circle':
      return { ...common, kind, through: groups[0]!, diameterMm: said('diameter'), sigma };
    case 'rectangle': {
      const points = groups.every((side) => side.length === 1) ? { corners: groups.flat() } : { sides: groups };
      return { ...common, kind, ...points, widthMm: said('width'), heightMm: said('height'), sigma };
    }
    case 'equal':
      return { ...common, kind, lines, sigma: exactUnlessSaid };
    case 'parallel':
    case 'square':
      return { ...common, kind, lines, sigmaDegrees };
    case 'angle':
      return { ...common, kind, lines, degrees: said('angle') ?? NaN, sigmaDegrees };
    case 'level':
      return { ...common, kind, line: lines[0]!, degrees: said('angle') ?? 0, sigmaDegrees };
    case 'straight':
      return { ...common, kind, through: groups[0]!, sigma: exactUnlessSaid };
    case 'known-point':
      return {
        ...common,
        kind,
        point: groups[0]![0]!,
        mm: [said('across') ?? 0, said('up') ?? 0],
        sigma: evidence.held ? HELD_MM : sigma,
      };
  }
}
