import type { Block, Condition, Problem } from '../adjust';
import {
  conditionsOf,
  heightOf,
  LIFT_BLOCK,
  pointBlock,
  pointFrame,
  pointsOf,
  type EvidenceContext,
  type Observation,
  type Points,
  type SheetPoint,
} from './evidence';
import { createSlopes, type MapSlopes } from './map-slopes';
import { assumedConditions, mapBlocks, type MapModel, type MapPart } from './models';
import type { Lift } from './picture';
import { isInFront, toPlane } from './sheet-map';

/** What was pointed at, and how high what is traced stands above it. */
export interface Pointed {
  readonly points: Points;
  readonly lift: Lift;
}

/** What else takes part beside a view's own evidence: points that are seen, and what is said of them. */
export interface Besides {
  readonly points: readonly string[];
  conditionsIn(context: EvidenceContext): readonly Condition[];
}

const NOTHING: Besides = { points: [], conditionsIn: () => [] };

/** A view's evidence as a problem of adjustment, begun at `numbers` of its map; `freed` parts are not held by what is assumed of them. */
export function problemOf(
  model: MapModel,
  evidence: readonly Observation[],
  { points, lift }: Pointed,
  freed: ReadonlySet<MapPart>,
  numbers: readonly number[],
  besides: Besides = NOTHING,
): Problem {
  const slopesAt = rememberLast(model);
  const blocks = mapBlocks(model, numbers);
  const parts = blocks.map(({ start }) => start);
  const context: EvidenceContext = {
    model,
    points,
    slopesAt,
    place(name) {
      const { at } = points[name]!;
      const { map } = slopesAt(parts, heightOf(points[name]!, lift.mm), points[name]!.height === 'traced');
      return isInFront(map, at) ? toPlane(map, at) : [NaN, NaN];
    },
  };
  const pieces = evidence.map((piece) => conditionsOf(piece, context));
  const observed: Block[] = [
    { id: LIFT_BLOCK, start: [lift.mm], sigma: lift.sigma },
    ...[...new Set([...evidence.flatMap(pointsOf), ...besides.points])].map((name) =>
      observedBlock(name, points[name]!),
    ),
  ];
  return {
    blocks: [...blocks, ...pieces.flatMap(({ blocks }) => blocks), ...observed],
    conditions: [
      ...assumedConditions(model, freed),
      ...pieces.flatMap(({ conditions }) => conditions),
      ...besides.conditionsIn(context),
    ],
  };
}

function observedBlock(name: string, point: SheetPoint): Block {
  const { numbers, sigmas } = pointFrame(point);
  return { id: pointBlock(name), start: numbers, sigma: sigmas };
}

/** The slopes for the last parts that were asked for, by height: all conditions of one step ask for the same arrays in turn. */
function rememberLast(model: MapModel): EvidenceContext['slopesAt'] {
  const slopesOf = createSlopes(model);
  let last: readonly (readonly number[])[] = [];
  const [fixed, varying] = [new Map<number, MapSlopes>(), new Map<number, MapSlopes>()];
  return (parts, height, varies) => {
    if (parts.length !== last.length || parts.some((part, i) => part !== last[i])) {
      fixed.clear();
      varying.clear();
      last = parts;
    }
    const known = varies ? varying : fixed;
    const before = known.get(height);
    if (before) return before;
    const slopes = slopesOf(parts.flat(), height, varies);
    known.set(height, slopes);
    return slopes;
  };
}
