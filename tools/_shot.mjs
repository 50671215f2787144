import { chromium } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { ensureChromium, startServer } from './shared.mjs';
const port = 4399;
const server = await startServer(port);
const browser = await chromium.launch({ executablePath: ensureChromium(), args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
page.on('console', (m) => m.type() === 'error' && console.log('ERR', m.text().slice(0, 300)));
page.on('pageerror', (e) => console.log('PAGE', String(e).slice(0, 300)));
mkdirSync('/tmp/shots', { recursive: true });
const shot = (name) => page.screenshot({ path: `/tmp/shots/${name}.png` });
try { const { steps } = await import(process.argv[2]); await page.goto(`http://127.0.0.1:${port}/?shelf=demo`); await page.waitForTimeout(2500); await steps({ page, shot, base: `http://127.0.0.1:${port}` }); }
catch (e) { console.log('FAILED', e.message.slice(0, 600)); }
finally { await browser.close(); await server.stop?.(); server.kill?.(); process.exit(0); }
