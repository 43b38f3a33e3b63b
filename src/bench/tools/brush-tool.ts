import { distance, type Vec } from '@/core/geometry';
import { setCleaning, type BrushStroke, type CleaningStep, type View } from '@/core/job';
import { NOTHING, run, type Preview, type Step, type Tool, type ToolContext } from './tool';

/** A brush over the picture: it rubs out, or fills in with ink. `radius` in sheet px. */
export interface BrushState {
  readonly does: 'rub' | 'fill';
  readonly radius: number;
  /** Where the stroke on its way went so far, sheet px. */
  readonly path: readonly Vec[];
  /** Set while a stroke is being drawn. */
  readonly grabbed?: true | undefined;
}

const START: BrushState = { does: 'rub', radius: 12, path: [] };
export const startBrush = (does: BrushState['does'], radius: number): BrushState => ({ does, radius, path: [] });

/** Places closer together than this share of the radius add nothing. */
const STEP = 0.25;
const LONGEST = 5000;

function extended(state: BrushState, at: Vec): BrushState {
  const last = state.path.at(-1);
  const near = last !== undefined && distance(last, at) < STEP * state.radius;
  return near || state.path.length >= LONGEST ? state : { ...state, path: [...state.path, at] };
}

/** The view's steps with one more stroke: on the last step where that is the same brush, else on a new one. */
export function withStroke(
  cleaning: View['cleaning'],
  does: BrushState['does'],
  stroke: BrushStroke,
  newId: () => string,
): CleaningStep[] {
  const steps = [...(cleaning ?? [])];
  const last = steps.at(-1);
  if (last?.kind === does && last.on) return [...steps.slice(0, -1), { ...last, strokes: [...last.strokes, stroke] }];
  return [...steps, { id: newId(), on: true, kind: does, strokes: [stroke] }];
}

function finished({ does, radius, path, ...rest }: BrushState, { fitted, newId }: ToolContext): Step<BrushState> {
  const next: BrushState = { ...rest, does, radius, path: [], grabbed: undefined };
  if (path.length === 0) return [next, []];
  const cleaning = withStroke(
    fitted.view.cleaning,
    does,
    { radius, path: path.map(([x, y]): Vec => [Number(x.toFixed(1)), Number(y.toFixed(1))]) },
    newId,
  );
  return [next, [run(setCleaning(fitted.view.id, cleaning, does === 'rub' ? 'rubbed-out' : 'filled-in'))]];
}

/** A stroke goes from where it is put down to where it is lifted; a tap is a dot. */
export const brushTool: Tool<BrushState> = {
  belongsTo: 'sources',
  hint: ({ does }) => ({ code: does === 'rub' ? 'brush-rub' : 'brush-fill' }),
  cards: () => 'in the way',
  paints: true,
  looks: true,
  places: () => true,
  start: START,
  isFree: () => true,
  setsNoPoint: () => true,
  step(state, input, context): Step<BrushState> {
    switch (input.kind) {
      case 'grab':
        return [{ ...state, path: [input.aim.sheet], grabbed: true }, []];
      case 'drag':
        return [state.grabbed ? extended(state, input.aim.sheet) : state, []];
      case 'drop':
      case 'release':
        return state.grabbed ? finished(state, context) : [state, []];
      case 'set':
        // By keyboard a dot is set where the aim is; a stroke of hand has been finished by its lifting.
        return state.grabbed ? finished(state, context) : finished({ ...state, path: [input.aim.sheet] }, context);
      case 'cancel':
      case 'back':
        return [{ ...state, path: [], grabbed: undefined }, []];
      default:
        return [state, []];
    }
  },
  preview({ path, radius, does }, aim): Preview {
    const at = path.length > 0 ? path : aim ? [aim.sheet] : [];
    return at.length === 0 ? NOTHING : { outlines: [], points: [], brush: { path: at, radius, does } };
  },
};
