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

/** Where a doubt comes from while nothing shows it, and once the evidence tells something of it; what settles it, and what tells more. */
interface Cause {
  readonly unseen: string;
  readonly settledBy: string;
  readonly inPart: string;
  readonly toldBy: string;
}

const EDGE_TOOL = '(Known shape, Straight line)';
const CAUSES: Readonly<Partial<Record<MapPart, Cause>>> = {
  tilt: {
    unseen: 'the tilt, which nothing here shows',
    settledBy: 'A second length across the first, or a rectangle, settles it.',
    inPart: 'the tilt, which is seen only in part',
    toldBy: 'A known length far from the others and across them tells more.',
  },
  lens: {
    unseen: 'the lens: nothing here shows how it bows',
    settledBy: `One tap on a straight edge near the rim of the picture settles it ${EDGE_TOOL}.`,
    inPart: 'the lens, whose bow is seen only in part',
    toldBy: `A straight edge nearer to the rim of the picture tells more ${EDGE_TOOL}.`,
  },
  'lens-centre': {
    unseen: 'the lens, whose middle may lie beside that of the picture',
    settledBy: `A straight edge on each side of the picture tells it ${EDGE_TOOL}.`,
    inPart: 'the lens, whose middle is seen only in part',
    toldBy: `A straight edge on each side of the picture tells more ${EDGE_TOOL}.`,
  },
  focal: {
    unseen: 'the camera: nothing here tells its focal length',
    settledBy: 'The four sides of a card or a sheet settle it.',
    inPart: 'the camera, whose focal length is seen only in part',
    toldBy: 'The four sides of a larger card or sheet tell more.',
  },
  stretch: {
    unseen: 'the copy, which may be stretched',
    settledBy: 'A size the other way settles it.',
    inPart: 'the copy, whose stretch is seen only in part',
    toldBy: 'A longer size the other way tells more.',
  },
  skew: {
    unseen: 'the copy, which may be askew',
    settledBy: 'A right angle or a rectangle settles it.',
    inPart: 'the copy, which may still be a little askew',
    toldBy: 'A larger right angle or rectangle tells more.',
  },
};
const HEIGHT = 'the height of the traced edge, which nobody said. Say below whether it lies flat.';

/** Where most of the doubt comes from and what to do about it, in one plain sentence each; undefined where it comes from many things, or is nobody's to lower. */
export function causeInWords({ fit, view }: Pick<FittedView, 'fit' | 'view'>): string | undefined {
  const [main] = listDoubts(fit);
  if (!main || main.share <= 0.5) return undefined;
  if (main.part === 'height') return view.lift === undefined ? HEIGHT : undefined;
  const [cause, from] = [CAUSES[main.part], fit.parts.find(({ part }) => part === main.part)?.from];
  if (cause && from === 'assumed') return `${cause.unseen}. ${cause.settledBy}`;
  return cause && from === 'partly' ? `${cause.inPart}. ${cause.toldBy}` : undefined;
}

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
  const cause = causeInWords({ fit, view });
  if (cause) lines.push(`Most of the ${formatPlusMinus(sigma, units)} comes from ${cause}`);
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
