/** A size in which holes are drilled or sheets are made, and what is called so. mm */
export interface MadeSize {
  readonly mm: number;
  readonly name: string;
  readonly source: string;
  readonly standing: 'memory' | 'practice';
}

type Row = readonly [name: string, mm: number];

const rows = (
  kind: string,
  source: string,
  standing: MadeSize['standing'],
  list: readonly Row[],
): readonly MadeSize[] => list.map(([name, mm]) => ({ mm, name: `${kind}${name}`, source, standing }));

/** Diameters of holes for metric screws: from memory of the standard that they name, and what is usual. */
export const HOLES: readonly MadeSize[] = [
  ...rows('clearance for M', 'ISO 273, medium series', 'memory', [
    ['2', 2.4],
    ['2.5', 2.9],
    ['3', 3.4],
    ['4', 4.5],
    ['5', 5.5],
    ['6', 6.6],
    ['8', 9],
    ['10', 11],
    ['12', 13.5],
    ['16', 17.5],
    ['20', 22],
  ]),
  ...rows('tapping for M', 'diameter less pitch, coarse threads of ISO 261', 'practice', [
    ['2', 1.6],
    ['2.5', 2.05],
    ['3', 2.5],
    ['4', 3.3],
    ['5', 4.2],
    ['6', 5],
    ['8', 6.8],
    ['10', 8.5],
    ['12', 10.2],
    ['16', 14],
    ['20', 17.5],
  ]),
];

/** Thicknesses of boards and sheets, as they are usually sold. */
export const SHEETS: readonly MadeSize[] = [
  ...rows('', 'common practice', 'practice', [
    ['hardboard', 3.2],
    ['plywood', 6.5],
    ['plywood', 9],
    ['plywood', 12],
    ['plywood', 15],
    ['plywood', 18],
    ['plywood', 21],
    ['plywood', 24],
    ['chipboard', 16],
    ['chipboard', 19],
    ['chipboard', 22],
    ['chipboard', 28],
    ['plasterboard', 9.5],
    ['plasterboard', 12.5],
    ['sheet metal', 0.5],
    ['sheet metal', 0.75],
    ['sheet metal', 1],
    ['sheet metal', 1.5],
    ['sheet metal', 2],
    ['sheet metal', 3],
    ['plywood, 1/4 in', 5.56],
    ['plywood, 1/2 in', 11.91],
    ['plywood, 5/8 in', 15.08],
    ['plywood, 3/4 in', 18.26],
  ]),
];
