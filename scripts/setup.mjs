// Makes the checkout ready: node setup.mjs app|all [--quiet]. Uses only what Node brings. Does nothing when all is there.
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { createHash } from 'node:crypto';
import { copyFileSync, cpSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { alone } from './alone.mjs';

const quiet = process.argv.includes('--quiet');
const say = (text) => quiet || console.log(text);

async function run(command, args, environment = {}) {
  const stdio = quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit';
  const [status] = await once(spawn(command, args, { stdio, env: { ...process.env, ...environment } }), 'close');
  if (status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${status}`);
}

/** Node packages, when they are missing or older than the lock file. */
async function installPackages() {
  const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const stamp = 'node_modules/.bryony-lock';
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing the packages that the lock file names (about two minutes the first time) …');
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted);
}

const FONTS = [
  ['atkinson-hyperlegible-next', 'Atkinson Hyperlegible Next', [400, 700]],
  ['atkinson-hyperlegible-mono', 'Atkinson Hyperlegible Mono', [400]],
  ['bricolage-grotesque', 'Bricolage Grotesque', [600]],
];
const RANGES = {
  latin:
    'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+0304,U+0308,U+0329,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
  'latin-ext': 'U+0100-02BA,U+1E00-1E9F,U+1EF2-1EFF,U+20A0-20AB,U+20AD-20C0,U+2C60-2C7F,U+A720-A7FF',
};

/** The fonts are part of the app: they are served from the same address as the page. */
function copyFonts() {
  if (existsSync('public/fonts/fonts.css')) return;
  say('Copying the fonts …');
  mkdirSync('public/fonts', { recursive: true });
  const faces = [];
  for (const [name, family, weights] of FONTS) {
    for (const weight of weights) {
      for (const [subset, range] of Object.entries(RANGES)) {
        const file = `${name}-${subset}-${weight}-normal.woff2`;
        copyFileSync(`node_modules/@fontsource/${name}/files/${file}`, `public/fonts/${file}`);
        faces.push(
          `@font-face{font-family:'${family}';font-weight:${weight};font-display:swap;src:url(/fonts/${file}) format('woff2');unicode-range:${range}}`,
        );
      }
    }
  }
  writeFileSync('public/fonts/fonts.css', `${faces.join('\n')}\n`);
}

/** Libraries that are loaded as files of their own, when a picture first needs them. */
const VENDOR = [['libheif-js/libheif-wasm', ['libheif.js', 'libheif.wasm', 'LICENSE']]];
const PDF_PARTS = ['build/pdf.min.mjs', 'build/pdf.worker.min.mjs', 'cmaps', 'standard_fonts', 'wasm', 'LICENSE'];

function copyVendor() {
  for (const [from, files] of VENDOR) {
    for (const file of files) {
      const to = file === 'LICENSE' ? `public/vendor/${from.split('/')[0]}-LICENSE.txt` : `public/vendor/${file}`;
      if (existsSync(to)) continue;
      mkdirSync('public/vendor', { recursive: true });
      copyFileSync(`node_modules/${from}/${file}`, to);
    }
  }
}

/** The PDF library with its fonts and decoders. */
function copyPdf() {
  if (existsSync('public/vendor/pdf/LICENSE')) return;
  mkdirSync('public/vendor/pdf', { recursive: true });
  for (const part of PDF_PARTS)
    cpSync(`node_modules/pdfjs-dist/${part}`, `public/vendor/pdf/${part.replace('build/', '')}`, { recursive: true });
}

/** What the tests need from Debian: a browser, and the programs that judge the files we write. */
const DEBIAN = [
  ['chromium', () => existsSync('/usr/bin/chromium')],
  ['python3-ezdxf', () => spawnSync('/usr/bin/python3', ['-c', 'import ezdxf']).status === 0],
  ['python3-pil', () => spawnSync('/usr/bin/python3', ['-c', 'import PIL']).status === 0],
  ['libheif-examples', () => existsSync('/usr/bin/heif-enc')],
  ['opencv-doc', () => existsSync('/usr/share/doc/opencv-doc/examples/data/left01.jpg')],
];

async function installDebianPackages() {
  const missing = DEBIAN.filter(([, isThere]) => !isThere()).map(([name]) => name);
  if (missing.length === 0) return;
  const install = ['install', '-y', '-qq', '--no-install-recommends', ...missing];
  if (process.getuid?.() !== 0) {
    console.error(`The tests need Debian's ${missing.join(' and ')}. Run: sudo apt-get ${install.join(' ')}`);
    process.exit(1);
  }
  say(`Installing Debian's ${missing.join(' and ')} …`);
  await run('apt-get', ['update', '-qq']);
  await run('apt-get', install, { DEBIAN_FRONTEND: 'noninteractive' });
}

// Each waits for the network most of the time, and neither for the other.
await alone('set-up', () =>
  Promise.all([
    process.argv[2] === 'all' ? installDebianPackages() : undefined,
    installPackages().then(() => [copyFonts, copyVendor, copyPdf].forEach((copy) => copy())),
  ]),
);
