// What is worth knowing before a commit, in a minute or so: format, lint, types and rules of what changed, and the unit
// tests that know it. Everything else is `npm test`.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { runAside } from './shared.mjs';

const since = process.argv[2] ?? 'HEAD';
const git = (...args) => spawnSync('git', args, { encoding: 'utf8' }).stdout.split('\n').filter(Boolean);
const changed = [
  ...new Set([...git('diff', '--name-only', since), ...git('ls-files', '--others', '--exclude-standard')]),
].filter((f) => existsSync(f));
if (changed.length === 0) {
  console.log(`Nothing changed since ${since}.`);
  process.exit(0);
}
const code = changed.filter((f) => /\.(ts|html)$/.test(f));
const tested = changed.filter((f) => f.endsWith('.ts') && !f.startsWith('e2e/'));

let failed = false;
/** Steps one after the other; each is shown when it is over. */
async function lane(steps) {
  for (const [name, command, args] of steps) {
    const begun = performance.now();
    const { code: exit, said } = await runAside(command, args);
    const seconds = ((performance.now() - begun) / 1000).toFixed(0);
    console.log(
      `== ${name}: ${exit === 0 ? 'good' : 'not good'}, ${seconds} s${exit === 0 ? '' : `\n${said.trimEnd()}`}`,
    );
    failed ||= exit !== 0;
  }
}

await Promise.all([
  lane([
    ['types', 'npm', ['run', '--silent', 'types']],
    ['rules', 'npm', ['run', '--silent', 'deps']],
  ]),
  lane([
    ['format', 'npx', ['prettier', '--check', '--ignore-unknown', '--log-level', 'warn', ...changed]],
    ...(code.length > 0 ? [['lint', 'npx', ['eslint', ...code]]] : []),
  ]),
]);
if (tested.length > 0)
  await lane([['unit tests', 'npx', ['jest', '--silent', '--passWithNoTests', '--findRelatedTests', ...tested]]]);
process.exit(failed ? 1 : 0);
