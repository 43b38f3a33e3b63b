// Builds the app into dist/ and compresses what is text. Does nothing when nothing changed since the last build.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';

const STAMP = 'dist/.stamp';
const INPUTS = ['app', 'src', 'public', 'app.json', 'babel.config.js', 'metro.config.js', 'package-lock.json', 'tsconfig.json', 'scripts/build.mjs'];

function listFiles(place) {
  if (!existsSync(place)) return [];
  if (statSync(place).isFile()) return [place];
  return readdirSync(place).sort().flatMap((name) => listFiles(path.join(place, name)));
}

function stampOf(files) {
  const hash = createHash('sha256');
  for (const file of files) if (!/\.test\.tsx?$/.test(file)) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

const wanted = stampOf(INPUTS.flatMap(listFiles));
if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) {
  console.log('The app is built already.');
} else {
  console.log('Building the app (about a minute the first time) …');
  rmSync('dist', { recursive: true, force: true });
  const env = { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1', NODE_ENV: 'production' };
  execFileSync('npx', ['--no-install', 'expo', 'export', '-p', 'web'], { stdio: ['ignore', 'ignore', 'inherit'], env });
  for (const file of listFiles('dist')) {
    if (!/\.(m?js|css|html|json|svg|wasm)$/.test(file)) continue;
    const options = { params: { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_LGWIN]: 22 } };
    writeFileSync(`${file}.br`, brotliCompressSync(readFileSync(file), options));
  }
  writeFileSync(STAMP, wanted);
}
