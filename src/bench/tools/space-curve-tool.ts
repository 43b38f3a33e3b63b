import { isSide } from '@/core/derive';
import { addSpaceCurve } from '@/core/job';
import { nameInRow } from '@/ui/feature-words';
import { listPicked } from './pick';
import { aimReach } from './reach';
import { NOTHING, run, say, stay, type Step, type Tool, type ToolContext } from './tool';

/** Points at two outlines, in views from neighbouring sides, that show one curve in space. */
export interface SpaceCurveState {
  /** The outline that was pointed at first. */
  readonly first?: string | undefined;
  /** All that lay within reach of where that was, the nearest first. */
  readonly within?: readonly string[] | undefined;
  /** A curve was just made: what it comes to is on its card. */
  readonly made?: true | undefined;
}

/** The outline that was pointed at first, unless it is gone by now. */
const firstIn = ({ first }: SpaceCurveState, { job }: Pick<ToolContext, 'job'>) =>
  job.outlines.find(({ id }) => id === first);

/** In the view of the first another one takes its place; in another view the second is found, and the curve is made. */
function choose(state: SpaceCurveState, within: readonly string[], context: ToolContext): Step<SpaceCurveState> {
  const { job, fitted, newId } = context;
  const [chosen] = within;
  const first = firstIn(state, context);
  if (!chosen) return stay(state, say('curve-nothing-here'));
  if (chosen === first?.id) return [{}, []];
  if (!first || first.plane === fitted.view.plane) return [{ first: chosen, within }, []];
  const name = nameInRow(
    'Curve',
    job.spaceCurves.map((curve) => curve.name),
  );
  return [{ made: true }, [run(addSpaceCurve({ id: newId(), name, of: [first.id, chosen] }))]];
}

function another({ first, within = [] }: SpaceCurveState): Step<SpaceCurveState> {
  const next = within[(within.indexOf(first ?? '') + 1) % within.length];
  return next === undefined || next === first
    ? stay({ first, within }, say('nothing-under-it'))
    : [{ first: next, within }, []];
}

export const spaceCurveTool: Tool<SpaceCurveState> = {
  belongsTo: 'arrange',
  goesAlong: true,
  isFree: () => true,
  picks: true,
  start: {},
  hint(state, context) {
    if (!isSide(context.fitted.source.side)) return { code: 'side-first' };
    const first = firstIn(state, context);
    if (!first) return { code: 'curve-first' };
    return { code: first.plane === context.fitted.view.plane ? 'curve-elsewhere' : 'curve-second' };
  },
  marks: ({ first }) => [{ kind: 'chosen-outlines', outlines: first === undefined ? [] : [first] }, { kind: 'curves' }],
  chosen: ({ first }) => (first === undefined ? [] : [first]),
  cards: ({ made }) => (made ? undefined : 'in the way'),
  setsNoPoint: () => true,
  step(state, input, context) {
    if (input.kind === 'another') return another(state);
    if (input.kind === 'back' || input.kind === 'cancel') return [{}, []];
    if (input.kind !== 'set') return [state, []];
    const { job, fitted } = context;
    if (!isSide(fitted.source.side)) return stay(state, say('side-first'));
    const near = listPicked(job, context, fitted.view.plane, input.aim.plane, aimReach(input.aim, context));
    return choose(
      state,
      near.map(({ outline }) => outline),
      context,
    );
  },
  preview: () => NOTHING,
};
