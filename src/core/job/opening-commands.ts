import type { Draft } from 'immer';
import { FITTING_SETS, type FittingSet, type Opening } from '../outline';
import { command, draft, type Command } from './command';
import type { Job, Layer } from './schema';

/** The layer that each set of what stands in openings begins on. */
export const FITTING_LAYERS: Readonly<Record<FittingSet, Pick<Layer, 'name' | 'color'>>> = {
  frames: { name: 'Frames', color: 'ink' },
  leaves: { name: 'Leaves', color: 'hedge' },
  swings: { name: 'Swings and sills', color: 'ink' },
};

/**
 * Other openings of a wall, by its id. The first door or window in it brings what stands in openings along: frames, leaves and swings as outlines of their own, each on
 * the layer of its name, which is added where there is none, so that they are shown and handed over apart.
 */
export const changeOpenings = (
  strip: string,
  openings: readonly Opening[],
  code: string,
  newId: () => string,
): Command =>
  command(code, (job) => {
    const made = job.outlines.find(({ id }) => id === strip);
    if (made?.shape !== 'made' || made.recipe.kind !== 'strip') return;
    made.recipe.openings = draft([...openings]);
    if (openings.some(({ fill }) => fill) && !hasFittings(job, strip))
      FITTING_SETS.forEach((set) => addFittings(job, strip, made.plane, set, newId));
  });

const hasFittings = (job: Draft<Job>, strip: string) =>
  job.outlines.some(
    (outline) => outline.shape === 'made' && outline.recipe.kind === 'fittings' && outline.recipe.of.includes(strip),
  );

function addFittings(job: Draft<Job>, strip: string, plane: string, set: FittingSet, newId: () => string): void {
  const known = job.layers.find(({ name }) => name === FITTING_LAYERS[set].name);
  const layer = known ?? { ...FITTING_LAYERS[set], id: newId(), show: true, lock: false };
  if (!known) job.layers.push(layer);
  job.outlines.push({
    shape: 'made',
    id: newId(),
    layer: layer.id,
    plane,
    recipe: { kind: 'fittings', of: [strip], set },
  });
}
