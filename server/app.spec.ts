import { mkdtempSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { createApp } from './app';

let server: Server;
let base: string;

beforeAll(async () => {
  const root = mkdtempSync(join(tmpdir(), 'loop-shelf-'));
  writeFileSync(join(root, 'index.html'), '<p>page</p>');
  const code = `x;${' '.repeat(3000)}`;
  writeFileSync(join(root, 'main-ABCD1234.js'), code);
  writeFileSync(join(root, 'main-ABCD1234.js.br'), brotliCompressSync(code));
  writeFileSync(join(root, 'main-ABCD1234.js.gz'), gzipSync(code));
  writeFileSync(join(root, 'ngsw-worker.js'), code);
  server = createServer(createApp(root));
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

describe('the server', () => {
  it('answers that it is well', async () =>
    expect(await (await fetch(`${base}/healthz`)).json()).toEqual({ ok: true }));
  it('gives the page to every place, never from an old cache', async () => {
    const answer = await fetch(`${base}/bench/some-phrase`, { headers: { accept: 'text/html' } });
    expect(await answer.text()).toBe('<p>page</p>');
    expect(answer.headers.get('cache-control')).toBe('no-cache');
  });
  it.each(['br', 'gzip', 'identity'])('keeps hashed files for a year, as %s', async (encoding) => {
    const answer = await fetch(`${base}/main-ABCD1234.js`, { headers: { 'accept-encoding': encoding } });
    expect(answer.headers.get('cache-control')).toContain('immutable');
    expect(answer.headers.get('content-encoding')).toBe(encoding === 'identity' ? null : encoding);
    expect(answer.headers.get('content-type')).toContain('javascript');
    expect((await answer.text()).trim()).toBe('x;');
  });
  it('asks anew for a file whose name does not tell what is in it', async () =>
    expect((await fetch(`${base}/ngsw-worker.js`)).headers.get('cache-control')).toBe('no-cache'));
  it('says of a missing file that it is missing', async () =>
    expect((await fetch(`${base}/gone.js`)).status).toBe(404));
  it('allows no code from strings, none inline, and nothing from elsewhere', async () => {
    const policy =
      (await fetch(base, { headers: { accept: 'text/html' } })).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toMatch(/unsafe-eval|script-src[^;]*unsafe-inline|https?:/);
  });
  it.each(['/%', '/%E0%A4%A', '/bench/%'])(
    'says shortly that %s cannot be read, and nothing of how it is built',
    async (path) => {
      const answer = await fetch(base + path, { headers: { accept: 'text/html' } });
      const text = await answer.text();
      expect([answer.status, text]).toEqual([400, 'This address cannot be read.']);
    },
  );
  it('gives the page to a phrase with a dot in its address', async () =>
    expect(await (await fetch(`${base}/bench/rope.2`, { headers: { accept: 'text/html' } })).text()).toBe(
      '<p>page</p>',
    ));
  it('lets text become code only through named policies', async () => {
    const policy =
      (await fetch(base, { headers: { accept: 'text/html' } })).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("require-trusted-types-for 'script'");
    expect(policy).toMatch(/trusted-types angular angular#components default(;|$)/);
  });
});
