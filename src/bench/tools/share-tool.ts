import type { SheetPoint } from '@/core/calibrate';
import { isUpright, type Facing } from '@/core/arrange';
import { canShow, coordinateOfLine, facingOf, guideReach, type FittedView } from '@/core/derive';
import { distance, mix, type Vec } from '@/core/geometry';
import { addFeature, moveSeen, seeFeature, unseeFeature, type Seen } from '@/core/job';
import { movedByHand } from '@/core/outline';
import type { Direction } from '@/core/space';
import { nameForFeature } from '@/ui/feature-words';
import type { Hint } from '@/ui/hint-words';
import type { Aim } from '../aim';
import { NOTHING, run, say, stay, toSheetPlace, type Preview, type Step, type Tool, type ToolContext } from './tool';

/** Points at what several views show: a line that runs level or upright in this view, or a place. */
export interface ShareState {
  readonly shape: 'level' | 'upright' | 'place';
  /** The shared line or place that further pointings are of; the next one begins a new one where there is none. */
  readonly feature?: string | undefined;
  /** Each pointing is two: at both sides of what lies halfway between. */
  readonly halfway?: true | undefined;
  /** The first side that was pointed at. */
  readonly side?: SheetPoint | undefined;
  /** The pointing that was set or chosen last. */
  readonly last?: string | undefined;
  readonly grabbed?: true | undefined;
  /** The pointing as it was when it was grabbed. */
  readonly was?: Seen | undefined;
}

const START: ShareState = { shape: 'level' };

/** How a line of a coordinate runs in a view. */
export function shapeIn(along: Direction | undefined, facing: Facing): ShareState['shape'] {
  if (along === undefined) return 'place';
  return coordinateOfLine('level', facing) === along ? 'level' : 'upright';
}

const facingIn = ({ job, fitted }: Pick<ToolContext, 'job' | 'fitted'>) => facingOf(fitted.source, job.features);

const chosenIn = ({ feature }: ShareState, { job }: Pick<ToolContext, 'job'>) =>
  job.features.find(({ id }) => id === feature);

/** How near a place has to be to one that was pointed at to mean that; in the aim's own sigmas, and sheet px. */
const REACH = 14;

/** What was pointed at in this view and lies nearest. */
function findSeen({ job, fitted }: ToolContext, at: Vec, reach: number) {
  return job.features
    .flatMap((feature) => feature.seen.map((seen) => ({ feature: feature.id, seen })))
    .filter(({ seen }) => seen.view === fitted.source.id && distance(seen.at, at) <= reach)
    .sort((a, b) => distance(a.seen.at, at) - distance(b.seen.at, at))[0];
}

/** With nothing in hand a mark is chosen; else a place is set. */
function set(state: ShareState, aim: Aim, context: ToolContext): Step<ShareState> {
  const { fitted } = context;
  const isAlone = state.feature === undefined && !state.halfway;
  const there = isAlone ? findSeen(context, aim.free, REACH * aim.sigma) : undefined;
  if (there) return [{ ...state, feature: there.feature, last: there.seen.id }, []];
  const facing = facingIn(context);
  if (!facing) return stay(state, say('side-first'));
  if (state.halfway && !state.side) return [{ ...state, side: { at: aim.sheet, sigma: aim.sigma } }, []];
  return seenAt({ ...state, side: undefined }, state.side ? between(state.side, aim, fitted) : aim, context, facing);
}

/** Halfway between two places on the plane of a view, as it is seen on the sheet. */
function between({ at, sigma }: SheetPoint, aim: Pick<Aim, 'sheet' | 'sigma'>, fitted: FittedView): Pointing {
  const { toPlane } = fitted.placing;
  const middle = mix(toPlane(at), toPlane(aim.sheet), 0.5);
  return { sheet: toSheetPlace(fitted, middle), sigma: Math.hypot(sigma, aim.sigma) / 2 };
}

type Pointing = Pick<Aim, 'sheet' | 'sigma' | 'edge'>;

