import { FROM_AFAR, type RayBundle } from '../projection';
import type { Assumed, ModelName, NumbersOf, PartOfMap, MapShape } from './model';

/** What each of the flat families leaves to the evidence, in the order in which they contain one another. */
const PARTS: Readonly<Record<Exclude<ModelName, 'camera'>, readonly PartOfMap[]>> = {
  similarity: [{ id: 'scale', start: [0] }],
  'two-scale': [
    { id: 'scale', start: [0] },
    { id: 'stretch', start: [0] },
  ],
  affine: [
    { id: 'scale', start: [0] },
    { id: 'stretch', start: [0] },
    { id: 'skew', start: [0] },
  ],
  projective: [
    { id: 'scale', start: [0] },
    { id: 'stretch', start: [0] },
    { id: 'skew', start: [0] },
    { id: 'tilt', start: [0, 0] },
  ],
};

/**
 * Maps without a camera: one scale (its logarithm), the ratio of the scales along and across the sheet, the skew of the two,
 * and for the projective family the two numbers of its horizon. Everything is seen from afar: what lies at a height is seen at its foot.
 */
export function flatShape(
  name: Exclude<ModelName, 'camera'>,
  assumed: Partial<Record<'stretch' | 'skew', Assumed>> = {},
): MapShape {
  const parts = PARTS[name].map((part) => {
    return part.id === 'stretch' || part.id === 'skew' ? { ...part, ...assumed[part.id] } : part;
  });
  return { parts, projectionAt };
}

function projectionAt(numbersOf: NumbersOf): RayBundle {
  const [scale = 0] = numbersOf('scale');
  const [stretch = 0] = numbersOf('stretch');
  const [skew = 0] = numbersOf('skew');
  const [p = 0, q = 0] = numbersOf('tilt');
  const [across, up] = [Math.exp(scale + stretch / 2), Math.exp(scale - stretch / 2)];
  // The horizon first, then scales and skew: any projective map with the middle of the picture in sight is of this form.
  return { rays: [across, up * skew, 0, 0, up, 0, p, q, 1], centre: FROM_AFAR };
}

export const isFlat = (name: ModelName): name is Exclude<ModelName, 'camera'> => name !== 'camera';
