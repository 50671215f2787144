// Installs what is missing, builds, and serves the application with the demo shelf.
import { existsSync } from 'node:fs';
import { ensurePackages, run, startServer } from './shared.mjs';

if (ensurePackages() !== 0) process.exit(1);
const fresh = existsSync('dist/web/browser/index.html') && process.argv.includes('--built');
if (!fresh && run('npm', ['run', '--silent', 'build']) !== 0) process.exit(1);
const port = Number(process.env.PORT ?? 4300);
const server = await startServer(port, { OPEN_PATH: '/?shelf=demo' }).catch(() => process.exit(1));
console.log('The demo shelf is apart from your own. Ctrl C stops it.');
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
