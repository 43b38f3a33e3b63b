import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { done, refused, type Result } from '../basics';
import { z } from '../schema';
import { listFiles, readJob, type Job } from '../job';
import { sha256Hex } from '../pictures';

/** A job with the files it stands on (pictures, reference geometry), by their SHA-256. One that is not among them was lost before it was packed. */
export interface Bundle {
  readonly job: Job;
  readonly pictures: ReadonlyMap<string, Uint8Array>;
}

export const BUNDLE_FORMAT = 'bryony-bundle';
export const BUNDLE_VERSION = 1;
/** What a bundle may unpack to. Checked before anything is unpacked. */
export const MAX_BUNDLE_BYTES = 600 * 1024 * 1024;
const MAX_FILES = 2000;

const README = `This is a job of Bryony, which turns pictures of a thing into outlines of true size.

job.json            the job: what is known about the pictures and what was traced over them (UTF-8 JSON)
pictures/SHA256     the files as they came in, unchanged, named by the SHA-256 of their bytes
manifest.json       the format and its version, and the SHA-256 of every other file

Sheet places in job.json are pixels of the upright picture, x right, y down, the origin at the outer corner of the first
pixel. Sizes are millimetres. Plus-minus is two sigma.
`;

const MANIFEST = 'manifest.json';
const JOB = 'job.json';
const PICTURES = 'pictures/';

const Hash = z.string().regex(/^[0-9a-f]{64}$/);
const ManifestSchema = z.object({
  format: z.literal(BUNDLE_FORMAT),
  version: z.int().min(1),
  files: z.record(z.string(), Hash),
  /** Files that the job names and that were gone when it was packed. */
  missing: z.array(Hash).optional(),
});
type Manifest = Readonly<z.infer<typeof ManifestSchema>>;

/** Packs a job. Pictures are stored, not compressed again: they are compressed already. What the job names and is not given is named as missing. */
export function writeBundle({ job, pictures }: Bundle): Uint8Array {
  const jobFile = strToU8(JSON.stringify(job, null, 1));
  const files: Record<string, string> = { [JOB]: sha256Hex(jobFile) };
  const zip: Zippable = { [JOB]: jobFile, 'README.txt': strToU8(README) };
  for (const [hash, bytes] of pictures) {
    files[`${PICTURES}${hash}`] = hash;
    zip[`${PICTURES}${hash}`] = [bytes, { level: 0 }];
  }
  const missing = listFiles(job).filter((hash) => !pictures.has(hash));
  const manifest: Manifest = {
    format: BUNDLE_FORMAT,
    version: BUNDLE_VERSION,
    files,
    ...(missing.length > 0 && { missing }),
  };
  zip[MANIFEST] = strToU8(JSON.stringify(manifest, null, 1));
  return zipSync(zip);
}

/**
 * Unpacks a bundle and checks every byte of it against the manifest. Names and sizes are read first: only what the manifest lists is unpacked, whatever else lies beside it. All or nothing: refused when it is no zip, not ours, newer, too
 * large, damaged, or lacks a file that its job names and that is not named as missing.
 */
export function readBundle(zip: Uint8Array): Result<Bundle> {
  try {
    const manifest = readManifest(unpack(zip, new Set([MANIFEST])).get(MANIFEST));
    if (!manifest.ok) return manifest;
    const listed = new Set(Object.keys(manifest.value.files));
    const size = sizeOf(zip, listed);
    if (size.bytes > MAX_BUNDLE_BYTES || size.count > MAX_FILES)
      return refused('bundle-too-large', {
        megabytes: Math.round(size.bytes / 1048576),
        most: MAX_BUNDLE_BYTES / 1048576,
      });
    return readContents(unpack(zip, listed), manifest.value);
  } catch {
    return refused(zip[0] === 0x50 && zip[1] === 0x4b ? 'bundle-damaged' : 'bundle-not-ours', { where: '' });
  }
}

/** What a manifest says at the most, bytes. */
const MAX_MANIFEST = 1024 * 1024;

/** The files of these names; a manifest that is larger than one can be is not unpacked. */
function unpack(zip: Uint8Array, names: ReadonlySet<string>): ReadonlyMap<string, Uint8Array> {
  return new Map(
    Object.entries(
      unzipSync(zip, {
        filter: ({ name, originalSize }) => names.has(name) && (name !== MANIFEST || originalSize <= MAX_MANIFEST),
      }),
    ),
  );
}

/** How much and how many it is that would be unpacked. */
function sizeOf(zip: Uint8Array, names: ReadonlySet<string>): { bytes: number; count: number } {
  const size = { bytes: 0, count: 0 };
  unzipSync(zip, {
    filter: ({ name, originalSize }) => {
      if (names.has(name)) {
        size.bytes += originalSize;
        size.count++;
      }
      return false;
    },
  });
  return size;
}

function readManifest(bytes: Uint8Array | undefined): Result<Manifest> {
  const json = bytes && parseJson(bytes);
  const { format, version } = (json ?? {}) as { format?: unknown; version?: unknown };
  if (format !== BUNDLE_FORMAT) return refused('bundle-not-ours');
  if (typeof version === 'number' && version > BUNDLE_VERSION)
    return refused('bundle-newer', { version, known: BUNDLE_VERSION });
  const manifest = ManifestSchema.safeParse(json);
  const isWhole =
    manifest.success &&
    Object.keys(manifest.data.files).every(
      (name) =>
        name === JOB || (name.startsWith(PICTURES) && name.slice(PICTURES.length) === manifest.data.files[name]),
    );
  return isWhole && manifest.data.files[JOB] ? done(manifest.data) : refused('bundle-damaged', { where: MANIFEST });
}

function readContents(
  files: ReadonlyMap<string, Uint8Array>,
  { files: hashes, missing = [] }: Manifest,
): Result<Bundle> {
  for (const [name, hash] of Object.entries(hashes)) {
    const bytes = files.get(name);
    if (!bytes || sha256Hex(bytes) !== hash) return refused('bundle-damaged', { where: name });
  }
  const job = readJob(parseJson(files.get(JOB)!));
  if (!job.ok) return job;
  const pictures = new Map<string, Uint8Array>();
  for (const hash of listFiles(job.value)) {
    const bytes = files.get(`${PICTURES}${hash}`);
    if (bytes) pictures.set(hash, bytes);
    else if (!missing.includes(hash)) return refused('bundle-damaged', { where: `${PICTURES}${hash}` });
  }
  return done({ job: job.value, pictures });
}

function parseJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    return undefined;
  }
}
