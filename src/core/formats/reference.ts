import Flatbush from 'flatbush';
import { done, isWithinReach, refused, type Result } from '../basics';
import { moved, pieceBounds, placed, type Bounds, type Piece, type Vec } from '../geometry';
import type { ReferenceFormat, Site } from '../job';
import { readDxf } from './dxf-reader';
import type { FileReading } from './file-reading';
import { readGeoJson, type GeoReading } from './geojson-reader';
import { MAX_REFERENCE_BYTES } from './limits';
import { nearbyZero } from './projection';
import { readSvg } from './svg-reader';

/**
 * The line work of a reference file on its plane, mm, packed so that it goes from a worker to the page without being copied: every piece is
 * nine numbers, its kind and up to eight figures, and an index finds those in a box.
 */
export interface ReferenceGeometry {
  readonly layers: readonly ReferenceLayer[];
  /** Millimetres in a unit of the file as the file says; undefined when it does not say. */
  readonly saidUnitMm: number | undefined;
  readonly pieces: Float64Array;
  readonly layerOf: Uint16Array;
  readonly index: ArrayBuffer;
  readonly bounds: Bounds;
  readonly ignoredKinds: Readonly<Record<string, number>>;
  /** Taken off what the file says, and the place about which degrees were laid flat. */
  readonly site: Site;
}

export interface ReferenceLayer {
  readonly name: string;
  readonly count: number;
  /** The file itself does not show it. */
  readonly hidden: boolean;
}

export interface ReferenceRequest {
  readonly bytes: ArrayBuffer;
  readonly format: ReferenceFormat;
  readonly unitMm?: number | undefined;
  readonly site?: Site | undefined;
  /** Whether the zero may be moved to it: the first of a site decides. */
  readonly placing: 'free' | 'as-drawn';
}

const STRIDE = 9;
const KINDS = ['line', 'arc', 'cubic', 'ellipse'] as const;
const MOST_LAYERS = 2000;

/** Reads reference geometry. Refused when it is not understood, empty or too large. */
export function readReference({ bytes, format, unitMm, site, placing }: ReferenceRequest): Result<ReferenceGeometry> {
  if (bytes.byteLength > MAX_REFERENCE_BYTES) return refused('reference-too-large', { most: MAX_REFERENCE_BYTES });
  const text = textOf(new Uint8Array(bytes));
  const read = format === 'dxf' ? readDxf(text) : format === 'svg' ? readSvg(text) : readGeoJson(text, site?.about);
  if (!read.ok) return read;
  const reading: GeoReading = read.value;
  if (!reading.paths.some(({ pieces }) => pieces.length > 0)) return refused('reference-empty');
  const factor = unitMm === undefined ? 1 : unitMm / (reading.unitMm ?? 1);
  if (!(factor > 0) || !Number.isFinite(factor)) return refused('reference-unit');
  const about = reading.site ?? site?.about;
  const zero = site?.zero ?? (placing === 'free' ? zeroFor(reading, factor) : [0, 0]);
  const geometry = packed(reading, factor, { zero, ...(about ? { about } : {}) });
  return geometry.pieces.every(isWithinReach) ? done(geometry) : refused('reference-beyond');
}

/** Text of a file as it says, or as older programs wrote it. */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

function zeroFor(reading: FileReading, factor: number): Vec {
  const first = reading.paths.find(({ pieces }) => pieces.length > 0)!.pieces[0]!;
  const { min } = pieceBounds(first);
  return nearbyZero([min[0] * factor, min[1] * factor]);
}

function packed(reading: FileReading, factor: number, site: Site): ReferenceGeometry {
  const count = reading.paths.reduce((sum, { pieces }) => sum + pieces.length, 0);
  const [pieces, layerOf] = [new Float64Array(STRIDE * count), new Uint16Array(count)];
  const index = new Flatbush(count);
  const [names, counts] = [new Map<string, number>(), [] as number[]];
  let at = 0;
  for (const path of reading.paths) {
    if (!names.has(path.layer) && names.size < MOST_LAYERS) names.set(path.layer, names.size);
    const layer = names.get(path.layer) ?? 0;
    for (const piece of path.pieces) {
      counts[layer] = (counts[layer] ?? 0) + 1;
      layerOf[at] = layer;
      write(pieces, STRIDE * at, piece, factor, site.zero);
      const { min, max } = pieceBounds(pieceAt({ pieces }, at));
      index.add(min[0], min[1], max[0], max[1]);
      at++;
    }
  }
  index.finish();
  const layers = [...names.keys()].map((name, i): ReferenceLayer => ({
    name,
    count: counts[i] ?? 0,
    hidden: reading.hidden?.includes(name) ?? false,
  }));
  const bounds: Bounds = { min: [index.minX, index.minY], max: [index.maxX, index.maxY] };
  return {
    layers,
    saidUnitMm: reading.unitMm,
    pieces,
    layerOf,
    index: index.data as ArrayBuffer,
    bounds,
    ignoredKinds: reading.ignoredKinds ?? {},
    site,
  };
}

function write(into: Float64Array, at: number, piece: Piece, factor: number, [x0, y0]: Vec): void {
  into[at] = KINDS.indexOf(piece.kind);
  into.set(numbersOf(moved(piece, placed([-x0, -y0], 0, factor))), at + 1);
}

function numbersOf(piece: Piece): readonly number[] {
  switch (piece.kind) {
    case 'line':
      return [...piece.a, ...piece.b];
    case 'arc':
      return [...piece.centre, piece.radius, piece.start, piece.sweep];
    case 'cubic':
      return [...piece.a, ...piece.b, ...piece.c, ...piece.d];
    case 'ellipse':
      return [...piece.centre, ...piece.major, piece.ratio, piece.start, piece.sweep];
  }
}

/** One of the pieces. */
export function pieceAt({ pieces }: Pick<ReferenceGeometry, 'pieces'>, i: number): Piece {
  const at = STRIDE * i;
  const [k, p, q, r, s, t, u, v, w] = pieces.subarray(at, at + STRIDE) as unknown as readonly [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  if (k === 0) return { kind: 'line', a: [p, q], b: [r, s] };
  if (k === 1) return { kind: 'arc', centre: [p, q], radius: r, start: s, sweep: t };
  return k === 2
    ? { kind: 'cubic', a: [p, q], b: [r, s], c: [t, u], d: [v, w] }
    : { kind: 'ellipse', centre: [p, q], major: [r, s], ratio: t, start: u, sweep: v };
}

/** Finds the pieces of shown layers whose boxes touch a box. */
export function createReferenceSearch(
  geometry: ReferenceGeometry,
  hiddenLayers: readonly string[],
): (min: Vec, max: Vec) => number[] {
  const index = Flatbush.from(geometry.index);
  const hidden = new Set(geometry.layers.flatMap(({ name }, i) => (hiddenLayers.includes(name) ? [i] : [])));
  const isShown = hidden.size === 0 ? undefined : (i: number) => !hidden.has(geometry.layerOf[i]!);
  return (min, max) => index.search(min[0], min[1], max[0], max[1], isShown);
}
