import { ownedName } from '../adjust';
import type { Datum, LensWish, Lift, MapPart, ModelWish, Observation, PictureGeometry, Points } from '../calibrate';
import { DIRECTIONS, type Direction } from '../space';
import type { Facing } from './facing';

/** A flat view that takes part: all that is known of its picture, and how it looks at the thing. How it is shifted and turned in its plane follows from what it shares with others. */
export interface SceneView {
  readonly id: string;
  readonly picture: PictureGeometry;
  readonly side: Facing;
  readonly points: Points;
  readonly evidence: readonly Observation[];
  readonly lift: Lift;
  readonly model?: ModelWish | undefined;
  readonly lens?: LensWish | undefined;
  /** Another view of the same picture whose map this one's is, but for how it is shifted and turned; what is known of the map is said there. */
  readonly shares?: string | undefined;
  /** Zero, and what runs to the right of it, as somebody set them on the sheet: a view lies about so. */
  readonly datum?: Datum | undefined;
}

const LIES: ReadonlySet<string> = new Set<MapPart>(['turn', 'shift']);

/** Whether a part of a map says how a view lies in its plane. */
export const isLying = (part: string) => LIES.has(part);

/** The block of a part of a view's map: views that share a map share all but how they lie. */
export const partBlock = ({ id, shares = id }: Pick<SceneView, 'id' | 'shares'>, part: string) =>
  ownedName(isLying(part) ? id : shares, part);

/** What several views show, or of which something is known. Coordinates in the object frame, mm. */
export interface SceneFeature {
  readonly id: string;
  /** A shared line, as a base line: only this coordinate is meant, and the points of a view lie on it. */
  readonly only?: Direction | undefined;
  /** Points of each view that show it. */
  readonly seen: readonly { readonly view: string; readonly points: readonly string[] }[];
  /** Known coordinates, null where unknown: exact, or with one `sigma`. */
  readonly mm?: readonly (number | null)[] | undefined;
  readonly sigma?: number | undefined;
}

/** What is said of features. A distance carries no sign; whole, or along one direction. `check`: compared, never used. */
export type SceneEvidence =
  | {
      readonly kind: 'distance';
      readonly id: string;
      readonly from: string;
      readonly to: string;
      readonly along?: Direction | undefined;
      readonly mm: number;
      readonly sigma: number;
      readonly check?: boolean | undefined;
    }
  | {
      readonly kind: 'same';
      readonly id: string;
      readonly along: readonly Direction[];
      readonly of: readonly string[];
      readonly check?: boolean | undefined;
    };

export type Distance = Extract<SceneEvidence, { kind: 'distance' }>;

/** Several pictures of one thing. */
export interface Scene {
  readonly views: readonly SceneView[];
  readonly features: readonly SceneFeature[];
  readonly evidence: readonly SceneEvidence[];
}

export const FEATURE = 'feature:';
export const isFeature = (id: string) => id.startsWith(FEATURE);
export const coordinateBlock = (feature: string, direction: Direction) => `${FEATURE}${feature}:${direction}`;

/** The directions of which a feature has a coordinate. */
export const directionsOf = ({ only }: SceneFeature): readonly Direction[] => (only ? [only] : DIRECTIONS);

/** One coordinate of a feature: a number that is known exactly, or a block that is sought. */
export type Coordinate = { readonly mm: number } | { readonly block: string };

export function coordinateOf(feature: SceneFeature, direction: Direction): Coordinate {
  const known = knownOf(feature, direction);
  return known !== undefined && feature.sigma === undefined
    ? { mm: known }
    : { block: coordinateBlock(feature.id, direction) };
}

export const knownOf = ({ mm }: SceneFeature, direction: Direction): number | undefined =>
  mm?.[DIRECTIONS.indexOf(direction)] ?? undefined;

/** Along which directions two features lie apart: the one that is asked for, else the one that both lines mean, else all. Undefined: one has no such coordinate. */
export function directionsBetween(
  a: SceneFeature,
  b: SceneFeature,
  along?: Direction,
): readonly Direction[] | undefined {
  const wanted = along ? [along] : directionsOf(a);
  const have = (feature: SceneFeature) => wanted.every((direction) => directionsOf(feature).includes(direction));
  return have(a) && have(b) && (along !== undefined || a.only === b.only) ? wanted : undefined;
}
