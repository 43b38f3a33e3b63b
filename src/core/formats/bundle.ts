import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { done, refused, type Result } from '../basics';
import { listFiles, readJob, type Job } from '../job';
import { sha256Hex } from './sha256';

/** A job with the files it stands on (pictures, reference geometry), by their SHA-256. */
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

interface Manifest {
  readonly format: string;
  readonly version: number;
  readonly files: Readonly<Record<string, string>>;
}

/** Packs a job. Pictures are stored, not compressed again: they are compressed already. Misses nothing: see `findMissing`. */
export function writeBundle({ job, pictures }: Bundle): Uint8Array {
  const jobFile = strToU8(JSON.stringify(job, null, 1));
  const files: Record<string, string> = { 'job.json': sha256Hex(jobFile) };
  const zip: Zippable = { 'job.json': jobFile, 'README.txt': strToU8(README) };
  for (const [hash, bytes] of pictures) {
    files[`pictures/${hash}`] = hash;
    zip[`pictures/${hash}`] = [bytes, { level: 0 }];
  }
  const manifest: Manifest = { format: BUNDLE_FORMAT, version: BUNDLE_VERSION, files };
  zip['manifest.json'] = strToU8(JSON.stringify(manifest, null, 1));
  return zipSync(zip);
}

/**
 * Unpacks a bundle and checks every byte of it against the manifest. All or nothing: refused when it is no zip, not ours,
 * newer, too large, damaged, or lacks a picture that its job names.
 */
export function readBundle(zip: Uint8Array): Result<Bundle> {
  let total = 0;
  let count = 0;
  let files: Record<string, Uint8Array>;
  try {
    unzipSync(zip, { filter: ({ originalSize }) => ((total += originalSize), count++, false) });
    if (total > MAX_BUNDLE_BYTES || count > MAX_FILES) return refused('bundle-too-large', { megabytes: Math.round(total / 1048576), most: MAX_BUNDLE_BYTES / 1048576 });
    files = unzipSync(zip);
  } catch {
    return refused(zip[0] === 0x50 && zip[1] === 0x4b ? 'bundle-damaged' : 'bundle-not-ours', { where: '' });
  }
  const manifest = readManifest(files['manifest.json']);
  if (!manifest.ok) return manifest;
  for (const [name, hash] of Object.entries(manifest.value.files)) {
    const bytes = files[name];
    if (!bytes || sha256Hex(bytes) !== hash) return refused('bundle-damaged', { where: name });
  }
  return readContents(files);
}

function readManifest(bytes: Uint8Array | undefined): Result<Manifest> {
  const json = bytes && parseJson(bytes);
  const manifest = json as Partial<Manifest> | undefined;
  if (manifest?.format !== BUNDLE_FORMAT || typeof manifest.version !== 'number') return refused('bundle-not-ours');
  if (manifest.version > BUNDLE_VERSION) return refused('bundle-newer', { version: manifest.version, known: BUNDLE_VERSION });
  if (typeof manifest.files !== 'object' || !manifest.files['job.json']) return refused('bundle-damaged', { where: 'manifest.json' });
  return done(manifest as Manifest);
}

function readContents(files: Record<string, Uint8Array>): Result<Bundle> {
  const job = readJob(parseJson(files['job.json']!));
  if (!job.ok) return job;
  const pictures = new Map<string, Uint8Array>();
  for (const hash of listFiles(job.value)) {
    const bytes = files[`pictures/${hash}`];
    if (!bytes || sha256Hex(bytes) !== hash) return refused('bundle-damaged', { where: `pictures/${hash}` });
    pictures.set(hash, bytes);
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
