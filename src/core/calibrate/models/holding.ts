import type { MapModel } from './model';

/** How else a camera may have been held than is usual: within this of where it usually is (radians, one sigma about each axis), and how rare that is, as −2 times the logarithm of its odds. */
export interface Holding {
  readonly sigma: number;
  readonly rarity: number;
}

/** So many times as far off as somebody is who looks at what he does, and how rare that is: square-on by eye in passing. Assumed. */
const LEANS = 4;
const RARITY = 2;

/** A camera that was held about as usual by somebody who did not look; undefined of a map without a camera, where nothing is assumed of how it was held, and where the phone measured that. */
export function leaningOf({ parts, picture }: MapModel): Holding | undefined {
  if (picture.tilt) return undefined;
  const tilt = parts.find(({ id, unusual }) => id === 'tilt' && unusual);
  return tilt?.sigma && { sigma: LEANS * tilt.sigma[0]!, rarity: RARITY };
}

/** The same family, with a camera that is assumed to have been held so. */
export const heldAs = (model: MapModel, { sigma, rarity }: Holding): MapModel => ({
  ...model,
  parts: model.parts.map((part) =>
    part.id === 'tilt' ? { ...part, sigma: part.start.map(() => sigma), rarity } : part,
  ),
});

/** How a model assumes that the camera was held, where that is not what is usual. */
export function holdingOf({ parts }: MapModel): Holding | undefined {
  const tilt = parts.find(({ id }) => id === 'tilt');
  return tilt?.rarity === undefined ? undefined : { sigma: tilt.sigma![0]!, rarity: tilt.rarity };
}
