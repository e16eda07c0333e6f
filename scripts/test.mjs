// Runs every test, or those whose paths are given, and closes with the line `N passed, N failed`.
import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { mkdtemp, readFile } from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { compiler, typeProjects } from './type-projects.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const out = await mkdtemp(join(tmpdir(), 'stylet-results-'));
const bin = (name) => join(root, 'node_modules/.bin', name);
const running = new Set();
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => running.forEach((child) => child.kill(signal)));

/** Begins a command; `ended` gives its exit code. */
function begin(command, args, options) {
  const child = spawn(command, args, { cwd: root, ...options });
  running.add(child);
  const ended = new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code, signal) => {
      running.delete(child);
      if (signal) process.exit(1);
      resolve(code ?? 1);
    });
  });
  return { child, ended };
}

const run = (command, args, env = {}) =>
  begin(command, args, { stdio: 'inherit', env: { ...process.env, ...env } }).ended;

/** The exit code of a command, and what it writes. */
async function outcome(command, args) {
  const { child, ended } = begin(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  const chunks = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => chunks.push(part));
  return { code: await ended, text: Buffer.concat(chunks).toString() };
}

/** What failed and why, in so many letters each. */
const failures = [];
const MOST_TOLD = 1500;

let passed = 0;
let failed = 0;
const count = (good, bad) => {
  passed += good;
  failed += bad;
};

/** Paths, or parts of them, of the only tests to run. */
const only = process.argv.slice(2);
const isForBrowser = (path) => /^e2e\b|\.spec\.ts/.test(path);
const onlyInJest = only.filter((path) => !isForBrowser(path));
const onlyInBrowser = only.filter(isForBrowser);
const isWhole = only.length === 0;

const checks = [
  ['eslint', [bin('eslint'), '.']],
  [
    'modules',
    [
      bin('depcruise'),
      '--config',
      '.dependency-cruiser.mjs',
      'core/src',
      'server/src',
      'web/src',
      'demo/src',
    ],
  ],
  ['prettier', [bin('prettier'), '--check', '--log-level=warn', '.']],
  ...typeProjects.map((project) => [
    `types of ${project}`,
    [join(root, compiler), '--noEmit', '-p', project],
  ]),
];
/** Checks take one processor each; their output comes whole, so that two side by side do not mix. */
async function check() {
  for (let next = checks.shift(); next; next = checks.shift()) {
    const [name, [command, ...args]] = next;
    const { code, text } = await outcome(command, args);
    count(code === 0 ? 1 : 0, code === 0 ? 0 : 1);
    console.log(`${text}${code === 0 ? 'ok' : 'FAILED'}: ${name}`);
  }
}
if (isWhole) await Promise.all(Array.from({ length: Math.min(4, availableParallelism()) }, check));

/** What a command has written as JSON; undefined where it came to nothing. */
const resultsIn = (path) => readFile(path, 'utf8').then(JSON.parse, () => undefined);

async function runJest() {
  const results = join(out, 'jest.json');
  await run(bin('jest'), ['--ci', '--json', `--outputFile=${results}`, '--silent', ...onlyInJest]);
  const jest = await resultsIn(results);
  if (jest) count(jest.numPassedTests, jest.numFailedTests + jest.numRuntimeErrorTestSuites);
  for (const { assertionResults } of jest?.testResults ?? [])
    for (const { status, fullName, failureMessages } of assertionResults)
      if (status === 'failed') tell(fullName, failureMessages[0]);
  // A path that fits no test is a mistake.
  if (!jest || jest.numTotalTestSuites === 0) count(0, 1);
}

async function runFaults() {
  const results = join(out, 'faults.json');
  const faults = ['--tsconfig', 'faults/tsconfig.json', 'faults/main.ts', '--leniency', '5'];
  await run(bin('tsx'), [...faults, '--results', results]);
  const harm = (await resultsIn(results)) ?? { passed: 0, failed: 1 };
  count(harm.passed, harm.failed);
}

async function runBrowser() {
  const results = join(out, 'playwright.json');
  await run(bin('playwright'), ['test', '-c', 'e2e', ...onlyInBrowser], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: results,
  });
  const playwright = await resultsIn(results);
  if (playwright) {
    const { expected, flaky, unexpected } = playwright.stats;
    count(expected + flaky, unexpected + playwright.errors.length);
    for (const { title } of playwright.suites.flatMap((suite) => endedIn(suite, 'flaky')))
      console.log(`FAILED ONCE, and passed when it was run again: ${title}`);
    for (const { title, why } of playwright.suites.flatMap((suite) => endedIn(suite, 'unexpected')))
      tell(title, why);
  } else count(0, 1);
}

if (isWhole || onlyInJest.length > 0) await runJest();
if (isWhole) await runFaults();
if (isWhole || onlyInBrowser.length > 0) await runBrowser();

/**
 * Tests of the browser that ended in a way: `unexpected`, or `flaky`, which passed only the second time; see
 * docs/decisions/0033-run-again.md. `why` is what the last run of them said.
 */
function endedIn({ file, specs, suites = [] }, status) {
  const own = specs.flatMap(({ title, tests }) => {
    const test = tests.find((one) => one.status === status);
    return test ? [{ title: `${file}: ${title}`, why: test.results.at(-1)?.error?.message }] : [];
  });
  return [...own, ...suites.flatMap((suite) => endedIn(suite, status))];
}

/** Says at the end what failed and why, where the last lines are all that is kept of a run. */
function tell(title, why = '') {
  // eslint-disable-next-line no-control-regex
  const plain = why.replace(/\u001b\[[0-9;]*m/g, '').trim();
  failures.push(`FAILED: ${title}\n${plain.slice(0, MOST_TOLD)}`);
}

for (const failure of failures) console.log(failure);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
