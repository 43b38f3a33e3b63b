import { positionSigma, type SheetPoint } from '@/core/calibrate';
import { distance, type Vec } from '@/core/geometry';
import { fitOwner, groundOf, layOnPlane, type Evidence, type EvidencePoint } from '@/core/job';
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

/** A place of the view, and where it lies on the plane it is laid on (mm, one sigma). */
export interface MatchPair {
  readonly id: string;
  readonly from: SheetPoint;
  readonly to?: { readonly at: Vec; readonly sigma: number } | undefined;
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
/** How well the end of a drawn line is known: as good as drawn. mm. */
const AS_DRAWN = 0.005;
/** What was drawn or photographed lies where the other has it to about this share of the way between the first two places, two sigma: assumed, and said on the cards. */
const ROUGH = 0.01;
const look = (at: Elsewhere | undefined): Effect => ({ kind: 'look', at });

function placed({ plane, sheet, sigma, edge, snap }: Aim, { fitted }: ToolContext): NonNullable<MatchPair['to']> {
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
  const to = placed(aim, context);
  if (state.pairs.some((pair) => pair.to && distance(pair.to.at, to.at) === 0))
    return stay(state, say('points-the-same'));
  return lay({ ...state, pairs: [...state.pairs.slice(0, -1), { ...last, to }], looking: 'view' }, context);
}

/** What is complete goes into the job, the first two together. */
function lay(state: MatchState, { job }: ToolContext): Step<MatchState> {
  const complete = state.pairs.filter(({ to }) => to);
  if (complete.length < ENOUGH) return [state, [look(undefined)]];
  const fresh = complete.slice(state.laid);
  const rough = ROUGH * distance(complete[0]!.to!.at, complete[1]!.to!.at);
  const command = layOnPlane(
    state.view,
    planeOf(state.target!, job),
    fresh.map((pair, i) => pieceOf(pair, state.laid + i + 1, rough)),
    fresh.map(pointOf),
  );
  return [{ ...state, laid: complete.length }, [look(undefined), run(command)]];
}

/** The plane whose zero and axes hold there: that of the view whose fit it is, or the one it lies on. */
function planeOf({ kind, id }: Elsewhere, job: ToolContext['job']): string {
  if (kind === 'plane') return id;
  const [own, owner] = [id, fitOwner(job, id)].map((one) => job.views.find((view) => view.id === one)?.plane ?? one);
  const ground = groundOf(job, own!);
  return ground === own ? owner! : ground;
}

const written = (mm: number) => `${Number(mm.toFixed(3))} mm`;

function pieceOf({ id, to }: MatchPair, number: number, rough: number): Evidence {
  const { at, sigma } = to!;
  const said = { across: { value: at[0], written: written(at[0]) }, up: { value: at[1], written: written(at[1]) } };
  return {
    id,
    kind: 'known-point',
    groups: [[`${id}-at`]],
    said,
    plusMinus: Number(Math.max(2 * sigma, rough).toPrecision(3)),
    guess: false,
    role: 'use',
    name: `matched place ${number}`,
  };
}

const pointOf = ({ id, from }: MatchPair): EvidencePoint => ({
  id: `${id}-at`,
  at: from.at,
  sigma: from.sigma,
  ...(from.edge ? { edge: from.edge } : {}),
});

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
