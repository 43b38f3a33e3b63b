import type { ShelfEntry, ShelfFamily, ShelfShape } from './entry';

type Standing = ShelfEntry['standing'];
type Row = readonly [
  name: string,
  size: number | readonly [number, number],
  tolerance: number,
  source: string,
  standing?: Standing,
  rim?: number,
];

const round = (family: ShelfFamily, rows: readonly Row[]) =>
  rows.map((row) => entry(family, row, { kind: 'circle', diameter: row[1] as number }));
const long = (family: ShelfFamily, rows: readonly Row[]) =>
  rows.map((row) => entry(family, row, { kind: 'length', mm: row[1] as number }));
const flat = (family: ShelfFamily, rows: readonly Row[]) =>
  rows.map((row) =>
    entry(family, row, {
      kind: 'rectangle',
      width: (row[1] as readonly [number, number])[0],
      height: (row[1] as readonly [number, number])[1],
    }),
  );

function entry(
  family: ShelfFamily,
  [name, , tolerance, source, standing = 'memory', rim]: Row,
  shape: ShelfShape,
): ShelfEntry {
  return {
    id: `${family}/${name}`.replace(/[^a-z0-9/]+/gi, '-').toLowerCase(),
    name,
    family,
    shape,
    tolerance,
    rim,
    source,
    standing,
  };
}

/**
 * Things of known size, each with its tolerance and where the size is from. Sizes without a standing were written down from
 * memory of the source they name; `practice` rows are what is usual and become guesses.
 */
