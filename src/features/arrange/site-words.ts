import { isOver, type KeptClear } from '@/bench/clearances';
import { pieceLength } from '@/core/geometry';
import type { Job, View } from '@/core/job';
import { findThing, type Hold, type OutlineEnd, type Shape, type Sited } from '@/core/outline';
import { formatLength, type Units } from '@/core/units';
import { measuredInWords } from './shared-words';

/** What a drawing is called: by the view that shows it. */
export const drawingName = (plane: string, { views }: Pick<Job, 'views'>): string =>
  views.find((view: View) => view.plane === plane)?.name ?? 'A drawing';

const isCorner = ({ node }: OutlineEnd) => node !== undefined;

/** An edge is told from others by how long it is; undefined where it is gone, or bent. */
export type LengthOfEdge = (end: OutlineEnd) => string | undefined;

/** Edges are told apart by three figures or so. Share of their length. */
const NAMING = 1 / 400;

/** In the job's units, without a plus-minus. */
export const lengthsOfEdges =
  ({ outlines }: Pick<Job, 'outlines'>, shapes: ReadonlyMap<string, Shape>, units: Units): LengthOfEdge =>
  (end) => {
    const thing = findThing(end, outlines, shapes);
    if (thing?.kind !== 'piece' || thing.piece.kind !== 'line') return undefined;
    const mm = pieceLength(thing.piece);
    return formatLength(mm, units, NAMING * mm).split(' ±')[0];
  };

/** What a hold says, before its figure. */
export function holdInWords({ kind, own, to, fromEnd }: Hold, lengthOf: LengthOfEdge): string {
  const edge = (word: string, end: OutlineEnd) => {
    const length = lengthOf(end);
    return length === undefined ? `${word} edge` : `${word} edge of ${length}`;
  };
  const ours = isCorner(own) ? 'its corner' : edge('its', own);
  const theirs = isCorner(to) ? 'the corner' : edge('the', to);
  if (kind === 'parallel') return `${ours.replace('its', 'Its')} runs along ${theirs} here`;
  if (kind === 'along') return `Along ${theirs} here, from its ${fromEnd ? 'end' : 'beginning'} to ${ours}`;
  return `From ${theirs} here to ${ours}`;
}

/** Less is no leftover: it would not show in any figure. mm */
const UNSEEN = 0.1;

const slidesInWords = (slides: NonNullable<Sited['slides']>): string =>
  slides === 'everywhere' ? 'It can be moved anywhere.' : 'It can still slide along one line.';

/** What is free, what is left over, and what is lost: each in one sentence. */
export function sitedInWords(
  { slides, turns, left, lost }: Sited,
  holds: readonly Hold[],
  units: Units,
): readonly string[] {
  const off = holds
    .map(({ id, plusMinus = 0 }) => ({ mm: Math.abs(left.get(id) ?? 0), room: plusMinus + UNSEEN }))
    .filter(({ mm, room }) => mm > room);
  const worst = Math.max(0, ...off.map(({ mm }) => mm));
  return [
    off.length > 0
      ? `What is said of it disagrees by ${formatLength(worst, units)}. Measure one of these again, or take one away.`
      : '',
    lost.length > 0
      ? `${lost.length === 1 ? 'One thing that is said is' : `${lost.length} things that are said are`} of an edge or a corner that is gone, or bent.`
      : '',
    turns ? 'Nothing says yet which way it is turned.' : '',
    slides ? slidesInWords(slides) : '',
    turns || slides ? '' : 'It stands fast.',
  ].filter((sentence) => sentence !== '');
}

/** Which edge of its outline, and how long it is. */
export function edgeInWords(end: OutlineEnd, { outlines }: Pick<Job, 'outlines'>, lengthOf: LengthOfEdge): string {
  const outline = outlines.find(({ id }) => id === end.outline);
  const index = outline?.shape === 'chain' ? outline.nodes.findIndex(({ id }) => id === end.segment) : -1;
  if (index < 0) return 'An edge that is gone';
  const length = lengthOf(end);
  return length === undefined ? `Edge ${index + 1}` : `Edge ${index + 1}, ${length}`;
}

/** By how much it is clear or over, and what that is of. */
export function clearInWords(kept: KeptClear, job: Pick<Job, 'views'>, units: Units): string {
  const { value, sigma } = kept.margin;
  const name = drawingName(kept.siting.of, job);
  const by = measuredInWords({ value: Math.abs(value), sigma }, units);
  if (Math.abs(value) <= 2 * sigma)
    return `${name}: just as far as it has to, within ±${formatLength(2 * sigma, units)}.`;
  return isOver(kept) ? `${name} is over by ${by}.` : `${name} is clear by ${by}.`;
}
