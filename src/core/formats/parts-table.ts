import { writeTable } from './table';

/** A part as a row of its list: sizes in mm, plus-minus as two sigma. */
export interface PartLine {
  readonly name: string;
  readonly count: number;
  readonly mirrored: number;
  readonly material: string;
  readonly thickness: number | undefined;
  readonly width: number;
  readonly widthPlusMinus: number;
  readonly height: number;
  readonly heightPlusMinus: number;
  readonly area: number;
}

const HEAD = [
  'part',
  'count',
  'of them mirrored',
  'material',
  'thickness mm',
  'width mm',
  'width ± mm',
  'height mm',
  'height ± mm',
  'area mm²',
];

/** The list of parts. */
export const writePartsTable = (lines: readonly PartLine[]): string =>
  writeTable(
    HEAD,
    lines.map((line) => [
      line.name,
      line.count,
      line.mirrored,
      line.material,
      line.thickness,
      line.width,
      line.widthPlusMinus,
      line.height,
      line.heightPlusMinus,
      line.area,
    ]),
  );
