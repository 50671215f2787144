import { createServer } from 'node:http';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';

const root = process.env['WEB_ROOT'] ?? join(fileURLToPath(new URL('.', import.meta.url)), '../web/browser');
const port = Number(process.env['PORT'] ?? 4300);
const host = process.env['HOST'] ?? '127.0.0.1';
const path = process.env['OPEN_PATH'] ?? '/';

const server = createServer(createApp(root));

server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE')
    console.error(`Port ${port} is taken. Stop what runs there, or choose another: PORT=${port + 1}`);
  else if (error.code === 'EACCES')
    console.error(`Port ${port} may not be used by this user. Choose one above 1024: PORT=4300`);
  else console.error(error.message);
  process.exitCode = 1;
});

server.listen(port, host, () => {
  console.log(`Loop Shelf: http://${host}:${port}${path}`);
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
}
