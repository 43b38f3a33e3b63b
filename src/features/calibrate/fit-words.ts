import { listDoubts, type FoundPart, type MapPart, type PictureKind, type Steadiness } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { formatPlusMinus, type Units } from '@/core/units';

const DEGREES = 180 / Math.PI;
const percent = (share: number) => `${(100 * Math.abs(share)).toFixed(Math.abs(share) < 0.01 ? 2 : 1)} %`;

/** A slant that was found and is known worse than this, one sigma in radians, needs more than the sizes that showed it; and a bow, as a share. */
const VAGUE_TILT = 0.03;
const VAGUE_LENS = 0.012;

interface Shown {
  readonly camera: boolean;
  readonly kind: PictureKind;
}

/** What a part of the map was found to be, in words; undefined when it is nothing to speak of. */
const FOUND: Readonly<Partial<Record<MapPart, (part: FoundPart, shown: Shown) => string | undefined>>> = {
  tilt({ from, values: [across = 0, up = 0], sigmas }, { camera }) {
    if (!camera) return 'The picture is slanted; that is taken out.';
    const slant = Math.acos(Math.cos(across) * Math.cos(up)) * DEGREES;
    if (from === 'overruled' && Math.max(...sigmas) > VAGUE_TILT)
      return `This photo seems to be taken from aside, by about ${slant.toFixed(0)}°, and nothing here tells it exactly. Point at the four sides of a card or a sheet that lies beside it.`;
    return slant < 1
      ? 'The picture is square-on, by your evidence.'
      : `The picture is slanted by ${slant.toFixed(slant < 10 ? 1 : 0)}°; that is taken out.`;
  },
  stretch({ values: [stretch = 0], sigmas: [sigma = 0] }, { kind }) {
    if (Math.abs(stretch) < 2 * sigma) return undefined;
    return `The ${kind === 'drawing' ? 'copy' : kind === 'scan' ? 'scan' : 'photo'} is stretched ${percent(Math.expm1(Math.abs(stretch)))} ${stretch < 0 ? 'across' : 'upright'}. Two scales are used.`;
  },
  skew({ values: [skew = 0], sigmas: [sigma = 0] }) {
    return Math.abs(skew) < 2 * sigma
      ? undefined
      : `Across and upright are ${(Math.abs(skew) * DEGREES).toFixed(2)}° off square; that is taken out.`;
  },
  lens({ from, values: [k1 = 0, k2 = 0], sigmas: [sigma = 0] }) {
    if (from === 'overruled' && sigma > VAGUE_LENS)
      return 'The lens seems to bow, and nothing here tells by how much. Tap a straight edge near the rim of the picture (Known shape, Straight line).';
    return Math.abs(k1) < 2 * sigma
      ? undefined
      : `The lens bows: a corner is drawn ${percent(k1 + k2)} ${k1 + k2 > 0 ? 'inwards' : 'outwards'}. That is taken out.`;
  },
};

/** Where a doubt comes from, and what settles it. */
interface Cause {
  readonly from: string;
  readonly settledBy: string;
}

const CAUSES: Readonly<Partial<Record<MapPart | 'height', Cause>>> = {
  tilt: {
    from: 'the tilt, which nothing here shows',
    settledBy: 'A second length across the first, or a rectangle, settles it.',
  },
  lens: {
    from: 'the lens: nothing here shows how it bows',
    settledBy: 'One tap on a straight edge near the rim of the picture settles it (Known shape, Straight line).',
  },
  'lens-centre': {
    from: 'the lens, whose middle may lie beside that of the picture',
    settledBy: 'A straight edge on each side of the picture tells it (Known shape, Straight line).',
  },
  focal: {
    from: 'the camera: nothing here tells its focal length',
    settledBy: 'The four sides of a card or a sheet settle it.',
  },
  stretch: { from: 'the copy, which may be stretched', settledBy: 'A size the other way settles it.' },
  skew: { from: 'the copy, which may be askew', settledBy: 'A right angle or a rectangle settles it.' },
  height: { from: 'the height of the traced edge, which nobody said', settledBy: 'Say below whether it lies flat.' },
};

/** A doubt as one plain sentence, with what to do about it. */
const causeInWords = ({ from, settledBy }: Cause, plusMinus: string): string =>
  `Most of the ${plusMinus} comes from ${from}. ${settledBy}`;

/** What was learned by pointing at the same places again; undefined while nothing was. */
function steadinessInWords({ factor, repetitions }: Steadiness): string | undefined {
  if (repetitions === 0) return undefined;
  const said =
    factor > 1.15
      ? `spread ${factor.toFixed(1)} times as far as was assumed`
      : factor < 0.87
        ? `lie closer together than was assumed (${factor.toFixed(1)} times)`
        : 'spread as was assumed';
  return `Places that you pointed at again ${said}; every place pointed here is taken to be as good as that.`;
}

/** A fit as a customer could read it: how good, what was found, what was only assumed, and what to do about it. */
export function fitInWords({ fit, view, sigma, steadiness }: FittedView, units: Units): string[] {
  if (!fit.scaled || sigma === undefined) return [];
  const lines = [`A distance across half the picture is good to ${formatPlusMinus(sigma, units)}.`];
  const camera = fit.model?.name === 'camera';
  for (const part of fit.parts) {
    const words =
      part.from === 'found' || part.from === 'overruled'
        ? FOUND[part.part]?.(part, { camera, kind: fit.picture.kind })
        : undefined;
    if (words) lines.push(words);
  }
  const [main] = listDoubts(fit);
  const isOpen =
    main &&
    (main.part === 'height'
      ? view.lift === undefined
      : fit.parts.some(({ part, from }) => part === main.part && (from === 'assumed' || from === 'partly')));
  const cause = main && isOpen && main.share > 0.5 ? CAUSES[main.part] : undefined;
  if (cause) lines.push(causeInWords(cause, formatPlusMinus(sigma, units)));
  const steady = steadinessInWords(steadiness);
  if (steady) lines.push(steady);
  const guesses = view.evidence.filter(({ guess, role }) => guess && role === 'use').length;
  if (guesses > 0) lines.push(guesses === 1 ? 'One of the sizes is a guess.' : `${guesses} of the sizes are guesses.`);
  return lines;
}

/** What a fit's plus-minus would be with the height of the traced edge known, one sigma; undefined where it is known, or changes next to nothing. */
export function sigmaWithHeight({ fit, view, sigma }: FittedView): number | undefined {
  if (view.lift !== undefined || sigma === undefined || fit.picture.kind !== 'photo') return undefined;
  const share = listDoubts(fit).find(({ part }) => part === 'height')?.share ?? 0;
  return share > WORTH_SAYING ? sigma * Math.sqrt(Math.max(0, 1 - share)) : undefined;
}

/** Share of the variance above which it is worth a word. */
const WORTH_SAYING = 0.1;
