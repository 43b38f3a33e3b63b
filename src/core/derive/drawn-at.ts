import type { Measured } from '../adjust';
import { isResolution, type Evidence } from '../job';
import { findDrawingRatio, MM_PER_INCH } from '../units';
import type { FittedView } from './fits';

/** That a sheet seems to be drawn at another ratio than its own size says. */
export interface DrawnAt {
  /** The sheet's own size, as a piece of evidence. */
  readonly resolution: Evidence;
  /** Its pixels an inch. */
  readonly dpi: number;
  /** A size that was said of the thing, and what the sheet makes of it. mm */
  readonly said: number;
  readonly comesTo: Measured;
  /** How many times larger the thing is than the sheet has it by now. */
  readonly times: number;
  /** The usual ratio that this makes of the drawing: how many times larger than the paper the thing is. Undefined where it is none, as when a drawing was made to fit its page. */
  readonly ratio: number | undefined;
}

/** Off by more than so many times a size is no slip of a hand or a printer. */
const LEAST = 1.2;
/** Sizes that tell of one ratio agree on it, as a share. */
const ALIKE = 0.02;

const isApart = (times: number) => Math.abs(Math.log(times)) > Math.log(LEAST);

/** The sheet's own size where that is used, its pixels an inch, and how many times larger than the paper it says that the thing is. */
function resolutionOf({ view, sheet, fit }: Pick<FittedView, 'view' | 'sheet' | 'fit'>) {
  const resolution = view.evidence.find((piece) => piece.role === 'use' && isResolution(piece, view, sheet));
  const width = resolution?.said.width?.value;
  if (!resolution || !width || fit.suspects.includes(resolution.id)) return undefined;
  const dpi = sheet.taken.dpi ?? (sheet.width * MM_PER_INCH) / width;
  return { resolution, dpi, drawn: width / ((sheet.width / dpi) * MM_PER_INCH) };
}

/** The usual ratio at which a sheet is drawn, if a length of it is so long; undefined where that is none, or the one that it is said to be drawn at, or its own size counts for nothing. */
export function ratioFor(said: number, comesTo: number, fitted: FittedView): number | undefined {
  const found = resolutionOf(fitted);
  const times = said / comesTo;
  return found && isApart(times) ? findDrawingRatio(found.drawn * times) : undefined;
}

/** Where sizes of the thing contradict the sheet's own size by about a whole ratio; undefined where they do not, or nothing is known of the sheet's size. */
export function drawnAtOf(fitted: FittedView): DrawnAt | undefined {
  const { fit, figures, checks } = fitted;
  const found = resolutionOf(fitted);
  if (!found) return undefined;
  const apart = [
    ...fit.suspects.flatMap((id) => figures.get(id) ?? []),
    ...checks.filter(({ verdict }) => verdict !== 'agrees').flatMap((check) => check.figures),
  ].flatMap(({ figure: { unit, said }, comesTo }) =>
    unit === 'mm' && said !== undefined && said > 0 && comesTo.value > 0 ? [{ said, comesTo }] : [],
  );
  const [first, ...others] = apart;
  if (!first) return undefined;
  const times = first.said / first.comesTo.value;
  const isAlike = (other: typeof first) => Math.abs(Math.log(other.said / other.comesTo.value / times)) < ALIKE;
  if (!isApart(times) || !others.every(isAlike)) return undefined;
  const { resolution, dpi, drawn } = found;
  return { resolution, dpi, ...first, times, ratio: findDrawingRatio(drawn * times) };
}
