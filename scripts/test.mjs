// Everything that has to hold, in the order in which it fails fastest. Ends with the line "N passed, N failed".
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

const RESULTS = 'test-results';
const totals = { passed: 0, failed: 0 };

function run(title, command, args, environment = {}) {
  console.log(`\n== ${title}`);
  const started = Date.now();
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...environment } });
  console.log(`== ${title}: ${status === 0 ? 'fine' : 'FAILED'} after ${Math.round((Date.now() - started) / 1000)} s`);
  return status === 0;
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
count(run('Types of the app', 'npx', ['--no-install', 'tsc', '--noEmit']));
count(run('Types of the core (no DOM, no Node)', 'npx', ['--no-install', 'tsc', '--noEmit', '-p', 'src/core/tsconfig.json']));
count(run('Lint and the arrows between rooms', 'npx', ['--no-install', 'eslint', '.', '--max-warnings', '0']));

const units = run('Unit tests and reference checks', 'npx', ['--no-install', 'jest', '--ci', '--json', `--outputFile=${RESULTS}/unit.json`]);
countReport(`${RESULTS}/unit.json`, units, (report) => ({ passed: report.numPassedTests, failed: report.numFailedTests + report.numRuntimeErrorTestSuites }));

if (count(run('Build', process.execPath, ['scripts/build.mjs']))) {
  const browser = run('Browser tests', 'npx', ['--no-install', 'playwright', 'test'], { PLAYWRIGHT_JSON_OUTPUT_NAME: `${RESULTS}/browser.json` });
  countReport(`${RESULTS}/browser.json`, browser, ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected + stats.skipped }));
}

console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);
