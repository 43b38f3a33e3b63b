import Papa from 'papaparse';

/** Characters with which a spreadsheet would begin a formula. */
const FORMULA = /^[=+\-@\t\r]/;

const round = (value: number) => Number(value.toFixed(3));

/** Rows as comma-separated values (RFC 4180), with a first line that says what is what. Figures to a thousandth; nothing where there is no value. */
export function writeTable(
  head: readonly string[],
  rows: readonly (readonly (string | number | undefined)[])[],
): string {
  const data = rows.map((row) => row.map((value) => (typeof value === 'number' ? round(value) : (value ?? ''))));
  return Papa.unparse({ fields: [...head], data }, { escapeFormulae: FORMULA });
}
