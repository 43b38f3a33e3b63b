import { angleOf, subtract } from '@/core/geometry';
import { addGuide, changeGuide, together } from '@/core/job';
import type { Guide, PointedPlace } from '@/core/outline';
import { findLine } from './find-line';
import { NOTHING, pointed, run, say, stay, type Step, type Tool, type ToolContext, type ToolInput } from './tool';

/** Through a place level, upright or at a typed angle; through two places; half-way between two, square to the way between them; square to a line. */
export type GuideMode = 'level' | 'upright' | 'angle' | 'two' | 'between' | 'square';

export interface GuideState {
  readonly mode: GuideMode;
  readonly first?: PointedPlace | undefined;
  /** Radians: of guides at a typed angle, or square to a line that was pointed at. */
  readonly angle?: number | undefined;
  /** The guide that was set last: typed offsets stand it, and further ones, aside. */
  readonly last?: string | undefined;
}

const TWO: readonly GuideMode[] = ['two', 'between'];

function set(state: GuideState, input: Extract<ToolInput, { kind: 'set' }>, context: ToolContext): Step<GuideState> {
  const place = pointed(input.aim);
  if (TWO.includes(state.mode) && !state.first) return [{ ...state, first: place }, []];
  if (state.mode === 'square' && state.angle === undefined) {
    const line = findLine(input.aim, context);
    return line
      ? [{ ...state, angle: angleOf(subtract(line.b, line.a)) + Math.PI / 2 }, []]
      : stay(state, say('no-line-here'));
  }
  const guide = guideAt(state, place, context);
  return [
    { mode: state.mode, ...(state.mode === 'angle' ? { angle: state.angle } : {}), last: guide.id },
    [run(addGuide(guide))],
  ];
}

function guideAt({ mode, first, angle = 0 }: GuideState, place: PointedPlace, { fitted, newId }: ToolContext): Guide {
  const own = { id: newId(), plane: fitted.view.plane, offset: 0 };
  if (first && mode === 'between')
    return { ...own, through: { kind: 'middle', a: first, b: place }, towards: place, angle: 0, square: true };
  if (first) return { ...own, through: first, towards: place, angle: 0 };
  return { ...own, through: place, angle: mode === 'upright' ? Math.PI / 2 : mode === 'level' ? 0 : angle };
}

/** The last guide stands aside by the first of the typed offsets; for each further one there is another guide. */
function offsetBy(
  state: GuideState,
  offsets: readonly number[],
  { job, fitted, newId }: ToolContext,
): Step<GuideState> {
  const guide = job.guides.find(({ id }) => id === state.last);
  const [first, ...others] = offsets;
  if (!guide || first === undefined) return stay(state, say('guide-first'));
  if (!fitted.fit.scaled) return stay(state, say('scale-first'));
  const further = others.map((offset) => addGuide({ ...guide, id: newId(), offset, mirrors: false }));
  return [state, [run(together([...further, changeGuide({ ...guide, offset: first })]))]];
}

export const guideTool: Tool<GuideState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'guide' }),
  start: { mode: 'level' },
  step(state, input, context) {
    if (input.kind === 'cancel' || input.kind === 'back') return [{ mode: state.mode }, []];
    if (input.kind === 'typed')
      return offsetBy(state, input.lengths ?? (input.length === undefined ? [] : [input.length]), context);
    return input.kind === 'set' ? set(state, input, context) : [state, []];
  },
  preview(state, aim) {
    if (!state.first) return NOTHING;
    return {
      outlines: [],
      points: [state.first.at],
      span: aim && { from: state.first.at, to: aim.sheet, look: 'measure' },
    };
  },
};
