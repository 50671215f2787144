// What several of the tools need: running a step, and a server of the built application.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';

/** Runs a command and shows what it says. Gives back its exit code. */
export function run(command, args, env = {}) {
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  return status ?? 1;
}

/** Runs a command beside others. Resolves with its exit code and all it said. */
export function runAside(command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args);
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
    child.on('error', (error) => resolve({ code: 1, said: String(error) }));
    child.on('close', (code) => resolve({ code: code ?? 1, said }));
  });
}

/** Installs the packages of the lock file where they are missing. */
export function ensurePackages() {
  if (existsSync('node_modules/@angular/core') && existsSync('node_modules/.package-lock.json')) return 0;
  console.log('Installing packages (npm ci) …');
  return run('npm', ['ci', '--no-audit', '--no-fund']);
}

/**
 * Where a Chromium is, installed from Debian's packages if there is none. The one without a window of its own runs the
 * same tests in less time, and is the smaller package.
 */
export function ensureChromium() {
  const known = [
    process.env.CHROMIUM,
    '/usr/bin/chromium-headless-shell',
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
  ].find((p) => p && existsSync(p));
  if (known) return known;
  console.log('Installing Chromium (apt) …');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) =>
    run([...sudo, 'apt-get'][0], [...sudo.slice(1), ...(sudo.length ? ['apt-get'] : []), ...args]);
  apt('update', '-qq');
  if (apt('install', '-y', '-qq', 'chromium-headless-shell') === 0 && existsSync('/usr/bin/chromium-headless-shell'))
    return '/usr/bin/chromium-headless-shell';
  if (apt('install', '-y', '-qq', 'chromium') !== 0)
    throw new Error('Chromium is missing and could not be installed: set CHROMIUM to the path of one.');
  return '/usr/bin/chromium';
}

/** The scripts that a built script imports at once. */
export function importsOf(code) {
  const imports = /(?:^|[;}\s])(?:import|export)(?:[^'"()]*?from)?\s*["']\.\/([^"']+\.js)["']/g;
  return [...code.matchAll(imports)].map((m) => m[1]);
}

/** Built scripts with all that they import at once, each once. */
export function importedAtOnce(root, names) {
  const seen = new Set();
  const queue = [...names];
  while (queue.length > 0) {
    const name = queue.pop().replace(/^\.?\//, '');
    if (seen.has(name)) continue;
    seen.add(name);
    queue.push(...importsOf(readFileSync(`${root}/${name}`, 'utf8')));
  }
  return [...seen];
}

/** Starts the built application and resolves when it answers. */
export async function startServer(port, env = {}) {
  const server = spawn('node', ['dist/server/main.mjs'], {
    stdio: 'inherit',
    env: { ...process.env, PORT: String(port), ...env },
  });
  for (let i = 0; i < 100; i++) {
    if (server.exitCode !== null) throw new Error('the server did not start');
    const up = await fetch(`http://127.0.0.1:${port}/healthz`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return server;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error('the server did not answer');
}
