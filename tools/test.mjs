// Everything that must hold, in one command: lint, format, dependency rules, types, unit tests, production build,
// first-load size, browser tests. The last line counts them all; each check that is not a test suite counts as one.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { ensureChromium, ensurePackages, run, runAside } from './shared.mjs';

if (ensurePackages() !== 0) process.exit(1);
const chromium = ensureChromium();
rmSync('test-results', { recursive: true, force: true });
mkdirSync('test-results', { recursive: true });

const total = { passed: 0, failed: 0, skipped: 0 };
const failures = [];
let secondTry = [];
/** As many browser tests may pass only at the second try; more, and each of them is a failure. */
const MOST_SHAKY = 5;

function counted(name, ok) {
  total[ok ? 'passed' : 'failed']++;
  if (!ok) failures.push(name);
  return ok;
}

function check(name, command, args) {
  console.log(`\n== ${name}`);
  return counted(name, run(command, args) === 0);
}

/**
 * Checks one after the other, beside other lanes; each is shown when it is over, so that their words do not mix. Gives
 * back whether all went well.
 */
async function lane(checks) {
  let well = true;
  for (const [name, command, args] of checks) {
    const { code, said } = await runAside(command, args);
    console.log(`\n== ${name}\n${said.trimEnd()}`);
    well = counted(name, code === 0) && well;
  }
  return well;
}

/** A test runner that writes its results as JSON; without results the whole suite counts as one failure. */
function suite(name, command, args, file, count, env = {}) {
  console.log(`\n== ${name}`);
  const code = run(command, args, env);
  try {
    const { passed, failed, skipped } = count(JSON.parse(readFileSync(file, 'utf8')));
    total.passed += passed;
    total.failed += failed;
    total.skipped += skipped;
    if (failed > 0) failures.push(`${name}: ${failed}`);
    if (code !== 0 && failed === 0) throw new Error('it ended with a failure that no test names');
  } catch (error) {
    total.failed++;
    failures.push(`${name}: ${error.message}`);
  }
}

check('derived files', 'node', ['tools/generate.mjs']);
// The linter keeps one processor busy for as long as the others together.
let built = false;
await Promise.all([
  lane([['lint', 'npx', ['eslint', '.']]]),
  (async () => {
    await lane([
      ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
      ['dependency rules', 'npm', ['run', '--silent', 'deps']],
      ['types', 'npm', ['run', '--silent', 'types']],
    ]);
    built = await lane([
      ['production build', 'npm', ['run', '--silent', 'build:web']],
      ['server build', 'npm', ['run', '--silent', 'build:server']],
    ]);
  })(),
]);
suite(
  'unit tests',
  'npx',
  ['jest', '--json', '--outputFile=test-results/jest.json'],
  'test-results/jest.json',
  (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests + r.numRuntimeErrorTestSuites,
    skipped: r.numPendingTests,
  }),
);
/** The names of the browser tests that passed only when they were tried again. */
function shaky({ suites = [], specs = [] }) {
  const own = specs
    .filter((spec) => spec.tests.some((t) => t.status === 'flaky'))
    .map((spec) => `${spec.file}: ${spec.title}`);
  return [...own, ...suites.flatMap(shaky)];
}

if (built) {
  check('first load', 'node', ['tools/first-load.mjs']);
  // Ten kills here; `npm run kill` does a hundred.
  check('kills', 'node', ['tools/kill.mjs', '10']);
  suite(
    'browser tests',
    'npx',
    // On a machine that does other things beside, a test may be late once. It is tried again and named; late twice is a
    // failure, and so is the third test that is late.
    ['playwright', 'test', '--retries=1'],
    'test-results/e2e.json',
    (report) => {
      secondTry = shaky(report);
      const { expected, unexpected, flaky, skipped } = report.stats;
      if (secondTry.length > MOST_SHAKY) return { passed: expected, failed: unexpected + flaky, skipped };
      return { passed: expected + flaky, failed: unexpected, skipped };
    },
    { E2E_JSON: 'test-results/e2e.json', CHROMIUM: chromium },
  );
}

if (secondTry.length > 0) {
  const verdict = secondTry.length > MOST_SHAKY ? `failures, for more than ${MOST_SHAKY} did` : 'to be looked into';
  console.log(`\n${secondTry.length} passed only at the second try, ${verdict}: ${secondTry.join('; ')}`);
}
if (failures.length > 0) console.log(`\nFailed: ${failures.join('; ')}`);
console.log(`\n${total.passed} passed, ${total.failed} failed${total.skipped > 0 ? `, ${total.skipped} skipped` : ''}`);
process.exit(total.failed > 0 ? 1 : 0);
