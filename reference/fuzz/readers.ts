/** Everything that reads what comes in, each with what has to hold of what it gives: it does not throw, and every number is one. */
import { solveProblem } from '../../cli/solve';
import { isOnMap, isWithinReach, type Result } from '../../src/core/basics';
import { createDeriver, drawingOf } from '../../src/core/derive';
import {
  isSound,
  readBundle,
  readDxf,
  readGeoJson,
  readReference,
  readSvg,
  readWorldFile,
  summarize,
  writeDxf,
  writeSvg,
  type FileReading,
} from '../../src/core/formats';
import { decodeTiffPage, inspectPicture, readPictureTags, readTiffPages } from '../../src/core/pictures';
import { readJob, type Job } from '../../src/core/job';
import { parseAngle, parseLength, parseSize } from '../../src/core/units';
import type { Stuff } from './mutate';

export const KINDS = [
  'dxf',
  'svg',
  'geojson',
  'tiff',
  'picture',
  'job',
  'bundle',
  'solve',
  'length',
  'angle',
  'world',
] as const;
export type Kind = (typeof KINDS)[number];

export const stuffOf = (kind: Kind): Stuff =>
  kind === 'tiff' || kind === 'picture' || kind === 'bundle'
    ? 'bytes'
    : kind === 'job' || kind === 'geojson' || kind === 'solve'
      ? 'json'
      : 'text';

class NoNumber extends Error {}

function demand(holds: boolean, what: string): void {
  if (!holds) throw new NoNumber(what);
}

const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(textOf(bytes));
  } catch {
    return undefined;
  }
}

function read(bytes: Uint8Array, format: 'dxf' | 'svg' | 'geojson', reading: Result<FileReading>): boolean {
  if (reading.ok) {
    demand(
      reading.value.paths.every(({ pieces }) => pieces.every((piece) => isSound(piece, isOnMap))),
      'a piece that is none',
    );
    const { width, height, openEnds } = summarize(reading.value);
    demand([width, height, openEnds, reading.value.ignored].every(Number.isFinite), 'a figure of the file');
    demand(Object.values(reading.value.ignoredKinds ?? {}).every(Number.isInteger), 'a count');
  }
  const geometry = readReference({ bytes: bytes.slice().buffer, format, placing: 'free' });
  if (geometry.ok) demand(geometry.value.pieces.every(isWithinReach), 'a packed number');
  return reading.ok;
}

/** All that the screen shows of a job, and its files. */
function judge(job: Job): void {
  const derived = createDeriver()(job);
  for (const shape of derived.shapes.values())
    demand(
      shape.pieces.every((piece) =>
        Object.values(piece)
          .flat()
          .every((value) => typeof value === 'string' || !Number.isNaN(value)),
      ),
      'a shape',
    );
  for (const { id } of job.views) {
    const drawing = drawingOf(job, derived, { plane: id });
    if (!drawing.ok) continue;
    for (const text of [writeDxf(drawing.value, 'mm'), writeSvg(drawing.value, 'mm')])
      demand(!/\b(NaN|Infinity)\b/.test(text), 'a written number');
  }
}

/** Each says whether it was read; refusing is as good. */
export const READERS: Readonly<Record<Kind, (bytes: Uint8Array) => boolean>> = {
  dxf: (bytes) => read(bytes, 'dxf', readDxf(textOf(bytes))),
  svg: (bytes) => read(bytes, 'svg', readSvg(textOf(bytes))),
  geojson: (bytes) => read(bytes, 'geojson', readGeoJson(textOf(bytes))),
  tiff(bytes) {
    const pages = readTiffPages(bytes);
    const picture = pages.ok ? decodeTiffPage(bytes, 0) : undefined;
    if (picture?.ok) demand(picture.value.rows(0, 1).length === 4 * picture.value.width, 'a row');
    return picture?.ok ?? false;
  },
  picture(bytes) {
    const file = inspectPicture(bytes);
    const tags = readPictureTags(bytes);
    if (file.ok)
      demand(
        [file.value.width, file.value.height].every((size) => size === undefined || Number.isFinite(size)),
        'a size',
      );
    demand(
      [tags.dpi, tags.focalMm, tags.focal35mm, tags.orientation].every(
        (value) => value === undefined || Number.isFinite(value),
      ),
      'a tag',
    );
    return file.ok;
  },
  job(bytes) {
    const job = readJob(parsed(bytes));
    if (job.ok) judge(job.value);
    return job.ok;
  },
  bundle(bytes) {
    const bundle = readBundle(bytes);
    if (bundle.ok) judge(bundle.value.job);
    return bundle.ok;
  },
  solve(bytes) {
    const answer = solveProblem(parsed(bytes));
    demand(typeof answer.status === 'string', 'an answer');
    demand(
      !/:(NaN|-?Infinity)\b/.test(
        JSON.stringify(answer, (_, value: unknown) =>
          typeof value === 'number' && !Number.isFinite(value) ? `:${value}` : value,
        ),
      ),
      'a figure',
    );
    return answer.status === 'ok';
  },
  length(bytes) {
    const lengths = [parseLength, parseSize].map((parse) => parse(textOf(bytes), 'mm'));
    demand(
      lengths.every((length) => !length.ok || isWithinReach(length.value.mm)),
      'a length',
    );
    return lengths[0]!.ok;
  },
  angle(bytes) {
    const angle = parseAngle(textOf(bytes));
    demand(!angle.ok || isWithinReach(angle.value), 'an angle');
    return angle.ok;
  },
  world(bytes) {
    const map = readWorldFile(textOf(bytes));
    demand(!map.ok || map.value.every(isWithinReach), 'a place on the map');
    return map.ok;
  },
};
