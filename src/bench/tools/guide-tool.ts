import { addGuide, changeGuide } from '@/core/job';
import type { Guide, PointedPlace } from '@/core/outline';
import { NOTHING, pointed, run, say, stay, type Tool } from './tool';

export type GuideMode = 'level' | 'upright' | 'two';

export interface GuideState {
  readonly mode: GuideMode;
  readonly first?: PointedPlace | undefined;
  /** The guide that was set last: a typed offset stands it aside. */
  readonly last?: string | undefined;
}

export const guideTool: Tool<GuideState> = {
  start: { mode: 'level' },
  step(state, input, context) {
    if (input.kind === 'cancel' || input.kind === 'back') return [{ mode: state.mode }, []];
    if (input.kind === 'typed') {
      const guide = context.job.guides.find((other) => other.id === state.last);
      if (!guide || input.length === undefined) return stay(state, say('guide-first'));
      if (!context.fitted.fit.scaled) return stay(state, say('scale-first'));
      return [state, [run(changeGuide({ ...guide, offset: input.length }))]];
    }
    if (input.kind !== 'set') return [state, []];
    if (state.mode === 'two' && !state.first) return [{ ...state, first: pointed(input.aim) }, []];
    const guide: Guide = {
      id: context.newId(), view: context.fitted.view.id, through: state.first ?? pointed(input.aim),
      ...(state.first ? { towards: pointed(input.aim) } : {}), angle: state.mode === 'upright' ? Math.PI / 2 : 0, offset: 0,
    };
    return [{ mode: state.mode, last: guide.id }, [run(addGuide(guide))]];
  },
  preview(state, aim) {
    if (!state.first) return NOTHING;
    return { outlines: [], points: [state.first.at], span: aim && { from: state.first.at, to: aim.sheet, look: 'measure' } };
  },
};
