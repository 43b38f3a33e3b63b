import type { GrayPicture } from './gray-picture';

/** What a still of a film is good for, each 0 to 1. */
export interface StillQuality {
  /** How fine its detail is against its edges: movement and a lens out of focus take it away. Compared between stills of one film only. */
  readonly sharpness: number;
  /** How much of its edges runs aslant in few directions, as edges do that recede: what perspective is found by. */
  readonly receding: number;
}

const BINS = 60;
/** Edges within this of level or upright say nothing of depth. Bins of three degrees. */
const AXIS = 2;

/** Judges a still, some 400 px wide. Weak: foliage is sharp and aslant too, in all directions, which is why few directions are asked for. */
export function judgeStill({ width, height, data }: GrayPicture): StillQuality {
  const histogram = new Float64Array(BINS);
  let [fine, coarse] = [0, 0];
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const at = y * width + x;
      const [dx, dy] = [data[at + 1]! - data[at - 1]!, data[at + width]! - data[at - width]!];
      const [ex, ey] = [data[at + 2]! - data[at - 2]!, data[at + 2 * width]! - data[at - 2 * width]!];
      fine += dx * dx + dy * dy;
      const strength = ex * ex + ey * ey;
      coarse += strength;
      if (strength < 400) continue;
      const direction = Math.atan2(dy, dx) / Math.PI;
      // Every place counts alike: the strongest edges of a picture are its silhouettes.
      histogram[Math.floor((direction - Math.floor(direction)) * BINS) % BINS]! += 1;
    }
  }
  return { sharpness: coarse > 0 ? Math.min(1, (2 * fine) / coarse) : 0, receding: shareOfSlanted(histogram) };
}

/** Of all edges, those in the two fullest slanted directions, each three bins wide. */
function shareOfSlanted(histogram: Float64Array): number {
  const total = histogram.reduce((sum, value) => sum + value, 0);
  if (total === 0) return 0;
  const isSlanted = (bin: number) => {
    const away = bin % (BINS / 2);
    return away >= AXIS && away < BINS / 2 - AXIS;
  };
  const around = (bin: number) => [-1, 0, 1].reduce((sum, by) => sum + histogram[(bin + by + BINS) % BINS]!, 0);
  const slanted = Array.from({ length: BINS }, (_, bin) => bin)
    .filter(isSlanted)
    .sort((a, b) => around(b) - around(a));
  const first = slanted[0]!;
  const second = slanted.find((bin) => Math.min(Math.abs(bin - first), BINS - Math.abs(bin - first)) > 3);
  return Math.min(1, (around(first) + (second === undefined ? 0 : around(second))) / total);
}

export interface RankedStill<T> {
  readonly still: T;
  readonly quality: StillQuality;
  /** Why it stands where it stands. */
  readonly why: 'sharp-and-receding' | 'sharp' | 'receding-but-soft' | 'soft';
}

/** Best first: against the others of its film, sharpness counting a little more than receding edges. */
export function rankStills<T>(
  stills: readonly { readonly still: T; readonly quality: StillQuality }[],
): RankedStill<T>[] {
  const most = (read: (quality: StillQuality) => number) =>
    Math.max(1e-9, ...stills.map(({ quality }) => read(quality)));
  const least = Math.min(...stills.map(({ quality }) => quality.sharpness));
  const [sharpest, mostReceding] = [most((quality) => quality.sharpness), most((quality) => quality.receding)];
  const sharpOf = ({ sharpness }: StillQuality) => (sharpest > least ? (sharpness - least) / (sharpest - least) : 1);
  const recedingOf = ({ receding }: StillQuality) => receding / Math.max(0.04, mostReceding);
  const worth = (quality: StillQuality) => 0.6 * sharpOf(quality) + 0.4 * recedingOf(quality);
  return [...stills]
    .sort((a, b) => worth(b.quality) - worth(a.quality))
    .map(({ still, quality }) => {
      const [sharp, receding] = [sharpOf(quality) > 0.6, recedingOf(quality) > 0.6];
      const [whenSharp, whenSoft] = receding
        ? (['sharp-and-receding', 'receding-but-soft'] as const)
        : (['sharp', 'soft'] as const);
      return { still, quality, why: sharp ? whenSharp : whenSoft };
    });
}
