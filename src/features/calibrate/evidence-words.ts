import { scaleInMiddle, type CheckOutcome, type ReadFigure } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { cross, distance, subtract, type Vec } from '@/core/geometry';
import type { Evidence } from '@/core/job';
import { formatAngle, formatLength, formatPlusMinus, type Units } from '@/core/units';
import { EVIDENCE_WORDS } from './kinds';

const RADIANS = Math.PI / 180;

/** "Known length 2", or what it was called. */
export function titleOf(evidence: Evidence, all: readonly Evidence[]): string {
  if (evidence.name) return evidence.name;
  const same = all.filter((other) => other.kind === evidence.kind && other.role === evidence.role && !other.name);
  const number = same.length > 1 ? ` ${same.indexOf(evidence) + 1}` : '';
  const title =
    evidence.role === 'check'
      ? 'Check'
      : evidence.kind === 'length' && evidence.guess
        ? 'Guessed length'
        : EVIDENCE_WORDS[evidence.kind].title;
  return title + number;
}

function valueOf({ figure, comesTo }: ReadFigure, units: Units): string {
  return figure.unit === 'degrees'
    ? formatAngle(comesTo.value * RADIANS, comesTo.sigma * RADIANS)
    : formatLength(comesTo.value, units, comesTo.sigma);
}

function saidOf({ figure }: ReadFigure, units: Units): string {
  return figure.unit === 'degrees' ? formatAngle(figure.said! * RADIANS) : formatLength(figure.said!, units);
}

function offBy({ figure, difference }: ReadFigure, units: Units): string {
  return figure.unit === 'degrees'
    ? formatAngle(Math.abs(difference!) * RADIANS)
    : formatLength(Math.abs(difference!), units);
}

/** A check whose own sigma is larger than this share of it would miss an error that matters. */
const WEAK_CHECK = 0.0075;

/** What follows for a piece, in one or two sentences. */
export function outcomeInWords(evidence: Evidence, fitted: FittedView, units: Units): string {
  const { fit, view, figures, checks, without } = fitted;
  if (evidence.role === 'off') return 'Switched off: it is neither used nor compared.';
  if (without.includes(evidence.id)) return 'Not used: with it there is no fit. Point at it again, or take it away.';
  const check = checks.find((outcome) => outcome.id === evidence.id);
  if (check) return checkInWords(check, units);
  const read = figures.get(evidence.id);
  if (!read) return evidence.role === 'check' ? 'Waits for a scale to be compared with.' : 'Not used: see above.';
  if (fit.suspects.includes(evidence.id)) return suspectInWords(evidence, read, fitted, units);
  const stated = read.filter(({ difference }) => difference !== undefined);
  const made = (stated.length > 0 ? stated : read)
    .map((figure) => `${figure.figure.name === 'difference' ? 'differing by ' : ''}${valueOf(figure, units)}`)
    .join(' by ');
  if (
    evidence.kind === 'length' &&
    fit.diagnosis!.redundancy === 0 &&
    view.evidence.filter(({ role }) => role === 'use').length === 1
  )
    return `Sets the scale; its two points are good to ${formatPlusMinus(read[0]!.comesTo.sigma, units)}.`;
  if (evidence.kind === 'straight') return bowInWords(evidence, read[0]!, fitted);
  if (stated.length === 0) return `It comes to ${made}.`;
  const worst = stated.reduce((a, b) =>
    Math.abs(b.difference! / b.sigma) > Math.abs(a.difference! / a.sigma) ? b : a,
  );
  return Math.abs(worst.difference!) < worst.comesTo.sigma
    ? `The fit makes it ${made}, as you said.`
    : `The fit makes it ${made}: off by ${offBy(worst, units)}.`;
}

/** How far the points stray from straight, px of the picture: as it was taken, and with lens and slant taken out. */
function bowInWords({ groups }: Evidence, { comesTo }: ReadFigure, { view, fit }: FittedView): string {
  const places = groups[0]!.map((id) => view.points.find((point) => point.id === id)!.at);
  const [before, after] = [bowOf(places), Math.abs(comesTo.value) * scaleInMiddle(fit)];
  return `As it was taken, the points bow by ${before.toFixed(1)} px; after the fit ${after.toFixed(1)} px are left.`;
}

/** The largest distance from the chord between the two points that are farthest apart. */
function bowOf(places: readonly Vec[]): number {
  const pairs = places.flatMap((a, i) => places.slice(i + 1).map((b) => [a, b] as const));
  const [a, b] = pairs.reduce((longest, pair) => (distance(...pair) > distance(...longest) ? pair : longest));
  return Math.max(...places.map((place) => Math.abs(cross(subtract(b, a), subtract(place, a))) / distance(a, b)));
}

/** What a relation misses by when the others are right: nobody said a size of it. */
const MISSED: Readonly<Partial<Record<Evidence['kind'], (by: string) => string>>> = {
  straight: (by) => `By the others, its points stray ${by} from a straight line.`,
  equal: (by) => `By the others, they differ by ${by}.`,
  parallel: (by) => `By the others, they are ${by} from parallel.`,
  square: (by) => `By the others, they are ${by} from square.`,
  level: (by) => `By the others, it runs ${by} off that.`,
};

function suspectInWords({ kind }: Evidence, read: readonly ReadFigure[], { fit }: FittedView, units: Units): string {
  const worst = read.filter(({ difference }) => difference !== undefined)[0];
  const missed = worst && MISSED[kind]?.(offBy(worst, units));
  const made =
    missed ??
    (worst
      ? `The others make it ${valueOf(worst, units)}, you said ${saidOf(worst, units)}.`
      : 'The others contradict it.');
  return fit.suspectsKept
    ? `One of the marked pieces does not belong, and nothing tells which. ${made} Measure them again.`
    : `${made} It does not belong and is left out of the fit. Measure it again, or correct it.`;
}

/** "Comes to 240.2 mm ±0.4, you said 240.0 mm: agrees", or how far it is off and what to do. */
function checkInWords({ figures, verdict }: CheckOutcome, units: Units): string {
  const stated = figures.filter(({ difference }) => difference !== undefined);
  const worst = stated.reduce(
    (a, b) => (Math.abs(b.difference! / b.sigma) > Math.abs(a.difference! / a.sigma) ? b : a),
    stated[0]!,
  );
  if (!worst) return 'Nothing was said that could be compared.';
  const start = `Comes to ${valueOf(worst, units)}, you said ${saidOf(worst, units)}`;
  const isWeak = worst.figure.unit === 'mm' && worst.comesTo.sigma >= WEAK_CHECK * worst.figure.said!;
  if (verdict === 'agrees')
    return isWeak
      ? `${start}: agrees, though it proves little so far off. “Use it” narrows the fit.`
      : `${start}: agrees.`;
  const off =
    worst.figure.unit === 'mm' && worst.figure.said! > 0
      ? `${Math.abs((100 * worst.difference!) / worst.figure.said!).toFixed(1)} % off`
      : `off by ${offBy(worst, units)}`;
  return `${start}: ${off}. Point at it again and measure both sizes once more before you trust the scale.`;
}
