import { distance, endOf, findUnion, pieceBounds, startOf, type Piece, type Vec } from '../geometry';
import type { FileUnit } from './drawing';

/** What a reader found in a file. mm. */
export interface FileReading {
  readonly unit: FileUnit | undefined;
  /** Millimetres in one unit of the file as it says so; undefined when it does not say. */
  readonly unitMm: number | undefined;
  readonly paths: readonly FilePath[];
  /** How many things were passed over, and how many of each kind. */
  readonly ignored: number;
  readonly ignoredKinds?: Readonly<Record<string, number>>;
  /** Layers that the file itself does not show. */
  readonly hidden?: readonly string[];
}

/** Counts by kind, with no kind in it that a file did not name: "constructor" is a name like any other. */
export const noCounts = (): Record<string, number> => Object.create(null) as Record<string, number>;

export interface FilePath {
  readonly layer: string;
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
}

/** The few figures that prove a file: they stand beside what the job says before the file leaves. */
export interface FileSummary {
  readonly unit: FileUnit | undefined;
  /** Where the lower left corner of all that is drawn lies, from zero: across to the right, up. mm */
  readonly corner: Vec;
  readonly width: number;
  readonly height: number;
  readonly closed: number;
  readonly openEnds: number;
  readonly layers: readonly string[];
}

/** Ends nearer than this are one place. mm: finer than any machine, coarser than six written decimals. */
const SAME_PLACE = 1e-4;

/** Counts closed outlines and open ends: open paths that meet end to end, two at each place, close an outline together. */
export function summarize(reading: Pick<FileReading, 'unit' | 'paths'>): FileSummary {
  const box = findUnion(reading.paths.flatMap((path) => path.pieces.map(pieceBounds)));
  const open = reading.paths.filter((path) => !path.closed && path.pieces.length > 0);
  const { loops, loose } = linkEnds(open);
  return {
    unit: reading.unit,
    corner: box?.min ?? [0, 0],
    width: box ? box.max[0] - box.min[0] : 0,
    height: box ? box.max[1] - box.min[1] : 0,
    closed: reading.paths.filter((path) => path.closed && path.pieces.length > 0).length + loops,
    openEnds: loose,
    layers: [...new Set(reading.paths.map((path) => path.layer))].sort(),
  };
}

function linkEnds(paths: readonly FilePath[]): { loops: number; loose: number } {
  const { places, placeOf } = gatherPlaces();
  const parent = paths.map((_, i) => i);
  const rootOf = (i: number): number => {
    let root = i;
    while (parent[root] !== root) root = parent[root] = parent[parent[root]!]!;
    return root;
  };
  paths.forEach((path, i) => {
    for (const at of [startOf(path.pieces[0]!), endOf(path.pieces.at(-1)!)]) {
      const place = placeOf(at);
      for (const other of place.paths) parent[rootOf(i)] = rootOf(other);
      place.paths.push(i);
    }
  });
  const looseRoots = new Set(
    places.filter((place) => place.paths.length % 2 === 1).flatMap((place) => place.paths.map(rootOf)),
  );
  const roots = new Set(paths.map((_, i) => rootOf(i)));
  return {
    loops: [...roots].filter((root) => !looseRoots.has(root)).length,
    loose: places.filter((place) => place.paths.length % 2 === 1).length,
  };
}

interface EndPlace {
  readonly at: Vec;
  readonly paths: number[];
}

/** Places at which paths end, those that are one by their cells on a grid. */
function gatherPlaces() {
  const places: EndPlace[] = [];
  const cells = new Map<string, EndPlace[]>();
  const placeOf = (at: Vec): EndPlace => {
    const [i, j] = [Math.floor(at[0] / SAME_PLACE), Math.floor(at[1] / SAME_PLACE)];
    for (let x = i - 1; x <= i + 1; x++) {
      for (let y = j - 1; y <= j + 1; y++) {
        const known = cells.get(`${x} ${y}`)?.find((place) => distance(place.at, at) <= SAME_PLACE);
        if (known) return known;
      }
    }
    const place: EndPlace = { at, paths: [] };
    places.push(place);
    const cell = cells.get(`${i} ${j}`);
    if (cell) cell.push(place);
    else cells.set(`${i} ${j}`, [place]);
    return place;
  };
  return { places, placeOf };
}
