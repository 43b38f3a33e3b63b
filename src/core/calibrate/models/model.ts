import type { Block, Condition } from '../../adjust';
import type { Pose } from '../../space';
import type { Homography } from '../homography';
import { NO_LENS, type Lens } from '../lens';
import type { PictureGeometry } from '../picture';
import { fromBehind, mapOnto, type RayBundle } from '../projection';
import { createSheetMap, type SheetMap } from '../sheet-map';

export type ModelName = 'similarity' | 'two-scale' | 'affine' | 'projective' | 'camera';
export type LensName = 'none' | 'k1' | 'k1k2';

/** Names of what a map is made of, as they are reported when they stay undetermined or only assumed. */
export type MapPart = 'scale' | 'stretch' | 'skew' | 'tilt' | 'focal' | 'lens' | 'lens-centre' | 'turn' | 'shift';

/**
 * What a part may be where the evidence speaks against what is usual: one sigma about the same numbers, and how rare that is, as
 * −2 times the logarithm of its odds.
 */
export interface Unusual {
  readonly sigma: readonly number[];
  readonly cost: number;
}

/**
 * Some numbers of a map that belong together. `sigma` makes them an assumption; without it the evidence has to tell. An assumption that
 * is given up is replaced by `unusual`, or where there is none by nothing.
 */
export interface PartOfMap {
  readonly id: MapPart;
  readonly start: readonly number[];
  readonly sigma?: readonly number[] | undefined;
  readonly unusual?: Unusual | undefined;
  /** In units of which part's one number, a logarithm, this one is sought: what a picture shows is their ratio. */
  readonly inUnitsOf?: MapPart | undefined;
  readonly origin?: 'assumed' | 'stated' | undefined;
  /** How rare it is that this is to be assumed in the place of what is usual, as −2 times the logarithm of its odds; absent: it is what is usual. */
  readonly rarity?: number | undefined;
}

/**
 * A family of maps from sheet pixels to the view plane in mm. Its numbers are those of its parts, one after the other.
 * Other planes in its frame are seen by the same rays.
 */
export interface MapModel {
  readonly name: ModelName;
  readonly lens: LensName;
  readonly picture: PictureGeometry;
  readonly parts: readonly PartOfMap[];
  /** The map for these numbers (all parts flattened), to a plane at a pose in the frame of the view's own. mm. */
  mapAt(values: readonly number[], pose: Pose): SheetMap;
  /** Its way forward alone: from straightened units to mm. */
  forwardAt(values: readonly number[], pose: Pose): Homography;
}

export type NumbersOf = (part: MapPart) => readonly number[];

/** What differs between the families: by which rays straightened units about the picture's middle see. */
export interface MapShape {
  readonly parts: readonly PartOfMap[];
  projectionAt(numbersOf: NumbersOf): RayBundle;
}

export type Assumed = Pick<PartOfMap, 'sigma' | 'unusual'> & { readonly start?: readonly number[] };

export interface ModelChoice {
  readonly name: ModelName;
  readonly lens: LensName;
  /** What is assumed of the lens and of where it has its middle; without the latter that is the picture's middle. */
  readonly lensAssumed?: Assumed | undefined;
  readonly centreAssumed?: Assumed | undefined;
  /** Whether the evidence can tell which way is up, and where zero is. */
  readonly turns: boolean;
  readonly shifts: boolean;
}

export function createModel(picture: PictureGeometry, shape: MapShape, choice: ModelChoice): MapModel {
  const parts = partsOf(shape, choice);
  const among = numbersOfParts(parts);
  const forwardAt = (values: readonly number[], pose: Pose) => {
    const numbersOf = among(values);
    const [turn = 0] = numbersOf('turn');
    const [x = 0, y = 0] = numbersOf('shift');
    const lying = choice.turns || choice.shifts ? { turn, shift: [x, y] as const } : undefined;
    const seen = shape.projectionAt(numbersOf);
    return mapOnto(picture.mirrored ? fromBehind(seen) : seen, pose, lying);
  };
  return {
    name: choice.name,
    lens: choice.lens,
    picture,
    parts,
    forwardAt,
    mapAt(values, pose) {
      const numbersOf = among(values);
      const [k1 = 0, k2 = 0] = numbersOf('lens');
      const [x0 = 0, y0 = 0] = numbersOf('lens-centre');
      const lens: Lens = k1 === 0 && k2 === 0 ? NO_LENS : { k1, k2, centre: [x0, y0] };
      return createSheetMap(picture, lens, forwardAt(values, pose));
    },
  };
}

/** What is to be found, in the order of the numbers. */
function partsOf(shape: MapShape, choice: ModelChoice): readonly PartOfMap[] {
  return [
    ...shape.parts,
    ...(choice.lens === 'none'
      ? []
      : [
          {
            id: 'lens' as const,
            start: choice.lens === 'k1' ? [0] : [0, 0],
            ...choice.lensAssumed,
            origin: 'assumed' as const,
          },
        ]),
    ...(choice.lens === 'none' || choice.centreAssumed === undefined
      ? []
      : [{ id: 'lens-centre' as const, start: [0, 0], ...choice.centreAssumed, origin: 'assumed' as const }]),
    ...(choice.turns ? [{ id: 'turn' as const, start: [0] }] : []),
    ...(choice.shifts ? [{ id: 'shift' as const, start: [0, 0] }] : []),
  ];
}

/** Finds the numbers of a part among all; none where the model has no such part. */
function numbersOfParts(parts: readonly PartOfMap[]): (values: readonly number[]) => NumbersOf {
  const first = new Map<MapPart, number>();
  let count = 0;
  for (const part of parts) {
    first.set(part.id, count);
    count += part.start.length;
  }
  const sizes = new Map(parts.map((part) => [part.id, part.start.length]));
  return (values) => (part) =>
    first.has(part) ? values.slice(first.get(part)!, first.get(part)! + sizes.get(part)!) : [];
}

/** The parts as blocks of the adjustment, at given numbers. */
export function mapBlocks(model: MapModel, values: readonly number[]): Block[] {
  let first = 0;
  return model.parts.map(({ id, start, inUnitsOf }) => ({
    id,
    start: values.slice(first, (first += start.length)),
    inUnitsOf,
  }));
}

/** The numbers that auto assumes, as conditions; `freed` parts may be unusual, or are left to the evidence. */
export function assumedConditions(model: MapModel, freed: ReadonlySet<MapPart>): Condition[] {
  return model.parts.flatMap((part) => {
    const { id, start, origin = 'assumed' } = part;
    const sigma = assumedSigma(part, freed);
    return sigma === undefined
      ? []
      : [
          {
            group: assumptionOf(id),
            origin,
            exact: false,
            blocks: [id],
            residuals: ([numbers]: readonly (readonly number[])[]) =>
              start.map((value, i) => (numbers![i]! - value) / sigma[i]!),
          },
        ];
  });
}

/** One sigma of what is assumed of a part when some are given up; undefined where nothing is assumed. */
export function assumedSigma(
  { id, sigma, unusual }: PartOfMap,
  freed: ReadonlySet<MapPart>,
): readonly number[] | undefined {
  return freed.has(id) ? unusual?.sigma : sigma;
}

export const assumptionOf = (part: MapPart) => `assumed:${part}`;

/** Where a part begins among the numbers of a map; -1 when the map has none. */
export function firstNumberOf(model: MapModel, part: MapPart): number {
  let first = 0;
  for (const { id, start } of model.parts) {
    if (id === part) return first;
    first += start.length;
  }
  return -1;
}
