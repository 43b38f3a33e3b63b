// Everything that has to hold, in the order in which it fails fastest. Ends with the line "N passed, N failed".
import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

const RESULTS = 'test-results';
const totals = { passed: 0, failed: 0 };

/** Runs a step. Several may run at once, so what each says is printed when it is through; one that runs alone says it as it goes. */
function run(title, command, args, { environment = {}, alone = false } = {}) {
  const started = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ...environment } });
    const said = [];
    const hear = (part) => (alone ? process.stdout.write(part) : said.push(part));
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('close', (status) => {
      console.log(`\n== ${title}\n${Buffer.concat(said).toString().trimEnd()}`);
      console.log(`== ${title}: ${status === 0 ? 'fine' : 'FAILED'} after ${Math.round((Date.now() - started) / 1000)} s`);
      resolve(status === 0);
    });
  });
}

async function inTurn(...steps) {
  const results = [];
  for (const step of steps) results.push(await step());
  return results;
}

function count(ok) {
  totals[ok ? 'passed' : 'failed']++;
  return ok;
}

/** Adds what a runner counted; a runner that left no report, or failed without a failed test, counts as one failure. */
function countReport(file, ok, read) {
  if (!existsSync(file)) return count(false);
  const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')));
  totals.passed += passed;
  totals.failed += failed;
  if (!ok && failed === 0) count(false);
}

rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });
const tool = (...args) => ['npx', ['--no-install', ...args]];
// Lint takes as long as all the others together, and one core.
const [lint, [types, coreTypes, built]] = await Promise.all([
  run('Lint and the arrows between rooms', ...tool('eslint', '.', '--max-warnings', '0')),
  inTurn(
    () => run('Types of the app', ...tool('tsc', '--noEmit')),
    () => run('Types of the core (no DOM, no Node)', ...tool('tsc', '--noEmit', '-p', 'src/core/tsconfig.json')),
    () => run('Build', process.execPath, ['scripts/build.mjs']),
  ),
]);
[lint, types, coreTypes].forEach(count);

const units = await run('Unit tests and reference checks', ...tool('jest', '--ci', '--maxWorkers=2', '--json', `--outputFile=${RESULTS}/unit.json`));
countReport(`${RESULTS}/unit.json`, units, (report) => ({ passed: report.numPassedTests, failed: report.numFailedTests + report.numRuntimeErrorTestSuites }));

if (count(built)) {
  const browser = await run('Browser tests', ...tool('playwright', 'test'), { environment: { PLAYWRIGHT_JSON_OUTPUT_NAME: `${RESULTS}/browser.json` }, alone: true });
  countReport(`${RESULTS}/browser.json`, browser, ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected + stats.skipped }));
}

console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);
