import { done, refused, type Result } from '../basics';
import { findLonLat, findProjection, nearbyZero } from '../formats';
import { applied, type Affine, type Vec } from '../geometry';
import { type Evidence, type EvidencePoint, type Sheet, type Site, type View } from '../job';

/** A picture of ground lies as its world file says to about a pixel. px, two sigma. Assumed: such files do not say. */
const PLUS_MINUS_PX = 1;
/** A picture wider than this in degrees shows no site: its figures are metres from a zero nearby. */
const WIDEST_IN_DEGREES = 0.5;
/** Figures of a map in metres, on the plane in mm. */
const MM = 1000;

/** What is known of a picture that comes with a world file. */
export interface MapPlace {
  /** From sheet px to the map. */
  readonly map: Affine;
  /** How the map's own coordinates are to be read, as projection libraries write it; absent: degrees where they can be degrees, else metres. */
  readonly projection?: string | undefined;
}

/**
 * The view of a picture whose place on a map is known: its four corners are known points of the site's plane. `site` is the job's, if it has one;
 * what comes back is the site that then holds. Refused when the map cannot be laid on that plane.
 */
export function placedView(
  view: View,
  sheet: Pick<Sheet, 'width' | 'height'>,
  { map, projection }: MapPlace,
  given: Site | undefined,
): Result<{ readonly view: View; readonly site: Site }> {
  const corners: readonly Vec[] = [
    [0, 0],
    [sheet.width, 0],
    [sheet.width, sheet.height],
    [0, sheet.height],
  ];
  const said = corners.map((corner) => applied(map, corner));
  const laid = placerOf(said, projection, given);
  if (!laid.ok) return laid;
  const { toPlane, site } = laid.value;
  const places = said.map(toPlane);
  if (places.some(([x, y]) => !Number.isFinite(x) || !Number.isFinite(y))) return refused('map-not-laid');
  const pixel = Math.hypot(places[1]![0] - places[0]![0], places[1]![1] - places[0]![1]) / sheet.width;
  const points = corners.map((at, i): EvidencePoint => ({ id: `${view.id}-corner-${i}`, at, sigma: 0.05 }));
  const evidence = places.map((place, i): Evidence => ({
    id: `${view.id}-map-${i}`,
    kind: 'known-point',
    groups: [[points[i]!.id]],
    guess: false,
    role: 'use',
    plusMinus: PLUS_MINUS_PX * pixel,
    name: `corner ${i + 1}, by its world file`,
    said: {
      across: { value: place[0], written: `${place[0].toFixed(1)} mm` },
      up: { value: place[1], written: `${place[1].toFixed(1)} mm` },
    },
  }));
  return done({ view: { ...view, points, evidence, model: 'affine', lens: 'none' }, site });
}

function placerOf(
  said: readonly Vec[],
  projection: string | undefined,
  given: Site | undefined,
): Result<{ toPlane(place: Vec): Vec; site: Site }> {
  const [a, b] = said as [Vec, Vec];
  const degrees =
    projection === undefined &&
    said.every(([x, y]) => Math.abs(x) <= 180 && Math.abs(y) <= 90) &&
    Math.hypot(b[0] - a[0], b[1] - a[1]) < WIDEST_IN_DEGREES;
  if (!degrees && projection === undefined) return done(inMetres(said, given));
  const inDegrees = degrees ? said[0]! : findLonLat(projection!, said[0]!);
  if (!inDegrees) return refused('map-not-laid');
  const about = given?.about ?? ([inDegrees[0], inDegrees[1]] as const);
  const found = findProjection(about, projection);
  const zero = given?.zero ?? [0, 0];
  return found
    ? done({ toPlane: (place) => shifted(found.toPlane(place), zero), site: { zero, about } })
    : refused('map-not-laid');
}

const shifted = ([x, y]: Vec, [x0, y0]: Vec): Vec => [x - x0, y - y0];

function inMetres(said: readonly Vec[], given: Site | undefined): { toPlane(place: Vec): Vec; site: Site } {
  const zero = given?.zero ?? nearbyZero([said[0]![0] * MM, said[0]![1] * MM]);
  return { toPlane: ([a, b]) => shifted([a * MM, b * MM], zero), site: { ...given, zero } };
}
