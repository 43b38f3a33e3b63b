import type { OpeningLine } from '../formats';
import type { Job } from '../job';
import {
  clearWidth,
  listOpeningSpans,
  segmentOf,
  type Chain,
  type MadeOutline,
  type Opening,
  type OpeningSpan,
  type Shape,
} from '../outline';

export type OpeningKind = 'door' | 'window' | 'gap';

/** An opening of a drawing's walls, by its mark: the name that was given to it, or its letter and number. */
export interface OpeningRow {
  readonly wall: MadeOutline;
  readonly opening: Opening;
  readonly kind: OpeningKind;
  readonly mark: string;
  /** The wall's thickness. mm */
  readonly thickness: number;
  /** The line that it is in; undefined where the corner that it is counted from is gone. */
  readonly line: Chain | undefined;
}

const LETTERS: Readonly<Record<OpeningKind, string>> = { door: 'D', window: 'W', gap: 'O' };

export const kindOfOpening = ({ fill }: Pick<Opening, 'fill'>): OpeningKind => fill?.kind ?? 'gap';

/** The openings of all walls, in the order in which they were made: the letter says what each is, the number how many of its kind come before it. */
export function listOpenings({ outlines }: Pick<Job, 'outlines'>): readonly OpeningRow[] {
  const counts: Record<OpeningKind, number> = { door: 0, window: 0, gap: 0 };
  return outlines.flatMap((wall): OpeningRow[] => {
    if (wall.shape !== 'made' || wall.recipe.kind !== 'strip') return [];
    const { openings = [], width, of } = wall.recipe;
    const lines = outlines.filter((line): line is Chain => line.shape === 'chain' && of.includes(line.id));
    return openings.map((opening) => {
      const kind = kindOfOpening(opening);
      counts[kind] += 1;
      return {
        wall,
        opening,
        kind,
        mark: opening.name ?? `${LETTERS[kind]}${counts[kind]}`,
        thickness: width,
        line: lines.find((line) => segmentOf(opening, line) !== undefined),
      };
    });
  });
}

/** Where the openings of a wall are, on its view's plane. */
export function spansIn(
  wall: string,
  { outlines }: Pick<Job, 'outlines'>,
  shapes: ReadonlyMap<string, Shape>,
): readonly OpeningSpan[] {
  return listOpeningSpans(wall, {
    findShape: (id) => shapes.get(id),
    findOutline: (id) => outlines.find((outline) => outline.id === id),
  });
}

/** The hand of a leaf: where its hinges are for who stands on the side to which it opens. Undefined of what does not hang, or hangs at both ends. */
export function handOf({ fill }: Pick<Opening, 'fill'>): 'left' | 'right' | undefined {
  if (!fill?.hung || fill.leaves === 2) return undefined;
  return (fill.hung.to === 'left') === (fill.hung.at === 'start') ? 'right' : 'left';
}

/** A row as it stands in a table. mm */
export function lineOfOpening({ opening, kind, mark, thickness }: OpeningRow): OpeningLine {
  const { width, sill = 0, head, fill } = opening;
  const leaves = fill ? fill.leaves : undefined;
  return {
    mark,
    kind,
    width,
    height: head === undefined ? undefined : head - sill,
    sill: opening.sill,
    head,
    clear: clearWidth(opening),
    leaves,
    hinges: handOf(opening),
    wall: thickness,
  };
}
