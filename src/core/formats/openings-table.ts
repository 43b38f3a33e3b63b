import { writeTable } from './table';

/** An opening as a row of the list of doors and windows. mm */
export interface OpeningLine {
  readonly mark: string;
  readonly kind: string;
  readonly width: number;
  readonly height: number | undefined;
  readonly sill: number | undefined;
  readonly head: number | undefined;
  /** Between the jambs. */
  readonly clear: number;
  readonly leaves: number | undefined;
  /** Where the hinges are for who stands on the side to which it opens. */
  readonly hinges: string | undefined;
  /** How thick the wall is. */
  readonly wall: number;
}

const HEAD = [
  'mark',
  'what',
  'width mm',
  'height mm',
  'sill mm',
  'head mm',
  'clear width mm',
  'leaves',
  'hinges, seen from where it opens to',
  'wall mm',
];

/** The list of doors and windows. */
export const writeOpeningsTable = (lines: readonly OpeningLine[]): string =>
  writeTable(
    HEAD,
    lines.map(({ mark, kind, width, height, sill, head, clear, leaves, hinges, wall }) => [
      mark,
      kind,
      width,
      height,
      sill,
      head,
      clear,
      leaves,
      hinges,
      wall,
    ]),
  );
