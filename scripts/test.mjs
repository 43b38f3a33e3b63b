// Everything that has to hold, in the order in which it fails fastest. Ends with the line "N passed, N failed".
import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

const RESULTS = 'test-results';
const totals = { passed: 0, failed: 0 };
/** What failed, said once more at the end, where it is looked for. */
const failures = [];

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
      console.log(
        `== ${title}: ${status === 0 ? 'fine' : 'FAILED'} after ${Math.round((Date.now() - started) / 1000)} s`,
      );
      resolve(status === 0);
    });
  });
}

async function inTurn(...steps) {
  const results = [];
  for (const step of steps) results.push(await step());
  return results;
}

function count(ok, title) {
  totals[ok ? 'passed' : 'failed']++;
  if (!ok) failures.push(title);
  return ok;
}

/** Adds what a runner counted; a runner that left no report, or failed without a failed test, counts as one failure. */
function countReport(title, file, ok, read) {
  if (!existsSync(file)) return count(false, `${title}: no report`);
  const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')));
  totals.passed += passed;
  totals.failed += failed.length;
  failures.push(...failed);
  if (!ok && failed.length === 0) count(false, `${title}: ended badly`);
}

/** What jest counted: its tests, and suites that could not be run. */
function readUnits({ numPassedTests, testResults }) {
  const told = ({ assertionResults, message, name }) => {
    const failed = assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName, failureMessages }) => `${fullName}\n${failureMessages.join('\n').slice(0, 2000)}`);
    return failed.length === 0 && assertionResults.length === 0 ? [`${name}\n${message.slice(0, 2000)}`] : failed;
  };
  return { passed: numPassedTests, failed: testResults.flatMap(told) };
}

/** What the browser tests counted: a test that was passed over has failed. */
function readBrowser({ stats, suites }) {
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)];
  const failed = suites
    .flatMap(specs)
    .flatMap(({ title, file, tests }) =>
      tests
        .filter(({ status }) => status !== 'expected' && status !== 'flaky')
        .map(({ projectName }) => `[${projectName}] ${file}: ${title}`),
    );
  return { passed: stats.expected + stats.flaky, failed };
}

rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });
const tool = (...args) => ['npx', ['--no-install', ...args]];
// Two at a time, one for each core: both take about as long.
const [[lint, types, coreTypes], [built, unused, format]] = await Promise.all([
  inTurn(
    () => run('Lint and the arrows between rooms', ...tool('eslint', '.', '--max-warnings', '0')),
    () => run('Types of the app', ...tool('tsc', '--noEmit')),
    () => run('Types of the core (no DOM, no Node)', ...tool('tsc', '--noEmit', '-p', 'src/core/tsconfig.json')),
  ),
  inTurn(
    () => run('Build', process.execPath, ['scripts/build.mjs']),
    () => run('Nothing that nobody uses', ...tool('knip', '--no-progress')),
    () => run('Format', ...tool('prettier', '--check', '--log-level', 'warn', '.')),
  ),
]);
count(lint, 'Lint');
count(format, 'Format');
count(unused, 'Nothing that nobody uses');
count(types, 'Types of the app');
count(coreTypes, 'Types of the core');

const units = await run(
  'Unit tests and reference checks',
  ...tool('jest', '--ci', '--maxWorkers=2', '--json', `--outputFile=${RESULTS}/unit.json`),
);
countReport('Unit tests', `${RESULTS}/unit.json`, units, readUnits);

if (count(built, 'Build')) {
  const browser = await run('Browser tests', ...tool('playwright', 'test'), {
    environment: { PLAYWRIGHT_JSON_OUTPUT_NAME: `${RESULTS}/browser.json` },
    alone: true,
  });
  countReport('Browser tests', `${RESULTS}/browser.json`, browser, readBrowser);
}

if (failures.length > 0) console.log(`\n== What failed\n${failures.join('\n')}`);

console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);
