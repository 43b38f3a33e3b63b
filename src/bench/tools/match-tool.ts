import { positionSigma, type SheetPoint } from '@/core/calibrate';
import { distance } from '@/core/geometry';
import { AS_DRAWN, fitOwner, groundOf, layOnPlane, matchedEvidence, type MatchedPlace } from '@/core/job';
import { movedByHand } from '@/core/outline';
import type { Aim } from '../aim';
import {
  NOTHING,
  run,
  say,
  stay,
  type Effect,
  type Elsewhere,
  type Preview,
  type Step,
  type Tool,
  type ToolContext,
} from './tool';

/** A place of the view, and where it lies on the plane it is laid on, once that is said. */
export interface MatchPair extends Pick<MatchedPlace, 'id' | 'from'> {
  readonly to?: MatchedPlace['to'] | undefined;
}

export interface MatchState {
  /** The view that is laid somewhere; absent before anything is chosen. */
  readonly view: string;
  /** What places are matched to: a plane with reference geometry, or another view that has a scale. */
  readonly target: Elsewhere | undefined;
  readonly pairs: readonly MatchPair[];
  /** So many pairs are in the job already. */
  readonly laid: number;
  readonly looking: 'view' | 'target';
}

const START: MatchState = { view: '', target: undefined, pairs: [], laid: 0, looking: 'view' };
export const startMatch = (view: string, target: Elsewhere): MatchState => ({ ...START, view, target });

/** Two pairs settle turn and scale; only then is the view laid. */
const ENOUGH = 2;
const look = (at: Elsewhere | undefined): Effect => ({ kind: 'look', at });

function placeThere({ plane, sheet, sigma, edge, snap }: Aim, { fitted }: ToolContext): NonNullable<MatchPair['to']> {
  const drawn = snap !== undefined && snap !== 'nearest' && !snap.startsWith('picture');
  const own = positionSigma(fitted.fit, { at: sheet, sigma: drawn ? 1e-3 : sigma, edge });
  return { at: plane, sigma: Math.max(AS_DRAWN, own) };
}

function setPoint(state: MatchState, aim: Aim, context: ToolContext): Step<MatchState> {
  const last = state.pairs.at(-1);
  if (state.looking === 'view') {
    if (state.pairs.some(({ from }) => distance(from.at, aim.sheet) < 2)) return stay(state, say('points-the-same'));
    const from: SheetPoint = { at: aim.sheet, sigma: aim.sigma, edge: aim.edge };
    const pairs =
      last && !last.to
        ? [...state.pairs.slice(0, -1), { ...last, from }]
        : [...state.pairs, { id: context.newId(), from }];
    return [{ ...state, pairs, looking: 'target' }, [look(state.target)]];
  }
  if (!last || last.to) return [{ ...state, looking: 'view' }, [look(undefined)]];
  const to = placeThere(aim, context);
  if (state.pairs.some((pair) => pair.to && distance(pair.to.at, to.at) === 0))
    return stay(state, say('points-the-same'));
  return lay({ ...state, pairs: [...state.pairs.slice(0, -1), { ...last, to }], looking: 'view' }, context);
}

/** What is complete goes into the job, the first two together. */
function lay(state: MatchState, { job }: ToolContext): Step<MatchState> {
  const complete = state.pairs.filter((pair): pair is MatchedPlace => pair.to !== undefined);
  if (complete.length < ENOUGH) return [state, [look(undefined)]];
  const { evidence, points } = matchedEvidence(complete, state.laid);
  const command = layOnPlane(state.view, planeOf(state.target!, job), evidence, points);
  return [{ ...state, laid: complete.length }, [look(undefined), run(command)]];
}

/** The plane whose zero and axes hold there: that of the view whose fit it is, or the one it lies on. */
function planeOf({ kind, id }: Elsewhere, job: ToolContext['job']): string {
  if (kind === 'plane') return id;
  const [own, owner] = [id, fitOwner(job, id)].map((one) => job.views.find((view) => view.id === one)?.plane ?? one);
  const ground = groundOf(job, own!);
  return ground === own ? owner! : ground;
}

/** Lays a view onto existing geometry, place by place: one in the picture, the same one there, and again. */
export const matchTool: Tool<MatchState> = {
  belongsTo: 'fit',
  looksElsewhere: true,
  seeksPicture: ({ looking }) => looking === 'view',
  hint: ({ target, looking }) => ({
    code: !target ? 'match-choose' : looking === 'target' ? 'match-there' : 'match-here',
  }),
  cards: ({ target }) => (target ? 'in the way' : undefined),
  places: () => true,
  start: START,
  step(state, input, context): Step<MatchState> {
    switch (input.kind) {
      case 'set':
        return state.target ? setPoint(state, input.aim, context) : stay(state, say('match-choose-first'));
      case 'nudge': {
        const last = state.pairs.at(-1);
        if (!last || last.to || state.looking === 'target') return [state, []];
        return [
          {
            ...state,
            pairs: [...state.pairs.slice(0, -1), { ...last, from: movedByHand(last.from, input.by, input.sigma) }],
          },
          [],
        ];
      }
      case 'back':
      case 'cancel': {
        const open = state.pairs.slice(0, Math.max(state.laid, input.kind === 'back' ? state.pairs.length - 1 : 0));
        return [{ ...state, pairs: open, looking: 'view' }, state.looking === 'target' ? [look(undefined)] : []];
      }
      default:
        return [state, []];
    }
  },
  preview({ pairs, looking }, _aim, { fitted }): Preview {
    if (pairs.length === 0) return NOTHING;
    const shown =
      looking === 'view'
        ? pairs.map(({ from }) => from.at)
        : pairs.flatMap(({ to }) => (to ? [fitted.fit.toSheet(to.at)] : []));
    return { outlines: [], points: shown };
  },
};