/** What is in hand is seen there, or something new begins. */
function seenAt(
  state: ShareState,
  { sheet, sigma, edge }: Pointing,
  context: ToolContext,
  facing: Facing,
): Step<ShareState> {
  const { job, fitted, newId } = context;
  const { id: view } = fitted.source;
  const seen: Seen = { id: newId(), view, at: sheet, sigma, ...(edge ? { edge } : {}) };
  const chosen = chosenIn(state, context);
  if (chosen && !canShow(facing, chosen)) return stay(state, say('feature-not-shown'));
  if (chosen) return [{ ...state, last: seen.id }, [run(seeFeature(chosen.id, seen))]];
  if (state.shape === 'upright' && isUpright(facing)) return stay(state, say('share-no-upright'));
  const along = state.shape === 'place' ? undefined : coordinateOfLine(state.shape, facing);
  const name = nameForFeature(along, job.features);
  const feature = { id: newId(), name, ...(along ? { along } : {}), said: {}, seen: [seen] };
  return [{ ...state, feature: feature.id, last: seen.id }, [run(addFeature(feature))]];
}

const letGo = ({ shape, halfway, feature, last }: ShareState): ShareState => ({ shape, halfway, feature, last });
/** Another one of the same kind may begin. */
const begun = ({ shape, halfway }: ShareState): ShareState => ({ shape, ...(halfway ? { halfway } : {}) });

function lastSeen({ feature, last }: ShareState, { job }: Pick<ToolContext, 'job'>) {
  const seen = job.features.find(({ id }) => id === feature)?.seen.find(({ id }) => id === last);
  return feature !== undefined && seen ? { feature, seen } : undefined;
}

export const shareTool: Tool<ShareState> = {
  belongsTo: 'arrange',
  rests: true,
  goesAlong: true,
  start: START,
  hint(state, { job, fitted }): Hint {
    const facing = facingIn({ job, fitted });
    if (!facing) return { code: 'side-first' };
    if (state.halfway) return { code: 'share-halfway', at: state.side ? 1 : 0 };
    const chosen = chosenIn(state, { job });
    const here = chosen?.seen.filter(({ view }) => view === fitted.source.id).length ?? 0;
    if (!chosen) return { code: state.shape === 'place' ? 'share-place' : 'share-line' };
    if (!canShow(facing, chosen)) return { code: 'share-elsewhere' };
    return { code: chosen.along ? 'share-line-again' : 'share-place-again', at: here };
  },
  marks: ({ feature }) => [{ kind: 'shared', chosen: feature }],
  step(state, input, context) {
    const last = lastSeen(state, context);
    switch (input.kind) {
      case 'set':
        return set(state, input.aim, context);
      case 'nudge':
        return [state, last ? [run(moveSeen(last.feature, movedByHand(last.seen, input.by, input.sigma)))] : []];
      case 'grab': {
        const there = findSeen(context, input.aim.free, Math.max(REACH * input.aim.sigma, 1));
        return there
          ? [{ ...state, feature: there.feature, last: there.seen.id, grabbed: true, was: there.seen }, []]
          : [state, []];
      }
      case 'drag':
      case 'drop': {
        const { sheet: at, sigma, edge } = input.aim;
        return [
          input.kind === 'drop' ? letGo(state) : state,
          state.grabbed && last ? [run(moveSeen(last.feature, { ...last.seen, at, sigma, edge }))] : [],
        ];
      }
      case 'release':
        return [letGo(state), []];
      case 'back':
        if (state.side) return [{ ...state, side: undefined }, []];
        return last
          ? [{ ...state, last: undefined }, [run(unseeFeature(last.feature, last.seen.id))]]
          : [begun(state), []];
      case 'cancel':
        return [begun(state), state.grabbed && state.was && last ? [run(moveSeen(last.feature, state.was))] : []];
      default:
        return [state, []];
    }
  },
  preview(state, aim, context): Preview {
    const facing = facingIn(context);
    if (!aim || !facing) return NOTHING;
    const chosen = chosenIn(state, context);
    const shape = chosen ? shapeIn(chosen.along, facing) : state.shape;
    const points = state.side ? [state.side.at] : [];
    if (shape === 'place') return { ...NOTHING, points };
    const at = state.side ? between(state.side, aim, context.fitted).sheet : aim.sheet;
    return { ...NOTHING, points, lines: state.halfway && !state.side ? [] : [lineThrough(at, shape, context)] };
  },
};

/** As far as the picture reaches, through a place. Sheet px. */
function lineThrough(sheet: Vec, shape: 'level' | 'upright', { fitted }: ToolContext): readonly Vec[] {
  const [x, y] = fitted.placing.toPlane(sheet);
  const reach = guideReach(fitted);
  const ends: readonly Vec[] =
    shape === 'level'
      ? [
          [x - reach, y],
          [x + reach, y],
        ]
      : [
          [x, y - reach],
          [x, y + reach],
        ];
  return ends.map((end) => toSheetPlace(fitted, end));
}
