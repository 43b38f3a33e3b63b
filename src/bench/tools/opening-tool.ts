import { distance, nearestOn, pieceLength } from '@/core/geometry';
import { changeRecipe } from '@/core/job';
import type { Opening } from '@/core/outline';
import { NOTHING, run, say, stay, type Step, type Tool, type ToolContext } from './tool';
import type { Aim } from '../aim';

/** Openings are put into the walls of one strip. */
export interface OpeningState {
  readonly made?: string | undefined;
}

/** There to be typed over: a door. mm */
const FIRST_WIDTH = 900;

/** The opening whose middle is nearest to where one points, on the lines of the walls. */
function openingAt({ made }: OpeningState, { plane }: Aim, { job, shapes, newId }: ToolContext): Opening | undefined {
  const strip = job.outlines.find(({ id }) => id === made);
  if (strip?.shape !== 'made' || strip.recipe.kind !== 'strip') return undefined;
  const places = strip.recipe.of.flatMap((id) => {
    const [chain, shape] = [job.outlines.find((other) => other.id === id), shapes.get(id)];
    return chain?.shape === 'chain' && shape ? shape.pieces.map((piece, i) => ({ chain, piece, i, near: nearestOn(piece, plane) })) : [];
  });
  const nearest = places.sort((a, b) => a.near.distance - b.near.distance)[0];
  if (!nearest || nearest.near.distance > strip.recipe.width * 2) return undefined;
  const { chain, piece, i, near } = nearest;
  const [along, length] = [distance(near.point, shapes.get(chain.id)!.nodes[i]!), pieceLength(piece)];
  const isNearStart = along <= length / 2;
  const width = Math.min(FIRST_WIDTH, length / 2);
  const from = (isNearStart ? along : length - along) - width / 2;
  return { id: newId(), outline: chain.id, segment: chain.nodes[i]!.id, from: isNearStart ? 'start' : 'end', distance: Math.max(0, Math.round(from)), width };
}

export const openingTool: Tool<OpeningState> = {
  start: {},
  step(state, input, context): Step<OpeningState> {
    if (input.kind === 'cancel') return [state, [{ kind: 'hold', outlines: state.made ? [state.made] : [] }]];
    if (input.kind !== 'set') return [state, []];
    const opening = openingAt(state, input.aim, context);
    const strip = context.job.outlines.find(({ id }) => id === state.made);
    if (!opening || strip?.shape !== 'made' || strip.recipe.kind !== 'strip') return stay(state, say('no-wall-here'));
    const recipe = { ...strip.recipe, openings: [...(strip.recipe.openings ?? []), opening] };
    return [state, [run({ ...changeRecipe(strip.id, recipe), name: { code: 'opening-added', detail: {} }, merge: undefined }), { kind: 'hold', outlines: [strip.id] }]];
  },
  preview: () => NOTHING,
};
