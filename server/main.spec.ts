import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:http';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';

/** The server as it is built, in a file of the test's own. */
const folder = mkdtempSync(join(__dirname, '../node_modules/.cache-server-'));
const file = join(folder, 'main.mjs');
const webRoot = mkdtempSync(join(tmpdir(), 'loop-shelf-web-'));
writeFileSync(join(webRoot, 'index.html'), '<p>page</p>');
writeFileSync(join(webRoot, 'slow.txt'), 'x'.repeat(20_000_000));
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

function start(port: number | string, env: Record<string, string> = {}): { process: ChildProcess; said: () => string } {
  let text = '';
  const child = spawn('node', [file], { env: { ...process.env, PORT: String(port), WEB_ROOT: webRoot, ...env } });
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
  it.each([
    ['PORT that is no number', 'twelve', {}, 'PORT is “twelve”. It must be a whole number'],
    ['PORT beyond all', '99999', {}, 'It must be a whole number from 0 to 65535'],
    ['a build that is missing', '0', { WEB_ROOT: '/nowhere' }, 'There is no built application in /nowhere'],
    ['HOST that is no address here', '0', { HOST: '203.0.113.9' }, 'is no address of this machine'],
  ])('%s is said in words', async (_, port, env, words) => {
    const server = start(port, env);
    const [code] = (await once(server.process, 'exit')) as [number];
    expect([code, server.said().includes(words) ? words : server.said()]).toEqual([1, words]);
  });
  it('for other machines it says what a browser withholds there', async () => {
    const server = start('0', { HOST: '0.0.0.0' });
    for (let i = 0; i < 100 && !server.said().includes('https'); i++) await new Promise((r) => setTimeout(r, 50));
    expect(server.said()).toContain('a browser withholds the microphone, MIDI');
    server.process.kill('SIGTERM');
    await once(server.process, 'exit');
  });
  it('told to stop, it finishes an answer that is under way', async () => {
    const server = start(4378);
    for (let i = 0; i < 100 && !server.said().includes('http'); i++) await new Promise((r) => setTimeout(r, 50));
    const answer = await fetch('http://127.0.0.1:4378/slow.txt', { headers: { 'accept-encoding': 'identity' } });
    server.process.kill('SIGTERM');
    expect((await answer.text()).length).toBe(20_000_000);
    const [code] = (await once(server.process, 'exit')) as [number];
    expect(code).toBe(0);
  });
});
