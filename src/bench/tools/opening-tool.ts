import { kindOfOpening, spansIn, type OpeningKind } from '@/core/derive';
import { cross, nearestOn, partOf, pieceLength, subtract, tangentAt, type Piece, type Vec } from '@/core/geometry';
import { changeOpenings } from '@/core/job';
import {
  endsAcross,
  endsOfSegment,
  FITTING_SETS,
  fittingsOf,
  isInOpening,
  openingsOf,
  type Fill,
  type MadeOutline,
  type Opening,
  type Recipe,
} from '@/core/outline';
import { NOTHING, run, say, stay, type Step, type Tool, type ToolContext } from './tool';
import type { Aim } from '../aim';

/** What was chosen, and what is put where there is nothing yet. */
export interface OpeningState {
  readonly chosen?: string | undefined;
  readonly next: OpeningKind;
}

type Wall = MadeOutline & { readonly recipe: Extract<Recipe, { kind: 'strip' }> };
type Stand = Pick<Opening, 'width' | 'fill' | 'sill' | 'head'>;

const DOOR: Fill = {
  kind: 'door',
  frame: 40,
  leaf: 40,
  leaves: 1,
  hung: { at: 'start', to: 'left', open: Math.PI / 2 },
};
const WINDOW: Fill = { kind: 'window', frame: 50, leaf: 50, leaves: 1 };

/** There to be typed over: usual sizes (common practice). mm */
const FIRST: Readonly<Record<OpeningKind, Stand>> = {
  door: { width: 900, fill: DOOR, head: 2100 },
  window: { width: 1200, fill: WINDOW, sill: 900, head: 2100 },
  gap: { width: 1000 },
};

/** An opening that becomes of another kind: filled as usual, as high as it was where that was said; a door begins at the floor. */
export function asKind(opening: Opening, kind: OpeningKind): Opening {
  const { fill, sill, head } = FIRST[kind];
  return { ...opening, fill, sill: kind === 'door' ? undefined : (opening.sill ?? sill), head: opening.head ?? head };
}

const isWall = (outline: { readonly shape: string }): outline is Wall =>
  outline.shape === 'made' && (outline as MadeOutline).recipe.kind === 'strip';

/** The walls of a view that may be changed. */
function wallsIn({ job, fitted }: Pick<ToolContext, 'job' | 'fitted'>): readonly Wall[] {
  const locked = new Set(job.layers.filter(({ lock, show }) => lock || !show).map(({ id }) => id));
  return job.outlines.filter(
    (outline): outline is Wall => isWall(outline) && outline.plane === fitted.view.plane && !locked.has(outline.layer),
  );
}

function findOpeningAt(place: Vec, context: ToolContext): Opening | undefined {
  return wallsIn(context)
    .flatMap(({ id }) => spansIn(id, context.job, context.shapes))
    .find((span) => isInOpening(span, place))?.opening;
}

interface Put {
  readonly wall: Wall;
  readonly opening: Opening;
}

/** A segment of a wall's line, with the nodes at its ends and its place that is nearest to another. */
interface WallSegment {
  readonly wall: Wall;
  readonly first: string;
  readonly last: string;
  readonly piece: Piece;
  readonly near: ReturnType<typeof nearestOn>;
}

/** The segment of a wall that is pointed at: not farther away than the wall is thick, twice. */
function findSegment(context: ToolContext, place: Vec): WallSegment | undefined {
  const segments = wallsIn(context).flatMap((wall) =>
    wall.recipe.of.flatMap((line): WallSegment[] => {
      const [chain, shape] = [context.job.outlines.find((other) => other.id === line), context.shapes.get(line)];
      if (chain?.shape !== 'chain' || !shape) return [];
      return shape.pieces.flatMap((piece, i): readonly WallSegment[] => {
        const ends = endsOfSegment(chain, i);
        return ends ? [{ wall, first: ends[0].id, last: ends[1].id, piece, near: nearestOn(piece, place) }] : [];
      });
    }),
  );
  const [nearest] = segments.sort((a, b) => a.near.distance - b.near.distance);
  return nearest && nearest.near.distance <= 2 * nearest.wall.recipe.width ? nearest : undefined;
}

/** An opening of the usual size with its middle as near to where one points as its wall allows, counted from the nearer corner; a leaf opens to the side on which one points. */
function openingAt({ next }: OpeningState, { plane }: Aim, context: ToolContext, id: string): Put | undefined {
  const segment = findSegment(context, plane);
  if (!segment) return undefined;
  const { wall, first, last, piece, near } = segment;
  const [along, length] = [pieceLength(partOf(piece, 0, near.t)), pieceLength(piece)];
  const isNearStart = along <= length / 2;
  const stand = FIRST[next];
  const width = Math.min(stand.width, length / 2);
  const from = (isNearStart ? along : length - along) - width / 2;
  const fill = stand.fill?.hung
    ? { ...stand.fill, hung: { ...stand.fill.hung, to: sideOf(wall, piece, near, plane) } }
    : stand.fill;
  return {
    wall,
    opening: {
      ...stand,
      fill,
      id,
      corner: isNearStart ? first : last,
      way: isNearStart ? 'on' : 'back',
      distance: Math.max(0, Math.round(from)),
      width,
    },
  };
}

/** On which side of a wall's middle a place is, seen along the wall's line. */
function sideOf(
  { recipe: { justified, width } }: Wall,
  piece: Piece,
  { t, point }: { readonly t: number; readonly point: Vec },
  place: Vec,
): 'left' | 'right' {
  const middle = justified === 'middle' ? 0 : justified === 'left' ? width / 2 : -width / 2;
  return cross(tangentAt(piece, t), subtract(place, point)) > middle ? 'left' : 'right';
}

/** What a new opening would bring: its two ends in the wall, and what stands between them. */
function piecesOf({ wall, opening }: Put, { job, shapes }: ToolContext): readonly Piece[] {
  const outlines = [
    ...job.outlines.filter(({ id }) => id !== wall.id),
    { ...wall, recipe: { ...wall.recipe, openings: [opening] } },
  ];
  return spansIn(wall.id, { outlines }, shapes).flatMap((span) => [
    ...endsAcross(span),
    ...FITTING_SETS.flatMap((set) => fittingsOf(span, set).flatMap(({ pieces }) => pieces)),
  ]);
}

function set(state: OpeningState, aim: Aim, context: ToolContext): Step<OpeningState> {
  const known = findOpeningAt(aim.plane, context);
  if (known) return [{ chosen: known.id, next: kindOfOpening(known) }, []];
  const put = openingAt(state, aim, context, context.newId());
  if (!put) return stay(state, say('no-wall-here'));
  const { wall, opening } = put;
  return [
    { ...state, chosen: opening.id },
    [run(changeOpenings(wall.id, [...openingsOf(wall), opening], 'opening-added', context.newId))],
  ];
}

/** Puts doors, windows and gaps into walls, and chooses those that are there. */
export const openingTool: Tool<OpeningState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'opening' }),
  marks: ({ chosen }) => [{ kind: 'openings', chosen }],
  start: { next: 'door' },
  isFree: () => true,
  setsNoPoint: () => true,
  step(state, input, context) {
    if (input.kind === 'set') return set(state, input.aim, context);
    return input.kind === 'cancel' ? [{ next: state.next }, []] : [state, []];
  },
  preview(state, aim, context) {
    if (!aim || findOpeningAt(aim.plane, context)) return NOTHING;
    const put = openingAt(state, aim, context, 'next');
    return put ? { ...NOTHING, pieces: { list: piecesOf(put, context), look: 'comes' } } : NOTHING;
  },
};
