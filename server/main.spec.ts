import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:http';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';

/** The server as it is built, in a file of the test's own. */
const folder = mkdtempSync(join(__dirname, '../node_modules/.cache-server-'));
const file = join(folder, 'main.mjs');
beforeAll(() => {
  buildSync({
    entryPoints: [join(__dirname, 'main.ts')],
    outfile: file,
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
  });
});

afterAll(() => rmSync(folder, { recursive: true }));

function start(port: number): { process: ChildProcess; said: () => string } {
  let text = '';
  const child = spawn('node', [file], { env: { ...process.env, PORT: String(port), WEB_ROOT: tmpdir() } });
  child.stdout.on('data', (d: Buffer) => (text += d.toString()));
  child.stderr.on('data', (d: Buffer) => (text += d.toString()));
  return { process: child, said: () => text };
}

describe('starting and stopping', () => {
  it('is built', () => expect(existsSync(file)).toBe(true));
  it('a port that is taken is said with what to do', async () => {
    const other = createServer();
    await new Promise<void>((r) => other.listen(0, '127.0.0.1', r));
    const { port } = other.address() as AddressInfo;
    const server = start(port);
    const [code] = (await once(server.process, 'exit')) as [number];
    expect(code).toBe(1);
    expect(server.said()).toContain(`Port ${port} is taken.`);
    other.close();
  });
  it('stops cleanly when it is told to', async () => {
    const server = start(4377);
    for (let i = 0; i < 100 && !server.said().includes('http'); i++) await new Promise((r) => setTimeout(r, 50));
    expect(server.said()).toContain('http://127.0.0.1:4377/');
    server.process.kill('SIGTERM');
    const [code] = (await once(server.process, 'exit')) as [number];
    expect(code).toBe(0);
  });
});
