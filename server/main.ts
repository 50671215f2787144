import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';

/** How long answers under way may take to finish when the server is told to stop, in milliseconds. */
const FINISH_WITHIN = 30_000;

const root = process.env['WEB_ROOT'] ?? join(fileURLToPath(new URL('.', import.meta.url)), '../web/browser');
const host = process.env['HOST'] ?? '127.0.0.1';
const path = process.env['OPEN_PATH'] ?? '/';
const asked = process.env['PORT'] ?? '4300';
const port = Number(asked);

function refuse(words: string): never {
  console.error(words);
  process.exit(1);
}

if (asked.trim() === '' || !Number.isInteger(port) || port < 0 || port > 65_535)
  refuse(`PORT is “${asked.slice(0, 40)}”. It must be a whole number from 0 to 65535, as in PORT=4300.`);
if (!existsSync(join(root, 'index.html')))
  refuse(`There is no built application in ${root}. Build it first: npm run build`);

const server = createServer(createApp(root));

server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE')
    refuse(`Port ${port} is taken. Stop what runs there, or choose another: PORT=${port + 1}`);
  if (error.code === 'EACCES') refuse(`Port ${port} may not be used by this user. Choose one above 1024: PORT=4300`);
  if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND')
    refuse(`HOST is “${host.slice(0, 80)}”, which is no address of this machine. Leave it out for this machine alone.`);
  refuse(error.message);
});

server.listen(port, host, () => {
  const address = server.address();
  const own = typeof address === 'object' && address ? address.port : port;
  console.log(`Loop Shelf: http://${host}:${own}${path}`);
  if (!['127.0.0.1', '::1', 'localhost'].includes(host))
    console.log(
      'Over plain http to another machine a browser withholds the microphone, MIDI, work without a network and storage that lasts. For those, put something that speaks https before it.',
    );
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    // Answers under way are finished; nobody new is let in.
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), FINISH_WITHIN).unref();
  });
}
