import { done, isOnMap, refused, type Result } from '../basics';
import type { Piece, Vec } from '../geometry';
import { isSound } from './drawing';
import { noCounts, type FilePath, type FileReading } from './file-reading';
import { MAX_PIECES } from './limits';
import { findProjection, WIDEST_SITE, type LonLat } from './projection';

interface Gathering {
  readonly paths: { layer: string; closed: boolean; places: readonly Vec[] }[];
  readonly ignored: Record<string, number>;
}

export interface GeoReading extends FileReading {
  /** The place about which degrees were laid on a plane; absent when the file says metres. */
  readonly site?: LonLat;
}

/**
 * Reads GeoJSON (RFC 7946): lines and areas, each on the layer that its properties name (`layer`, `name`). mm out, x east, y north. Places are
 * longitude and latitude, laid on the plane about `site` or about the middle of them; what cannot be degrees is taken as metres.
 * Refused: what is no GeoJSON, what reaches too far for a plane, too much. Points are counted as ignored.
 */
export function readGeoJson(text: string, site?: LonLat): Result<GeoReading> {
  const gathering: Gathering = { paths: [], ignored: noCounts() };
  try {
    if (!gather(gathering, JSON.parse(text), '', 0)) return refused('geojson-not-understood');
  } catch {
    return refused('geojson-not-understood');
  }
  const places = gathering.paths.flatMap((path) => path.places);
  if (places.length > MAX_PIECES) return refused('reference-too-large', { most: MAX_PIECES });
  if (places.length === 0) return refused('reference-empty');
  const toPlane = placerFor(places, site);
  if (!toPlane.ok) return toPlane;
  const paths = gathering.paths.flatMap(({ layer, closed, places: own }): FilePath[] => {
    const pieces = through(own.map(toPlane.value.toPlane));
    if (pieces.every((piece) => isSound(piece, isOnMap))) return [{ layer, closed, pieces }];
    gathering.ignored.unreachable = (gathering.ignored.unreachable ?? 0) + 1;
    return [];
  });
  const ignored = Object.values(gathering.ignored).reduce((sum, count) => sum + count, 0);
  return done({
    unit: undefined,
    unitMm: 1000,
    paths: paths.filter(({ pieces }) => pieces.length > 0),
    ignored,
    ignoredKinds: gathering.ignored,
    ...(toPlane.value.site ? { site: toPlane.value.site } : {}),
  });
}

const through = (points: readonly Vec[]): Piece[] =>
  points.slice(1).map((b, i) => ({ kind: 'line', a: points[i]!, b }));

function placerFor(
  places: readonly Vec[],
  given: LonLat | undefined,
): Result<{ toPlane(place: Vec): Vec; site?: LonLat }> {
  let [west, east, south, north] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, y] of places)
    [west, east, south, north] = [Math.min(west, x), Math.max(east, x), Math.min(south, y), Math.max(north, y)];
  if (west < -180 || east > 180 || south < -90 || north > 90)
    return done({ toPlane: ([x, y]) => [x * 1000, y * 1000] });
  if (east - west > WIDEST_SITE || north - south > WIDEST_SITE) return refused('site-too-wide');
  const site = given ?? [(west + east) / 2, (south + north) / 2];
  const projection = findProjection(site);
  return projection ? done({ toPlane: projection.toPlane, site }) : refused('site-too-wide');
}

const isPlace = (value: unknown): value is readonly [number, number] =>
  Array.isArray(value) && Number.isFinite(value[0]) && Number.isFinite(value[1]);
const placesIn = (value: unknown): Vec[] | undefined =>
  Array.isArray(value) && value.every(isPlace) ? value.map(([x, y]) => [x, y]) : undefined;
const listIn = (value: unknown): readonly unknown[] | undefined => (Array.isArray(value) ? value : undefined);

/** Adds what an object draws. False where it is not what it says. */
function gather(into: Gathering, object: unknown, layer: string, depth: number): boolean {
  if (typeof object !== 'object' || object === null || depth > 8) return false;
  const { type, coordinates, geometry, geometries, features, properties } = object as Record<string, unknown>;
  const add = (closed: boolean) => (value: unknown) => {
    const places = placesIn(value);
    if (places) into.paths.push({ layer, closed, places });
    return places !== undefined;
  };
  switch (type) {
    case 'FeatureCollection':
      return listIn(features)?.every((feature) => gather(into, feature, layer, depth + 1)) ?? false;
    case 'Feature':
      return geometry === null || gather(into, geometry, layerOf(properties), depth + 1);
    case 'GeometryCollection':
      return listIn(geometries)?.every((one) => gather(into, one, layer, depth + 1)) ?? false;
    case 'LineString':
      return add(false)(coordinates);
    case 'MultiLineString':
      return listIn(coordinates)?.every(add(false)) ?? false;
    case 'Polygon':
      return listIn(coordinates)?.every(add(true)) ?? false;
    case 'MultiPolygon':
      return listIn(coordinates)?.every((polygon) => listIn(polygon)?.every(add(true)) ?? false) ?? false;
    case 'Point':
    case 'MultiPoint':
      into.ignored[type] = (into.ignored[type] ?? 0) + 1;
      return true;
    default:
      return false;
  }
}

function layerOf(properties: unknown): string {
  const { layer, name } = (properties ?? {}) as { layer?: unknown; name?: unknown };
  return String(layer ?? name ?? '').slice(0, 80);
}
