import { refused, type Refusal } from '../../basics';
import { distance, subtract, type Vec } from '../../geometry';
import { isAround } from './around';
import type { Points } from './context';
import { heightOf, pointsOf, type Observation } from './evidence';

/** Ends closer than this many of their own sigmas are one place. */
const COINCIDENT_SIGMAS = 3;

const fault = (code: string, piece: Observation, detail: Record<string, string | number> = {}) =>
  refused(code, { id: piece.id, ...detail });

/** Why a piece of evidence cannot take part, with its id; undefined when it can. */
export function findFault(piece: Observation, points: Points): Refusal | undefined {
  const names = pointsOf(piece);
  const missing = names.find((name) => points[name] === undefined);
  if (missing !== undefined) return fault('evidence-point-unknown', piece, { point: missing });
  const unsound = names.find(
    (name) => ![...points[name]!.at, points[name]!.sigma, heightOf(points[name]!, 0)].every(Number.isFinite),
  );
  if (unsound !== undefined) return fault('evidence-not-a-number', piece, { point: unsound });
  const unsure = names.find((name) => points[name]!.sigma <= 0);
  if (unsure !== undefined) return fault('evidence-sigma-not-positive', piece, { point: unsure });
  return findNumberFault(piece) ?? findShapeFault(piece, points);
}

/** Sizes that a piece says, which have to be above nothing. */
function sizesOf(piece: Observation): readonly (number | undefined)[] {
  if (piece.kind === 'circle') return [piece.diameterMm];
  if (piece.kind === 'rectangle') return [piece.widthMm, piece.heightMm, piece.proportion];
  return 'mm' in piece && typeof piece.mm === 'number' ? [piece.mm] : [];
}

/** Numbers that a piece says, which may be anything. */
function othersOf(piece: Observation): readonly number[] {
  if (piece.kind === 'angle' || piece.kind === 'level') return [piece.degrees];
  return piece.kind === 'known-point' ? [...piece.mm] : [];
}

function findNumberFault(piece: Observation): Refusal | undefined {
  const sizes = sizesOf(piece);
  const sigmas = [
    ('sigma' in piece && piece.sigma) || undefined,
    'sigma' in piece && piece.sigma === 0 ? 0 : undefined,
    'sigmaDegrees' in piece ? piece.sigmaDegrees : undefined,
  ];
  const given = [...sizes, ...sigmas, ...othersOf(piece)].filter((value) => value !== undefined);
  if (given.some((value) => !Number.isFinite(value))) return fault('evidence-not-a-number', piece);
  if (sizes.some((size) => size !== undefined && size <= 0)) return fault('evidence-length-not-positive', piece);
  if (sigmas.some((sigma) => sigma !== undefined && sigma <= 0)) return fault('evidence-sigma-not-positive', piece);
  return undefined;
}

function findShapeFault(piece: Observation, points: Points): Refusal | undefined {
  const at = (name: string) => points[name]!.at;
  const coincide = (a: string, b: string) =>
    a === b || distance(at(a), at(b)) < COINCIDENT_SIGMAS * Math.hypot(points[a]!.sigma, points[b]!.sigma);
  const together = (line: readonly string[]) => line.length !== 2 || coincide(line[0]!, line[1]!);
  switch (piece.kind) {
    case 'length':
      return coincide(piece.from, piece.to) ? fault('evidence-ends-coincide', piece) : undefined;
    case 'level':
      return together(piece.line) ? fault('evidence-ends-coincide', piece) : undefined;
    case 'equal':
    case 'parallel':
    case 'square':
      if (piece.lines.length < 2) return fault('evidence-too-few-lines', piece);
      return piece.lines.some(together) ? fault('evidence-ends-coincide', piece) : undefined;
    case 'angle':
      if (piece.lines.length !== 2) return fault('evidence-too-few-lines', piece);
      return piece.lines.some(together) ? fault('evidence-ends-coincide', piece) : undefined;
    case 'circle':
      return findSpreadFault(piece, piece.through, 3, points, true);
    case 'straight':
      return findSpreadFault(piece, piece.through, 3, points, false);
    case 'rectangle':
      return findRectangleFault(piece, points);
    case 'known-point':
      return undefined;
  }
}

/** Too few different points, or, where an area is needed, all in one line. */
function findSpreadFault(
  piece: Observation,
  names: readonly string[],
  least: number,
  points: Points,
  needsArea: boolean,
): Refusal | undefined {
  if (new Set(names).size < least) return fault('evidence-too-few-points', piece, { least });
  const places = names.map((name) => points[name]!.at);
  const sigma = Math.max(...names.map((name) => points[name]!.sigma));
  const spread = spreadOf(places);
  if (spread.along < COINCIDENT_SIGMAS * sigma) return fault('evidence-ends-coincide', piece);
  return needsArea && spread.across < COINCIDENT_SIGMAS * sigma ? fault('evidence-points-in-line', piece) : undefined;
}

function findRectangleFault(piece: Extract<Observation, { kind: 'rectangle' }>, points: Points): Refusal | undefined {
  if (piece.corners) {
    if (piece.corners.length !== 4 || new Set(piece.corners).size !== 4)
      return fault('evidence-too-few-points', piece, { least: 4 });
    const corners = piece.corners.map((name) => points[name]!.at);
    return (
      findSpreadFault(piece, piece.corners, 4, points, true) ??
      (isAround(corners) ? undefined : fault('evidence-corners-not-around', piece))
    );
  }
  const counts = piece.sides?.map((side) => new Set(side).size) ?? [];
  // A box by what it touches has one side that says how it is turned, and a touch on each of the others.
  if (counts.length !== 4 || Math.min(...counts) < 1 || Math.max(...counts) < 2)
    return fault('evidence-too-few-points', piece, { least: 5 });
  const coincide = piece.sides!.some(
    (side) =>
      side.length > 1 &&
      spreadOf(side.map((name) => points[name]!.at)).along < COINCIDENT_SIGMAS * points[side[0]!]!.sigma,
  );
  return coincide
    ? fault('evidence-ends-coincide', piece)
    : findSpreadFault(piece, piece.sides!.flat(), 4, points, true);
}

const crossed = (a: Vec, b: Vec) => a[0] * b[1] - a[1] * b[0];

/** Largest extent of points along their main direction, and across it. */
function spreadOf(places: readonly Vec[]): { along: number; across: number } {
  let [first, second] = [places[0]!, places[0]!];
  for (const a of places)
    for (const b of places) if (distance(a, b) > distance(first, second)) [first, second] = [a, b];
  const along = distance(first, second);
  const direction = subtract(second, first);
  const offsets = places.map((place) => (along > 0 ? crossed(direction, subtract(place, first)) / along : 0));
  return { along, across: Math.max(...offsets) - Math.min(...offsets) };
}
