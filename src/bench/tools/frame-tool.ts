import { add, cross, distance, dot, scale, subtract, type Vec } from '@/core/geometry';
import type { View } from '@/core/job';
import { NOTHING, say, stay, type Preview, type Step, type Tool } from './tool';

/** How a frame is pointed at: by two corners, by a side and its height, or corner by corner. */
export type FrameShape = 'box' | 'turned' | 'polygon';

/** A frame around a part of the sheet on its way: for a view of its own, or for what the view itself shows. */
export interface FrameState {
  readonly purpose: 'cut' | 'crop';
  readonly shape: FrameShape;
  /** Sheet px. */
  readonly points: readonly Vec[];
  readonly last: number;
}

const START: FrameState = { purpose: 'cut', shape: 'box', points: [], last: 0 };
const MOST: Readonly<Record<FrameShape, number>> = { box: 2, turned: 3, polygon: 200 };

export const startFrame = (purpose: FrameState['purpose'], shape: FrameShape = 'box'): FrameState => ({
  ...START,
  purpose,
  shape,
});

/** Corners of the frame, around it; undefined while too little is set, or when it has no area to speak of. Sheet px. */
export function findFrame(
  { shape, points }: Pick<FrameState, 'shape' | 'points'>,
  { direction }: View['datum'],
): readonly Vec[] | undefined {
  const corners = cornersOf(shape, points, direction);
  return corners && areaOf(corners) > 16 ? corners : undefined;
}

function cornersOf(
  shape: FrameShape,
  [a, b, c, ...rest]: readonly Vec[],
  direction: number,
): readonly Vec[] | undefined {
  if (!a || !b) return undefined;
  if (shape === 'box') {
    const along: Vec = [Math.cos(direction), Math.sin(direction)];
    const width = scale(along, dot(subtract(b, a), along));
    return [a, add(a, width), b, subtract(b, width)];
  }
  if (!c) return undefined;
  if (shape === 'polygon') return [a, b, c, ...rest];
  const side = subtract(b, a);
  const across: Vec = [-side[1] / distance(a, b), side[0] / distance(a, b)];
  const height = scale(across, dot(subtract(c, a), across));
  return [a, b, add(b, height), add(a, height)];
}

const areaOf = (corners: readonly Vec[]) =>
  Math.abs(corners.reduce((sum, corner, i) => sum + cross(corner, corners[(i + 1) % corners.length]!), 0)) / 2;

function setPoint(state: FrameState, at: Vec): FrameState {
  const { points, shape } = state;
  if (points.length < MOST[shape]) return { ...state, points: [...points, at], last: points.length };
  const last = points.reduce((best, point, i) => (distance(point, at) < distance(points[best]!, at) ? i : best), 0);
  return { ...state, points: points.with(last, at), last };
}

/** Frames a part of the sheet. What is made of the frame is said on its card. */
export const frameTool: Tool<FrameState> = {
  belongsTo: 'sources',
  hint: ({ shape, points }) => ({ code: `frame-${shape}`, at: points.length }),
  marks: () => [{ kind: 'whole-sheet' }],
  cards: ({ shape, points }) => (points.length >= (shape === 'box' ? 2 : 3) ? 'useful' : 'in the way'),
  looks: true,
  places: ({ purpose }) => purpose === 'crop',
  start: START,
  isFree: () => true,
  step(state, input): Step<FrameState> {
    switch (input.kind) {
      case 'set': {
        const twice = state.points.some(
          (point, i) =>
            distance(point, input.aim.sheet) < 2 && (state.points.length < MOST[state.shape] || i !== state.last),
        );
        return twice ? stay(state, say('points-the-same')) : [setPoint(state, input.aim.sheet), []];
      }
      case 'nudge': {
        const moved = state.points[state.last];
        return [moved ? { ...state, points: state.points.with(state.last, add(moved, input.by)) } : state, []];
      }
      case 'back':
        return [{ ...state, points: state.points.slice(0, -1), last: Math.max(0, state.points.length - 2) }, []];
      case 'cancel':
        return [startFrame(state.purpose, state.shape), []];
      default:
        return [state, []];
    }
  },
  preview({ shape, points }, aim, { fitted }): Preview {
    if (points.length === 0) return NOTHING;
    const shown = aim && points.length < MOST[shape] && shape !== 'polygon' ? [...points, aim.sheet] : points;
    const corners = findFrame({ shape, points: shown }, fitted.view.datum);
    const line = corners ? [...corners, corners[0]!] : shown;
    return { outlines: [], points, lines: [line] };
  },
};
