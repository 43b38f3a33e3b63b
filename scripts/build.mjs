// Builds the app into dist/ and compresses what is text. Does nothing when nothing changed since the last build.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import { generateSW } from 'workbox-build';
import { alone } from './alone.mjs';

const STAMP = 'dist/.stamp';
const INPUTS = [
  'app',
  'src',
  'public',
  'app.json',
  'babel.config.js',
  'metro.config.js',
  'package-lock.json',
  'tsconfig.json',
  'scripts/build.mjs',
  'scripts/minifier.cjs',
];

function listFiles(place) {
  if (!existsSync(place)) return [];
  if (statSync(place).isFile()) return [place];
  return readdirSync(place)
    .sort()
    .flatMap((name) => listFiles(path.join(place, name)));
}

function stampOf(files) {
  const hash = createHash('sha256');
  for (const file of files) if (!/\.test\.tsx?$/.test(file)) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

/** As small as it gets takes twenty times as long for a twelfth less. What the first screen needs is made nearly so. */
const qualityOf = (file) => (path.basename(file).startsWith('entry-') ? 10 : 9);

function compress(file) {
  const params = { [constants.BROTLI_PARAM_QUALITY]: qualityOf(file), [constants.BROTLI_PARAM_LGWIN]: 22 };
  writeFileSync(`${file}.br`, brotliCompressSync(readFileSync(file), { params }));
}

/**
 * The service worker: the whole app is on the device after the first visit, its demo pictures once they were asked for. A newer build takes over when no
 * page of the older one is open any more, so that a page never mixes two.
 */
async function writeServiceWorker() {
  const { warnings } = await generateSW({
    globDirectory: 'dist',
    globPatterns: ['**/*'],
    globIgnores: ['demo/*', '**/*.br', '**/*.map', '.stamp'],
    swDest: 'dist/service-worker.js',
    maximumFileSizeToCacheInBytes: 30e6,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/(service|vendor|demo|_expo)\//],
    inlineWorkboxRuntime: true,
    sourcemap: false,
    mode: 'production',
    dontCacheBustURLsMatching: /_expo\/static\//,
    clientsClaim: true,
    runtimeCaching: [{ urlPattern: /\/demo\//, handler: 'StaleWhileRevalidate', options: { cacheName: 'demo' } }],
  });
  warnings.forEach((warning) => console.warn(warning));
}

async function build() {
  const wanted = stampOf(INPUTS.flatMap(listFiles));
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return console.log('The app is built already.');
  console.log('Building the app (about a minute the first time) …');
  rmSync('dist', { recursive: true, force: true });
  const env = { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1', NODE_ENV: 'production' };
  execFileSync('npx', ['--no-install', 'expo', 'export', '-p', 'web'], { stdio: ['ignore', 'ignore', 'inherit'], env });
  await writeServiceWorker();
  for (const file of listFiles('dist')) {
    if (!/\.(m?js|css|html|json|svg|wasm)$/.test(file)) continue;
    compress(file);
  }
  writeFileSync(STAMP, wanted);
}

await alone('build', build);
