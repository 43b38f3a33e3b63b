import Papa from 'papaparse';

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

const HEAD = ['part', 'count', 'of them mirrored', 'material', 'thickness mm', 'width mm', 'width ± mm', 'height mm', 'height ± mm', 'area mm²'];

/** Characters with which a spreadsheet would begin a formula. */
const FORMULA = /^[=+\-@\t\r]/;

/** The list of parts as comma-separated values (RFC 4180), with a first line that says what is what. */
export function writePartsTable(lines: readonly PartLine[]): string {
  const round = (value: number) => Number(value.toFixed(3));
  const rows = lines.map((line) => [
    line.name, line.count, line.mirrored, line.material, line.thickness ?? '', round(line.width), round(line.widthPlusMinus), round(line.height), round(line.heightPlusMinus), round(line.area),
  ]);
  return Papa.unparse({ fields: HEAD, data: rows }, { escapeFormulae: FORMULA });
}