export const SHELF: readonly ShelfEntry[] = [
  ...flat('cards and paper', [
    ['bank card', [85.6, 53.98], 0.12, 'ISO/IEC 7810 ID-1', 'standard', 0.76],
    ['visa label', [105, 74], 0.5, 'ISO/IEC 7810 ID-2', 'memory', 0.3],
    ['passport page', [125, 88], 0.75, 'ISO/IEC 7810 ID-3'],
    ['mini SIM card', [25, 15], 0.1, 'ETSI TS 102 221', 'memory', 0.76],
    ['nano SIM card', [12.3, 8.8], 0.1, 'ETSI TS 102 221', 'memory', 0.67],
    ['A2 sheet', [420, 594], 2, 'ISO 216', 'standard'],
    ['A3 sheet', [297, 420], 2, 'ISO 216', 'standard'],
    ['A4 sheet', [210, 297], 2, 'ISO 216', 'standard'],
    ['A5 sheet', [148, 210], 1.5, 'ISO 216', 'standard'],
    ['A6 card', [105, 148], 1.5, 'ISO 216', 'standard'],
    ['B5 sheet', [176, 250], 2, 'ISO 216', 'standard'],
    ['letter sheet', [215.9, 279.4], 1.6, 'ANSI/ASME Y14.1'],
    ['legal sheet', [215.9, 355.6], 1.6, 'ANSI/ASME Y14.1'],
    ['tabloid sheet', [279.4, 431.8], 1.6, 'ANSI/ASME Y14.1'],
    ['index card 3 × 5 in', [127, 76.2], 1, 'common practice', 'practice'],
    ['DL envelope', [220, 110], 1.5, 'ISO 269'],
    ['C5 envelope', [229, 162], 1.5, 'ISO 269'],
    ['C6 envelope', [162, 114], 1.5, 'ISO 269'],
    ['visiting card, Europe', [85, 55], 1, 'common practice', 'practice'],
    ['visiting card, America', [88.9, 50.8], 1, 'common practice', 'practice'],
    ['sticky note', [76, 76], 1, 'common practice', 'practice'],
  ]),
  ...round('coins', [
    ['1 cent, euro', 16.25, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 1.67],
    ['2 cent, euro', 18.75, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 1.67],
    ['5 cent, euro', 21.25, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 1.67],
    ['10 cent, euro', 19.75, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 1.93],
    ['20 cent, euro', 22.25, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 2.14],
    ['50 cent, euro', 24.25, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 2.38],
    ['1 euro', 23.25, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 2.33],
    ['2 euro', 25.75, 0.1, 'Council Regulation (EU) 729/2014', 'memory', 2.2],
    ['cent, United States', 19.05, 0.1, '31 U.S.C. § 5112', 'memory', 1.52],
    ['nickel, United States', 21.21, 0.1, '31 U.S.C. § 5112', 'memory', 1.95],
    ['dime, United States', 17.91, 0.1, '31 U.S.C. § 5112', 'memory', 1.35],
    ['quarter, United States', 24.26, 0.1, '31 U.S.C. § 5112', 'memory', 1.75],
    ['half dollar, United States', 30.61, 0.1, '31 U.S.C. § 5112', 'memory', 2.15],
    ['1 penny, United Kingdom', 20.3, 0.1, 'mint’s published figures', 'memory', 1.65],
    ['2 pence, United Kingdom', 25.9, 0.1, 'mint’s published figures', 'memory', 2.03],
    ['10 pence, United Kingdom', 24.5, 0.1, 'mint’s published figures', 'memory', 1.9],
    ['2 pounds, United Kingdom', 28.4, 0.1, 'mint’s published figures', 'memory', 2.5],
    ['1 franc, Switzerland', 23.2, 0.1, 'mint’s published figures', 'memory', 1.55],
    ['5 francs, Switzerland', 31.45, 0.1, 'mint’s published figures', 'memory', 2.35],
    ['100 yen, Japan', 22.6, 0.1, 'mint’s published figures', 'memory', 1.7],
    ['500 yen, Japan', 26.5, 0.1, 'mint’s published figures', 'memory', 1.8],
  ]),
  ...long('batteries', [
    ['AA cell, length', 50, 0.5, 'IEC 60086-2', 'memory', 7],
    ['AAA cell, length', 44, 0.5, 'IEC 60086-2', 'memory', 5],
    ['C cell, length', 49.3, 0.7, 'IEC 60086-2', 'memory', 13],
    ['D cell, length', 60.5, 1, 'IEC 60086-2', 'memory', 17],
    ['9 V block, height with terminals', 47.5, 1, 'IEC 60086-2', 'memory', 8],
  ]),
  ...round('batteries', [
    ['AA cell, end on', 14, 0.5, 'IEC 60086-2', 'memory', 50],
    ['CR2032 button cell', 19.85, 0.15, 'IEC 60086-3', 'memory', 3.1],
    ['LR44 button cell', 11.45, 0.15, 'IEC 60086-3', 'memory', 5.2],
  ]),
  ...flat('boards and bricks', [
    ['brick face, Germany NF', [240, 71], 4, 'DIN 20000-401'],
    ['brick face, Germany DF', [240, 52], 4, 'DIN 20000-401'],
    ['brick face, United Kingdom', [215, 65], 3, 'BS EN 771-1'],
    ['block face, United Kingdom', [440, 215], 3, 'BS EN 771-3'],
    ['modular brick face, United States', [193.7, 57.2], 3, 'ASTM C216'],
    ['block face, United States', [396.9, 193.7], 3.2, 'ASTM C90'],
    ['board 8 × 4 ft', [2440, 1220], 3, 'EN 324'],
    ['board 2500 × 1250', [2500, 1250], 3, 'EN 324'],
    ['plasterboard 2400 × 1200', [2400, 1200], 5, 'EN 520'],
  ]),
  ...flat('transport', [
    ['pallet 1200 × 800', [1200, 800], 3, 'EN 13698-1', 'standard', 144],
    ['pallet 1200 × 1000', [1200, 1000], 3, 'EN 13698-2', 'memory', 162],
    ['pallet 48 × 40 in', [1219.2, 1016], 6, 'common practice', 'practice', 140],
    ['container end', [2438, 2591], 5, 'ISO 668', 'standard'],
    ['container side, 20 ft', [6058, 2591], 6, 'ISO 668', 'standard'],
    ['container side, 40 ft', [12192, 2591], 10, 'ISO 668', 'standard'],
    ['number plate, Europe', [520, 110], 2, 'common practice', 'practice'],
    ['number plate, America', [304.8, 152.4], 2, 'SAE J686'],
  ]),
  ...long('transport', [
    ['bicycle rim 622, bead seat', 622, 1, 'ISO 5775'],
    ['standard gauge, rail to rail', 1435, 6, 'UIC 510'],
  ]),
  ...long('house', [
    ['rack unit', 44.45, 0.2, 'IEC 60297', 'standard'],
    ['rack panel, width', 482.6, 0.4, 'IEC 60297', 'standard'],
    ['worktop, depth', 600, 15, 'common practice', 'practice'],
    ['worktop, height', 900, 30, 'common practice', 'practice'],
    ['hob, width', 590, 15, 'common practice', 'practice'],
    ['room, height', 2400, 120, 'common practice', 'practice'],
    ['stair, rise', 175, 15, 'common practice', 'practice'],
    ['stair, going', 280, 20, 'common practice', 'practice'],
    ['seat, height', 450, 25, 'common practice', 'practice'],
    ['garden bench, depth of the seat', 450, 50, 'common practice', 'practice'],
    ['garden path, width', 1000, 200, 'common practice', 'practice'],
    ['garden gate, width', 1000, 150, 'common practice', 'practice'],
    ['fence, height', 1500, 300, 'common practice', 'practice'],
    ['nest box, entrance for small birds', 30, 4, 'common practice', 'practice'],
    ['table, height', 740, 20, 'common practice', 'practice'],
    ['door handle, height', 1050, 40, 'common practice', 'practice'],
    ['inner wall, thickness', 100, 15, 'common practice', 'practice'],
  ]),
  ...flat('house', [
    ['door leaf, Germany', [860, 1985], 3, 'DIN 18101'],
    ['door leaf, United Kingdom', [762, 1981], 3, 'BS 4787-1'],
    ['door leaf, United States', [914.4, 2032], 5, 'common practice', 'practice'],
    ['socket plate, United Kingdom', [86, 86], 1, 'BS 4662', 'memory', 9],
    ['double socket plate, United Kingdom', [146, 86], 1, 'BS 4662', 'memory', 9],
    ['socket frame, Germany', [81, 81], 1.5, 'common practice', 'practice', 10],
    ['wall plate, United States', [69.85, 114.3], 1, 'NEMA WD 6', 'memory', 5],
    ['single mattress, Europe', [900, 2000], 20, 'EN 1334'],
  ]),
  ...round('pipes', [
    ['15 mm copper pipe', 15, 0.05, 'EN 1057'],
    ['22 mm copper pipe', 22, 0.06, 'EN 1057'],
    ['28 mm copper pipe', 28, 0.06, 'EN 1057'],
    ['1/2 in steel pipe, outside', 21.34, 0.4, 'ASME B36.10M'],
    ['3/4 in steel pipe, outside', 26.67, 0.4, 'ASME B36.10M'],
    ['1 in steel pipe, outside', 33.4, 0.4, 'ASME B36.10M'],
    ['40 mm waste pipe', 40, 0.3, 'EN 1451-1'],
    ['50 mm waste pipe', 50, 0.3, 'EN 1451-1'],
    ['110 mm soil pipe', 110, 0.4, 'EN 1401-1'],
  ]),
  ...round('balls and discs', [
    ['disc, 12 cm', 120, 0.3, 'ISO/IEC 10149', 'memory', 1.2],
    ['disc, 8 cm', 80, 0.3, 'ISO/IEC 10149', 'memory', 1.2],
    ['table tennis ball', 40.3, 0.3, 'rules of the game', 'memory', 20],
    ['golf ball', 42.8, 0.15, 'rules of the game', 'memory', 21],
    ['tennis ball', 67, 1.6, 'rules of the game', 'memory', 33],
    ['pool ball', 57.15, 0.13, 'rules of the game', 'memory', 28],
    ['snooker ball', 52.5, 0.05, 'rules of the game', 'memory', 26],
    ['football', 220, 3.2, 'rules of the game', 'memory', 110],
  ]),
  ...round('small things', [
    ['crown cap', 32.1, 0.2, 'EN 17177', 'memory', 6],
    ['drinks can, body', 66.1, 0.3, 'common practice', 'practice', 115],
    ['jar lid, 63 mm', 66, 1, 'common practice', 'practice', 10],
  ]),
  ...long('small things', [
    ['M6 hexagon, across flats', 9.89, 0.11, 'ISO 4017', 'memory', 4],
    ['M8 hexagon, across flats', 12.87, 0.14, 'ISO 4017', 'memory', 5.3],
    ['M10 hexagon, across flats', 15.87, 0.14, 'ISO 4017', 'memory', 6.4],
    ['keyboard, ten keys', 190.5, 0.8, 'ISO 9241-410, 19.05 mm a key', 'memory', 10],
    ['USB plug, width', 12, 0.1, 'USB 2.0 specification', 'memory', 4.5],
  ]),
];

/** Entries whose name, family or source holds every word that was typed, in the shelf's order. */
export function findOnShelf(shelf: readonly ShelfEntry[], text: string): readonly ShelfEntry[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return shelf.filter(({ name, family, source }) =>
    words.every((word) => `${name} ${family} ${source}`.toLowerCase().includes(word)),
  );
}
