import { distance, mix, type Vec } from '@/core/geometry';
import { movePoint, type Evidence, type EvidencePoint, type View } from '@/core/job';
import { movedByHand } from '@/core/outline';
import type { Aim } from '../aim';
import { NOTHING, run, say, stay, type Effect, type Step, type Tool } from './tool';

/** The point of the evidence that is chosen, and whether it follows the pointer. */
export interface PointsState {
  readonly point: string | undefined;
  /** All points that lay within reach of where it was pointed at, the nearest first. */
  readonly within?: readonly string[] | undefined;
  readonly grabbed?: true | undefined;
  /** The point as it was when it was grabbed. */
  readonly was?: EvidencePoint | undefined;
}

const START: PointsState = { point: undefined };
/** How near a place has to be to a point, or to the mark of a piece, to mean it; in the aim's own sigmas. */
const REACH = 14;

function listPoints(view: View, at: Vec, reach: number): readonly EvidencePoint[] {
  return view.points
    .filter((point) => distance(point.at, at) <= reach)
    .sort((a, b) => distance(a.at, at) - distance(b.at, at));
}

/** The piece whose mark passes nearest. */
function findPiece({ evidence, points }: View, at: Vec, reach: number): Evidence | undefined {
  const places = new Map(points.map((point) => [point.id, point.at]));
  const away = (piece: Evidence) =>
    Math.min(
      ...piece.groups.flatMap((group) =>
        group.map((id, i) => distanceToSegment(at, places.get(id)!, places.get(group[i + 1] ?? id)!)),
      ),
    );
  return evidence
    .map((piece) => ({ piece, distance: away(piece) }))
    .filter((other) => other.distance <= reach)
    .sort((a, b) => a.distance - b.distance)[0]?.piece;
}

function distanceToSegment(p: Vec, a: Vec, b: Vec): number {
  const length = distance(a, b);
  const along = length === 0 ? 0 : ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / (length * length);
  return distance(p, mix(a, b, Math.max(0, Math.min(1, along))));
}

const pieceOn = (view: View, point: EvidencePoint) =>
  view.evidence.find(({ groups }) => groups.flat().includes(point.id));
const choose = (piece: Evidence | undefined): Effect => ({ kind: 'choose', evidence: piece?.id });

/** Chooses what is pointed at; with a point chosen, a place away from all marks is where it goes. */
function set(state: PointsState, aim: Aim, view: View): Step<PointsState> {
  const reach = REACH * aim.sigma;
  const near = listPoints(view, aim.free, reach);
  const [point] = near;
  if (point)
    return [
      { point: point.id, within: near.length > 1 ? near.map(({ id }) => id) : undefined },
      [choose(pieceOn(view, point))],
    ];
  const piece = findPiece(view, aim.free, reach);
  if (piece) return [START, [choose(piece)]];
  const chosen = view.points.find(({ id }) => id === state.point);
  return chosen ? [state, [moveTo(view, chosen, aim)]] : [START, [choose(undefined)]];
}

function moveTo(view: View, point: EvidencePoint, { sheet, sigma, edge }: Aim): Effect {
  return run(movePoint(view.id, { ...point, at: sheet, sigma, edge }));
}

/** The next of the points that lay within reach, round and round. */
function another({ point, within = [] }: PointsState, view: View): Step<PointsState> {
  const next = view.points.find(({ id }) => id === within[(within.indexOf(point ?? '') + 1) % within.length]);
  return next
    ? [{ point: next.id, within }, [choose(pieceOn(view, next))]]
    : stay({ point, within }, say('nothing-under-it'));
}

/** Chooses pieces of evidence by their marks, and moves their points: dragged, pointed or nudged, with the fit following. */
export const pointsTool: Tool<PointsState> = {
  belongsTo: 'fit',
  rests: true,
  looks: true,
  start: START,
  hint({ point }, { fitted: { view } }) {
    if (point) return { code: 'point-chosen' };
    const isSaid = view.evidence.length > 1 || view.evidence.some(({ role }) => role === 'check');
    return isSaid ? { code: 'choose-mark' } : undefined;
  },
  marks: () => [{ kind: 'evidence' }],
  picks: true,
  setsNoPoint: ({ point }) => !point,
  step(state, input, { fitted: { view } }) {
    const chosen = view.points.find(({ id }) => id === state.point);
    switch (input.kind) {
      case 'set':
        return set(state, input.aim, view);
      case 'grab': {
        const [point] = listPoints(view, input.aim.free, Math.max(REACH * input.aim.sigma, 1));
        return point ? [{ point: point.id, grabbed: true, was: point }, [choose(pieceOn(view, point))]] : [state, []];
      }
      case 'drag':
      case 'drop':
        return [
          input.kind === 'drop' ? { point: state.point } : state,
          state.grabbed && chosen ? [moveTo(view, chosen, input.aim)] : [],
        ];
      case 'another':
        return another(state, view);
      case 'nudge':
        return [state, chosen ? [run(movePoint(view.id, movedByHand(chosen, input.by, input.sigma)))] : []];
      case 'release':
        return [{ point: state.point }, []];
      case 'cancel':
        return [
          START,
          [...(state.grabbed && state.was ? [run(movePoint(view.id, state.was))] : []), choose(undefined)],
        ];
      default:
        return [state, []];
    }
  },
  preview(state, _aim, { fitted: { view } }) {
    const chosen = view.points.find(({ id }) => id === state.point);
    return chosen ? { outlines: [], points: [chosen.at] } : NOTHING;
  },
};
