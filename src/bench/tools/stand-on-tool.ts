import type { SheetPoint } from '@/core/calibrate';
import { endsOfEdge } from '@/core/derive';
import { distance, enclosedArea } from '@/core/geometry';
import { setStandsOn, standBetween, type LineShown } from '@/core/job';
import { nameForFeature } from '@/ui/feature-words';
import { findPicked } from './pick';
import { aimReach } from './reach';
import { NOTHING, run, say, stay, type Step, type Tool, type ToolContext } from './tool';
import type { Aim } from '../aim';

/** Points at the edge, in another view, that a view stands on; or at both ends of it as the view itself shows them. */
export interface StandOnState {
  /** The view that is to stand. */
  readonly view?: string | undefined;
  /** Ends of its edge that were pointed at in it; absent while the edge is chosen. */
  readonly ends?: readonly SheetPoint[] | undefined;
}

/** The straight edge of an outline that is pointed at in the view that is looked at, which shows another plane than the one that is to stand. */
function choose(state: StandOnState, aim: Aim, context: ToolContext): Step<StandOnState> {
  const { job, fitted, shapes } = context;
  if (state.view === undefined) return stay(state);
  const own = job.views.find(({ id }) => id === state.view)?.plane;
  if (fitted.source.plane === own) return stay(state, say('edge-in-itself'));
  const picked = findPicked(job, context, fitted.view.plane, aim.plane, aimReach(aim, context));
  const outline = job.outlines.find(({ id }) => id === picked?.outline);
  if (!picked || !outline) return stay(state, say('edge-nothing-here'));
  const pieces = shapes.get(outline.id)?.pieces ?? [];
  if (outline.shape !== 'chain' || pieces[picked.segment]?.kind !== 'line') return stay(state, say('edge-bent'));
  // Around a room one looks from outside.
  const isClockwise = outline.closed && enclosedArea(pieces) < 0;
  const edge = { outline: outline.id, from: outline.nodes[picked.segment]!.id };
  return [{}, [run(setStandsOn(state.view, isClockwise ? { ...edge, turned: true } : edge))]];
}

/** Nearer two ends are one. px */
const APART = 2;

/** One end of the edge after the other, in whichever order: the left one is where it begins as one looks at it. */
function pointAtEnd(
  state: StandOnState,
  ends: readonly SheetPoint[],
  aim: Aim,
  context: ToolContext,
): Step<StandOnState> {
  const { job, fitted } = context;
  if (fitted.source.id !== state.view) return stay(state, say('ends-elsewhere'));
  const point: SheetPoint = { at: aim.sheet, sigma: aim.sigma, edge: aim.edge };
  const [first] = ends;
  if (!first) return [{ ...state, ends: [point] }, []];
  if (distance(first.at, point.at) < APART) return stay(state, say('points-the-same'));
  const standsOn = job.views.find(({ id }) => id === state.view)?.standsOn;
  const edge = standsOn && endsOfEdge(standsOn, job);
  if (!edge) return stay({}, say('ends-not-pointed'));
  const right = ({ at }: SheetPoint) => fitted.placing.toPlane(at)[0];
  const fromTheLeft = [first, point].sort((a, b) => right(a) - right(b));
  const shown = standsOn.turned ? fromTheLeft.reverse() : fromTheLeft;
  return [{}, [run(standBetween(state.view, endsShown(edge, shown, state.view, context)))]];
}

/** Both ends as places that the view shows there, too; new ones by new names. */
function endsShown(
  edge: NonNullable<ReturnType<typeof endsOfEdge>>,
  shown: readonly SheetPoint[],
  view: string,
  { job, newId }: ToolContext,
): readonly [LineShown, LineShown] {
  const taken = [...job.features];
  const [from, to] = edge.map(({ feature, seen }, i): LineShown => {
    const name = feature?.name ?? nameForFeature(undefined, taken);
    taken.push({ id: '', name, said: {}, seen: [] });
    const { at, sigma, edge: along } = shown[i]!;
    const here = { id: newId(), view, at, sigma, ...(along ? { edge: along } : {}) };
    return { id: feature?.id ?? newId(), name, seen: [...(seen ? [{ ...seen, id: newId() }] : []), here] };
  });
  return [from!, to!];
}

function hintOf({ view, ends }: StandOnState, shown: string) {
  if (view === undefined) return undefined;
  if (!ends) return { code: shown === view ? 'edge-elsewhere' : 'edge-here' } as const;
  return shown === view ? ({ code: 'edge-ends', at: ends.length } as const) : ({ code: 'ends-there' } as const);
}

export const standOnTool: Tool<StandOnState> = {
  belongsTo: 'arrange',
  goesAlong: true,
  isFree: ({ ends }) => !ends,
  start: {},
  hint: (state, { fitted }) => hintOf(state, fitted.source.id),
  cards: ({ view }) => (view === undefined ? undefined : 'in the way'),
  setsNoPoint: ({ ends }) => !ends,
  step(state, input, context) {
    const { ends } = state;
    if (input.kind === 'set')
      return ends ? pointAtEnd(state, ends, input.aim, context) : choose(state, input.aim, context);
    if (input.kind === 'back' && ends && ends.length > 0) return [{ ...state, ends: [] }, []];
    return input.kind === 'back' || input.kind === 'cancel' ? [{}, []] : [state, []];
  },
  preview: ({ ends }) => ({ ...NOTHING, points: ends?.map(({ at }) => at) ?? [] }),
};
