import proj4 from 'proj4';
import type { Vec } from '../geometry';

/** Longitude and latitude, degrees, on WGS 84. */
export type LonLat = readonly [longitude: number, latitude: number];

const MM = 1000;
/** Farther from its own zero than this, a drawing or map gets one nearby, on a round figure. mm. */
const FAR = 1e7;
const ROUND = 1e5;

/** A zero for what lies around a place: its own, or a round one nearby. mm. */
export function nearbyZero([x, y]: Vec): Vec {
  return Math.hypot(x, y) > FAR ? [Math.floor(x / ROUND) * ROUND, Math.floor(y / ROUND) * ROUND] : [0, 0];
}

/** Between a site's plane (mm, x east, y north) and another way of saying places. */
export interface SiteProjection {
  toPlane(place: Vec): Vec;
  fromPlane(plane: Vec): Vec;
}

/** How far apart in longitude a site may reach before a plane is no picture of it any more. Degrees. */
export const WIDEST_SITE = 1;

/**
 * The plane of a site: transverse Mercator about a place of the site itself with scale 1, so that a length on the plane is off by less
 * than 2 millionths within 10 km (Snyder, Map Projections: A Working Manual, 1987, section 8).
 */
const planeAbout = ([longitude, latitude]: LonLat) =>
  `+proj=tmerc +lat_0=${latitude} +lon_0=${longitude} +k=1 +x_0=0 +y_0=0 +ellps=WGS84 +towgs84=0,0,0 +units=m`;

/**
 * From a map's own coordinates to the plane of a site: `map` is written as the projection library takes it, longitude and latitude when it is
 * left out. Undefined when the library does not know that writing. Only what is written out is used; nothing is looked up.
 */
export function findProjection(site: LonLat, map = 'EPSG:4326'): SiteProjection | undefined {
  try {
    const { forward, inverse } = proj4(map, planeAbout(site));
    const metres = (place: Vec) => forward([...place]) as [number, number];
    return {
      toPlane: (place) => metres(place).map((value) => value * MM) as unknown as Vec,
      fromPlane: ([x, y]) => inverse([x / MM, y / MM]) as unknown as Vec,
    };
  } catch {
    return undefined;
  }
}

/** Longitude and latitude of a place of a map; undefined where there is no such writing or place. */
export function findLonLat(map: string, place: Vec): LonLat | undefined {
  try {
    const [longitude, latitude] = proj4(map, 'EPSG:4326', [...place]) as [number, number];
    return Number.isFinite(longitude) && Number.isFinite(latitude) ? [longitude, latitude] : undefined;
  } catch {
    return undefined;
  }
}
